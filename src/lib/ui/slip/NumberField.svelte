<script lang="ts">
  interface Props {
    label: string;
    /** Undefined if nothing is known yet: the field is empty. */
    value: number | undefined;
    least: number;
    most: number;
    /** What stands behind the figure. */
    unit?: string;
    whole?: boolean;
    onchange: (value: number, wrong: boolean) => void;
  }
  let { label, value, least, most, unit = '', whole = false, onchange }: Props = $props();
  const id = $props.id();
  let typed = $state<string | undefined>();
  const shown = $derived(typed ?? (value === undefined ? '' : String(Math.round(value * 1000) / 1000)));
  const wrong = $derived(typed !== undefined && !fine(read(typed)));
  function read(text: string): number {
    return /^\s*-?\d+(?:[.,]\d+)?\s*$/.test(text) ? Number(text.replace(',', '.')) : NaN;
  }
  function fine(number: number): boolean {
    return number >= least && number <= most && (!whole || Number.isInteger(number));
  }
  function set(text: string): void {
    typed = text;
    const number = read(text);
    onchange(fine(number) ? number : (value ?? least), !fine(number));
  }
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <div class="figure" class:bad={wrong}>
    <input
      {id}
      class="mono"
      value={shown}
      inputmode="decimal"
      autocomplete="off"
      aria-invalid={wrong}
      oninput={(event) => set(event.currentTarget.value)}
      onblur={() => !wrong && (typed = undefined)}
      onfocus={(event) => event.currentTarget.select()}
    />
    {#if unit}<span class="mono quiet">{unit}</span>{/if}
  </div>
  {#if wrong}<p class="wrong" role="alert">{whole ? 'A whole number' : 'A number'} from {least} to {most}.</p>{/if}
</div>

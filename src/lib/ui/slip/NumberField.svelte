<script lang="ts">
  import { writeNumber } from '../../core/measure/decimalSign';
  import { untrack } from 'svelte';
  import { parseNumber } from '../../core/measure/parseNumber';
  import { sayWrongNumber } from '../../words/numberField';

  interface Props {
    label: string;
    /** Undefined if nothing is known yet, or nothing is said: the field is empty. */
    value: number | undefined;
    least: number;
    most: number;
    /** What stands behind the figure. */
    unit?: string;
    whole?: boolean;
    /** What is counted, as the sentence for a wrong number has it. */
    of?: string;
    placeholder?: string;
    /** Label and field stand in one line. */
    inline?: boolean;
    /** Takes a number that can be used; the last one, with `wrong`, while what is typed cannot. */
    onchange: (value: number, wrong: boolean) => void;
    /** Takes that nothing is said; where it is missing something must be. */
    onempty?: () => void;
  }
  let { label, value, least, most, unit = '', whole = false, of, placeholder, inline = false, onchange, onempty }: Props = $props();
  const id = $props.id();
  let typed = $state<string | undefined>();
  let sent: number | undefined;
  const wrong = $derived(typed === undefined ? '' : (sayWrongNumber(typed, { least, most, whole, of, optional: !!onempty }) ?? ''));
  /** What stood there before anything was typed: it stands again behind what cannot be used. */
  let began: number | undefined;
  // A value that changes from elsewhere replaces what was typed.
  $effect.pre(() => {
    if (value === sent) return;
    sent = value;
    if (untrack(() => wrong) && value === began) return;
    typed = undefined;
  });
  const shown = $derived(typed ?? (value === undefined ? '' : writeNumber(Math.round(value * 1000) / 1000)));

  function set(text: string): void {
    typed = text;
    const number = parseNumber(text);
    if (wrong || typeof number === 'string') {
      if (!wrong) {
        sent = undefined;
        onempty?.();
      } else onchange(value ?? least, true);
      return;
    }
    sent = number;
    onchange(number, false);
  }
  /** Arrow keys count by one, with Shift by ten. */
  function nudge(event: KeyboardEvent): void {
    if (value === undefined || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    const by = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1);
    set(String(Math.min(most, Math.max(least, Math.round((value + by) * 1000) / 1000))));
  }
</script>

<div class:inline>
  <label class="label" for={id}>{label}</label>
  <div class="figure" class:bad={wrong}>
    <input
      {id}
      class="mono"
      value={shown}
      {placeholder}
      inputmode={whole ? 'numeric' : 'decimal'}
      role={whole ? 'spinbutton' : undefined}
      aria-valuenow={whole ? value : undefined}
      aria-valuemin={whole ? least : undefined}
      aria-valuemax={whole && Number.isFinite(most) ? most : undefined}
      onkeydown={nudge}
      autocomplete="off"
      aria-invalid={!!wrong}
      aria-describedby="{id}-wrong"
      oninput={(event) => set(event.currentTarget.value)}
      onblur={() => !wrong && (typed = undefined)}
      onfocus={(event) => {
        began = value;
        event.currentTarget.select();
      }}
    />
    {#if unit}<span class="mono quiet">{unit}</span>{/if}
  </div>
  {#if wrong}<p class="wrong" id="{id}-wrong" role="alert">{wrong}</p>{/if}
</div>

<style>
  .inline {
    display: grid;
    grid-template-columns: auto 70px;
    gap: 0 6px;
    align-items: center;
  }
  .inline .label {
    margin: 0;
  }
  .inline .wrong {
    grid-column: 1 / -1;
  }
</style>

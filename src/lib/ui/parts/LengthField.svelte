<script lang="ts">
  import { untrack } from 'svelte';
  import { formatFigure, UNIT_SIGN } from '../../core/measure/formatLength';
  import { LengthError, parseLength } from '../../core/measure/parseLength';
  import { NUDGE, type Unit } from '../../core/measure/unit';
  import { sayLengthError, sayNoLength } from '../../words/lengths';

  interface Props {
    label: string;
    /** Points; undefined while what is typed cannot be used. */
    value: number | undefined;
    unit: Unit;
    /** Pixels an inch, where lengths may be typed in `px`. */
    ppi?: number;
    /** Says why a length in points will not do. */
    check?: (points: number) => string | undefined;
    onchange: (points: number | undefined) => void;
    id?: string;
  }
  let { label, value, unit, ppi, check, onchange, id }: Props = $props();

  let typed = $state<string | undefined>();
  let wrong = $state('');
  let sent: number | undefined;
  // What was typed was typed in the unit of then.
  let typedIn = untrack(() => unit);
  $effect.pre(() => {
    if (unit === typedIn) return;
    typedIn = unit;
    if (!wrong) typed = undefined;
  });
  /** What stood there before anything was typed: it stands again behind what cannot be used. */
  let began: number | undefined;
  // A value that changes from elsewhere replaces what was typed.
  $effect.pre(() => {
    if (value === undefined || value === sent) return;
    sent = value;
    if (untrack(() => wrong) && value === began) return;
    typed = undefined;
    wrong = '';
  });
  const own = $props.id();
  const shown = $derived(typed ?? (value === undefined ? '' : formatFigure(value, unit)));
  /** What was understood stands beside what is typed. */
  const understood = $derived(
    typed !== undefined && !wrong && value !== undefined && typed.trim() !== formatFigure(value, unit) ? `= ${formatFigure(value, unit)}` : '',
  );

  function read(text: string): void {
    typed = text;
    try {
      const points = parseLength(text, unit, ppi);
      wrong = sayNoLength(points, unit) ?? check?.(points) ?? '';
      sent = wrong ? sent : points;
      onchange(wrong ? undefined : points);
    } catch (error) {
      if (!(error instanceof LengthError)) throw error;
      wrong = sayLengthError(error);
      onchange(undefined);
    }
  }

  /** Arrow keys move the length by one of the unit, with Shift by ten. */
  function nudge(event: KeyboardEvent): void {
    if (value === undefined || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    const by = (event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1) * NUDGE[unit];
    read(formatFigure(value + by, unit));
  }

  function leave(): void {
    if (!wrong) typed = undefined;
  }
</script>

<div>
  <!-- What was understood stands beside the label: it comes and goes, and nothing below may move under the pointer. -->
  <div class="head">
    <label class="label" for={id ?? own}>{label}</label>{#if understood}<span class="mono quiet" title={understood}>{understood}</span>{/if}
  </div>
  <div class="figure" class:bad={wrong}>
    <input
      id={id ?? own}
      class="mono"
      value={shown}
      autocomplete="off"
      spellcheck="false"
      aria-invalid={!!wrong}
      aria-describedby="{own}-wrong"
      oninput={(event) => read(event.currentTarget.value)}
      onblur={leave}
      onkeydown={nudge}
      onfocus={(event) => {
        began = value;
        event.currentTarget.select();
      }}
    />
    <span class="mono quiet">{UNIT_SIGN[unit]}</span>
  </div>
  {#if wrong}<p class="wrong" id="{own}-wrong" role="alert">{wrong}</p>{/if}
</div>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    gap: 6px;
  }
  .head span {
    min-width: 0;
    overflow: hidden;
    font-size: 11.5px;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .head label {
    flex: none;
  }
</style>

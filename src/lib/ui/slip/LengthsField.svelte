<script lang="ts">
  import { t } from '../../words/language';
  import { formatFigure } from '../../core/measure/formatLength';
  import { LengthError, parseLengths } from '../../core/measure/parseLength';
  import type { Unit } from '../../core/measure/unit';
  import { sayLengthError } from '../../words/lengths';

  interface Props {
    label: string;
    /** Points; undefined if nothing is typed, and `placeholder` stands there. */
    value: readonly number[] | undefined;
    placeholder?: readonly number[];
    unit: Unit;
    /** How many there must be; any number up to 16 where left out. */
    count?: number;
    /** Undefined if nothing is typed any more, none if what is typed cannot be used. */
    onchange: (lengths: number[] | undefined, wrong: boolean) => void;
  }
  /** Several lengths joined by +, such as the widths of panels. */
  let { label, value, placeholder, unit, count, onchange }: Props = $props();
  const id = $props.id();
  const MOST = 16;
  let wrong = $state('');
  const said = (lengths: readonly number[]) => lengths.map((length) => formatFigure(length, unit)).join(' + ');

  function take(text: string): void {
    wrong = '';
    if (!text.trim() && placeholder) return onchange(undefined, false);
    try {
      const lengths = parseLengths(text, unit);
      if (count !== undefined && lengths.length !== count) wrong = t`${count} lengths are wanted, one for each panel; here are ${lengths.length}.`;
      else if (lengths.length > MOST) wrong = t`No more than ${MOST} panels.`;
      else if (lengths.some((length) => length <= 0)) wrong = t`A panel needs a width above 0.`;
      onchange(wrong ? undefined : lengths, !!wrong);
    } catch (error) {
      if (!(error instanceof LengthError)) throw error;
      wrong = sayLengthError(error);
      onchange(undefined, true);
    }
  }
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <input
    {id}
    class="field mono"
    placeholder={placeholder ? said(placeholder) : ''}
    value={value ? said(value) : ''}
    aria-invalid={!!wrong}
    onchange={(event) => take(event.currentTarget.value)}
  />
  {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
</div>

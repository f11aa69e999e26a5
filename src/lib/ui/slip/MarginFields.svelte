<script lang="ts" generics="Margins extends { head: number; foot: number; spine: number; fore: number; columns: number; gap: number }">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { stepKind } from '../../core/docket/steps';
  import { formatLength } from '../../core/measure/formatLength';
  import { widthOf, type Size } from '../../core/measure/box';
  import type { Unit } from '../../core/measure/unit';
  import { frontSide } from '../../core/pages/page';
  import type { Book } from '../../core/model/page';
  import { columnsOf } from '../../core/pages/margins';
  import LengthField from '../parts/LengthField.svelte';
  import Working from '../parts/Working.svelte';
  import NumberField from './NumberField.svelte';
  import EdgeFields from './EdgeFields.svelte';
  import { bookEdges } from './edges';

  interface Props {
    value: Margins;
    /** The trim that the margins lie in, if there is one. */
    trim?: Size;
    unit: Unit;
    book: Book;
    onchange: (value: Margins, wrong: boolean) => void;
  }
  let { value, trim, unit, book, onchange }: Props = $props();

  let wrong = $state({ edges: false, columns: false, gap: false });
  function set(field: keyof typeof wrong, change: Partial<Margins>, bad: boolean): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...value, ...change }, Object.values(wrong).some(Boolean));
  }
  function check(points: number, edge: 'head' | 'foot' | 'spine' | 'fore'): string | undefined {
    if (points < 0) return t`A margin lies inside the trim, so it cannot be less than 0.`;
    const across = edge === 'spine' || edge === 'fore';
    if (trim && points >= (across ? trim.width : trim.height))
      return t`The page is only ${formatLength(across ? trim.width : trim.height, unit)} there.`;
    return undefined;
  }
  const columns = $derived(trim ? columnsOf({ trim, margins: value, columns: { count: value.columns, gap: value.gap } }, frontSide(book)) : []);
</script>

<EdgeFields
  label={t`Margins, from the trim`}
  edges={bookEdges(book)}
  values={value}
  {unit}
  {check}
  onchange={(edges, bad) => set('edges', edges as Partial<Margins>, bad)}
/>
<div class="row">
  <NumberField
    whole
    least={1}
    label={t`Columns`}
    value={value.columns}
    most={limitsOf(stepKind('margins').schema, 'columns').most}
    of={t`columns`}
    onchange={(columns, bad) => set('columns', { columns } as Partial<Margins>, bad)}
  />
  <LengthField
    label={t`Gap between`}
    value={value.gap}
    {unit}
    check={(points) => (points < 0 ? t`A gap cannot be less than 0.` : undefined)}
    onchange={(gap) => set('gap', gap === undefined ? {} : ({ gap } as Partial<Margins>), gap === undefined)}
  />
</div>
{#if columns.length && widthOf(columns[0]!) > 0}
  <Working>
    <code
      >{t`${formatLength(columns.at(-1)!.x1 - columns[0]!.x0, unit)} between the margins`}{#if value.columns > 1}<br
        />{t`less ${value.columns - 1} × ${formatLength(value.gap, unit)}, ÷ ${value.columns} = ${formatLength(widthOf(columns[0]!), unit)} a column`}{/if}</code
    >
  </Working>
{/if}

<style>
  code {
    font: 12px/1.5 var(--mono);
  }
</style>

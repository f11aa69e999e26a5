<script lang="ts">
  import { t } from '../../words/language';
  import type { BorderFold } from '../../core/fold/fold';
  import { MOST_PANELS, withFoldAt, withPanels, type OwnPattern } from '../../core/fold/patterns';
  import { formatLength } from '../../core/measure/formatLength';
  import type { LeafletSheet } from '../../core/sheets/leaflet';
  import type { Bench } from '../bench.svelte';
  import { ownFolds } from '../kept.svelte';
  import KeptList from './KeptList.svelte';
  import LengthsField from './LengthsField.svelte';
  import NumberField from './NumberField.svelte';

  interface Props {
    bench: Bench;
    pattern: OwnPattern;
    /** The sheet as it lies, if there is one. */
    sheet: LeafletSheet | undefined;
    /** Pages are whole sides: folds can be anywhere. */
    bySide: boolean;
    /** Undefined while what is typed cannot be used. */
    onchange: (pattern: OwnPattern | undefined) => void;
  }
  /** The preparer's own folds: panels by their widths and heights, and the folds one after another; drawn, typed, kept. */
  let { bench, pattern, sheet, bySide, onchange }: Props = $props();
  const unit = $derived(bench.unit);
  const view = $derived(bench.sheets);
  /** The panels with the lengths they have on the sheet. */
  const laid = $derived<OwnPattern>(sheet ? { ...pattern, columns: [...sheet.columns], rows: [...sheet.rows] } : pattern);
  function draw(axis: BorderFold['axis']): void {
    if (view.drawing?.axis === axis) view.drawing = undefined;
    else view.drawing = { axis, take: (axis, at) => onchange(withFoldAt(laid, axis, at)) };
  }
  const flat = (): OwnPattern => {
    const sum = (lengths: readonly number[]) => lengths.reduce((all, each) => all + each, 0);
    return { ...laid, columns: [sum(laid.columns)], rows: [sum(laid.rows)], folds: [] };
  };
  // Whoever leaves these folds draws no more.
  $effect(() => () => (view.drawing = undefined));
  const setFold = (n: number, change: Partial<BorderFold>) =>
    onchange({ ...pattern, folds: pattern.folds.map((fold, m) => (m === n ? { ...fold, ...change } : fold)) });
  /** The next border from the left that is not folded yet. */
  function add(): void {
    const folded = pattern.folds.filter(({ axis }) => axis === 'vertical').map(({ border }) => border);
    const border = Array.from({ length: pattern.columns.length - 1 }, (_, n) => n + 1).find((n) => !folded.includes(n)) ?? 1;
    onchange({ ...pattern, folds: [...pattern.folds, { axis: 'vertical', border, moves: 'before', goes: 'under' }] });
  }
</script>

{#if bySide}
  <div class="draw">
    <span class="label">{t`Draw on the front of sheet 1`}</span>
    <button type="button" class="btn q small" aria-pressed={view.drawing?.axis === 'vertical'} onclick={() => draw('vertical')}
      >{t`upright folds`}</button
    >
    <button type="button" class="btn q small" aria-pressed={view.drawing?.axis === 'horizontal'} onclick={() => draw('horizontal')}
      >{t`level folds`}</button
    >
    <button type="button" class="link" disabled={!pattern.folds.length && pattern.columns.length === 1} onclick={() => onchange(flat())}
      >{t`begin flat`}</button
    >
  </div>
{/if}
{#each [['columns', t`Panels from the left`], ['rows', t`Panels from the foot`]] as const as [key, label] (key)}
  {#if bySide}
    <LengthsField {label} value={pattern[key]} {unit} onchange={(lengths) => onchange(lengths && { ...pattern, [key]: lengths })} />
  {:else}
    <!-- Each page is as large as its panel: only how many there are is said here. -->
    <NumberField
      label={key === 'columns' ? t`Panels across` : t`Panels down`}
      value={pattern[key].length}
      least={1}
      most={MOST_PANELS}
      whole
      onchange={(count, wrong) => onchange(wrong ? undefined : withPanels(pattern, key, count))}
    />
  {/if}
{/each}
<ol>
  {#each pattern.folds as fold, n (n)}
    {@const across = fold.axis === 'horizontal'}
    <li>
      <select
        class="field"
        aria-label={t`Fold ${n + 1}: border`}
        value="{fold.axis} {fold.border}"
        onchange={(event) => {
          const [axis, border] = event.currentTarget.value.split(' ') as [BorderFold['axis'], string];
          setFold(n, { axis, border: Number(border) });
        }}
      >
        {#each pattern.columns.slice(1) as _, border (border)}<option value="vertical {border + 1}">{border + 1} | {border + 2}</option>{/each}
        {#each pattern.rows.slice(1) as _, border (border)}<option value="horizontal {border + 1}">{t`row ${border + 1} / ${border + 2}`}</option
          >{/each}
      </select>
      <select
        class="field moves"
        aria-label={t`Fold ${n + 1}: what moves`}
        value={fold.moves}
        onchange={(event) => setFold(n, { moves: event.currentTarget.value as BorderFold['moves'] })}
      >
        <option value="before">{t`${across ? t`lower` : t`left`} part`}</option><option value="after"
          >{t`${across ? t`upper` : t`right`} part`}</option
        >
      </select>
      <select
        class="field"
        aria-label={t`Fold ${n + 1}: over or under`}
        value={fold.goes}
        onchange={(event) => setFold(n, { goes: event.currentTarget.value as BorderFold['goes'] })}
      >
        <option value="under">{t`under`}</option><option value="over">{t`over`}</option>
      </select>
      <button
        type="button"
        class="link"
        aria-label={t`Remove fold ${n + 1}`}
        onclick={() => onchange({ ...pattern, folds: pattern.folds.toSpliced(n, 1) })}>×</button
      >
    </li>
  {/each}
</ol>
<button type="button" class="link" disabled={pattern.folds.length >= 30 || pattern.columns.length < 2} onclick={add}>{t`one more fold`}</button>
<KeptList
  title={t`Kept folds`}
  store={ownFolds}
  now={laid}
  say={({ columns, folds }) =>
    t`${folds.length} folds, ${formatLength(
      columns.reduce((all, each) => all + each, 0),
      unit,
    )} wide`}
  none={t`None yet. Folds kept here are there for every job.`}
  onuse={({ settings }) => onchange(settings)}
/>

<style>
  .draw {
    display: grid;
    grid-template-columns: 1fr 1fr auto;
    gap: 6px;
    align-items: center;
  }
  .draw .label {
    grid-column: 1 / -1;
  }
  ol {
    display: grid;
    gap: 6px;
    margin: 0;
    padding-left: 20px;
    font: 12px var(--mono);
  }
  li {
    white-space: nowrap;
  }
  li select {
    width: 64px;
    padding: 2px;
    font: 12px var(--narrow);
  }
  li select.moves {
    width: 78px;
  }
</style>

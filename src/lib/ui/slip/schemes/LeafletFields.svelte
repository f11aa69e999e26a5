<script lang="ts">
  import { freshPattern, type FoldName } from '../../../core/fold/patterns';
  import { formatFigure, formatLength } from '../../../core/measure/formatLength';
  import { foldTrouble, leafletSheet } from '../../../core/sheets/leaflet';
  import { MOST_ALLOWANCE } from '../../../core/sheets/scheme';
  import { FOLD_NAME, sayFoldError } from '../../../words/press';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import LengthsField from '../LengthsField.svelte';
  import NumberField from '../NumberField.svelte';
  import OwnFolds from '../OwnFolds.svelte';
  import type { SchemeFieldsProps } from '../schemeDraft.svelte';

  let { draft, bench }: SchemeFieldsProps<'leaflet'> = $props();
  const scheme = $derived(draft.value);
  const unit = $derived(draft.unit);
  const sheet = $derived(leafletSheet(bench.shown.list, scheme));
  const trouble = $derived(sheet && foldTrouble(sheet));
  const NAMES = Object.keys(FOLD_NAME) as FoldName[];
  const choose = (fold: FoldName) => draft.set({ widths: undefined, pattern: freshPattern(fold, scheme.pattern, sheet) });
  const figure = (points: number) => formatFigure(points, unit);
</script>

<div>
  <label class="label" for="fold">Folded as</label>
  <select id="fold" class="field" value={scheme.pattern.fold} onchange={(event) => choose(event.currentTarget.value as FoldName)}>
    {#each NAMES as name (name)}<option value={name}>{FOLD_NAME[name]}</option>{/each}
  </select>
</div>
{#if scheme.pattern.fold === 'accordion' || scheme.pattern.fold === 'roll'}
  {@const pattern = scheme.pattern}
  <NumberField
    label="Panels"
    value={pattern.panels}
    least={3}
    most={pattern.fold === 'roll' ? 8 : 16}
    whole
    onchange={(value, wrong) => draft.take('panels', wrong ? undefined : value, (panels) => ({ pattern: { ...pattern, panels }, widths: undefined }))}
  />
{:else if scheme.pattern.fold === 'map'}
  {@const pattern = scheme.pattern}
  <div class="row">
    <NumberField
      label="Panels across"
      value={pattern.columns}
      least={2}
      most={16}
      whole
      onchange={(value, wrong) =>
        draft.take('columns', wrong ? undefined : value, (columns) => ({ pattern: { ...pattern, columns }, widths: undefined }))}
    />
    <NumberField
      label="down"
      value={pattern.rows}
      least={2}
      most={4}
      whole
      onchange={(value, wrong) => draft.take('rows', wrong ? undefined : value, (rows) => ({ pattern: { ...pattern, rows } }))}
    />
  </div>
{:else if scheme.pattern.fold === 'right-angle'}
  <Choice
    label="Pages"
    options={[
      ['8', '8'],
      ['16', '16'],
      ['32', '32'],
    ]}
    value={`${scheme.pattern.pages}`}
    onchange={(pages) => draft.set({ pattern: { fold: 'right-angle', pages: Number(pages) as 8 | 16 | 32 }, widths: undefined })}
  />
{:else if scheme.pattern.fold === 'own'}
  <OwnFolds
    {bench}
    pattern={scheme.pattern}
    {sheet}
    bySide={scheme.pages === 'sides'}
    onchange={(pattern) => draft.take('own', pattern, (given) => ({ pattern: given }))}
  />
{/if}
<Choice
  label="Each page is"
  options={[
    ['sides', 'a whole side'],
    ['panels', 'one panel'],
  ]}
  value={scheme.pages}
  onchange={(pages) => draft.set({ pages })}
/>
<Choice
  label="The first pages are the"
  options={[
    ['outside', 'outside'],
    ['inside', 'inside'],
  ]}
  value={scheme.first ?? 'outside'}
  onchange={(first) => draft.set({ first })}
/>
<LengthField
  label="Fold-in allowance"
  value={scheme.allowance}
  {unit}
  check={(points) =>
    points < 0
      ? 'An allowance cannot be less than 0.'
      : points > MOST_ALLOWANCE
        ? `More than ${formatLength(MOST_ALLOWANCE, unit)} is no allowance but another panel.`
        : undefined}
  onchange={(points) => draft.take('allowance', points, (allowance) => ({ allowance }))}
/>
{#if sheet && scheme.pages === 'sides' && scheme.pattern.fold !== 'own'}
  <LengthsField
    label="Panel widths, from the left of the front"
    value={scheme.widths}
    placeholder={sheet.worked.map(({ width }) => width)}
    {unit}
    count={sheet.columns.length}
    onchange={(widths, wrong) => draft.take('widths', wrong ? undefined : { widths }, (given) => given)}
  />
{/if}
{#if sheet}
  <div class="panels">
    <table>
      <tbody>
        {#each sheet.columns as width, n (n)}
          {@const worked = sheet.worked[n]}
          <tr>
            <td>panel {n + 1}</td>
            <td class="mono">{formatLength(width, unit)}</td>
            <td class="quiet">
              {#if worked?.off}{figure(worked.width)}: its share less {figure(worked.off)},
                {worked.because.some(({ against }) => 'meets' in against) ? 'it meets the other flap' : 'it folds in'}{:else}its share{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if trouble}<p class="wrong" role="alert">{sayFoldError(trouble, (points) => formatLength(points, unit))}</p>{/if}
  </div>
{/if}

<style>
  .panels {
    padding: 7px 10px;
    background: var(--card-2);
    font-size: 12.5px;
  }
  table {
    border-spacing: 0;
  }
  td {
    padding: 0 10px 0 0;
    vertical-align: top;
  }
  td:first-child {
    white-space: nowrap;
  }
  td.mono {
    white-space: nowrap;
  }
</style>

<script lang="ts">
  import { t } from '../../../words/language';
  import { foldKind, FOLDS, freshPattern, type FoldName } from '../../../core/fold/patterns';
  import { formatFigure, formatLength } from '../../../core/measure/formatLength';
  import { foldTrouble, leafletSheet } from '../../../core/sheets/leaflet';
  import { MOST_ALLOWANCE } from '../../../core/sheets/scheme';
  import { foldWords } from '../../../words/folds';
  import { sayFoldError } from '../../../words/press';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import LengthsField from '../LengthsField.svelte';
  import PlainForm from '../PlainForm.svelte';
  import OwnFolds from '../OwnFolds.svelte';
  import type { SchemeFieldsProps } from '../schemeDraft.svelte';

  let { draft, bench }: SchemeFieldsProps<'leaflet'> = $props();
  const scheme = $derived(draft.value);
  const unit = $derived(draft.unit);
  const sheet = $derived(leafletSheet(bench.shown.list, scheme));
  const trouble = $derived(sheet && foldTrouble(sheet));
  const choose = (fold: FoldName) => draft.set({ widths: undefined, pattern: freshPattern(fold, scheme.pattern, sheet) });
  const figure = (points: number) => formatFigure(points, unit);
</script>

<div>
  <label class="label" for="fold">{t`Folded as`}</label>
  <select id="fold" class="field" value={scheme.pattern.fold} onchange={(event) => choose(event.currentTarget.value as FoldName)}>
    {#each FOLDS as { kind } (kind)}<option value={kind}>{foldWords(kind).name}</option>{/each}
  </select>
</div>
{#if scheme.pattern.fold === 'own'}
  <OwnFolds
    {bench}
    pattern={scheme.pattern}
    {sheet}
    bySide={scheme.pages === 'sides'}
    onchange={(pattern) => draft.take(pattern, (given) => ({ pattern: given }))}
  />
{:else}
  <PlainForm
    schema={foldKind(scheme.pattern.fold).schema}
    words={foldWords(scheme.pattern.fold).fields ?? {}}
    value={scheme.pattern}
    apart={['fold']}
    {unit}
    list={bench.shown.list}
    onchange={(name, value, wrong) =>
      draft.take(wrong ? undefined : value, () => ({
        pattern: { ...scheme.pattern, [name]: value } as typeof scheme.pattern,
        widths: undefined,
      }))}
  />
{/if}
<Choice
  label={t`Each page is`}
  options={[
    ['sides', t`a whole side`],
    ['panels', t`one panel`],
  ]}
  value={scheme.pages}
  onchange={(pages) => draft.set({ pages })}
/>
<Choice
  label={t`The first pages are the`}
  options={[
    ['outside', t`outside`],
    ['inside', t`inside`],
  ]}
  value={scheme.first ?? 'outside'}
  onchange={(first) => draft.set({ first })}
/>
<LengthField
  label={t`Fold-in allowance`}
  value={scheme.allowance}
  {unit}
  check={(points) =>
    points < 0
      ? t`An allowance cannot be less than 0.`
      : points > MOST_ALLOWANCE
        ? t`More than ${formatLength(MOST_ALLOWANCE, unit)} is no allowance but another panel.`
        : undefined}
  onchange={(points) => draft.take(points, (allowance) => ({ allowance }))}
/>
{#if sheet && scheme.pages === 'sides' && scheme.pattern.fold !== 'own'}
  <LengthsField
    label={t`Panel widths, from the left of the front`}
    value={scheme.widths}
    placeholder={sheet.worked.map(({ width }) => width)}
    {unit}
    count={sheet.columns.length}
    onchange={(widths, wrong) => draft.take(wrong ? undefined : { widths }, (given) => given)}
  />
{/if}
{#if sheet}
  <div class="panels">
    <table>
      <tbody>
        {#each sheet.columns as width, n (n)}
          {@const worked = sheet.worked[n]}
          <tr>
            <td>{t`panel ${n + 1}`}</td>
            <td class="mono">{formatLength(width, unit)}</td>
            <td class="quiet">
              {#if worked?.off}{t`${figure(worked.width)}: its share less ${figure(worked.off)}, ${worked.because.some(({ against }) => 'meets' in against) ? t`it meets the other flap` : t`it folds in`}`}{:else}{t`its share`}{/if}
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

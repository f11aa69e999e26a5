<script lang="ts">
  import { t } from '../../../words/language';
  import { plural } from '../../../words/plural';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import { formatLength } from '../../../core/measure/formatLength';
  import { TOLERANCES } from '../../../core/measure/tolerances';
  import { addressOf, foldedOver, foldInWidth, panelsOf, workedPanels } from '../../../core/pages/panels';
  import { pickedOf } from '../../../core/select/selection';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import Working from '../../parts/Working.svelte';
  import NumberField from '../NumberField.svelte';
  import type { FieldsProps } from '../fields';
  import PagesField from '../PagesField.svelte';

  let { bench, step, before, onchange }: FieldsProps<'panel'> = $props();

  let wrong = $state({ count: false, width: false, allowance: false });
  function set(change: Partial<typeof step>, field?: keyof typeof wrong, bad = false): void {
    if (field) wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
  const on = $derived(pickedOf(step.pages, before)[0]);
  /** What the first new panel folds over. */
  const over = $derived(on === undefined || on >= before.pages.length ? undefined : foldedOver(on, before));
  const typed = $derived(step.width !== undefined);
  /** The panels that the step hangs, as they would be. */
  const made = $derived(bench.draft.trial ? panelsOf(bench.shown.list).filter(({ id }) => id.startsWith(`${step.id}:`)) : []);
  const leaves = $derived(new Set(made.map(({ leaf }) => leaf)).size);
  const workings = $derived(
    over
      ? workedPanels(
          made.filter(({ leaf }) => leaf === made[0]?.leaf),
          over.width,
          step.allowance,
        )
      : [],
  );
</script>

<div class="row">
  <NumberField
    whole
    least={1}
    label={t`Panels on each`}
    value={step.count}
    most={limitsOf(stepKind('panel').schema, 'count').most}
    of={t`panels`}
    onchange={(count, bad) => set({ count }, 'count', bad)}
  />
  <LengthField
    label={t`Fold-in allowance`}
    value={step.allowance}
    unit={bench.unit}
    check={(points) => (points < 0 ? t`An allowance cannot be less than 0.` : undefined)}
    onchange={(allowance) => set(allowance === undefined ? {} : { allowance }, 'allowance', allowance === undefined)}
  />
</div>
<Choice
  label={t`Folds in over its leaf’s`}
  options={[
    ['front', t`front`],
    ['back', t`back`],
  ]}
  value={step.folds}
  onchange={(folds) => set({ folds })}
/>
<Choice
  label={t`Width`}
  options={[
    ['worked', t`worked out`],
    ['typed', t`typed`],
  ]}
  value={typed ? 'typed' : 'worked'}
  onchange={(how) => {
    wrong = { ...wrong, width: false };
    if (how === 'typed') set({ width: foldInWidth(over?.width ?? 200, step.allowance) });
    else {
      const { width: _, ...rest } = step;
      onchange(rest, wrong.count || wrong.allowance);
    }
  }}
/>
{#if typed}
  <LengthField
    label={t`Width of each`}
    value={step.width}
    unit={bench.unit}
    check={(points) => (points <= 0 ? t`A panel is wider than 0.` : undefined)}
    onchange={(width) => set(width === undefined ? {} : { width }, 'width', width === undefined)}
  />
{:else if over && workings.length}
  <Working>
    {#each workings as { over: under, worked, width }, n (n)}
      <code
        >{t`${workings.length > 1 ? `${addressOf({ on: over.on, nth: over.nth + n })}: ` : ''}${formatLength(under, bench.unit)}, the ${n ? t`panel` : over.what} that it folds over, less ${formatLength(step.allowance, bench.unit)} = ${formatLength(worked, bench.unit)}`}{#if Math.abs(width - worked) > TOLERANCES.place}{t`; made ${formatLength(width, bench.unit)} wide, as the page that it shows`}{/if}</code
      >
    {/each}
  </Working>
{/if}
<Choice
  label={t`Shows`}
  options={[
    ['blank', t`blanks`],
    ['pages', t`pages of the list`],
  ]}
  value={step.show === undefined ? 'blank' : 'pages'}
  onchange={(what) => {
    if (what === 'pages') set({ show: 'last-1-last' });
    else {
      const { show: _, ...rest } = step;
      onchange(rest, Object.values(wrong).some(Boolean));
    }
  }}
/>
{#if step.show !== undefined}
  <PagesField label={t`Front and back in turn`} value={step.show} list={before} onchange={(show) => set({ show })} />
{/if}
{#if made.length}
  <p class="mono small">
    {t`${plural(leaves, 'leaf', 'leaves')} × ${step.count} = ${plural(made.length, 'panel')}, ${2 * made.length} faces`}
  </p>
{/if}
<p class="quiet small">
  {t`A panel is always two pages. It hangs on its leaf and changes no position${over ? t`: its faces are ${addressOf(over)} front and back` : ''}.`}
</p>

<style>
  code {
    display: block;
    font: 12px/1.5 var(--mono);
  }
</style>

<script lang="ts">
  import { writeNumber } from '../../../core/measure/decimalSign';
  import { t } from '../../../words/language';
  import { stepKind } from '../../../core/docket/steps';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { mm } from '../../../core/measure/unit';
  import { heightOf, widthOf } from '../../../core/measure/box';
  import { scanOf } from '../../../core/pages/straighten';
  import { pickedOf } from '../../../core/select/selection';
  import Choice from '../../parts/Choice.svelte';
  import Folded from '../../parts/Folded.svelte';
  import Measuring from '../../parts/Measuring.svelte';
  import type { FieldsProps } from '../fields';
  import NumberField from '../NumberField.svelte';

  let { bench, step, before, onchange }: FieldsProps<'straighten'> = $props();

  const scans = $derived(pickedOf(step.pages, before).map((index) => ({ index, scan: scanOf(before.pages[index]!, bench.surveys) })));
  /** Scans are measured in millimetres, or in inches where a job is: other units say less of paper. */
  const inches = $derived(bench.unit === 'in' || bench.unit === 'in-decimal');
  const said = $derived(inches ? 'in' : 'mm');
  const figure = (points: number): string => writeNumber(inches ? (points / 72).toFixed(2) : (points / mm(1)).toFixed(1));
  const measured = $derived(scans.flatMap(({ index, scan }) => (scan ? [{ index, scan }] : [])));
  const others = $derived(scans.length - measured.length);
</script>

<Choice
  label={t`Turned back`}
  options={[
    ['measured', t`as measured on each`],
    ['all', t`all alike`],
  ]}
  value={step.by === undefined ? 'measured' : 'all'}
  onchange={(how) => onchange({ ...step, by: how === 'all' ? (measured[0]?.scan.skew ?? 0) : undefined }, false)}
/>
{#if step.by !== undefined}
  <NumberField
    label={t`They lie clockwise by`}
    value={step.by}
    {...limitsOf(stepKind('straighten').schema, 'by')}
    unit="°"
    onchange={(by, wrong) => onchange({ ...step, by }, wrong)}
  />
{/if}
<label class="tick"
  ><input type="checkbox" checked={step.toPaper} onchange={(event) => onchange({ ...step, toPaper: event.currentTarget.checked }, false)} />
  {t`end them where the paper does, a fold in the middle`}</label
>
<label class="tick"
  ><input
    type="checkbox"
    checked={step.alike}
    disabled={!step.toPaper}
    onchange={(event) => onchange({ ...step, alike: event.currentTarget.checked }, false)}
  />
  {t`all of one size, where they are nearly`}</label
>
{#if measured.length}
  <Folded title={t`What was measured`} count={measured.length} open>
    <div class="listing">
      <table class="mono">
        <thead><tr><th>{t`page`}</th><th>{t`askew`}</th><th>{t`paper, ${said}`}</th><th>{t`fold at`}</th></tr></thead>
        <tbody>
          {#each measured as { index, scan: { skew, paper, fold, blank } } (index)}
            <tr
              ><td>{index + 1}</td><td>{blank ? t`blank` : `${writeNumber(skew.toFixed(2))}°`}</td><td
                >{figure(widthOf(paper))} × {figure(heightOf(paper))}</td
              ><td>{fold === undefined ? '–' : figure(fold)}</td></tr
            >
          {/each}
        </tbody>
      </table>
    </div>
  </Folded>
{/if}
<Measuring {bench} />
{#if others && !bench.measuring.length}
  <p class="quiet small">
    {t`${others === 1 ? t`One of these pages is` : t`${others} of these pages are`} no scan, and left as ${others === 1 ? t`it is` : t`they are`}.`}
  </p>
{/if}

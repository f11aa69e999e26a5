<script lang="ts">
  import { t } from '../../../words/language';
  import { inch } from '../../../core/measure/unit';
  import { PLAIN_BLEED } from '../../../core/docket/shapes';
  import { enlargeScale } from '../../../core/pages/enlarge';
  import { sideOf } from '../../../core/pages/page';
  import { pickedOf } from '../../../core/select/selection';
  import { sayPercent, sayWrongBleed } from '../../../words/lengths';
  import Choice from '../../parts/Choice.svelte';
  import Working from '../../parts/Working.svelte';
  import EdgeFields from '../EdgeFields.svelte';
  import { bookEdges } from '../edges';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'bleed'> = $props();

  const all = (points: number) => ({ head: points, foot: points, spine: points, fore: points });
  /** By how much the pages would be enlarged, least and most. */
  const scales = $derived.by(() => {
    const { head, foot, spine, fore } = step;
    const found = pickedOf(step.pages, before).flatMap((index) => {
      const page = { ...before.pages[index]!, bleed: { by: 'edge' as const, head, foot, spine, fore } };
      return enlargeScale(page, sideOf(index, before.book)) ?? [];
    });
    return found.length ? { least: Math.min(...found), most: Math.max(...found) } : undefined;
  });
</script>

<EdgeFields
  label={t`Bleed`}
  edges={bookEdges(before.book)}
  values={step}
  unit={bench.unit}
  check={(points) => sayWrongBleed(points, bench.unit)}
  onchange={(edges, wrong) => onchange({ ...step, ...edges }, wrong)}
/>
<div class="presets">
  <button type="button" class="link" onclick={() => onchange({ ...step, ...PLAIN_BLEED })}>{t`3 mm`}</button>
  <button type="button" class="link" onclick={() => onchange({ ...step, ...all(inch(0.125)) })}>{t`1/8 in`}</button>
  <button type="button" class="link" onclick={() => onchange({ ...step, spine: 0 })}>{t`none at the spine`}</button>
  <button type="button" class="link" onclick={() => onchange({ ...step, ...all(0) })}>{t`none`}</button>
</div>
<Choice
  label={t`Where the art does not reach it`}
  options={[
    ['leave', t`Leave`],
    ['mirror', t`Mirror`],
    ['enlarge', t`Enlarge`],
  ]}
  value={step.art ?? 'leave'}
  onchange={(art) => onchange({ ...step, art })}
/>
{#if step.art === 'mirror'}
  <p class="quiet small">{t`The art is reflected at its edge, in lines and curves, to fill what is missing.`}</p>
{:else if step.art === 'enlarge' && scales}
  <Working>
    {t`art at`}
    <span class="mono">{sayPercent(scales.least)}{scales.most - scales.least > 5e-5 ? t` to ${sayPercent(scales.most)}` : ''}</span
    >{t`, from the middle of the page, to reach the bleed on every edge that has one`}
  </Working>
{/if}

<style>
  .presets {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    font-size: 13px;
    margin-top: -6px;
  }
</style>

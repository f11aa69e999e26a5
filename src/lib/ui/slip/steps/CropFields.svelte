<script lang="ts">
  import { t } from '../../../words/language';
  import { cutsOf, cutToInk, type Cut } from '../../../core/docket/steps/crop';
  import { formatLength, formatSize } from '../../../core/measure/formatLength';
  import { edgesOf, sideOf, sidesOf } from '../../../core/pages/page';
  import { pickedOf } from '../../../core/select/selection';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import Working from '../../parts/Working.svelte';
  import EdgeFields from '../EdgeFields.svelte';
  import { bookEdges, pageSides } from '../edges';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'crop'> = $props();

  const cut = $derived(step.cut);
  const lengths = $derived(Object.fromEntries(Object.entries(cut).filter(([, value]) => typeof value === 'number')));
  const set = (next: Cut, wrong = false) => onchange({ ...step, cut: next }, wrong);
  const selected = $derived(pickedOf(step.pages, before));
  const first = $derived(selected[0]);
  const page = $derived(first === undefined ? undefined : before.pages[first]);
  /** What is cut off the first of the pages. */
  const off = $derived.by(() => {
    if (first === undefined) return undefined;
    try {
      return cutsOf(cut, selected, before, bench.surveys).get(first);
    } catch {
      return undefined;
    }
  });
  const check = (points: number) => (points < 0 ? t`A crop takes off, so it cannot be less than 0.` : undefined);

  function choose(by: Cut['by']): void {
    if (by === cut.by) return;
    const side = first === undefined ? 'right' : sideOf(first, before.book);
    const none = { head: 0, foot: 0, left: 0, right: 0 };
    const was = off ?? none;
    if (by === 'ink') set(cutToInk(before.book.facing));
    else if (by === 'side') set({ by, head: was.head, foot: was.foot, left: was.left, right: was.right });
    else set({ by, ...edgesOf(was, side) });
  }
  const kept = $derived(page && off && { width: page.trim.width - off.left - off.right, height: page.trim.height - off.head - off.foot });
  const beyond = $derived(cut.by === 'edge' && first !== undefined ? sidesOf(cut, sideOf(first, before.book)) : off);
</script>

<Choice
  label={t`Cut off`}
  options={[
    ['edge', t`mirrored`],
    ['side', t`alike`],
    ['ink', t`to the ink`],
  ]}
  value={cut.by}
  onchange={choose}
/>
{#if cut.by !== 'ink'}
  {#key cut.by}
    <EdgeFields
      label={cut.by === 'edge' ? t`At the edges, mirrored on left pages` : t`At the sides, the same on every page`}
      edges={cut.by === 'edge' ? bookEdges(before.book) : pageSides()}
      values={lengths as Record<string, number>}
      unit={bench.unit}
      apart
      {check}
      onchange={(lengths, wrong) => set({ ...cut, ...lengths } as Cut, wrong)}
    />
  {/key}
{:else}
  <LengthField
    label={t`Left round the ink`}
    value={cut.padding}
    unit={bench.unit}
    {check}
    onchange={(padding) => set({ ...cut, padding: padding ?? cut.padding }, padding === undefined)}
  />
  <Choice
    label={t`One box`}
    options={[
      ['all', t`for all of them`],
      ['each', t`for each page`],
    ]}
    value={cut.each ? 'each' : 'all'}
    onchange={(which) => set({ ...cut, each: which === 'each' })}
  />
  {#if !cut.each && before.book.facing}
    <label class="check"
      ><input type="checkbox" checked={cut.mirrored} onchange={(event) => set({ ...cut, mirrored: event.currentTarget.checked })} />
      {t`mirrored on left pages`}</label
    >
  {/if}
{/if}
<p class="quiet small">
  {t`Draw on a page, pull its handles, or move the crop with the arrow keys. What is cut off is only hidden:`} <em>{t`Uncrop`}</em>
  {t`brings it back, and as much of it as there is serves as bleed.`}
</p>
{#if page && kept && beyond && kept.width > 0 && kept.height > 0}
  <Working>
    <code
      >{t`page ${first! + 1}: ${formatSize(page.trim.width, page.trim.height, bench.unit)}`}<br
      />{t`less ${formatLength(beyond.left + beyond.right, bench.unit)} across, ${formatLength(beyond.head + beyond.foot, bench.unit)} up and down`}<br
      />= {formatSize(kept.width, kept.height, bench.unit)}</code
    >
  </Working>
{/if}

<style>
  .check {
    font-size: 12.5px;
  }
  code {
    font: 12px/1.5 var(--mono);
  }
</style>

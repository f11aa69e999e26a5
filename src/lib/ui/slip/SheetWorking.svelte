<script lang="ts">
  import { formatFigure, formatLength, formatSize } from '../../core/measure/formatLength';
  import type { SheetPlan } from '../../core/sheets/plan';
  import { readBack } from '../../core/sheets/readBack';
  import { runOf } from '../../core/sheets/run';
  import type { PressScheme } from '../../core/sheets/schemes';
  import { lengthAlong } from '../../core/sheets/leafStrip';
  import { leavesApart } from '../../core/sheets/stitched';
  import type { Bench } from '../bench.svelte';
  import Folded from '../parts/Folded.svelte';

  let { bench, plan, scheme }: { bench: Bench; plan: SheetPlan; scheme: PressScheme } = $props();
  const unit = $derived(bench.unit);
  const list = $derived(bench.shown.list);
  const pages = $derived(list.pages.length);
  const total = $derived(pages + plan.blanksAdded);
  /** A page's length across the spine. */
  const side = $derived(lengthAlong(plan.cell, list.book.spine));
  const apart = $derived(leavesApart(list));
  const stitched = $derived(scheme.kind === 'stitched' ? scheme : undefined);
  const once = $derived(stitched && (stitched.signature ?? 4) === 4 && plan.copies.across * plan.copies.up === 1);
  const longer = $derived(once && lengthAlong(plan.needed.trims, list.book.spine) > 2 * side + stitched!.gap + 0.01);
  /** The sheets put back into reading order: how many pages come where they were. */
  const inOrder = $derived(once ? readBack(plan, list.book.spine).filter((position, n) => position === n + 1).length : undefined);
  const run = $derived(runOf(plan, scheme));
  const blank = $derived(plan.blanksAdded ? `${pages} + ${plan.blanksAdded} blank = ` : '');
  const copies = $derived(plan.copies.across * plan.copies.up);
  /** How many sheets, and of what they are worked out. */
  const sheets = $derived.by(() => {
    const { sheetCount, piecesPerSheet } = plan;
    if (scheme.kind === 'stitched')
      return once || !apart
        ? `${blank}${total} pages ÷ ${scheme.signature ?? 4} = ${sheetCount}`
        : `${blank}${total} pages on ${sheetCount} sheets, those with fold-outs folded once`;
    if (scheme.kind !== 'signatures') return `${sheetCount}, ${piecesPerSheet} ${piecesPerSheet === 1 ? 'piece' : 'pieces'} on each`;
    const tipped = apart ? `, ${apart === 1 ? 'a leaf with fold-outs' : `${apart} leaves with fold-outs`} tipped in` : '';
    return `${blank}${total} pages in ${sheetCount - apart} signatures${tipped}`;
  });
  const sums = $derived(
    [`sheets: ${sheets}`, inOrder === total && 'all pages in order', run && `${run.all} sheets of paper`].filter(Boolean).join(' · '),
  );
  const grams = (weight: number) => `${weight < 10 ? weight.toFixed(2) : weight.toFixed(1)} g`;
</script>

<Folded title="Working" said={sums}>
  <dl>
    <dt>sheets</dt>
    <dd>{sheets}</dd>
    {#if copies > 1}
      <dt>copies</dt>
      <dd>{plan.copies.across} × {plan.copies.up} = {copies} a sheet</dd>
    {/if}
    <dt>{longer ? 'longest' : 'trims'}</dt>
    <dd>
      {longer
        ? 'a spread with its fold-outs = '
        : once
          ? `2 × ${formatFigure(side, unit)}${stitched!.gap ? ` + ${formatFigure(stitched!.gap, unit)}` : ''} = `
          : ''}{formatSize(plan.needed.trims.width, plan.needed.trims.height, unit)}
    </dd>
    <dt>with bleed</dt>
    <dd>{formatSize(plan.needed.bleeds.width, plan.needed.bleeds.height, unit)}</dd>
    <dt>with marks</dt>
    <dd>{formatSize(plan.needed.marks.width, plan.needed.marks.height, unit)}</dd>
    {#if inOrder !== undefined}
      <dt>read back</dt>
      <dd>{inOrder === total ? `all ${total} pages in order` : `${inOrder} of ${total} pages in order`}</dd>
    {/if}
    {#if stitched?.gap}
      <dt>leaf</dt>
      <dd>{formatLength(side, unit)} + half the gap = {formatLength(side + stitched.gap / 2, unit)}</dd>
    {/if}
    {#if run}
      <dt>{plan.apart ? 'of all sheets' : 'of each sheet'}</dt>
      <dd>{plan.gang || plan.apart ? '' : `${run.pieces} ÷ ${run.perSheet} = `}{run.net}, + {run.overs} overs = {run.sheets}</dd>
      <dt>paper</dt>
      <dd>{run.all} sheets</dd>
    {/if}
    {#if plan.cover}
      <dt>cover, flat</dt>
      <dd>{formatSize(plan.cover.size.width, plan.cover.size.height, unit)}</dd>
      <dt>spine</dt>
      <dd>{formatLength(plan.cover.spine.width, unit)}</dd>
    {/if}
    {#if run?.cover}
      <dt>for covers</dt>
      <dd>{run.cover.pieces} ÷ {run.cover.perSheet} = {run.cover.net}, + {run.cover.overs} overs = {run.cover.sheets}</dd>
    {/if}
    {#if run?.pieceGrams !== undefined}
      <dt>a piece weighs</dt>
      <dd>{grams(run.pieceGrams)}</dd>
    {/if}
  </dl>
</Folded>

<style>
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 1px 10px;
    margin: 4px 0 0;
  }
  dt {
    color: var(--ink-2);
  }
  dd {
    margin: 0;
    font: 12px/1.5 var(--mono);
    text-align: right;
  }
</style>

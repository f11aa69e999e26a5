<script lang="ts">
  import { t } from '../../words/language';
  import { plural } from '../../words/plural';
  import { formatFigure, formatLength, formatSize } from '../../core/measure/formatLength';
  import { writeNumber } from '../../core/measure/decimalSign';
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
  const blank = $derived(plan.blanksAdded ? t`${pages} + ${plan.blanksAdded} blank = ` : '');
  const copies = $derived(plan.copies.across * plan.copies.up);
  /** How many sheets, and of what they are worked out. */
  const sheets = $derived.by(() => {
    const { sheetCount, piecesPerSheet } = plan;
    if (scheme.kind === 'stitched')
      return once || !apart
        ? t`${blank}${total} pages ÷ ${scheme.signature ?? 4} = ${sheetCount}`
        : t`${blank}${total} pages on ${sheetCount} sheets, those with fold-outs folded once`;
    if (scheme.kind !== 'signatures') return t`${sheetCount}, ${plural(piecesPerSheet, 'piece')} on each`;
    const tipped = apart ? t`, ${apart === 1 ? t`a leaf with fold-outs` : t`${apart} leaves with fold-outs`} tipped in` : '';
    return t`${blank}${total} pages in ${sheetCount - apart} signatures${tipped}`;
  });
  const sums = $derived(
    [t`sheets: ${sheets}`, inOrder === total && t`all pages in order`, run && t`${run.all} sheets of paper`].filter(Boolean).join(' · '),
  );
  const grams = (weight: number) => `${writeNumber(weight.toFixed(weight < 10 ? 2 : 1))} g`;
</script>

<Folded title={t`Working`} said={sums}>
  <dl>
    <dt>{t`sheets`}</dt>
    <dd>{sheets}</dd>
    {#if copies > 1}
      <dt>{t`copies`}</dt>
      <dd>{t`${plan.copies.across} × ${plan.copies.up} = ${copies} a sheet`}</dd>
    {/if}
    <dt>{longer ? t`longest` : t`trims`}</dt>
    <dd>
      {longer
        ? t`a spread with its fold-outs = `
        : once
          ? `2 × ${formatFigure(side, unit)}${stitched!.gap ? ` + ${formatFigure(stitched!.gap, unit)}` : ''} = `
          : ''}{formatSize(plan.needed.trims.width, plan.needed.trims.height, unit)}
    </dd>
    <dt>{t`with bleed`}</dt>
    <dd>{formatSize(plan.needed.bleeds.width, plan.needed.bleeds.height, unit)}</dd>
    <dt>{t`with marks`}</dt>
    <dd>{formatSize(plan.needed.marks.width, plan.needed.marks.height, unit)}</dd>
    {#if inOrder !== undefined}
      <dt>{t`read back`}</dt>
      <dd>{inOrder === total ? t`all ${total} pages in order` : t`${inOrder} of ${total} pages in order`}</dd>
    {/if}
    {#if stitched?.gap}
      <dt>{t`leaf`}</dt>
      <dd>{t`${formatLength(side, unit)} + half the gap = ${formatLength(side + stitched.gap / 2, unit)}`}</dd>
    {/if}
    {#if run}
      <dt>{plan.apart ? t`of all sheets` : t`of each sheet`}</dt>
      <dd>{t`${plan.gang || plan.apart ? '' : `${run.pieces} ÷ ${run.perSheet} = `}${run.net}, + ${run.overs} overs = ${run.sheets}`}</dd>
      <dt>{t`paper`}</dt>
      <dd>{t`${run.all} sheets`}</dd>
    {/if}
    {#if plan.cover}
      <dt>{t`cover, flat`}</dt>
      <dd>{formatSize(plan.cover.size.width, plan.cover.size.height, unit)}</dd>
      <dt>{t`spine`}</dt>
      <dd>{formatLength(plan.cover.spine.width, unit)}</dd>
    {/if}
    {#if run?.cover}
      <dt>{t`for covers`}</dt>
      <dd>{t`${run.cover.pieces} ÷ ${run.cover.perSheet} = ${run.cover.net}, + ${run.cover.overs} overs = ${run.cover.sheets}`}</dd>
    {/if}
    {#if run?.pieceGrams !== undefined}
      <dt>{t`a piece weighs`}</dt>
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

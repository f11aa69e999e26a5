<script lang="ts">
  import { untrack } from 'svelte';
  import { formatFigure, formatLength, formatSize } from '../../core/measure/formatLength';
  import { STOCKS, stocksFor } from '../../core/paper/stock';
  import { nameSize } from '../../core/paper/sizes';
  import { sayPageLength } from '../../words/lengths';
  import type { Stitched } from '../../core/sheets/scheme';
  import type { Bench } from '../bench.svelte';
  import Choice from '../parts/Choice.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import { readBack } from '../../core/sheets/readBack';
  import Working from '../parts/Working.svelte';

  let { bench, stitched }: { bench: Bench; stitched: Stitched } = $props();
  let scheme = $state.raw<Stitched>(untrack(() => stitched));
  let wrong = $state<Record<string, boolean>>({});
  const bad = $derived(Object.values(wrong).some(Boolean));
  const changed = $derived(JSON.stringify(scheme) !== JSON.stringify(stitched));
  const unit = $derived(bench.unit);
  const stockName = $derived(nameSize(scheme.stock)?.name ?? '');
  const offered = $derived(STOCKS.some(({ name }) => name === stockName) ? stockName : '');

  // The docket moved under the form: undo, redo, a mend. The same scheme back from being saved is no move.
  let seen = untrack(() => stitched);
  $effect.pre(() => {
    if (JSON.stringify(stitched) === JSON.stringify(seen)) return;
    seen = stitched;
    scheme = seen;
    wrong = {};
  });

  const plan = $derived(bench.shown.plan);
  const pages = $derived(bench.shown.list.pages.length);

  function set(change: Partial<Stitched>): void {
    scheme = { ...scheme, ...change };
    bench.trial = bad ? undefined : { ...bench.docket, scheme };
  }
  function length(key: string, points: number | undefined, change: (points: number) => Partial<Stitched>): void {
    wrong = { ...wrong, [key]: points === undefined };
    if (points !== undefined) set(change(points));
  }
  function checkGap(points: number): string | undefined {
    if (points < 0) return 'A gap cannot be less than 0.';
    const most = Math.max(scheme.stock.width, scheme.stock.height);
    if (points >= most) return `Wider than the sheet, whose long side is ${formatLength(most, unit)}.`;
    return undefined;
  }
  function accept(event: SubmitEvent): void {
    event.preventDefault();
    if (changed && !bad) bench.put({ ...bench.docket, scheme });
  }
  function leave(): void {
    scheme = stitched;
    wrong = {};
    bench.leave();
  }
  /** Stock that takes trims, bleed and marks. */
  /** A page's length across the spine. */
  const head = $derived(bench.shown.list.book.spine === 'head');
  const side = $derived(plan ? (head ? plan.cell.height : plan.cell.width) : 0);
  /** The sheets put back into reading order: how many pages come where they were. */
  const total = $derived(plan ? pages + plan.blanksAdded : 0);
  const inOrder = $derived(plan ? readBack(plan, bench.shown.list.book.spine).filter((position, n) => position === n + 1).length : 0);
  const longer = $derived(
    plan && scheme.kind === 'stitched' && (head ? plan.needed.trims.height : plan.needed.trims.width) > 2 * side + scheme.gap + 0.01,
  );
  const takesAll = $derived(plan && new Set(stocksFor(plan.needed.marks).map(({ name }) => name)));
</script>

<form onsubmit={accept}>
  <div>
    <label class="label" for="stock">Sheet</label>
    <select
      id="stock"
      class="field"
      value={offered}
      onchange={(event) => {
        const stock = STOCKS.find(({ name }) => name === event.currentTarget.value);
        if (stock) {
          wrong = {};
          set({ stock: { width: stock.width, height: stock.height } });
        }
      }}
    >
      <option value="" disabled>own size</option>
      {#each STOCKS as stock (stock.name)}
        <option value={stock.name}
          >{stock.name} · {formatSize(stock.width, stock.height, unit)}{takesAll && !takesAll.has(stock.name) ? ' · too small' : ''}</option
        >
      {/each}
    </select>
  </div>
  <div class="row">
    <LengthField
      label="Sheet width"
      value={scheme.stock.width}
      {unit}
      check={sayPageLength}
      onchange={(points) => length('width', points, (width) => ({ stock: { ...scheme.stock, width } }))}
    />
    <LengthField
      label="Sheet height"
      value={scheme.stock.height}
      {unit}
      check={sayPageLength}
      onchange={(points) => length('height', points, (height) => ({ stock: { ...scheme.stock, height } }))}
    />
  </div>
  <Choice
    label="Sheet turns on its"
    options={[
      ['short-edge', 'short edge'],
      ['long-edge', 'long edge'],
    ]}
    value={scheme.turn}
    onchange={(turn) => set({ turn })}
  />
  <LengthField label="Gap at the fold" value={scheme.gap} {unit} check={checkGap} onchange={(points) => length('gap', points, (gap) => ({ gap }))} />
  <Choice
    label="Blanks that fill the last sheet"
    options={[
      ['before-last', 'before the back cover'],
      ['end', 'at the end'],
    ]}
    value={scheme.pad}
    onchange={(pad) => set({ pad })}
  />
  <div class="marks">
    <span class="label">Marks</span>
    <label
      ><input
        type="checkbox"
        checked={scheme.marks.trim}
        onchange={(event) => set({ marks: { ...scheme.marks, trim: event.currentTarget.checked } })}
      /> trim</label
    >
    <label
      ><input
        type="checkbox"
        checked={scheme.marks.fold}
        onchange={(event) => set({ marks: { ...scheme.marks, fold: event.currentTarget.checked } })}
      /> fold</label
    >
  </div>
  {#if changed || bad}
    <div class="btns">
      <button class="btn" disabled={bad}>Use this</button>
      <button class="btn q" type="button" onclick={leave}>Leave</button>
    </div>
  {/if}
  {#if plan}
    <Working>
      <dl>
        <dt>sheets</dt>
        <dd>{plan.blanksAdded ? `${pages} + ${plan.blanksAdded} blank = ` : ''}{pages + plan.blanksAdded} pages ÷ 4 = {plan.sheetCount}</dd>
        <dt>{longer ? 'longest' : 'spread'}</dt>
        <dd>
          {longer ? 'a spread with its fold-outs' : `2 × ${formatFigure(side, unit)}${scheme.gap ? ` + ${formatFigure(scheme.gap, unit)}` : ''}`} = {formatSize(
            plan.needed.trims.width,
            plan.needed.trims.height,
            unit,
          )}
        </dd>
        <dt>with bleed</dt>
        <dd>{formatSize(plan.needed.bleeds.width, plan.needed.bleeds.height, unit)}</dd>
        <dt>with marks</dt>
        <dd>{formatSize(plan.needed.marks.width, plan.needed.marks.height, unit)}</dd>
        <dt>read back</dt>
        <dd>{inOrder === total ? `all ${total} pages in order` : `${inOrder} of ${total} pages in order`}</dd>
        {#if scheme.gap}
          <dt>leaf</dt>
          <dd>{formatLength(side, unit)} + half the gap = {formatLength(side + scheme.gap / 2, unit)}</dd>
        {/if}
      </dl>
    </Working>
  {/if}
</form>

<style>
  .marks {
    display: flex;
    gap: 16px;
    align-items: baseline;
    font-size: 13px;
  }
  .btns {
    display: flex;
    gap: 8px;
  }
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

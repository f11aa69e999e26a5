<script lang="ts">
  import { t, translated } from '../../words/language';
  import { plural } from '../../words/plural';
  import { prefersReducedMotion, Tween } from 'svelte/motion';
  import type { Size } from '../../core/measure/box';
  import { formatSize } from '../../core/measure/formatLength';
  import { mm } from '../../core/measure/unit';
  import type { Cell } from '../../core/sheets/plan';
  import type { Bench } from '../bench.svelte';
  import type { SheetsLook } from '../sheetsView.svelte';
  import Mat from '../mat/Mat.svelte';
  import type { Zoom } from '../mat/camera.svelte';
  import { changeCell, swapCell } from '../slip/byHand';
  import { openMenu } from '../menu.svelte';
  import EmptyCard from '../parts/EmptyCard.svelte';
  import FoldDrawing from './FoldDrawing.svelte';
  import SheetFace from './SheetFace.svelte';
  import { beyondOf } from './beyondSheets';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  const view = $derived(bench.sheets);
  const plan = $derived(bench.shown.plan);
  const backed = $derived(!!plan?.sheets.some(({ back }) => back));
  const besides = $derived(plan?.turnAxis === 'vertical');
  const look = $derived<SheetsLook>(backed ? view.look : 'one');
  const both = $derived(look === 'both');
  /** Between front and back, and between one sheet and the next, as a share of the largest sheet. */
  const apart = $derived(Math.max(1, ...(plan?.sheets ?? []).flatMap(({ size }) => [size.width, size.height])) * 0.09);
  const columns = $derived(besides && both ? 1 : Math.min(2, plan?.sheets.length ?? 1));
  /** How far what lies on a sheet that is too small for it reaches beyond its edges, at most. */
  const beyond = $derived(beyondOf(plan?.sheets ?? []));
  const blocks = $derived(
    (plan?.sheets ?? []).map(({ size }) => {
      const [width, height] = [size.width + beyond.left + beyond.right, size.height + beyond.head + beyond.foot];
      return {
        width: (both && besides ? 2 * width + apart : width) + apart,
        height: (both && !besides ? 2 * height + 0.7 * apart : height) + apart,
      };
    }),
  );
  const block = $derived({ width: Math.max(1, ...blocks.map(({ width }) => width)), height: Math.max(1, ...blocks.map(({ height }) => height)) });
  const size = $derived({
    width: columns * block.width - apart,
    height: Math.ceil((plan?.sheets.length ?? 0) / columns) * block.height,
  });
  const places = $derived(
    (plan?.sheets ?? []).map((each, index) => {
      const x = (index % columns) * block.width + beyond.left;
      const y = Math.floor(index / columns) * block.height + beyond.head;
      const { width, height } = each.size;
      const [across, down] = [width + beyond.left + beyond.right + apart, height + beyond.head + beyond.foot + apart];
      return { each, index, x, y, width, height, back: besides ? { x: x + across, y } : { x, y: y + down } };
    }),
  );
  /** The back as it shows through the front: turned over about the sheet's turning axis. */
  const through = ({ width, height }: Size) => (besides ? `translate(${width} 0) scale(-1 1)` : `translate(0 ${height}) scale(1 -1)`);

  /** Whether the backs are up; turning over is animated. */
  let over = $state(false);
  const turning = new Tween(0, { duration: 450 });
  const shown = $derived(turning.current < 0.5 ? 'front' : 'back');
  function turnOver(): void {
    if (look !== 'one' || !backed) view.look = 'one';
    over = !over;
    void turning.set(over ? 1 : 0, prefersReducedMotion.current ? { duration: 0 } : {});
  }
  /** How a sheet looks while it is turned: narrower about its middle, along the axis. */
  function tilted({ width, height }: Size): string {
    const by = Math.max(0.01, Math.abs(Math.cos(Math.PI * turning.current)));
    return besides ? `translate(${(width * (1 - by)) / 2} 0) scale(${by} 1)` : `translate(0 ${(height * (1 - by)) / 2}) scale(1 ${by})`;
  }

  /** Which corner is looked at next. */
  let corner = 0;
  const AROUND = mm(24);
  /** Zooms in on one corner after another of the cell worked on, or of the first: marks, bleed and neighbours. */
  function nextCorner(): void {
    const { sheet = 1, side = 'front', cell = 1 } = view.cell ?? {};
    const place = places[sheet - 1];
    const drawn = place?.each[side] ?? place?.each.front;
    const trim = (drawn?.cells[cell - 1] ?? drawn?.cells[0])?.trim;
    if (!place || !trim) return;
    const from = both && side === 'back' ? place.back : place;
    const x = from.x + (corner % 3 ? trim.x1 : trim.x0);
    const y = from.y + place.height - (corner < 2 ? trim.y1 : trim.y0);
    corner = (corner + 1) % 4;
    mat?.lookAt({ x0: x - AROUND / 2, x1: x + AROUND / 2, y0: y - AROUND / 2, y1: y + AROUND / 2 });
  }

  const light = () => (view.look = look === 'light' ? 'both' : 'light');
  const looks = $derived([
    ...(backed
      ? [
          { word: t`Front and back`, on: look === 'both', act: () => (view.look = 'both') },
          { word: t`Hold to the light`, on: look === 'light', act: light },
          { word: t`Turn over`, on: look === 'one', act: turnOver },
        ]
      : []),
    { word: t`Zoom to corners`, on: undefined, act: nextCorner },
  ]);
  const KEYS: Record<string, () => void> = {
    l: () => backed && light(),
    o: () => backed && turnOver(),
    c: nextCorner,
  };
  function onkeydown(event: KeyboardEvent): void {
    const act = KEYS[event.key];
    if (event.ctrlKey || event.metaKey || event.altKey || !act || !plan) return;
    event.stopPropagation();
    act();
  }

  function pick(event: PointerEvent, sheet: number, side: 'front' | 'back', cell: Cell, index: number): void {
    if (event.button !== 0) return;
    const at = { sheet, side, cell: index + 1 };
    // A cover's sheet comes after those whose cells can be changed, and its pages are in no list.
    const ofBook = sheet <= plan!.sheetCount;
    if (view.onswap && ofBook) return view.onswap(at);
    view.cell = at;
    if (!ofBook) bench.selected.choose([]);
    else if (cell.page) bench.selected.chooseOne(cell.page.id, event);
  }
  /** What can be done by hand to the cell under the pointer. */
  function offer(event: MouseEvent): void {
    const on = event.target instanceof Element ? event.target.closest<SVGElement>('[data-cell]') : null;
    const [sheet, side, cell] = on?.dataset.cell?.split(' ') ?? [];
    if (!plan || !cell || (side !== 'front' && side !== 'back') || Number(sheet) > plan.sheetCount) return;
    const at = { sheet: Number(sheet), side, cell: Number(cell) } as const;
    const drawn = plan.sheets[at.sheet - 1]?.[side]?.cells[at.cell - 1];
    view.cell = at;
    openMenu(event, t`sheet ${at.sheet} ${translated(side)}, cell ${at.cell}`, [
      { word: t`Turn`, do: () => changeCell(bench, { do: 'turn', at }) },
      { word: t`Swap`, do: () => swapCell(bench, at) },
      { word: t`Leave out`, disabled: drawn?.hand === 'left-out', do: () => changeCell(bench, { do: 'leave-out', at }) },
    ]);
  }
  function pickNothing(): void {
    view.cell = undefined;
    view.onswap = undefined;
    bench.selected.choose([]);
  }
  const sizeOf = ({ width, height }: Size) => formatSize(width, height, bench.unit);
  const chosenOn = (sheet: number, side: 'front' | 'back') =>
    view.cell?.sheet === sheet && view.cell.side === side ? view.cell.cell - 1 : undefined;
  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

<div class="stage" role="region" aria-label={t`Sheets`} oncontextmenu={offer}>
  <Mat
    bind:this={mat}
    bind:zoom
    unit={bench.unit}
    width={size.width}
    height={size.height}
    fitTo="width"
    label={t`Sheets`}
    onempty={pickNothing}
    {onkeydown}
  >
    {#snippet children({ k, ...sight })}
      {@const px = 1 / k}
      {#each places as { each, index, x, y, width, height, back } (index)}
        {#if y + block.height > sight.y0 && y - apart < sight.y1 && x + block.width > sight.x0 && x < sight.x1}
          {@const name = t`Sheet ${index + 1}${each.name ? `, ${each.name}` : ''}`}
          {@const up = look === 'one' && each.back ? shown : 'front'}
          <g transform="translate({x} {y})">
            <g transform={look === 'one' && each.back ? tilted(each.size) : undefined}>
              <SheetFace
                {bench}
                at="{index + 1} {up}"
                drawn={each[up]!}
                sheet={each.size}
                name={look === 'light' ? t`${name}, held to the light` : each.back ? `${name} ${translated(up)}` : name}
                weight={plan?.weight}
                {k}
                above={beyond.head}
                chosen={chosenOn(index + 1, up)}
                behind={look === 'light' && each.back ? { drawn: each.back, transform: through(each.size) } : undefined}
                onpick={(event, cell, n) => pick(event, index + 1, up, cell, n)}
              />
            </g>
            {#if view.drawing && index === 0 && up === 'front' && each.front.cells[0]?.page}
              <FoldDrawing
                cell={each.front.cells[0]}
                {height}
                unit={bench.unit}
                {k}
                drawing={view.drawing}
                toSheet={(event) => {
                  const at = mat!.toMat(event);
                  return { x: at.x - x, y: at.y - y };
                }}
              />
            {/if}
          </g>
          {#if each.back && both}
            <g transform="translate({back.x} {back.y})">
              <SheetFace
                {bench}
                at="{index + 1} back"
                drawn={each.back}
                sheet={each.size}
                name={t`${name} back`}
                weight={plan?.weight}
                {k}
                above={beyond.head}
                chosen={chosenOn(index + 1, 'back')}
                onpick={(event, cell, n) => pick(event, index + 1, 'back', cell, n)}
              />
            </g>
            {#if (besides ? height : width) * k < 110}
              <!-- Too small to say it. -->
            {:else if besides}
              {@const at = x + width + beyond.right + apart / 2}
              <line class="turn" x1={at} x2={at} y1={y} y2={y + height} stroke-width={1.5 * px} stroke-dasharray="{2 * px} {5 * px}" />
              <text
                class="turnword"
                transform="translate({at + 4 * px} {y + height / 2}) rotate(90)"
                text-anchor="middle"
                style:font-size="{11 * px}px">{t`turns on this edge`}</text
              >
            {:else}
              {@const at = y + height + beyond.foot + apart / 2}
              <!-- Beside the back's name. -->
              <line
                class="turn"
                x1={x + 7 * t`${name} back`.length * px}
                x2={x + width}
                y1={at}
                y2={at}
                stroke-width={1.5 * px}
                stroke-dasharray="{2 * px} {5 * px}"
              />
              <text class="turnword" x={x + width / 2} y={at - 4 * px} text-anchor="middle" style:font-size="{11 * px}px"
                >{t`turns on this edge`}</text
              >
            {/if}
          {/if}
        {/if}
      {/each}
    {/snippet}
  </Mat>
  {#if plan}
    <!-- Below the mat, so that it covers no cell. -->
    <div class="strip">
      <div class="looks" role="toolbar" aria-label={t`How the sheets are looked at`}>
        {#each looks as { word, on, act } (word)}
          <button
            aria-pressed={on}
            onclick={() => {
              act();
              mat?.focus();
            }}>{word}</button
          >
        {/each}
      </div>
      <p>
        {t`${plural(plan.sheetCount, 'sheet')} of ${sizeOf(plan.sheet)}${plan.cover ? t`, the cover on ${sizeOf(plan.cover.plan.sheet)}` : ''}${backed ? (look === 'light' ? t`, each back seen through its front` : t`, printed on both sides`) : t`, printed on one side`}`}
      </p>
    </div>
  {:else if bench.shown.list.pages.length}
    <EmptyCard title={t`On no sheets`} text={t`These pages stay separate, so there is nothing to fold. Hand over writes them page by page.`}>
      <a class="btn" href="/jobs/{bench.id}/hand-over">{t`Hand over`}</a>
    </EmptyCard>
  {:else}
    <EmptyCard title={t`No pages, no sheets`} text={t`Take in a file first; the sheets then work themselves out.`}>
      <a class="btn" href="/jobs/{bench.id}/take-in">{t`Take in a file`}</a>
    </EmptyCard>
  {/if}
</div>

<style>
  .stage {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
  }
  .strip {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 16px;
    padding: 5px 12px;
    background: var(--card-2);
    font-size: 12.5px;
  }
  .looks {
    position: static;
    flex: none;
  }
  .turnword {
    font-family: var(--narrow);
    fill: var(--mat-text);
  }
  .turn {
    stroke: var(--pick);
  }
</style>

<script lang="ts">
  import EmptyCard from '../parts/EmptyCard.svelte';
  import { heightOf, widthOf } from '../../core/measure/box';
  import { formatSize } from '../../core/measure/formatLength';
  import { withoutFace } from '../../core/pages/panels';
  import type { Cell, SheetSide } from '../../core/sheets/plan';
  import type { Size } from '../../core/measure/box';
  import { sheetSurface } from '../../core/surface/sheetSurface';
  import type { Bench } from '../bench.svelte';
  import { screenColor } from '../mat/ink';
  import Caption from '../mat/Caption.svelte';
  import Mat, { type Zoom } from '../mat/Mat.svelte';
  import SurfaceItems from '../mat/SurfaceItems.svelte';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  const plan = $derived(bench.shown.plan);
  /** Sheets are held to the light: the back shows through the front. */
  let light = $state(false);
  const besides = $derived(plan?.turnAxis === 'vertical');
  const both = $derived(!light && !!plan?.sheets.some(({ back }) => back));
  /** Between front and back, and between one sheet and the next, as a share of the largest sheet. */
  const apart = $derived(Math.max(1, ...(plan?.sheets ?? []).flatMap(({ size }) => [size.width, size.height])) * 0.09);
  const columns = $derived(besides && both ? 1 : Math.min(2, plan?.sheets.length ?? 1));
  const blocks = $derived(
    (plan?.sheets ?? []).map(({ size }) => ({
      width: (both && besides ? 2 * size.width + apart : size.width) + apart,
      height: (both && !besides ? 2 * size.height + 0.7 * apart : size.height) + apart,
    })),
  );
  const block = $derived({ width: Math.max(1, ...blocks.map(({ width }) => width)), height: Math.max(1, ...blocks.map(({ height }) => height)) });
  const size = $derived({
    width: columns * block.width - apart,
    height: Math.ceil((plan?.sheets.length ?? 0) / columns) * block.height,
  });
  const places = $derived(
    (plan?.sheets ?? []).map((each, index) => {
      const x = (index % columns) * block.width;
      const y = Math.floor(index / columns) * block.height;
      const { width, height } = each.size;
      return { each, index, x, y, width, height, back: besides ? { x: x + width + apart, y } : { x, y: y + height + apart } };
    }),
  );
  /** The back as it shows through the front: turned over about the sheet's turning axis. */
  const through = ({ width, height }: Size) => (besides ? `translate(${width} 0) scale(-1 1)` : `translate(0 ${height}) scale(1 -1)`);
  function onkeydown(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || event.key !== 'l' || !plan?.sheets.some(({ back }) => back)) return;
    event.stopPropagation();
    light = !light;
  }
  /** The middle of a page's foot as it lies. */
  function footOf({ trim: { x0, x1, y0, y1 }, turn }: Cell): { x: number; y: number } {
    const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
    return { 0: { x, y: y0 }, 90: { x: x0, y }, 180: { x, y: y1 }, 270: { x: x1, y } }[turn];
  }
  const cellWord = (cell: Cell) =>
    `${cell.page ? `page ${cell.name}` : `blank ${cell.name}, fills the sheet`}${labelOf(cell) ? `, label ${cell.label}` : ''}${cell.turn ? `, turned ${cell.turn}°` : ''}`;

  function pick(event: PointerEvent, cell: Cell): void {
    if (event.button === 0 && cell.page) bench.pickOne(cell.page.id, event);
  }
  /** The cell's label where it says more than its position. */
  const labelOf = ({ label, name }: Cell) => (label === name || name.includes('+') ? '' : label);
  /** A panel's address without its face, which the side of the sheet tells. */
  const shortName = ({ name }: Cell) => withoutFace(name);
  // The keys act at once.
  $effect(() => {
    if (document.activeElement === document.body) mat?.focus();
  });
  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

{#snippet side(drawn: SheetSide, sheet: Size, name: string, x: number, y: number, k: number, behind?: SheetSide)}
  {@const px = 1 / k}
  {@const surface = sheetSurface(drawn, sheet, plan?.weight)}
  <g transform="translate({x} {y})">
    <g transform="translate(0 {sheet.height}) scale(1 -1)">
      <rect width={sheet.width} height={sheet.height} fill="#fbfaf5" />
      <SurfaceItems items={surface.items} surveys={bench.surveys} {k} />
      {#if behind}<g class="through" transform={through(sheet)}
          ><SurfaceItems items={sheetSurface(behind, sheet).items} surveys={bench.surveys} {k} /></g
        >{/if}
      {#each surface.items as item, i (i)}
        {#if item.kind === 'rect'}<rect
            x={item.box.x0}
            y={item.box.y0}
            width={widthOf(item.box)}
            height={heightOf(item.box)}
            fill={item.ink === 'all' ? '#1d2422' : screenColor(item.ink)}
            pointer-events="none"
          />{:else if item.kind === 'circle'}<circle
            cx={item.x}
            cy={item.y}
            r={item.radius}
            fill="none"
            stroke="#1d2422"
            stroke-width={Math.max(item.width, px)}
          />{:else if item.kind === 'line' && item.layer}<line
            x1={item.x0}
            y1={item.y0}
            x2={item.x1}
            y2={item.y1}
            stroke="#1d2422"
            stroke-width={Math.max(item.width, px)}
            stroke-dasharray={item.dash.join(' ')}
          />{/if}
      {/each}
      {#each drawn.cells as cell, n (n)}
        {@const picked = cell.page && bench.picked.has(cell.page.id)}
        <rect
          data-pick={cell.position}
          role="option"
          tabindex="-1"
          aria-selected={!!picked}
          aria-label="{name}: {cellWord(cell)}"
          x={cell.trim.x0}
          y={cell.trim.y0}
          width={widthOf(cell.trim)}
          height={heightOf(cell.trim)}
          fill="transparent"
          stroke="#1d2422"
          stroke-width={1.5 * px}
          onpointerdown={(event) => pick(event, cell)}
        />
        {#if picked}
          {#each [{ color: '#1d2422', line: 6 }, { color: '#f2c230', line: 4 }] as { color, line } (color)}
            <rect
              x={cell.trim.x0 + 3 * px}
              y={cell.trim.y0 + 3 * px}
              width={widthOf(cell.trim) - 6 * px}
              height={heightOf(cell.trim) - 6 * px}
              fill="none"
              stroke={color}
              stroke-width={line * px}
              pointer-events="none"
            />
          {/each}
        {/if}
      {/each}
      {#each drawn.lines as line, i (i)}
        {#if line.kind === 'fold'}<line
            x1={line.x0}
            y1={line.y0}
            x2={line.x1}
            y2={line.y1}
            stroke="#1b7f8c"
            stroke-width={2 * px}
            stroke-dasharray="{9 * px} {3 * px} {2 * px} {3 * px}"
            pointer-events="none"
          />{/if}
      {/each}
      <rect width={sheet.width} height={sheet.height} fill="none" stroke="#0c1a17" stroke-width={px} />
    </g>
    {#each drawn.cells as cell, n (n)}
      {@const breadth = (cell.turn % 180 ? heightOf(cell.trim) : widthOf(cell.trim)) * k}
      {@const labelled = labelOf(cell) !== '' && breadth > 100}
      <!-- The tag stands at the foot of the page as it lies, reading the way the page reads. -->
      <g transform="translate({footOf(cell).x} {sheet.height - footOf(cell).y}) rotate({cell.turn}) scale({px})" pointer-events="none">
        {#if breadth > 40}
          <rect class="tag" x={labelled ? -46 : -17} y="-25" width={labelled ? 92 : 34} height="20" />
          <text y="-10.5" text-anchor="middle"
            ><tspan class="mono">{shortName(cell)}</tspan>{#if !cell.page}<tspan class="fill" dx="5">fill</tspan>{:else if labelled}<tspan
                class="fill"
                dx="6">“{cell.label.length > 9 ? `${cell.label.slice(0, 8)}…` : cell.label}”</tspan
              >{/if}</text
          >
        {:else}
          <text class="small" y="-4" text-anchor="middle">{shortName(cell)}</text>
        {/if}
      </g>
    {/each}
    <text class="name" style:font-size="{12 * px}px" y={-7 * px}>{name}</text>
  </g>
{/snippet}

<div class="stage">
  {#if plan?.sheets.some(({ back }) => back)}
    <button class="btn q light" aria-pressed={light} onclick={() => (light = !light)}>Hold to the light</button>
  {/if}
  <Mat
    bind:this={mat}
    bind:zoom
    unit={bench.unit}
    width={size.width}
    height={size.height}
    fitTo="width"
    label="Sheets"
    onempty={() => bench.pick([])}
    {onkeydown}
  >
    {#snippet children(view)}
      {@const px = 1 / view.k}
      {#each places as { each, index, x, y, width, height, back } (index)}
        {#if y + block.height > view.y0 && y - apart < view.y1 && x + block.width > view.x0 && x < view.x1}
          {@const name = `Sheet ${index + 1}${each.name ? `, ${each.name}` : ''}`}
          {@render side(
            each.front,
            each.size,
            light ? `${name}, held to the light` : each.back ? `${name} front` : name,
            x,
            y,
            view.k,
            light ? each.back : undefined,
          )}
          {#if each.back && !light}
            {@render side(each.back, each.size, `${name} back`, back.x, back.y, view.k)}
            {#if besides}
              {@const at = x + width + apart / 2}
              <line class="turn" x1={at} x2={at} y1={y} y2={y + height} stroke-width={1.5 * px} stroke-dasharray="{2 * px} {5 * px}" />
              <text
                class="turnword"
                transform="translate({at + 4 * px} {y + height / 2}) rotate(90)"
                text-anchor="middle"
                style:font-size="{11 * px}px">turns on this edge</text
              >
            {:else}
              {@const at = y + height + apart / 2}
              <line class="turn" x1={x} x2={x + width} y1={at} y2={at} stroke-width={1.5 * px} stroke-dasharray="{2 * px} {5 * px}" />
              <text class="turnword" x={x + width / 2} y={at - 4 * px} text-anchor="middle" style:font-size="{11 * px}px">turns on this edge</text>
            {/if}
          {/if}
        {/if}
      {/each}
    {/snippet}
  </Mat>
  {#if plan}
    <Caption>
      {plan.sheets.length} sheet{plan.sheets.length === 1 ? '' : 's'} of {formatSize(
        plan.sheet.width,
        plan.sheet.height,
        bench.unit,
      )}{plan.sheets.some(({ back }) => back) ? (light ? ', each back seen through its front' : ', printed on both sides') : ', printed on one side'}
    </Caption>
  {:else if bench.shown.list.pages.length}
    <EmptyCard title="On no sheets" text="These pages stay separate, so there is nothing to fold. Hand over writes them page by page.">
      <a class="btn" href="/jobs/{bench.id}/hand-over">Hand over</a>
    </EmptyCard>
  {:else}
    <EmptyCard title="No pages, no sheets" text="Take in a file first; the sheets then work themselves out.">
      <a class="btn" href="/jobs/{bench.id}/take-in">Take in a file</a>
    </EmptyCard>
  {/if}
</div>

<style>
  .light {
    position: absolute;
    z-index: 1;
    top: 10px;
    right: 14px;
  }
  .light {
    background: var(--card);
    padding: 3px 10px;
    font-size: 12.5px;
  }
  .through {
    opacity: 0.5;
    mix-blend-mode: multiply;
    pointer-events: none;
  }
  .light[aria-pressed='true'] {
    background: var(--act);
    color: #fff;
  }
  .tag {
    fill: #1f3a36e6;
  }
  text {
    font: 12px var(--narrow);
    fill: #fff;
  }
  .fill {
    fill: #d6e2dc;
  }
  .small {
    font: 10px var(--mono);
    fill: #1d2422;
  }
  .name,
  .turnword {
    fill: var(--mat-text);
  }
  .turn {
    stroke: var(--pick);
  }
</style>

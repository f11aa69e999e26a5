<script lang="ts">
  import { t } from '../../words/language';
  import { heightOf, widthOf, type Size } from '../../core/measure/box';
  import { withoutFace } from '../../core/pages/panels';
  import type { Cell, SheetSide } from '../../core/sheets/plan';
  import { sheetSurface } from '../../core/sheets/sheetSurface';
  import type { Bench } from '../bench.svelte';
  import { screenColor } from '../mat/ink';
  import SurfaceItems from '../mat/SurfaceItems.svelte';

  interface Props {
    bench: Bench;
    /** The number of its sheet, and its side. */
    at: string;
    drawn: SheetSide;
    sheet: Size;
    name: string;
    weight: number | undefined;
    /** Pixels a point. */
    k: number;
    /** How far what lies on it may reach beyond its head. */
    above: number;
    /** Number of the cell that is worked on, from 0. */
    chosen?: number | undefined;
    /** The other side, where it shows through, and how it lies. */
    behind?: { drawn: SheetSide; transform: string } | undefined;
    onpick: (event: PointerEvent, cell: Cell, index: number) => void;
  }
  /** One side of a sheet: what is printed, its cells and folds. */
  let { bench, at, drawn, sheet, name, weight, k, above, chosen, behind, onpick }: Props = $props();
  const px = $derived(1 / k);
  const surface = $derived(sheetSurface(drawn, sheet, weight));

  /** The middle of a page's foot as it lies. */
  function footOf({ trim: { x0, x1, y0, y1 }, turn }: Cell): { x: number; y: number } {
    const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
    return { 0: { x, y: y0 }, 90: { x: x0, y }, 180: { x, y: y1 }, 270: { x: x1, y } }[turn];
  }
  const cellWord = (cell: Cell) =>
    `${cell.hand === 'left-out' ? t`${cell.name} left out` : cell.page ? t`page ${cell.name}` : t`blank ${cell.name}, fills the sheet`}${labelOf(cell) ? t`, label ${cell.label}` : ''}${cell.turn ? t`, turned ${cell.turn}°` : ''}`;
  /** The cell's label where it says more than its position. */
  const labelOf = ({ label, name }: Cell) => (label === name || name.includes('+') ? '' : label);
  /** A panel's address without its face, which the side of the sheet tells. */
  const shortName = ({ name }: Cell) => withoutFace(name);
  /** Half the width of a tag in pixels. */
  const half = (cell: Cell, labelled: boolean) => (labelled ? 46 : Math.max(17, 4 + 3.8 * shortName(cell).length + (cell.page ? 0 : 14)));
  /** Cells lower than the one carry no tag, those lower than the other a small one, in pixels. */
  const [SMALL_PX, LARGE_PX] = [46, 110];
  const BANDS = [
    { color: '#1d2422', line: 6 },
    { color: '#f2c230', line: 4 },
  ];
</script>

<g transform="translate(0 {sheet.height}) scale(1 -1)">
  <rect width={sheet.width} height={sheet.height} fill="#fbfaf5" />
  <g data-printed><SurfaceItems items={surface.items} surveys={bench.surveys} {k} /></g>
  {#if behind}<g class="through" transform={behind.transform}
      ><SurfaceItems items={sheetSurface(behind.drawn, sheet).items} surveys={bench.surveys} {k} /></g
    >{/if}
  <g data-printed>
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
        />{:else if item.kind === 'line' && (item.layer === 'marks' || item.layer === 'folds')}<line
          x1={item.x0}
          y1={item.y0}
          x2={item.x1}
          y2={item.y1}
          stroke="#1d2422"
          stroke-width={Math.max(item.width, px)}
          stroke-dasharray={item.dash.join(' ')}
        />{/if}
    {/each}
  </g>
  {#each drawn.cells as cell, n (n)}
    {@const selected = cell.page && bench.selected.ids.has(cell.page.id)}
    <rect
      data-pick={cell.position}
      data-cell="{at} {n + 1}"
      role="option"
      tabindex="-1"
      aria-selected={!!selected || chosen === n}
      aria-label="{name}: {cellWord(cell)}"
      x={cell.trim.x0}
      y={cell.trim.y0}
      width={widthOf(cell.trim)}
      height={heightOf(cell.trim)}
      fill={cell.hand === 'left-out' ? '#1d242222' : 'transparent'}
      stroke="#1d2422"
      stroke-width={1.5 * px}
      onpointerdown={(event) => onpick(event, cell, n)}><title>{cellWord(cell)}</title></rect
    >
    {#if selected || chosen === n}
      {#each BANDS as { color, line } (color)}
        <rect
          x={cell.trim.x0 + 3 * px}
          y={cell.trim.y0 + 3 * px}
          width={Math.max(0, widthOf(cell.trim) - 6 * px)}
          height={Math.max(0, heightOf(cell.trim) - 6 * px)}
          fill="none"
          stroke={color}
          stroke-width={line * px}
          stroke-dasharray={selected ? undefined : `${8 * px} ${5 * px}`}
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
  <rect width={sheet.width} height={sheet.height} fill="none" stroke="#0c1a17" stroke-width={px} pointer-events="none" />
</g>
{#each drawn.cells as cell, n (n)}
  {@const breadth = (cell.turn % 180 ? heightOf(cell.trim) : widthOf(cell.trim)) * k}
  {@const depth = (cell.turn % 180 ? widthOf(cell.trim) : heightOf(cell.trim)) * k}
  {@const labelled = labelOf(cell) !== '' && breadth > 190}
  {@const wide = half(cell, labelled)}
  <!-- The tag stands in the corner at the head and left of the page as it lies, where no folio does, reading the way the page reads. -->
  <g transform="translate({footOf(cell).x} {sheet.height - footOf(cell).y}) rotate({cell.turn}) scale({px})" pointer-events="none">
    {#if depth < SMALL_PX}
      <!-- It would cover what is on so small a cell: the pointer says it. -->
    {:else if breadth > 4 * wide && depth > LARGE_PX}
      <rect class="tag" class:hand={cell.hand} x={2 - breadth / 2} y={2 - depth} width={2 * wide} height="15" />
      <text x={2 - breadth / 2 + wide} y={13.4 - depth} text-anchor="middle"
        ><tspan class="mono">{shortName(cell)}</tspan>{#if !cell.page}<tspan class="fill" dx="5">{cell.hand ? t`out` : t`fill`}</tspan
          >{:else if labelled}<tspan class="fill" dx="6">“{cell.label.length > 9 ? `${cell.label.slice(0, 8)}…` : cell.label}”</tspan>{/if}</text
      >
    {:else if breadth > 18 * shortName(cell).length}
      <rect class="tag" class:hand={cell.hand} x={1 - breadth / 2} y={1 - depth} width={5.4 * shortName(cell).length + 5} height="11" />
      <text class="small" x={3.5 - breadth / 2} y={9.5 - depth}>{shortName(cell)}</text>
    {/if}
  </g>
{/each}
{#if sheet.width * k > 5 * name.length}<text class="name" style:font-size="{12 * px}px" y={-above - 7 * px}>{name}</text>{/if}

<style>
  .through {
    opacity: 0.5;
    mix-blend-mode: multiply;
    pointer-events: none;
  }
  .tag {
    fill: #1f3a36e6;
  }
  .tag.hand {
    fill: #8a5a00;
  }
  text {
    font: 11.5px var(--narrow);
    fill: #fff;
  }
  .fill {
    fill: #d6e2dc;
  }
  .small {
    font: 9px var(--mono);
  }
  .name {
    fill: var(--mat-text);
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { columnsOf } from '../../core/pages/margins';
  import { withoutFace } from '../../core/pages/panels';
  import { bleedSides, spineAt } from '../../core/pages/page';
  import type { Surveys } from '../../core/model/survey';
  import { pageSurface } from '../../core/surface/pageSurface';
  import type { TileView } from './gate.svelte';
  import SurfaceItems from './SurfaceItems.svelte';

  interface Props {
    view: TileView;
    /** The safe margin, where the safe area is shown. */
    safe?: number | undefined;
    /** Margins and columns are shown. */
    margins?: boolean;
    surveys: Surveys;
    k: number;
  }
  let { view, safe, margins = false, surveys, k }: Props = $props();

  const { page, side, name, label, faced, selected, isNew, flag, ghost, folded } = $derived(view);

  const { width, height } = $derived(page.trim);
  const surface = $derived(pageSurface(page, side));
  const sides = $derived.by(() => {
    const all = bleedSides(page.bleed, side);
    return faced ? { ...all, [spineAt(side)]: 0 } : all;
  });
  const within = $derived({ x0: -sides.left, y0: -sides.foot, x1: width + sides.right, y1: height + sides.head });
  const ring = $derived(`M${within.x0} ${within.y0}H${within.x1}V${within.y1}H${within.x0}Z M0 0V${height}H${width}V0Z`);
  const px = $derived(1 / k);
  /** How far below the trim the foot of all that is drawn lies. */
  const below = $derived(Math.max(sides.foot, ghost ? -ghost.y0 : 0));
  const roomy = $derived(height * k > 70);
  /** A panel's words are long: on a small one its address has to do. */
  const cramped = $derived(!!page.panel && width * k < 170);
  const title = $derived(cramped ? withoutFace(name) : name);
  const isLabelled = $derived(roomy && !cramped && !!label && label !== name);
  const [FIGURE_PX, FLAG_PX] = [7.5, 15];
  /** Where its number, its label and its flag have no room beside each other below it, the flag stands in its corner. */
  const isTight = $derived((title.length + (isLabelled ? label.length + 2 : 0)) * FIGURE_PX + FLAG_PX > width * k);
</script>

<g transform="translate(0 {height}) scale(1 -1)">
  <rect x={within.x0} y={within.y0} width={within.x1 - within.x0} height={within.y1 - within.y0} fill="#fffdf7" />
  <g data-printed><SurfaceItems items={surface.items} {surveys} {k} {within} /></g>
  <path d={ring} fill="url(#bleed-hatch)" fill-rule="evenodd" opacity={page.art ? 0.32 : 0.9} />
  <rect {width} {height} fill="none" stroke="#1d2422" stroke-width={1.5 * px} stroke-dasharray={isNew ? `${6 * px} ${3 * px}` : undefined} />
  {#if safe && width > 2 * safe && height > 2 * safe}
    <rect
      x={safe}
      y={safe}
      width={width - 2 * safe}
      height={height - 2 * safe}
      fill="none"
      stroke="var(--safe)"
      stroke-width={1.2 * px}
      stroke-dasharray="{1.2 * px} {2.6 * px}"
    />
  {/if}
  {#if margins}
    {#each columnsOf(page, side) as column, i (i)}
      <rect
        x={column.x0}
        y={column.y0}
        width={Math.max(0, column.x1 - column.x0)}
        height={Math.max(0, column.y1 - column.y0)}
        fill="none"
        stroke="var(--act)"
        stroke-width={px}
        opacity="0.8"
      />
    {/each}
  {/if}
  {#if ghost}
    <rect
      class="ghost"
      x={ghost.x0}
      y={ghost.y0}
      width={ghost.x1 - ghost.x0}
      height={ghost.y1 - ghost.y0}
      stroke-width={1.5 * px}
      stroke-dasharray="{5 * px} {4 * px}"
    />
  {/if}
</g>
{#if !page.art && !page.words}
  <text x={width / 2} y={height / 2} class="blank" text-anchor="middle" font-size={Math.min(12 * px, width / 6)}>{t`blank`}</text>
{/if}
{#if view.hinted}
  <rect {width} {height} fill="#ffffff44" stroke="#fff" stroke-width={3 * px} data-hinted />
{/if}
{#if selected}
  {@const out = 4 * px}
  <g transform="translate(0 {height}) scale(1 -1)" fill="none">
    {#each [{ color: '#1d2422', line: 5 }, { color: '#f2c230', line: 3 }] as { color, line } (color)}
      <rect
        x={within.x0 - out}
        y={within.y0 - out}
        width={within.x1 - within.x0 + 2 * out}
        height={within.y1 - within.y0 + 2 * out}
        stroke={color}
        stroke-width={line * px}
      />
    {/each}
  </g>
{/if}
<g transform="translate({side === 'right' ? width : 0} {height + below + (folded ? 30 : 16) * px})" text-anchor={side === 'right' ? 'end' : 'start'}>
  <text class="number" font-size={(roomy ? 12.5 : 10) * px}
    ><tspan class="mono">{title}</tspan>{#if isLabelled}<tspan class="said" dx={7 * px}>“{label}”</tspan>{/if}{#if roomy && isNew}<tspan
        class="new"
        dx={7 * px}>{t`new`}</tspan
      >{/if}{#if roomy && page.kept}<tspan class="said" dx={7 * px}>{t`kept`}</tspan>{/if}{#if roomy && page.piece}<tspan class="said" dx={7 * px}
        >{page.piece.name} × {page.piece.quantity}</tspan
      >{/if}</text
  >
</g>
{#if flag}
  <g
    transform="translate({side === 'right' ? 0 : width} {isTight ? height - FLAG_PX * px : height + below + 6 * px}) scale({px})"
    class="flag {flag}"
  >
    <path d={side === 'right' ? 'M2 0h9v9l-4.5 4.5L2 9z' : 'M-11 0h9v9l-4.5 4.5L-11 9z'} />
  </g>
{/if}

<style>
  .ghost {
    fill: #f2c23022;
    stroke: var(--pick);
  }
  .blank {
    font-family: var(--narrow);
    fill: #77705d;
  }
  .number {
    font-family: var(--narrow);
    fill: #eef4f0;
  }
  .said {
    fill: var(--mat-text);
  }
  .new {
    fill: var(--pick);
  }
  .flag path {
    stroke: #1d2422;
    stroke-width: 1;
  }
  .flag.stop path {
    fill: #e2664a;
  }
  .flag.look path {
    fill: var(--pick);
  }
  .flag.note path {
    fill: #c9d3ce;
  }
</style>

<script lang="ts">
  import { formatFigure } from '../../core/measure/formatLength';
  import { applyToPoint, invert } from '../../core/measure/matrix';
  import { NUDGE, type Unit } from '../../core/measure/unit';
  import type { Cell } from '../../core/sheets/plan';
  import type { SheetsView } from '../sheetsView.svelte';

  interface Props {
    cell: Cell;
    height: number;
    unit: Unit;
    k: number;
    drawing: NonNullable<SheetsView['drawing']>;
    /** A pointer in points on the sheet, from its upper left corner. */
    toSheet: (event: PointerEvent) => { x: number; y: number };
  }
  /** A sheet on which folds are drawn: where the pointer is, the fold would be. */
  let { cell, height, unit, k, drawing, toSheet }: Props = $props();
  const px = $derived(1 / k);
  const upright = $derived(drawing.axis === 'vertical');
  const size = $derived(cell.page!.trim);
  const whole = $derived(upright ? size.width : size.height);
  let at = $state<number | undefined>();

  /** From the left or the foot of the work, whole figures of the unit; with Shift, as it lies. */
  function place(event: PointerEvent): number {
    const { x, y } = toSheet(event);
    const on = applyToPoint(invert(cell.matrix), x, height - y);
    const raw = upright ? on.x : on.y;
    const step = NUDGE[unit];
    return Math.min(whole, Math.max(0, event.shiftKey ? raw : Math.round(raw / step) * step));
  }
  const line = $derived.by(() => {
    if (at === undefined) return undefined;
    const from = upright ? applyToPoint(cell.matrix, at, 0) : applyToPoint(cell.matrix, 0, at);
    const to = upright ? applyToPoint(cell.matrix, at, size.height) : applyToPoint(cell.matrix, size.width, at);
    return { from, to };
  });
  const figure = (points: number) => formatFigure(points, unit);
</script>

<rect
  class="over"
  data-pick="fold"
  role="presentation"
  x={cell.trim.x0}
  y={height - cell.trim.y1}
  width={cell.trim.x1 - cell.trim.x0}
  height={cell.trim.y1 - cell.trim.y0}
  onpointermove={(event) => (at = place(event))}
  onpointerleave={() => (at = undefined)}
  onpointerdown={(event) => event.button === 0 && drawing.take(drawing.axis, place(event))}
/>
{#if line && at !== undefined}
  <g pointer-events="none">
    <line x1={line.from.x} y1={height - line.from.y} x2={line.to.x} y2={height - line.to.y} stroke="#f2c230" stroke-width={2.5 * px} />
    <g transform="translate({(line.from.x + line.to.x) / 2} {height - (line.from.y + line.to.y) / 2}) scale({px})">
      <rect x="-52" y="-11" width="104" height="21" fill="#1d2422" />
      <text text-anchor="middle" y="4">{figure(at)} | {figure(whole - at)} {unit}</text>
    </g>
  </g>
{/if}

<style>
  .over {
    fill: transparent;
    cursor: crosshair;
  }
  text {
    font: 12px var(--mono);
    fill: #fff;
  }
</style>

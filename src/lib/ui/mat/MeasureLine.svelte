<script lang="ts">
  import { t } from '../../words/language';
  import { formatLength } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { tidy } from './dragging';
  import type { View } from './camera.svelte';

  interface Point {
    x: number;
    y: number;
  }
  interface Props {
    view: View;
    unit: Unit;
    toMat: (event: PointerEvent) => Point;
    /** Upright and level lines that a point sticks to, in points on the mat. */
    edges: { xs: readonly number[]; ys: readonly number[] };
  }
  let { view, unit, toMat, edges }: Props = $props();

  const NEAR = 7;
  const say = (points: number) => formatLength(tidy(points, unit), unit);
  let points = $state.raw<Point[]>([]);
  let now = $state.raw<Point | undefined>();
  const px = $derived(1 / view.k);
  const from = $derived(points[0]);
  const to = $derived(points[1] ?? (from && now));

  function stick(at: Point): Point {
    const nearest = (value: number, lines: readonly number[]) => {
      const best = lines.reduce((a, b) => (Math.abs(b - value) < Math.abs(a - value) ? b : a), Infinity);
      return Math.abs(best - value) < NEAR * px ? best : value;
    };
    return { x: nearest(at.x, edges.xs), y: nearest(at.y, edges.ys) };
  }
  function press(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    const at = stick(toMat(event));
    points = points.length === 1 ? [points[0]!, at] : [at];
  }
</script>

<g>
  <rect
    data-pick="measure"
    role="presentation"
    class="catch"
    x={view.x0}
    y={view.y0}
    width={view.x1 - view.x0}
    height={view.y1 - view.y0}
    onpointerdown={press}
    onpointermove={(event) => (now = stick(toMat(event)))}
  />
  {#if now && !to}
    <circle class="point" cx={now.x} cy={now.y} r={4 * px} stroke-width={1.5 * px} />
  {/if}
  {#if from && to}
    {@const across = Math.abs(to.x - from.x)}
    {@const down = Math.abs(to.y - from.y)}
    <path class="legs" d="M{from.x} {from.y}H{to.x}V{to.y}" stroke-width={px} stroke-dasharray="{3 * px} {3 * px}" />
    <line class="line" x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke-width={2 * px} />
    {#each [from, to] as { x, y }, i (i)}<circle class="point" cx={x} cy={y} r={4 * px} stroke-width={1.5 * px} />{/each}
    <g transform="translate({(from.x + to.x) / 2} {(from.y + to.y) / 2}) scale({px})">
      <rect class="plate" x="6" y="-22" width="214" height="40" />
      <text x="14" y="-6" class="far">{say(Math.hypot(across, down))}</text>
      <text x="14" y="11">{t`${say(across)} across · ${say(down)} down`}</text>
    </g>
  {/if}
</g>

<style>
  .catch {
    fill: transparent;
    cursor: crosshair;
  }
  .line,
  .legs {
    stroke: var(--pick);
    fill: none;
    pointer-events: none;
  }
  .point {
    fill: #1d2422;
    stroke: var(--pick);
    pointer-events: none;
  }
  .plate {
    fill: var(--card);
    stroke: #1d2422;
    pointer-events: none;
  }
  text {
    font: 11px var(--mono);
    fill: var(--ink-2);
    pointer-events: none;
  }
  .far {
    font-size: 13px;
    fill: var(--ink);
  }
</style>

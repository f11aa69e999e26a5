<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { formatFigure, UNIT_SIGN } from '../../core/measure/formatLength';
  import { POINTS_PER, type Unit } from '../../core/measure/unit';

  interface Props {
    /** Points, from the outermost leaf to the innermost. */
    creep: readonly number[];
    unit: Unit;
    /** The safe margin in points: shifts over it bring text into the spine. */
    safe: number;
  }
  let { creep, unit, safe }: Props = $props();
  const [WIDTH, HEIGHT, LEFT, FOOT] = [292, 96, 34, 18];
  const most = $derived(Math.max(creep.at(-1) ?? 0, 1e-6));
  const showSafe = $derived(safe > 0 && safe < 1.6 * most);
  const x = $derived(scaleLinear([0, creep.length], [LEFT, WIDTH]));
  const y = $derived(scaleLinear([0, showSafe ? Math.max(most, safe) : most], [HEIGHT - FOOT, 8]));
  const ticks = $derived(scaleLinear([0, (showSafe ? Math.max(most, safe) : most) / POINTS_PER[unit]], [0, 1]).ticks(3));
  const bar = $derived(Math.max(1, x(1) - x(0) - 1));
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT}" role="img" aria-label="Shift by leaf, from the outermost to the innermost">
  {#each ticks as tick (tick)}
    {@const at = y(tick * POINTS_PER[unit])}
    <line x1={LEFT} x2={WIDTH} y1={at} y2={at} class="grid" />
    <text x={LEFT - 4} y={at + 3} text-anchor="end">{formatFigure(tick * POINTS_PER[unit], unit)}</text>
  {/each}
  {#each creep as shift, n (n)}
    <rect class:over={shift > safe} x={x(n)} width={bar} y={y(shift)} height={Math.max(0.5, y(0) - y(shift))}
      ><title>leaf {n + 1}: {formatFigure(shift, unit)} {UNIT_SIGN[unit]}</title></rect
    >
  {/each}
  {#if showSafe}
    <line x1={LEFT} x2={WIDTH} y1={y(safe)} y2={y(safe)} class="safe" />
    <text x={WIDTH} y={y(safe) - 3} text-anchor="end">safe margin</text>
  {/if}
  <text x={LEFT} y={HEIGHT - 5}>outermost leaf</text>
  <text x={WIDTH} y={HEIGHT - 5} text-anchor="end">innermost, in {UNIT_SIGN[unit]}</text>
</svg>

<style>
  svg {
    display: block;
    width: 100%;
  }
  text {
    font: 9.5px var(--mono);
    fill: var(--ink-2);
  }
  rect {
    fill: #1b7f8c;
  }
  .over {
    fill: var(--cut);
  }
  .grid {
    stroke: var(--rule);
  }
  .safe {
    stroke: var(--cut);
    stroke-dasharray: 4 3;
  }
</style>

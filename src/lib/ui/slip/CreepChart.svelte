<script lang="ts">
  import { t } from '../../words/language';
  import { scaleLinear } from 'd3-scale';
  import { formatFigure, UNIT_SIGN } from '../../core/measure/formatLength';
  import { POINTS_PER, type Unit } from '../../core/measure/unit';

  interface Props {
    /** Points, from the outermost leaf to the innermost. */
    creep: readonly { wanted: number; done: number }[];
    by: 'shift' | 'scale';
    unit: Unit;
    /** The safe margin in points: leaves are moved no further, or text ends in the spine. */
    safe: number;
  }
  let { creep, by, unit, safe }: Props = $props();
  const [WIDTH, HEIGHT, LEFT, FOOT] = [292, 96, 34, 18];
  const most = $derived(Math.max(creep.at(-1)?.wanted ?? 0, 1e-6));
  const showSafe = $derived(by === 'shift' && safe > 0 && safe < 1.6 * most);
  const x = $derived(scaleLinear([0, creep.length], [LEFT, WIDTH]));
  const y = $derived(scaleLinear([0, showSafe ? Math.max(most, safe) : most], [HEIGHT - FOOT, 8]));
  const ticks = $derived(scaleLinear([0, (showSafe ? Math.max(most, safe) : most) / POINTS_PER[unit]], [0, 1]).ticks(3));
  const bar = $derived(Math.max(1, x(1) - x(0) - 1));
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT}" role="img" aria-label={t`Shift by leaf, from the outermost to the innermost`}>
  {#each ticks as tick (tick)}
    {@const at = y(tick * POINTS_PER[unit])}
    <line x1={LEFT} x2={WIDTH} y1={at} y2={at} class="grid" />
    <text x={LEFT - 4} y={at + 3} text-anchor="end">{formatFigure(tick * POINTS_PER[unit], unit)}</text>
  {/each}
  {#each creep as { wanted, done }, n (n)}
    <rect x={x(n)} width={bar} y={y(done)} height={Math.max(0.5, y(0) - y(done))}
      ><title>{t`leaf ${n + 1}: ${formatFigure(done, unit)} ${UNIT_SIGN[unit]}`}</title></rect
    >
    {#if wanted > done}
      <rect class="over" x={x(n)} width={bar} y={y(wanted)} height={y(done) - y(wanted)}
        ><title
          >{t`leaf ${n + 1}: ${formatFigure(wanted - done, unit)} ${UNIT_SIGN[unit]} short of ${formatFigure(wanted, unit)} ${UNIT_SIGN[unit]}`}</title
        ></rect
      >
    {/if}
  {/each}
  {#if showSafe}
    <line x1={LEFT} x2={WIDTH} y1={y(safe)} y2={y(safe)} class="safe" />
    <text x={WIDTH} y={y(safe) - 3} text-anchor="end">{t`safe margin`}</text>
  {/if}
  <text x={LEFT} y={HEIGHT - 5}>{t`outermost leaf`}</text>
  <text x={WIDTH} y={HEIGHT - 5} text-anchor="end">{t`innermost, in ${UNIT_SIGN[unit]}`}</text>
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
    fill: none;
    stroke: var(--cut);
    stroke-dasharray: 2 2;
  }
  .grid {
    stroke: var(--rule);
  }
  .safe {
    stroke: var(--cut);
    stroke-dasharray: 4 3;
  }
</style>

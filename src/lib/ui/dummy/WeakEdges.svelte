<script lang="ts">
  import { t } from '../../words/language';
  import { scaleLinear } from 'd3-scale';
  import { EDGE_REACH, standsOf, type NamedEdge, type Outcome } from '../../core/finish/proof';
  import { formatFigure, formatLength, UNIT_SIGN } from '../../core/measure/formatLength';
  import { POINTS_PER, type Unit } from '../../core/measure/unit';
  import { capital } from '../../words/capital';
  import { sayMeasured } from '../../words/proof';

  interface Props {
    weakest: NonNullable<Outcome['weakest']>;
    unit: Unit;
    onpick: (pages: readonly string[]) => void;
  }
  /** How far a knife may err at the weakest edges: outwards until white paper shows, inwards until something is cut. */
  let { weakest, unit, onpick }: Props = $props();
  const [WIDTH, ROW, HEAD] = [252, 26, 16];
  const stands = (points: number | undefined) => Math.min(EDGE_REACH, points ?? EDGE_REACH);
  const x = $derived(scaleLinear([-EDGE_REACH, EDGE_REACH], [0, WIDTH]));
  const ticks = $derived(scaleLinear([-EDGE_REACH / POINTS_PER[unit], EDGE_REACH / POINTS_PER[unit]], [0, 1]).ticks(5));
  const height = $derived(HEAD + weakest.edges.length * ROW + 4);
  const isWeak = (edge: NamedEdge) => standsOf({ ...edge, product: 1, copy: 1, page: 0 }) < weakest.error;
  const said = (edge: NamedEdge) =>
    `${capital(edge.name)}, ${edge.edge}: ${edge.cut === undefined ? t`nothing is cut` : t`${sayMeasured(edge.cut, unit)} inwards until something is cut`}, ${edge.white === undefined ? t`nothing white shows` : t`${sayMeasured(edge.white, unit)} outwards until white shows`}`;
</script>

<svg viewBox="0 0 {WIDTH} {height}" role="list" aria-label={t`The weakest edges`}>
  <rect x={x(-weakest.error)} y={HEAD} width={x(weakest.error) - x(-weakest.error)} height={height - HEAD} class="error" />
  {#each ticks as tick (tick)}
    {@const at = x(tick * POINTS_PER[unit])}
    <line x1={at} x2={at} y1={HEAD} y2={height} class="grid" />
    <text x={at} y="11" text-anchor="middle">{formatFigure(Math.abs(tick * POINTS_PER[unit]), unit)}</text>
  {/each}
  {#each weakest.edges as edge, n (n)}
    {@const y = HEAD + n * ROW}
    <g
      role="listitem"
      aria-label={said(edge)}
      class:weak={isWeak(edge)}
      class:picks={edge.pages.length}
      onpointerdown={() => edge.pages.length && onpick(edge.pages)}
    >
      <title>{said(edge)}</title>
      <rect x="0" {y} width={WIDTH} height={ROW} class="room" />
      <text x="0" y={y + 11} class="name">{capital(edge.name)}, {edge.edge}</text>
      <rect x={x(-stands(edge.cut))} y={y + 15} width={x(0) - x(-stands(edge.cut))} height="7" class="inwards" />
      <rect x={x(0)} y={y + 15} width={Math.max(0.5, x(stands(edge.white)) - x(0))} height="7" class="outwards" />
    </g>
  {/each}
  <line x1={x(0)} x2={x(0)} y1={HEAD} y2={height} class="trim" />
</svg>
<p class="quiet">
  {t`In ${UNIT_SIGN[unit]}: left of the trim until something is cut into, right until white paper shows. Shaded: the ${formatLength(weakest.error, unit)} that knives err by.`}
</p>

<style>
  svg {
    display: block;
    width: 100%;
  }
  text {
    font: 10px var(--mono);
    fill: var(--ink-2);
  }
  .name {
    font: 11px var(--narrow);
    fill: var(--ink);
  }
  .grid {
    stroke: var(--rule);
  }
  .trim {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .error {
    fill: #c77f1426;
  }
  .room {
    fill: transparent;
  }
  .inwards {
    fill: #6c7f95;
  }
  .outwards {
    fill: #4e7a35;
  }
  .weak .inwards,
  .weak .outwards {
    fill: #b5452c;
  }
  .picks {
    cursor: pointer;
  }
  p {
    margin: 4px 0 0;
    font-size: 12px;
  }
</style>

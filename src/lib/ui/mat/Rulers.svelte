<script lang="ts">
  import { formatFigure } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { RULER, type Camera } from './camera.svelte';
  import { gridFor, multiples } from './grid';

  let { camera, unit }: { camera: Camera; unit: Unit } = $props();
  const label = $derived(gridFor(unit, camera.k).label);
  const xs = $derived(multiples(label, camera.view.x0, camera.view.x1).map((at) => ({ at, px: camera.ox + at * camera.k })));
  const ys = $derived(multiples(label, camera.view.y0, camera.view.y1).map((at) => ({ at, px: camera.oy + at * camera.k })));
  const isFree = ({ px }: { px: number }) => px > RULER + 4;
</script>

<g class="ruler" aria-hidden="true">
  <rect width={camera.width} height={RULER} />
  <rect width={RULER} height={camera.height} />
  {#each xs.filter(isFree) as { at, px } (at)}
    <line x1={px} x2={px} y1={RULER - 6} y2={RULER} />
    <text x={px + 3} y="14">{formatFigure(at, unit)}</text>
  {/each}
  {#each ys.filter(isFree) as { at, px } (at)}
    <line y1={px} y2={px} x1={RULER - 6} x2={RULER} />
    <text transform="translate(8 {px + 3}) rotate(90)">{formatFigure(at, unit)}</text>
  {/each}
  <rect width={RULER} height={RULER} />
  <text x="3" y="14">{unit === 'pica' ? 'p' : unit}</text>
</g>

<style>
  .ruler rect {
    fill: var(--mat);
  }
  .ruler line {
    stroke: var(--mat-text);
    stroke-width: 1;
  }
  .ruler text {
    font: 10.5px var(--mono);
    fill: var(--mat-text);
  }
</style>

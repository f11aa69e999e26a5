<script lang="ts">
  import { heightOf, sizeBox, widthOf } from '../../core/measure/box';
  import { IDENTITY } from '../../core/measure/matrix';
  import { sameSize } from '../../core/paper/sizes';
  import { sizeGroups } from '../../core/pages/leaves';
  import { saySize } from '../../words/findings';
  import { sourcesOf } from '../../core/docket/docket';
  import type { SurveyPage } from '../../core/pages/survey';
  import { arrangeShelf } from '../mat/arrange';
  import type { Bench } from '../bench.svelte';
  import Mat from '../mat/Mat.svelte';
  import SurfaceArt from '../mat/SurfaceArt.svelte';
  import Arrivals from './Arrivals.svelte';

  let { bench, zoom = $bindable(0), chosen }: { bench: Bench; zoom: number; chosen: string | undefined } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let over = $state(0);
  const source = $derived(chosen ?? sourcesOf(bench.docket)[0]);
  const survey = $derived(source ? bench.surveys[source] : undefined);
  const sizes = $derived((survey?.pages ?? []).map((page) => ({ width: widthOf(page.boxes.media), height: heightOf(page.boxes.media) })));
  const across = $derived.by(() => {
    const widest = Math.max(1, ...sizes.map(({ width }) => width));
    return widest * Math.max(6, Math.ceil(Math.sqrt(sizes.length * 1.6))) * 1.05;
  });
  const shelf = $derived(arrangeShelf(sizes, across));
  const trims = $derived((survey?.pages ?? []).map((page) => ({ trim: { width: widthOf(page.boxes.trim), height: heightOf(page.boxes.trim) } })));
  const commonest = $derived(sizeGroups(trims)[0]?.size);
  const ring = ({ boxes }: SurveyPage) =>
    `M${boxes.bleed.x0} ${boxes.bleed.y0}H${boxes.bleed.x1}V${boxes.bleed.y1}H${boxes.bleed.x0}Z M${boxes.trim.x0} ${boxes.trim.y0}V${boxes.trim.y1}H${boxes.trim.x1}V${boxes.trim.y0}Z`;

  function drop(event: DragEvent): void {
    event.preventDefault();
    over = 0;
    if (event.dataTransfer?.files.length) void bench.takeIn(event.dataTransfer.files);
  }
  export const zoomTo = (what: 'in' | 'out' | 'fit' | 'real') => (what === 'fit' ? mat?.fit() : what === 'real' ? mat?.realSize() : mat?.zoomBy(what === 'in' ? 1.25 : 0.8));
  export const focus = () => mat?.focus();
</script>

<div class="stage" role="region" aria-label="Take in" ondragenter={() => over++} ondragleave={() => over--} ondragover={(event) => event.preventDefault()} ondrop={drop}>
  {#key source}
    <Mat bind:this={mat} bind:zoom unit={bench.unit} width={shelf.width} height={shelf.height} fitTo="width" label="Pages as supplied">
      {#snippet children(view)}
        {@const px = 1 / view.k}
        {#each shelf.tiles as { index, x, y } (index)}
          {@const page = survey!.pages[index]!}
          {@const { width, height } = sizes[index]!}
          {#if y + height + 40 > view.y0 && y - 40 < view.y1 && x + width > view.x0 && x < view.x1}
            {@const odd = commonest && !sameSize(trims[index]!.trim, commonest)}
            <g transform="translate({x} {y})">
              <g transform="translate(0 {height}) scale(1 -1)">
                <rect {width} {height} fill="#fffdf7" />
                <SurfaceArt item={{ kind: 'art', source: source!, index, matrix: IDENTITY, clip: sizeBox({ width, height }) }} surveys={bench.surveys} k={view.k} />
                <path d={ring(page)} fill="url(#bleed-hatch)" fill-rule="evenodd" opacity="0.55" />
                <rect {width} {height} fill="none" stroke="#1d2422" stroke-width={px} opacity="0.6" />
                <rect x={page.boxes.trim.x0} y={page.boxes.trim.y0} width={widthOf(page.boxes.trim)} height={heightOf(page.boxes.trim)} fill="none" stroke={odd ? '#f2c230' : '#1d2422'} stroke-width={(odd ? 3 : 1.5) * px} />
              </g>
              <text class="number" y={height + 16 * px} font-size={12 * px}><tspan class="mono">{index + 1}</tspan>{#if page.label && page.label !== String(index + 1)}<tspan class="label" dx={6 * px}>“{page.label}”</tspan>{/if}</text>
              {#if odd}<text class="odd" y={height + 30 * px} font-size={11 * px}>{saySize(trims[index]!.trim, bench.unit)}</text>{/if}
            </g>
          {/if}
        {/each}
      {/snippet}
    </Mat>
  {/key}
  {#if !survey && !bench.uploads.length && !bench.intakes.length}
    <div class="empty">
      <h2>Drop PDFs here</h2>
      <p>Several at once, and large ones too. Each is surveyed: pages, sizes, boxes, inks. The originals stay as they are.</p>
      <label class="btn">Choose files<input type="file" accept="application/pdf,.pdf" multiple onchange={(event) => void bench.takeIn([...(event.currentTarget.files ?? [])])} /></label>
    </div>
  {/if}
  <Arrivals {bench} />
  {#if over > 0}<div class="over">Let go to take in</div>{/if}
</div>

<style>
  .stage {
    position: relative;
    min-width: 0;
    min-height: 0;
  }
  .number {
    font-family: var(--narrow);
    fill: #eef4f0;
  }
  .label {
    fill: var(--mat-text);
  }
  .odd {
    font-family: var(--narrow);
    fill: var(--pick);
  }
  .empty {
    position: absolute;
    left: 50%;
    top: 40%;
    translate: -50% -50%;
    display: grid;
    gap: 12px;
    justify-items: start;
    width: 380px;
    padding: 26px 30px;
    background: var(--card);
    clip-path: var(--corner);
  }
  .empty h2 {
    font-size: 20px;
  }
  input[type='file'] {
    position: absolute;
    width: 1px;
    height: 1px;
    opacity: 0;
  }
  .over {
    position: absolute;
    inset: 8px;
    display: grid;
    place-items: center;
    border: 3px dashed var(--pick);
    background: #1f3a36cc;
    color: #fff;
    font-size: 20px;
    font-weight: 600;
    pointer-events: none;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { goto } from '$app/navigation';
  import FileButton from '../parts/FileButton.svelte';
  import EmptyCard from '../parts/EmptyCard.svelte';
  import { heightOf, sizeBox, widthOf, type Box, type Size } from '../../core/measure/box';
  import { IDENTITY } from '../../core/measure/matrix';
  import { sameSize } from '../../core/paper/sizes';
  import { sizeGroups } from '../../core/pages/sizes';
  import { saySize } from '../../words/sizes';
  import { sourcesOf } from '../../core/docket/docket';
  import type { Survey, SurveyPage } from '../../core/model/survey';
  import { arrangeShelf, type Shelf } from '../mat/arrange';
  import type { Bench } from '../bench.svelte';
  import FarPage from '../mat/FarPage.svelte';
  import { Gate } from '../mat/gate.svelte';
  import Mat from '../mat/Mat.svelte';
  import type { View, Zoom } from '../mat/camera.svelte';
  import SurfaceArt from '../mat/SurfaceArt.svelte';
  import Arrivals from './Arrivals.svelte';

  let { bench, zoom = $bindable(0), chosen }: { bench: Bench; zoom: number; chosen: string | undefined } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let over = $state(0);
  let [matWidth, matHeight] = $state([768, 700]);
  const sizeOf = (b: Box) => ({ width: widthOf(b), height: heightOf(b) });

  interface FileShelf {
    source: string;
    name: string;
    survey: Survey;
    shelf: Shelf;
    x: number;
    y: number;
    /** The trim size most of its pages have. */
    commonest: Size;
  }
  const surveyed = $derived(sourcesOf(bench.docket).flatMap((source) => (bench.surveys[source] ? [{ source, survey: bench.surveys[source] }] : [])));
  const across = $derived.by(() => {
    const all = surveyed.flatMap(({ survey }) => survey.pages.map(({ boxes }) => sizeOf(boxes.media)));
    const area = all.reduce((sum, { width, height }) => sum + width * 1.06 * height * 1.25, 0);
    return Math.max(Math.sqrt((area * matWidth) / Math.max(1, matHeight)) * 1.3, ...all.map(({ width }) => width));
  });
  const shelves = $derived.by(() => {
    // Short files share a shelf, one beside the other.
    let [x, y, below] = [0, 0, 0];
    return surveyed.map(({ source, survey }): FileShelf => {
      const shelf = arrangeShelf(
        survey.pages.map(({ boxes }) => sizeOf(boxes.media)),
        across,
      );
      const step = bench.docket.steps.find((each) => each.kind === 'take-in' && each.source === source);
      const heading = Math.max(40, heightOf(survey.pages[0]!.boxes.media) * 0.13);
      if (x > 0 && (shelf.boards.length > 1 || x + shelf.width > across)) [x, y, below] = [0, y + below, 0];
      const placed = {
        source,
        survey,
        shelf,
        x,
        y: y + heading,
        name: step?.kind === 'take-in' ? step.name : '',
        commonest: sizeGroups(survey.pages.map(({ boxes }) => ({ trim: sizeOf(boxes.trim) })))[0]!.size,
      };
      below = Math.max(below, heading + shelf.height);
      if (shelf.boards.length > 1) [x, y, below] = [0, y + below, 0];
      else x += shelf.width + heading;
      return placed;
    });
  });
  const size = $derived({
    width: Math.max(0, ...shelves.map(({ x, shelf }) => x + shelf.width)),
    height: Math.max(0, ...shelves.map(({ y, shelf }) => y + shelf.height)),
  });
  const ring = ({ boxes }: SurveyPage) =>
    `M${boxes.bleed.x0} ${boxes.bleed.y0}H${boxes.bleed.x1}V${boxes.bleed.y1}H${boxes.bleed.x0}Z M${boxes.trim.x0} ${boxes.trim.y0}V${boxes.trim.y1}H${boxes.trim.x1}V${boxes.trim.y0}Z`;

  /** A page of a file as it stands on its shelf. */
  interface Standing {
    key: string;
    source: string;
    page: SurveyPage;
    index: number;
    /** How many pages its file has. */
    count: number;
    x: number;
    y: number;
    commonest: Size;
  }
  /** Where most pages are narrower than this, in pixels, all show their picture and whether they stand out, and no boxes. */
  const FAR_PX = 24;
  const broadest = $derived(Math.max(0, ...shelves.map(({ commonest }) => commonest.width)));
  /** The outlines of pages as one path: those that stand out, or those that do not. */
  const outlines = ({ survey, shelf, x: left, y: top, commonest }: FileShelf, odd: boolean): string =>
    shelf.tiles
      .filter(({ index }) => odd !== sameSize(sizeOf(survey.pages[index]!.boxes.trim), commonest))
      .map(({ index, x, y }) => {
        const { width, height } = sizeOf(survey.pages[index]!.boxes.media);
        return `M${left + x} ${top + y}h${width}v${height}h${-width}z`;
      })
      .join('');
  const far = $derived(shelves.map((shelf) => ({ plain: outlines(shelf, false), odd: outlines(shelf, true) })));
  /** Captions reach this far beyond a page, in points. */
  const SLACK = 60;
  const gate = new Gate<Standing>(
    ({ key }) => key,
    (one, other) => one.x === other.x && one.y === other.y && one.page === other.page && sameSize(one.commonest, other.commonest),
  );
  /** The pages in sight. New ones are admitted a few at a time, so that no frame takes long. */
  const onMat = ({ x0, x1, y0, y1 }: View): readonly Standing[] =>
    gate.admit(
      shelves.flatMap(({ source, survey, shelf, x: left, y: top, commonest }) =>
        shelf.tiles.flatMap(({ index, x: across, y: down }): Standing[] => {
          const page = survey.pages[index]!;
          const { width, height } = sizeOf(page.boxes.media);
          const [x, y] = [left + across, top + down];
          if (y + height + SLACK <= y0 || y - SLACK >= y1 || x + width <= x0 || x >= x1) return [];
          return [{ key: `${source} ${index}`, source, page, index, count: survey.pages.length, x, y, commonest }];
        }),
      ),
    );

  // A file chosen in the slip comes into sight.
  $effect(() => {
    const found = chosen && shelves.find(({ source }) => source === chosen);
    if (found) mat?.show({ x0: found.x, y0: found.y, x1: found.x + found.shelf.width, y1: found.y + found.shelf.height });
  });

  /** How wide a letter of a caption is, in pixels: captions that would lie over each other are left out, and said when pointed at. */
  const LETTER = 7.3;

  function drop(event: DragEvent): void {
    event.preventDefault();
    over = 0;
    if (event.dataTransfer?.files.length) void bench.incoming.takeIn(event.dataTransfer.files);
  }
  /** The pages begun with are seen on their own stage. */
  async function beginBlank(): Promise<void> {
    await goto(`/jobs/${bench.id}/pages`);
    bench.look('pages');
    bench.open({ kind: 'blank' });
  }
  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

<div
  class="stage"
  role="region"
  aria-label={t`Take in`}
  bind:clientWidth={matWidth}
  bind:clientHeight={matHeight}
  ondragenter={() => over++}
  ondragleave={() => over--}
  ondragover={(event) => event.preventDefault()}
  ondrop={drop}
>
  <Mat bind:this={mat} bind:zoom unit={bench.unit} width={size.width} height={size.height} fitTo="width" role="group" label={t`Pages as supplied`}>
    {#snippet children(view)}
      {@const px = 1 / view.k}
      {#each shelves as { source, name, shelf, x: left, y: top } (source)}
        <text class="file" x={left} y={top - 7 * px} font-size={13 * px}>{name}</text>
        {#each shelf.boards as board (board.y)}
          <line
            class="board"
            x1={left - 4 * px}
            x2={left + board.width + 4 * px}
            y1={top + board.y + 1.5 * px}
            y2={top + board.y + 1.5 * px}
            stroke-width={3 * px}
          />
        {/each}
      {/each}
      {@const isFar = view.k * broadest < FAR_PX}
      {#if isFar}
        {#each far as { plain, odd }, n (n)}
          <path d={plain} fill="#fffdf7" stroke="#1d2422" stroke-width={px} stroke-opacity="0.6" />
          <path d={odd} fill="#fffdf7" stroke="#d9772b" stroke-width={3 * px} />
        {/each}
      {/if}
      {#each onMat(view) as { key, source, page, index, count, x, y, commonest } (key)}
        {@const { width, height } = sizeOf(page.boxes.media)}
        {@const trim = sizeOf(page.boxes.trim)}
        {@const odd = !sameSize(trim, commonest)}
        {@const room = width * view.k}
        <g transform="translate({x} {y})">
          {#if isFar}<FarPage {source} {index} surveys={bench.surveys} k={view.k} />
          {:else}
            <g transform="translate(0 {height}) scale(1 -1)">
              <rect {width} {height} fill="#fffdf7" />
              <SurfaceArt
                item={{ kind: 'art', source, index, matrix: IDENTITY, clip: sizeBox({ width, height }) }}
                surveys={bench.surveys}
                k={view.k}
              />
              <path d={ring(page)} fill="url(#bleed-hatch)" fill-rule="evenodd" opacity="0.55" />
              <rect {width} {height} fill="none" stroke="#1d2422" stroke-width={px} opacity="0.6" />
              <rect
                x={page.boxes.trim.x0}
                y={page.boxes.trim.y0}
                width={trim.width}
                height={trim.height}
                fill="none"
                stroke={odd ? '#d9772b' : '#1d2422'}
                stroke-width={(odd ? 3 : 1.5) * px}
                stroke-dasharray={odd ? `${6 * px} ${3 * px}` : undefined}
              />
            </g>
          {/if}
          <title>{index + 1}{page.label ? ` “${page.label}”` : ''}: {saySize(trim, bench.unit)}</title>
          {#if !isFar && index % Math.max(1, Math.ceil((LETTER * String(count).length + 6) / room)) === 0}<text
              class="number"
              y={height + 17 * px}
              font-size={12 * px}
              ><tspan class="mono">{index + 1}</tspan
              >{#if page.label && page.label !== String(index + 1) && room > LETTER * (String(index + 1).length + page.label.length + 4)}<tspan
                  class="said"
                  dx={6 * px}>“{page.label}”</tspan
                >{/if}</text
            >{/if}
          {#if odd && room > LETTER * 0.9 * saySize(trim, bench.unit).length}<text class="odd" y={height + 31 * px} font-size={11 * px}
              >{saySize(trim, bench.unit)}</text
            >{/if}
        </g>
      {/each}
    {/snippet}
  </Mat>
  {#if !shelves.length && !bench.incoming.uploads.length && !bench.incoming.intakes.length}
    <EmptyCard
      title={t`Drop PDFs or scans here`}
      text={t`Several at once, and large ones too. Each is surveyed: pages, sizes, boxes, inks. The originals stay as they are.`}
    >
      <FileButton many onfiles={(files) => void bench.incoming.takeIn(files)} />
      <button class="btn q" onclick={() => void beginBlank()}>{t`Blank pages`}</button>
    </EmptyCard>
  {/if}
  <Arrivals {bench} />
  {#if over > 0}<div class="over">{t`Let go to take in`}</div>{/if}
</div>

<style>
  .number {
    font-family: var(--narrow);
    fill: #eef4f0;
  }
  .said {
    fill: var(--mat-text);
  }
  .file {
    font-family: var(--narrow);
    fill: #eef4f0;
  }
  .board {
    stroke: #7d8f83;
  }
  .odd {
    font-family: var(--narrow);
    fill: #f2a766;
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

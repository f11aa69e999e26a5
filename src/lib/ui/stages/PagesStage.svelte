<script lang="ts">
  import { t, translated } from '../../words/language';
  import EmptyCard from '../parts/EmptyCard.svelte';
  import { formatFigure, formatLength } from '../../core/measure/formatLength';
  import { bounds, heightOf, widthOf } from '../../core/measure/box';
  import { faceLabels } from '../../core/numbers/labels';
  import { facesOf } from '../../core/pages/page';
  import { addressesOf } from '../../core/pages/panels';
  import { oldTrim } from '../../core/pages/changes';
  import type { Bench } from '../bench.svelte';
  import { tidy } from '../mat/dragging';
  import { alikeTiles, Gate, type TileView } from '../mat/gate.svelte';
  import Handles from '../mat/Handles.svelte';
  import Caption from '../mat/Caption.svelte';
  import Mat from '../mat/Mat.svelte';
  import type { View, Zoom } from '../mat/camera.svelte';
  import MeasureLine from '../mat/MeasureLine.svelte';
  import AwayArts from '../mat/AwayArts.svelte';
  import PageTile from '../mat/PageTile.svelte';
  import { arrangeCropped, arrangeSpreads, CENTRE, edgesToMeet, type Arrangement, type Tile } from '../mat/arrange';
  import { Carrying } from './carrying.svelte';
  import { Picking, tileAt, tilesIn } from './picking.svelte';
  import { openMenu } from '../menu.svelte';
  import { actsAtOnce, actsOf } from '../slip/acts';
  import { Pulling } from './pulling.svelte';
  import { worstLevels } from './worstLevels';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let [matWidth, matHeight] = $state([768, 700]);
  const list = $derived(bench.shown.list);
  const base = $derived(bench.base.list);
  const before = $derived(new Map(facesOf(base).map((page) => [page.id, page])));
  const ground = {
    get bench() {
      return bench;
    },
    arranged: () => arranged,
    toMat: (event: { clientX: number; clientY: number }) => mat!.toMat(event),
    pan: (x: number, y: number) => mat!.pan(x, y),
    focus: () => mat!.focus(),
    frame: () => mat!.frame(),
  };
  const pulling = new Pulling(ground);
  const cropping = $derived(pulling.cropping);
  const carrying = new Carrying(ground);
  const picking = new Picking(ground);

  const room = $derived({ width: matWidth, height: matHeight });
  /** While a step is tried that keeps the number of pages, the mat keeps its rows, and its scale as long as they fit. */
  const trying = $derived(!!bench.draft.form && base.pages.length > 0 && facesOf(list).length === before.size);
  const keptColumns = $derived(trying ? arrangeSpreads(base, room, undefined, bench.view.folded).columns : undefined);
  const arranged: Arrangement = $derived.by(() => {
    if (!cropping) return arrangeSpreads(list, room, keptColumns, bench.view.folded);
    return arrangeCropped(list, pulling.met, room);
  });
  const faces = $derived(facesOf(list));
  const labels = $derived(faceLabels(list));
  const addresses = $derived(addressesOf(list));
  const nameOf = (index: number): string => addresses.get(faces[index]!.id) ?? String(index + 1);

  const flags = $derived(worstLevels(bench.findings, list.pages.length));
  const sizeOf = (index: number) => faces[index]!.trim;

  const gate = new Gate<TileView>(({ page }) => page.id, alikeTiles);
  /** Labels and flags reach this far beyond a page, in points. */
  const SLACK = 60;
  /** The visible pages. New ones are admitted a few at a time, so that no frame takes long. */
  function onMat({ x0, x1, y0, y1 }: View): readonly TileView[] {
    const seen = tilesIn(arranged.tiles, { x0: x0 - SLACK, x1: x1 + SLACK, y0: y0 - SLACK, y1: y1 + SLACK }, sizeOf);
    return gate.admit(
      seen.map((tile): TileView => {
        const page = faces[tile.index]!;
        return {
          ...tile,
          page,
          name: nameOf(tile.index),
          label: labels.get(page.id) ?? '',
          selected: bench.selected.ids.has(page.id),
          hinted: bench.view.hinted.has(page.id),
          isNew: !!bench.draft.trial && !before.has(page.id),
          flag: flags.get(page.id),
          ghost: ghostOf(tile),
        };
      }),
    );
  }

  /** Where the trim was, when what is being tried changes it. */
  function ghostOf(tile: Tile) {
    const page = faces[tile.index]!;
    const was = bench.draft.trial && (cropping ? pulling.met.pages[tile.index] : before.get(page.id));
    if (!was) return undefined;
    const step = pulling.draft ?? bench.draft.trial!.steps.findLast((each) => each.kind === 'trim');
    return oldTrim(was, page, step && 'fixed' in step ? step.fixed : CENTRE, tile.side);
  }

  function onkeydown(event: KeyboardEvent): void {
    if (!list.pages.length) return;
    if (event.key === 'z' && !event.ctrlKey && !event.metaKey && !event.altKey) return lookAt(bench.selected.indexes);
    if (pulling.nudge(event) || (event.altKey && carrying.shiftBy(event.key))) return event.preventDefault();
    const index = picking.walk(event);
    if (index === undefined) return;
    event.preventDefault();
    showPage(index);
  }

  /** Zooms in on pages, with some of the mat around them. */
  function lookAt(indexes: readonly number[]): void {
    const wanted = new Set(indexes);
    const boxes = arranged.tiles.flatMap(({ index, x, y }) =>
      wanted.has(index) ? [{ x0: x, y0: y, x1: x + sizeOf(index).width, y1: y + sizeOf(index).height }] : [],
    );
    if (!boxes.length) return;
    const box = bounds(boxes);
    const around = 0.06 * Math.max(widthOf(box), heightOf(box));
    mat?.lookAt({ x0: box.x0 - around, y0: box.y0 - around, x1: box.x1 + around, y1: box.y1 + around });
  }
  function lookAtPointed(event: MouseEvent): void {
    const tile = mat && tileAt(arranged.tiles, mat.toMat(event), sizeOf);
    if (tile && !cropping) lookAt([tile.index]);
  }

  /** What can be done to the page under the pointer and those selected with it; to all pages where none is. */
  function offer(event: MouseEvent): void {
    if (!mat || bench.draft.form || bench.draft.format) return;
    // The menu key has no place; a finger that stays has one.
    const pointed = event.button === 2 || (event instanceof PointerEvent && event.pointerType === 'touch');
    const tile = pointed ? tileAt(arranged.tiles, mat.toMat(event), sizeOf) : undefined;
    const page = tile && faces[tile.index];
    if (page && !bench.selected.ids.has(page.id)) bench.selected.choose([page.id]);
    const { indexes, selection = 'all' } = bench.selected;
    if (!faces.length) return;
    openMenu(event, indexes.length ? t`With the pages selected` : t`With all pages`, [
      ...(indexes.length ? [{ word: t`Zoom to it`, key: 'Z', do: () => lookAt(indexes) }] : []),
      ...actsAtOnce(selection, bench),
      ...actsOf('pages', bench),
    ]);
  }

  function showPage(index: number): void {
    const tile = arranged.tiles.find((each) => each.index === index);
    const page = faces[index];
    if (tile && page) mat?.show({ x0: tile.x, y0: tile.y, x1: tile.x + page.trim.width, y1: tile.y + page.trim.height });
  }

  $effect(() => {
    if (!bench.view.pointed) return;
    const index = faces.findIndex(({ id }) => id === bench.view.pointed!.pages[0]);
    bench.view.pointed = undefined;
    if (index >= 0) showPage(index);
  });

  $effect(() => {
    if (bench.view.goTo === undefined) return;
    showPage(bench.view.goTo);
    bench.view.goTo = undefined;
  });

  // --- Reading positions and distances off the mat. ---

  let hovered = $state.raw<{ tile: Tile; x: number; y: number } | undefined>();
  function onhover(at: { x: number; y: number } | undefined): void {
    const tile = at && tileAt(arranged.tiles, at, sizeOf);
    hovered = tile && { tile, x: at.x - tile.x, y: at.y - tile.y };
  }
  const edges = $derived(bench.view.measure ? edgesToMeet(arranged.tiles, faces) : { xs: [], ys: [] });

  // --- A format dropped on a page is put on it, or on all that are selected with it. ---

  const FORMAT = 'application/x-folder-format';
  const over = (event: DragEvent) => event.dataTransfer?.types.includes(FORMAT) && event.preventDefault();
  function drop(event: DragEvent): void {
    const format = event.dataTransfer?.getData(FORMAT);
    const tile = format && tileAt(arranged.tiles, mat!.toMat(event), sizeOf);
    if (!format || !tile) return;
    event.preventDefault();
    const { id } = faces[tile.index]!;
    bench.putFormat(format, bench.selected.ids.has(id) && bench.selected.selection ? bench.selected.selection : { ids: [id] });
  }

  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

<div
  class="stage"
  role="region"
  aria-label={t`Pages`}
  bind:clientWidth={matWidth}
  bind:clientHeight={matHeight}
  ondragover={over}
  ondrop={drop}
  ondblclick={lookAtPointed}
  oncontextmenu={offer}
>
  <Mat
    bind:this={mat}
    bind:zoom
    unit={bench.unit}
    width={arranged.width}
    height={arranged.height}
    fitTo={arranged.fitTo}
    label={t`Pages`}
    still={pulling.isPulled ? 'held' : trying ? 'unless-larger' : undefined}
    {...cropping ? { cursor: 'crosshair' } : {}}
    {onhover}
    {onkeydown}
    onmarquee={(box, add) => picking.marquee(box, add)}
    onempty={() => bench.selected.choose([])}
  >
    {#snippet children(view)}
      {@const seen = onMat(view)}
      <AwayArts tiles={seen} all={bench.view.guides.away || !!cropping} surveys={bench.surveys} k={view.k} />
      {#each seen as tile (tile.page.id)}
        <PageTile
          view={tile}
          unit={bench.unit}
          safe={bench.view.guides.safe ? bench.docket.safe : undefined}
          margins={bench.view.guides.margins}
          surveys={bench.surveys}
          k={view.k}
          onpick={(event) => pulling.press(tile.index, event) || carrying.press(tile.index, event, () => picking.pick(tile.index, event))}
        />
      {/each}
      {#if pulling.box}<Handles box={pulling.box} grips={pulling.grips} k={view.k} ongrip={(held, event) => pulling.grip(held, event)} />{/if}
      {#if carrying.landing}
        {@const { mark, as } = carrying.landing}
        <rect class="landing {as}" x={mark.x0} y={mark.y0} width={mark.x1 - mark.x0} height={mark.y1 - mark.y0} stroke-width={1.5 / view.k} />
      {/if}
      {#if carrying.carried}
        {@const { ids, x, y } = carrying.carried}
        <g transform="translate({x} {y}) scale({1 / view.k})" class="carried">
          {#if ids.length > 1}<rect x="14" y="14" width="44" height="58" />{/if}
          <rect x="8" y="8" width="44" height="58" />
          <text x="30" y="42" text-anchor="middle">{ids.length}</text>
        </g>
      {/if}
      {#if bench.view.measure}<MeasureLine {view} unit={bench.unit} toMat={(event) => mat!.toMat(event)} {edges} />{/if}
    {/snippet}
  </Mat>
  {#if hovered}
    <p class="hover mono" aria-live="off">
      {t`page ${nameOf(hovered.tile.index)} · ${formatFigure(tidy(hovered.x, bench.unit), bench.unit)} from the left, ${formatLength(tidy(hovered.y, bench.unit), bench.unit)} from the head`}
    </p>
  {/if}
  {#if carrying.landing}
    {@const { as, at, index } = carrying.landing}
    <Caption
      >{as === 'panel'
        ? t`becomes a fold-out on the leaf of page ${index + 1}`
        : t`goes ${translated(at)} page ${index + 1} · with Shift it becomes a fold-out there`}</Caption
    >
  {:else if bench.view.measure}
    <Caption
      >{t`Click two points; edges draw them in.`} <button class="link" onclick={() => (bench.view.measure = false)}>{t`Done (Esc)`}</button></Caption
    >
  {/if}
  {#if !list.pages.length}
    <EmptyCard title={t`No pages yet`} text={t`Take in a PDF, or begin with blank pages.`}>
      <a class="btn" href="/jobs/{bench.id}/take-in">{t`Take in a file`}</a>
      <button class="btn q" onclick={() => bench.open({ kind: 'blank' })}>{t`Blank pages`}</button>
    </EmptyCard>
  {/if}
</div>

<style>
  .landing {
    fill: var(--pick);
    stroke: #1d2422;
    pointer-events: none;
  }
  .landing.panel {
    fill: #f2c23066;
    stroke-dasharray: 4 3;
  }
  .carried {
    pointer-events: none;
  }
  .carried rect {
    fill: #fffdf7;
    stroke: #1d2422;
    stroke-width: 1.5;
  }
  .carried text {
    font: 600 15px var(--mono);
    fill: #1d2422;
  }
  .hover {
    position: absolute;
    left: 30px;
    bottom: 8px;
    padding: 2px 9px;
    font-size: 12px;
    pointer-events: none;
    background: #1f3a36d9;
    color: #eef4f0;
  }
</style>

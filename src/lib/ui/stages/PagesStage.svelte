<script lang="ts">
  import EmptyCard from '../parts/EmptyCard.svelte';
  import type { Level } from '../../core/checks/finding';
  import { formatFigure, formatLength } from '../../core/measure/formatLength';
  import { faceLabels } from '../../core/numbers/labels';
  import { facesOf, isReadLeftwards } from '../../core/pages/page';
  import { addressesOf } from '../../core/pages/panels';
  import { oldTrim } from '../../core/pages/changes';
  import { columnsOf } from '../../core/pages/margins';
  import type { Bench } from '../bench.svelte';
  import { tidy } from '../mat/dragging';
  import { Gate, type TileView } from '../mat/gate.svelte';
  import Handles from '../mat/Handles.svelte';
  import Caption from '../mat/Caption.svelte';
  import Mat, { type View, type Zoom } from '../mat/Mat.svelte';
  import MeasureLine from '../mat/MeasureLine.svelte';
  import PageTile from '../mat/PageTile.svelte';
  import { arrangeSpreads, type Arrangement, type Tile } from '../mat/arrange';
  import { Carrying } from './carrying.svelte';
  import { Pulling } from './pulling.svelte';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let [matWidth, matHeight] = $state([768, 700]);
  const list = $derived(bench.shown.list);
  const base = $derived(bench.base.list);
  const before = $derived(new Map(facesOf(base).map((page) => [page.id, page])));
  const pulling = new Pulling({
    get bench() {
      return bench;
    },
    arranged: () => arranged,
    toMat: (event) => mat!.toMat(event),
  });
  const cropping = $derived(pulling.cropping);
  const carrying = new Carrying({
    get bench() {
      return bench;
    },
    arranged: () => arranged,
    toMat: (event) => mat!.toMat(event),
    pan: (x, y) => mat!.pan(x, y),
    focus: () => mat!.focus(),
    frame: () => mat!.frame(),
  });

  const aspect = $derived(matWidth / Math.max(1, matHeight));
  /** While a step is tried that leaves their number as it is, the mat keeps its scale and its rows, so that what changes is the pages. */
  const ADDING: readonly string[] = ['take-in', 'blank', 'copy', 'split', 'join', 'reading-order', 'panel', 'give-back'];
  const trying = $derived(!!bench.draft.form && !ADDING.includes(bench.draft.form.kind) && base.pages.length > 0);
  const keptColumns = $derived(trying ? arrangeSpreads(base, aspect, undefined, bench.view.folded).columns : undefined);
  const arranged: Arrangement = $derived.by(() => {
    if (!cropping) return arrangeSpreads(list, aspect, keptColumns, bench.view.folded);
    // While a crop is tried, each page stays where it was and its new trim lies within the old one.
    const kept = arrangeSpreads(pulling.met, aspect);
    const tiles = kept.tiles.flatMap((tile): Tile[] => {
      const [was, is] = [pulling.met.pages[tile.index]!, list.pages[tile.index]];
      if (!is) return [];
      const old = oldTrim(was, is, CENTRE, tile.side);
      return [old ? { ...tile, faced: false, x: tile.x - old.x0, y: tile.y + old.y1 - is.trim.height } : tile];
    });
    return { ...kept, tiles };
  });
  const CENTRE = { x: 'centre', y: 'centre' } as const;
  const faces = $derived(facesOf(list));
  const labels = $derived(faceLabels(list));
  const addresses = $derived(addressesOf(list));
  const nameOf = (index: number): string => addresses.get(faces[index]!.id) ?? String(index + 1);
  /** The page from which a pick with Shift reaches. */
  let anchor = $state(0);

  const flags = $derived.by(() => {
    const worst = new Map<string, Level>();
    const rank = { stop: 2, look: 1, note: 0 };
    for (const { level, pages } of bench.findings) {
      if (level === 'note' || pages.length === list.pages.length) continue;
      for (const id of pages) if (rank[level] > (worst.has(id) ? rank[worst.get(id)!] : -1)) worst.set(id, level);
    }
    return worst;
  });

  const gate = new Gate();
  /** Labels and flags reach this far beyond a page, in points. */
  const SLACK = 60;
  /** The pages in sight as they lie, as far as they are on the mat by now. */
  function onMat({ x0, x1, y0, y1 }: View): readonly TileView[] {
    const seen = arranged.tiles.filter(({ index, x, y }) => {
      const { width, height } = faces[index]!.trim;
      return x + width + SLACK > x0 && x - SLACK < x1 && y + height + SLACK > y0 && y - SLACK < y1;
    });
    return gate.admit(
      seen.map((tile): TileView => {
        const page = faces[tile.index]!;
        return {
          ...tile,
          page,
          name: nameOf(tile.index),
          label: labels.get(page.id) ?? '',
          picked: bench.selected.ids.has(page.id),
          fresh: !!bench.draft.trial && !before.has(page.id),
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

  function pick(index: number, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): void {
    const id = faces[index]!.id;
    if (event.shiftKey) {
      const [from, to] = [Math.min(anchor, index), Math.max(anchor, index)];
      bench.selected.choose(faces.slice(from, to + 1).map((page) => page.id));
      return;
    }
    anchor = index;
    bench.selected.chooseOne(id, event);
  }

  function marquee(box: { x0: number; y0: number; x1: number; y1: number }, add: boolean): void {
    const hit = arranged.tiles.filter(({ index, x, y }) => {
      const { width, height } = faces[index]!.trim;
      return x < box.x1 && x + width > box.x0 && y < box.y1 && y + height > box.y0;
    });
    bench.selected.choose([...(add ? bench.selected.ids : []), ...hit.map(({ index }) => faces[index]!.id)]);
  }

  let reach = $state(0);
  function onkeydown(event: KeyboardEvent): void {
    const last = list.pages.length - 1;
    if (last < 0) return;
    if (pulling.nudge(event)) return event.preventDefault();
    const [left, right] = isReadLeftwards(list.book) ? ([1, -1] as const) : ([-1, 1] as const);
    const way = { [-1]: 'earlier', 1: 'later' } as const;
    const shift = event.altKey && ({ ArrowLeft: way[left], ArrowRight: way[right], Home: 'start', End: 'end' } as const)[event.key];
    if (shift) {
      event.preventDefault();
      carrying.shift(shift);
      return;
    }
    const from = event.shiftKey ? reach : (bench.selected.indexes[0] ?? -1);
    const up = arranged.columns * (list.book.facing ? 2 : 1);
    const to = { ArrowLeft: from + left, ArrowRight: from + right, ArrowUp: from - up, ArrowDown: from + up, Home: 0, End: last }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    const index = Math.min(last, Math.max(0, to));
    if (event.shiftKey) {
      const [a, b] = [Math.min(anchor, index), Math.max(anchor, index)];
      bench.selected.choose(list.pages.slice(a, b + 1).map((page) => page.id));
    } else {
      anchor = index;
      bench.selected.choose([list.pages[index]!.id]);
    }
    reach = index;
    showPage(index);
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

  const tileAt = ({ x, y }: { x: number; y: number }): Tile | undefined =>
    arranged.tiles.findLast((tile) => {
      const { width, height } = faces[tile.index]!.trim;
      return x >= tile.x && x <= tile.x + width && y >= tile.y && y <= tile.y + height;
    });
  let hovered = $state.raw<{ tile: Tile; x: number; y: number } | undefined>();
  function onhover(at: { x: number; y: number } | undefined): void {
    const tile = at && tileAt(at);
    hovered = tile && { tile, x: at.x - tile.x, y: at.y - tile.y };
  }
  /** Edges that a measured point sticks to: trim, bleed is beyond it, margins and columns. */
  const edges = $derived.by(() => {
    if (!bench.view.measure) return { xs: [], ys: [] };
    const [xs, ys] = [new Set<number>(), new Set<number>()];
    for (const { index, x, y, side } of arranged.tiles) {
      const page = faces[index]!;
      for (const box of [{ x0: 0, y0: 0, x1: page.trim.width, y1: page.trim.height }, ...columnsOf(page, side)]) {
        xs.add(x + box.x0).add(x + box.x1);
        ys.add(y + page.trim.height - box.y0).add(y + page.trim.height - box.y1);
      }
    }
    return { xs: [...xs], ys: [...ys] };
  });

  // --- A format dropped on a page is put on it, or on all that are picked with it. ---

  const FORMAT = 'application/x-folder-format';
  const over = (event: DragEvent) => event.dataTransfer?.types.includes(FORMAT) && event.preventDefault();
  function drop(event: DragEvent): void {
    const format = event.dataTransfer?.getData(FORMAT);
    const tile = format && tileAt(mat!.toMat(event));
    if (!format || !tile) return;
    event.preventDefault();
    const { id } = faces[tile.index]!;
    bench.putFormat(format, bench.selected.ids.has(id) && bench.selected.selection ? bench.selected.selection : { ids: [id] });
  }

  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

<div class="stage" role="region" aria-label="Pages" bind:clientWidth={matWidth} bind:clientHeight={matHeight} ondragover={over} ondrop={drop}>
  <Mat
    bind:this={mat}
    bind:zoom
    unit={bench.unit}
    width={arranged.width}
    height={arranged.height}
    fitTo="width"
    label="Pages"
    still={trying}
    {...cropping ? { cursor: 'crosshair' } : {}}
    {onhover}
    {onkeydown}
    onmarquee={marquee}
    onempty={() => bench.selected.choose([])}
  >
    {#snippet children(view)}
      {#each onMat(view) as tile (tile.page.id)}
        <PageTile
          view={tile}
          safe={bench.view.guides.safe ? bench.docket.safe : undefined}
          margins={bench.view.guides.margins}
          away={bench.view.guides.away || !!cropping}
          surveys={bench.surveys}
          k={view.k}
          onpick={(event) => pulling.press(tile.index, event) || carrying.press(tile.index, event, () => pick(tile.index, event))}
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
      page {nameOf(hovered.tile.index)} · {formatFigure(tidy(hovered.x, bench.unit), bench.unit)} from the left, {formatLength(
        tidy(hovered.y, bench.unit),
        bench.unit,
      )} from the head
    </p>
  {/if}
  {#if carrying.landing}
    {@const { as, at, index } = carrying.landing}
    <Caption
      >{as === 'panel'
        ? `becomes a fold-out on the leaf of page ${index + 1}`
        : `goes ${at} page ${index + 1} · with Shift it becomes a fold-out there`}</Caption
    >
  {:else if bench.view.measure}
    <Caption>Click two points; edges draw them in. <button class="link" onclick={() => (bench.view.measure = false)}>Done (Esc)</button></Caption>
  {/if}
  {#if !list.pages.length}
    <EmptyCard title="No pages yet" text="Take in a PDF, or begin with blank pages.">
      <a class="btn" href="/jobs/{bench.id}/take-in">Take in a file</a>
      <button class="btn q" onclick={() => bench.open({ kind: 'blank' })}>Blank pages</button>
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

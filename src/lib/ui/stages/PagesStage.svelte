<script lang="ts">
  import EmptyCard from '../parts/EmptyCard.svelte';
  import type { Level } from '../../core/checks/finding';
  import { cutsOf } from '../../core/docket/steps/crop';
  import { NUDGE } from '../../core/measure/unit';
  import { formatFigure, formatLength } from '../../core/measure/formatLength';
  import { labelsOf } from '../../core/pages/labels';
  import { oldTrim } from '../../core/pages/changes';
  import { columnsOf } from '../../core/pages/margins';
  import { pickedOf } from '../../core/pages/selection';
  import type { Bench } from '../bench.svelte';
  import { cutBy, cutOf, moveCut, pull, tidy, type Grip } from '../mat/dragging';
  import FarTile from '../mat/FarTile.svelte';
  import { Gate } from '../mat/gate.svelte';
  import Handles from '../mat/Handles.svelte';
  import Mat, { type View, type Zoom } from '../mat/Mat.svelte';
  import MeasureLine from '../mat/MeasureLine.svelte';
  import PageTile from '../mat/PageTile.svelte';
  import { arrangeSpreads, type Tile } from '../mat/arrange';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let [matWidth, matHeight] = $state([768, 700]);
  const list = $derived(bench.shown.list);
  const base = $derived(bench.base.list);
  const before = $derived(new Map(base.pages.map((page) => [page.id, page])));

  /** A step whose pages are the last to be seen can be pulled at on the mat. */
  const draft = $derived.by(() => {
    const { form, draft: step } = bench;
    return step && form && (!form.step || form.step.id === bench.docket.steps.at(-1)?.id) ? step : undefined;
  });
  /** The list that the draft meets. */
  const met = $derived(bench.form?.step ? (bench.base.replay.after[bench.docket.steps.length - 2] ?? { pages: [], book: base.book }) : base);
  const cropping = $derived(draft?.kind === 'crop' ? draft : undefined);

  const aspect = $derived(matWidth / Math.max(1, matHeight));
  /** While a step is tried that adds no pages, the mat keeps its scale and its rows, so that what changes is the pages. */
  const ADDING: readonly string[] = ['take-in', 'blank', 'copy'];
  const trying = $derived(!!bench.form && !ADDING.includes(bench.form.kind) && base.pages.length > 0);
  const keptColumns = $derived(trying ? arrangeSpreads(base, aspect).columns : undefined);
  const arranged = $derived.by(() => {
    if (!cropping) return arrangeSpreads(list, aspect, keptColumns);
    // While a crop is tried, each page stays where it was and its new trim lies within the old one.
    const kept = arrangeSpreads(met, aspect);
    const tiles = kept.tiles.flatMap((tile): Tile[] => {
      const [was, is] = [met.pages[tile.index]!, list.pages[tile.index]];
      if (!is) return [];
      const old = oldTrim(was, is, CENTRE, tile.side);
      return [old ? { ...tile, faced: false, x: tile.x - old.x0, y: tile.y + old.y1 - is.trim.height } : tile];
    });
    return { ...kept, tiles };
  });
  const CENTRE = { x: 'centre', y: 'centre' } as const;
  const labels = $derived(labelsOf(list.pages));
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
  /** A page lower than this on the screen, in pixels, is drawn without its bleed and guides. */
  const FAR_PX = 70;
  /** Labels and flags reach this far beyond a page, in points. */
  const SLACK = 60;
  /** The tiles in sight, a few more each frame until all are there. */
  function onMat({ x0, x1, y0, y1 }: View): Tile[] {
    const { pages } = list;
    const seen = arranged.tiles.filter(({ index, x, y }) => {
      const { width, height } = pages[index]!.trim;
      return x + width + SLACK > x0 && x - SLACK < x1 && y + height + SLACK > y0 && y - SLACK < y1;
    });
    const admitted = gate.admit(seen.map(({ index }) => pages[index]!.id));
    return seen.filter(({ index }) => admitted.has(pages[index]!.id));
  }

  /** Where the trim was, when what is being tried changes it. */
  function ghostOf(tile: Tile) {
    const page = list.pages[tile.index]!;
    const was = bench.trial && (cropping ? met.pages[tile.index] : before.get(page.id));
    if (!was) return undefined;
    const step = draft ?? bench.trial!.steps.findLast((each) => each.kind === 'trim');
    return oldTrim(was, page, step && 'fixed' in step ? step.fixed : CENTRE, tile.side);
  }

  function pick(index: number, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): void {
    const id = list.pages[index]!.id;
    if (event.shiftKey) {
      const [from, to] = [Math.min(anchor, index), Math.max(anchor, index)];
      bench.pick(list.pages.slice(from, to + 1).map((page) => page.id));
      return;
    }
    anchor = index;
    bench.pickOne(id, event);
  }

  function marquee(box: { x0: number; y0: number; x1: number; y1: number }, add: boolean): void {
    const hit = arranged.tiles.filter(({ index, x, y }) => {
      const { width, height } = list.pages[index]!.trim;
      return x < box.x1 && x + width > box.x0 && y < box.y1 && y + height > box.y0;
    });
    bench.pick([...(add ? bench.picked : []), ...hit.map(({ index }) => list.pages[index]!.id)]);
  }

  // --- Handles: pulling at a crop or at a trim edits the numbers in the slip. ---

  const draftPages = $derived(draft && 'pages' in draft ? pickedOf(draft.pages, met) : []);
  let pulled = $state<number | undefined>();
  /** The page whose handles show. */
  const active = $derived(pulled !== undefined && draftPages.includes(pulled) ? pulled : draftPages[0]);
  const activeTile = $derived(
    (cropping || draft?.kind === 'trim') && active !== undefined ? arranged.tiles.find(({ index }) => index === active) : undefined,
  );
  const activeBox = $derived.by(() => {
    if (!activeTile) return undefined;
    const { width, height } = list.pages[activeTile.index]!.trim;
    return { x0: activeTile.x, y0: activeTile.y, x1: activeTile.x + width, y1: activeTile.y + height };
  });
  const GRIPS: Grip[] = ([-1, 0, 1] as const).flatMap((x) => ([-1, 0, 1] as const).flatMap((y) => (x || y ? [{ x, y }] : [])));
  const grips = $derived.by((): Grip[] => {
    if (cropping) return GRIPS;
    const fore = activeTile?.side === 'left' ? -1 : 1;
    return GRIPS.filter(({ x, y }) => y >= 0 && x !== -fore && (x || y));
  });

  /** Follows the pointer until it is let go. */
  function follow(event: PointerEvent, move: (at: { x: number; y: number }) => void, done?: (moved: boolean) => void): void {
    const start = { x: event.clientX, y: event.clientY };
    let moved = false;
    const onmove = (e: PointerEvent) => {
      moved ||= Math.hypot(e.clientX - start.x, e.clientY - start.y) > 4;
      if (moved) move(mat!.toMat(e));
    };
    const end = () => {
      window.removeEventListener('pointermove', onmove);
      window.removeEventListener('pointerup', end);
      window.removeEventListener('pointercancel', end);
      done?.(moved);
    };
    window.addEventListener('pointermove', onmove);
    window.addEventListener('pointerup', end);
    window.addEventListener('pointercancel', end);
  }

  /** Where a page lay before the crop: its trim's upper left corner on the mat. */
  function cornerBefore(index: number) {
    const tile = arranged.tiles.find((each) => each.index === index)!;
    const old = oldTrim(met.pages[index]!, list.pages[index]!, CENTRE, tile.side);
    return { side: tile.side, x: tile.x + (old?.x0 ?? 0), y: tile.y - (old ? old.y1 - list.pages[index]!.trim.height : 0) };
  }

  function cropTo(index: number, box: { x0: number; y0: number; x1: number; y1: number }): void {
    if (!cropping) return;
    const corner = cornerBefore(index);
    const own = { x0: box.x0 - corner.x, x1: box.x1 - corner.x, y0: box.y0 - corner.y, y1: box.y1 - corner.y };
    const sides = cutBy(own, met.pages[index]!.trim, bench.unit);
    bench.draft = { ...cropping, cut: cutOf(sides, cropping.cut.by, corner.side) };
  }

  function grip(held: Grip, event: PointerEvent): void {
    const [tile, box] = [activeTile, activeBox];
    if (!tile || !box) return;
    if (cropping) return follow(event, (at) => cropTo(tile.index, pull(box, held, at)));
    if (draft?.kind !== 'trim') return;
    const start = mat!.toMat(event);
    const from = draft;
    follow(event, (at) => {
      const grown = (size: number, by: number) => Math.max(NUDGE[bench.unit], tidy(size + by, bench.unit));
      bench.draft = {
        ...from,
        width: held.x ? grown(from.width, held.x * (at.x - start.x)) : from.width,
        height: held.y ? grown(from.height, at.y - start.y) : from.height,
        fixed: { x: held.x ? 'spine' : from.fixed.x, y: held.y ? 'head' : from.fixed.y },
      };
    });
  }

  /** A pointer on a page picks it; while a crop is set up it draws the crop. */
  function press(index: number, event: PointerEvent): void {
    if (!cropping || !draftPages.includes(index)) return pick(index, event);
    const start = mat!.toMat(event);
    pulled = index;
    follow(event, (at) =>
      cropTo(index, { x0: Math.min(start.x, at.x), x1: Math.max(start.x, at.x), y0: Math.min(start.y, at.y), y1: Math.max(start.y, at.y) }),
    );
  }

  /** Arrow keys move the crop over the page. */
  function nudge(event: KeyboardEvent): boolean {
    const by = NUDGE[bench.unit] * (event.shiftKey ? 10 : 1);
    const [x, y] = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[event.key] ?? [0, 0];
    if (!cropping || active === undefined || (!x && !y)) return false;
    const tile = arranged.tiles.find(({ index }) => index === active)!;
    try {
      const sides = cutsOf(cropping.cut, draftPages, met, bench.surveys).get(active);
      if (sides) bench.draft = { ...cropping, cut: cutOf(moveCut(sides, x!, y!), cropping.cut.by, tile.side) };
    } catch {
      // What is wrong with the crop is said in its form.
    }
    return true;
  }

  let reach = $state(0);
  function onkeydown(event: KeyboardEvent): void {
    const last = list.pages.length - 1;
    if (last < 0) return;
    if (nudge(event)) return event.preventDefault();
    const from = event.shiftKey ? reach : (bench.pickedIndexes[0] ?? -1);
    const up = arranged.columns * (list.book.facing ? 2 : 1);
    const to = { ArrowLeft: from - 1, ArrowRight: from + 1, ArrowUp: from - up, ArrowDown: from + up, Home: 0, End: last }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    const index = Math.min(last, Math.max(0, to));
    if (event.shiftKey) {
      const [a, b] = [Math.min(anchor, index), Math.max(anchor, index)];
      bench.pick(list.pages.slice(a, b + 1).map((page) => page.id));
    } else {
      anchor = index;
      bench.pick([list.pages[index]!.id]);
    }
    reach = index;
    showPage(index);
  }

  function showPage(index: number): void {
    const tile = arranged.tiles.find((each) => each.index === index);
    const page = list.pages[index];
    if (tile && page) mat?.show({ x0: tile.x, y0: tile.y, x1: tile.x + page.trim.width, y1: tile.y + page.trim.height });
  }

  $effect(() => {
    if (!bench.pointed) return;
    const index = list.pages.findIndex(({ id }) => id === bench.pointed!.pages[0]);
    bench.pointed = undefined;
    if (index >= 0) showPage(index);
  });

  // --- Reading positions and distances off the mat. ---

  const tileAt = ({ x, y }: { x: number; y: number }): Tile | undefined =>
    arranged.tiles.find((tile) => {
      const { width, height } = list.pages[tile.index]!.trim;
      return x >= tile.x && x <= tile.x + width && y >= tile.y && y <= tile.y + height;
    });
  let hovered = $state.raw<{ tile: Tile; x: number; y: number } | undefined>();
  function onhover(at: { x: number; y: number } | undefined): void {
    const tile = at && tileAt(at);
    hovered = tile && { tile, x: at.x - tile.x, y: at.y - tile.y };
  }
  /** Edges that a measured point sticks to: trim, bleed is beyond it, margins and columns. */
  const edges = $derived.by(() => {
    if (!bench.measure) return { xs: [], ys: [] };
    const [xs, ys] = [new Set<number>(), new Set<number>()];
    for (const { index, x, y, side } of arranged.tiles) {
      const page = list.pages[index]!;
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
    const { id } = list.pages[tile.index]!;
    bench.putFormat(format, bench.picked.has(id) && bench.pickedSelection ? bench.pickedSelection : { ids: [id] });
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
    onempty={() => bench.pick([])}
  >
    {#snippet children(view)}
      {#each onMat(view) as tile (list.pages[tile.index]!.id)}
        {@const page = list.pages[tile.index]!}
        {@const ghost = ghostOf(tile)}
        {#if page.trim.height * view.k < FAR_PX}
          <FarTile
            {page}
            side={tile.side}
            x={tile.x}
            y={tile.y}
            position={tile.index + 1}
            label={labels[tile.index]!}
            picked={bench.picked.has(page.id)}
            fresh={!!bench.trial && !before.has(page.id)}
            flag={flags.get(page.id)}
            {ghost}
            surveys={bench.surveys}
            k={view.k}
            onpick={(event) => press(tile.index, event)}
          />
        {:else}
          <PageTile
            {page}
            side={tile.side}
            x={tile.x}
            y={tile.y}
            faced={tile.faced}
            position={tile.index + 1}
            label={labels[tile.index]!}
            picked={bench.picked.has(page.id)}
            fresh={!!bench.trial && !before.has(page.id)}
            flag={flags.get(page.id)}
            {ghost}
            safe={bench.guides.safe ? bench.docket.safe : undefined}
            margins={bench.guides.margins}
            away={bench.guides.away || !!ghost || !!cropping}
            surveys={bench.surveys}
            k={view.k}
            onpick={(event) => press(tile.index, event)}
          />
        {/if}
      {/each}
      {#if activeBox}<Handles box={activeBox} {grips} k={view.k} ongrip={grip} />{/if}
      {#if bench.measure}<MeasureLine {view} unit={bench.unit} toMat={(event) => mat!.toMat(event)} {edges} />{/if}
    {/snippet}
  </Mat>
  {#if hovered}
    <p class="hover mono" aria-live="off">
      page {hovered.tile.index + 1} · {formatFigure(tidy(hovered.x, bench.unit), bench.unit)} from the left, {formatLength(
        tidy(hovered.y, bench.unit),
        bench.unit,
      )} from the head
    </p>
  {/if}
  {#if bench.measure}
    <p class="caption">Click two points; edges draw them in. <button class="link" onclick={() => (bench.measure = false)}>Done (Esc)</button></p>
  {/if}
  {#if !list.pages.length}
    <EmptyCard title="No pages yet" text="Take in a PDF, or begin with blank pages.">
      <a class="btn" href="/jobs/{bench.id}/take-in">Take in a file</a>
      <button class="btn q" onclick={() => bench.open({ kind: 'blank' })}>Blank pages</button>
    </EmptyCard>
  {/if}
</div>

<style>
  .hover,
  .caption {
    position: absolute;
    bottom: 8px;
    padding: 2px 9px;
    font-size: 12px;
    pointer-events: none;
  }
  .hover {
    left: 30px;
    background: #1f3a36d9;
    color: #eef4f0;
  }
  .caption {
    right: 12px;
    background: var(--card);
    pointer-events: auto;
  }
</style>

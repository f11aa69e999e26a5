<script lang="ts">
  import EmptyCard from '../parts/EmptyCard.svelte';
  import type { Size } from '../../core/measure/box';
  import type { Level } from '../../core/checks/finding';
  import { labelsOf } from '../../core/pages/labels';
  import { resizeMatrix } from '../../core/pages/resize';
  import { sameSize } from '../../core/paper/sizes';
  import type { Bench } from '../bench.svelte';
  import Mat, { type View, type Zoom } from '../mat/Mat.svelte';
  import PageTile from '../mat/PageTile.svelte';
  import { arrangeSpreads, type Tile } from '../mat/arrange';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let [matWidth, matHeight] = $state([768, 700]);
  const list = $derived(bench.shown.list);
  const arranged = $derived(arrangeSpreads(list, matWidth / Math.max(1, matHeight)));
  const labels = $derived(labelsOf(list.pages));
  const before = $derived(new Map(bench.base.list.pages.map((page) => [page.id, page.trim])));
  /** The page from which a pick with Shift reaches. */
  let anchor = $state(0);

  const flags = $derived.by(() => {
    const worst = new Map<string, Level>();
    const rank = { stop: 2, look: 1, note: 0 };
    for (const { level, pages } of bench.shown.findings) {
      if (level === 'note' || pages.length === list.pages.length) continue;
      for (const id of pages) if (rank[level] > (worst.has(id) ? rank[worst.get(id)!] : -1)) worst.set(id, level);
    }
    return worst;
  });

  const inSight = (tile: Tile, view: View) => {
    const { trim } = list.pages[tile.index]!;
    const slack = 60;
    return tile.x + trim.width + slack > view.x0 && tile.x - slack < view.x1 && tile.y + trim.height + slack > view.y0 && tile.y - slack < view.y1;
  };

  /** Where the trim was, when what is being tried changes it. */
  function ghostOf(tile: Tile) {
    const page = list.pages[tile.index]!;
    const old: Size | undefined = bench.trial && before.get(page.id);
    if (!old || sameSize(old, page.trim)) return undefined;
    const step = bench.tried ?? bench.trial!.steps.findLast((each) => each.kind === 'trim');
    const fixed = step?.kind === 'trim' ? step.fixed : ({ x: 'centre', y: 'centre' } as const);
    const [, , , , x, y] = resizeMatrix(old, page.trim, 'hold', fixed, tile.side);
    return { x, y, ...old };
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

  let reach = $state(0);
  function onkeydown(event: KeyboardEvent): void {
    const last = list.pages.length - 1;
    if (last < 0) return;
    const from = event.shiftKey ? reach : (bench.pickedIndexes[0] ?? -1);
    const up = arranged.columns * 2;
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

  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

<div class="stage" bind:clientWidth={matWidth} bind:clientHeight={matHeight}>
  <Mat
    bind:this={mat}
    bind:zoom
    unit={bench.unit}
    width={arranged.width}
    height={arranged.height}
    fitTo="width"
    label="Pages"
    {onkeydown}
    onmarquee={marquee}
    onempty={() => bench.pick([])}
  >
    {#snippet children(view)}
      {#each arranged.tiles as tile (list.pages[tile.index]!.id)}
        {@const page = list.pages[tile.index]!}
        {#if inSight(tile, view)}
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
            ghost={ghostOf(tile)}
            surveys={bench.surveys}
            k={view.k}
            onpick={(event) => pick(tile.index, event)}
          />
        {/if}
      {/each}
    {/snippet}
  </Mat>
  {#if !list.pages.length}
    <EmptyCard title="No pages yet" text="Take in a PDF, or put blank pages on the docket.">
      <a class="btn" href="/jobs/{bench.id}/take-in">Take in a file</a>
      <button class="btn q" onclick={() => bench.open({ kind: 'blank' })}>Blank pages</button>
    </EmptyCard>
  {/if}
</div>

<style>
</style>

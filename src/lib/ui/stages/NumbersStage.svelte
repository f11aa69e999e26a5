<script lang="ts">
  import { t } from '../../words/language';
  import { untrack } from 'svelte';
  import { fade } from 'svelte/transition';
  import { faceLabels } from '../../core/numbers/labels';
  import { leafOf, spreadsOf } from '../../core/pages/leaves';
  import { addressesOf, panelsOf } from '../../core/pages/panels';
  import { backSide, facesOf, isReadLeftwards, sideAt, sideOf } from '../../core/pages/page';
  import type { PageList } from '../../core/model/page';
  import type { Bench } from '../bench.svelte';
  import EmptyCard from '../parts/EmptyCard.svelte';
  import { arrangeSpreads } from '../mat/arrange';
  import Caption from '../mat/Caption.svelte';
  import type { TileView } from '../mat/gate.svelte';
  import Mat from '../mat/Mat.svelte';
  import type { Zoom } from '../mat/camera.svelte';
  import AwayArts from '../mat/AwayArts.svelte';
  import NearFace from '../mat/NearFace.svelte';
  import PageTile from '../mat/PageTile.svelte';
  import LineHolds from './LineHolds.svelte';
  import ObjectPicker from './ObjectPicker.svelte';
  import SeriesBand from './SeriesBand.svelte';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  let mat: ReturnType<typeof Mat> | undefined = $state();
  let [matWidth, matHeight] = $state([768, 640]);
  /** The page last navigated to. Its spread or leaf is shown. */
  let at = $state(0);
  /** The leaf is held to the light: its back shows through its front. */
  let light = $state(false);

  const list = $derived(bench.shown.list);
  const faces = $derived(facesOf(list));
  const labels = $derived(faceLabels(list));
  const addresses = $derived(addressesOf(list));
  const base = $derived(new Set(facesOf(bench.base.list).map(({ id }) => id)));
  const here = $derived(Math.min(at, Math.max(0, list.pages.length - 1)));

  $effect(() => {
    const first = bench.selected.indexes[0];
    if (first === undefined) return;
    const on = faces[first]?.panel?.on;
    at = on === undefined ? first : list.pages.findIndex(({ id }) => id === on);
  });
  $effect(() => {
    if (bench.view.goTo === undefined) return;
    at = Math.min(bench.view.goTo, list.pages.length - 1);
    bench.view.goTo = undefined;
  });
  $effect(() => {
    if (!bench.view.pointed) return;
    const index = faces.findIndex(({ id }) => id === bench.view.pointed!.pages[0]);
    bench.view.pointed = undefined;
    if (index >= 0) at = index;
  });

  /** Pages that are seen together: facing pages, or two loose ones side by side. */
  const spreads = $derived.by((): number[][] => {
    if (list.book.facing) return spreadsOf(list.pages.length, list.book).map((spread) => Object.values(spread).sort((a, b) => a - b));
    return Array.from({ length: Math.ceil(list.pages.length / 2) }, (_, n) => [2 * n, 2 * n + 1].filter((index) => index < list.pages.length));
  });
  const turned = $derived(spreads.findIndex((spread) => spread.includes(here)));
  const leaf = $derived(list.pages.flatMap((_, index) => (leafOf(index, list.book).leaf === leafOf(here, list.book).leaf ? [index] : [])));
  const shown = $derived(light && list.book.facing ? leaf : (spreads[turned] ?? []));

  /** The pages shown, as a list of their own that keeps their sides of the book. */
  const part = $derived.by((): PageList => {
    const own = light && list.book.facing ? shown.slice(0, 1) : shown;
    // Panels hang on their leaf: here on that page of it that is seen.
    const hung = panelsOf(list).flatMap(({ front, back, leaf: on }) => {
      const page = own.find((index) => leafOf(index, list.book).leaf === on);
      if (page === undefined) return [];
      return [front, back].map((face) => ({ ...face, panel: { ...face.panel!, on: list.pages[page]!.id } }));
    });
    const first = own[0] === undefined ? list.book.first : sideOf(own[0], list.book);
    return {
      pages: own.map((index) => list.pages[index]!),
      ...(hung.length ? { panels: hung } : {}),
      book: { ...list.book, first, facing: list.book.facing && !light },
    };
  });
  const arranged = $derived(arrangeSpreads(part, { width: matWidth, height: matHeight }, undefined, bench.view.folded));
  const tiles = $derived(
    arranged.tiles.map((tile): TileView => {
      const { id } = facesOf(part)[tile.index]!;
      const index = faces.findIndex((face) => face.id === id);
      const page = faces[index]!;
      return {
        ...tile,
        index,
        page,
        side: sideAt(index, list),
        name: addresses.get(page.id) ?? String(index + 1),
        label: labels.get(page.id) ?? '',
        selected: bench.selected.ids.has(page.id),
        isNew: !!bench.draft.trial && !base.has(page.id),
        flag: undefined,
        ghost: undefined,
      };
    }),
  );
  /** The back of the leaf that is held to the light. */
  const behind = $derived(light && shown.length === 2 ? list.pages[shown[1]!] : undefined);
  const mirror = (tile: TileView): string =>
    list.book.spine === 'head' ? `translate(0 ${tile.page.trim.height}) scale(1 -1)` : `translate(${tile.page.trim.width} 0) scale(-1 1)`;

  /** Of a book that is read from right to left, the next spread lies at the left. */
  const leftwards = $derived(isReadLeftwards(list.book));
  function turn(by: number): void {
    const next = spreads[Math.min(spreads.length - 1, Math.max(0, turned + by))]?.[0];
    if (next !== undefined) at = next;
  }
  /** Goes to a page that is pointed at on the band, and selects it. */
  function go(index: number): void {
    at = index;
    if (!bench.draft.form) bench.selected.choose([list.pages[index]!.id]);
  }
  // The stage opens on facing pages, the first that carry what is worked on here.
  untrack(() => {
    const pairs = spreads.filter(({ length }) => length === 2);
    const worked = pairs.find((pair) => pair.some((index) => list.pages[index]!.laid ?? list.pages[index]!.lines));
    at = (worked ?? pairs[0])?.[0] ?? 0;
  });
  function onkeydown(event: KeyboardEvent): void {
    const by = {
      ArrowLeft: leftwards ? 1 : -1,
      ArrowRight: leftwards ? -1 : 1,
      ArrowUp: -1,
      ArrowDown: 1,
      PageUp: -10,
      PageDown: 10,
      Home: -Infinity,
      End: Infinity,
    }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      turn(by);
    } else if (event.key.toLowerCase() === 'l' && !event.ctrlKey && !event.metaKey) {
      event.stopPropagation();
      light = !light && list.book.facing;
    }
  }

  const toMat = (event: PointerEvent) => mat!.toMat(event);

  export const zoomTo = (what: Zoom) => mat?.zoomTo(what);
  export const focus = () => mat?.focus();
</script>

<div class="stage" role="region" aria-label={t`Numbers`}>
  <div class="over">
    {#if list.pages.length}<SeriesBand {bench} {shown} ongo={go} />{/if}
    <div class="turn">
      {#snippet before()}<button class="btn q" disabled={turned <= 0} onclick={() => turn(-1)} aria-label={t`Spread before`}
          >{leftwards ? '›' : '‹'}</button
        >{/snippet}
      {#snippet after()}<button class="btn q" disabled={turned >= spreads.length - 1} onclick={() => turn(1)} aria-label={t`Next spread`}
          >{leftwards ? '‹' : '›'}</button
        >{/snippet}
      {#if leftwards}{@render after()}{:else}{@render before()}{/if}
      <span class="mono">{t`${shown.map((index) => index + 1).join(' · ') || '–'} of ${list.pages.length}`}</span>
      {#if leftwards}{@render before()}{:else}{@render after()}{/if}
      <button
        class="btn q light"
        aria-pressed={light && list.book.facing}
        disabled={!list.book.facing}
        title={list.book.facing ? t`The back of the leaf seen through its front (L)` : t`Loose pages have no printed back`}
        onclick={() => (light = !light)}>{t`Hold to the light`}</button
      >
    </div>
  </div>
  <div class="mat" bind:clientWidth={matWidth} bind:clientHeight={matHeight}>
    <Mat
      bind:this={mat}
      bind:zoom
      unit={bench.unit}
      width={arranged.width}
      height={arranged.height}
      label={t`Facing pages`}
      still={bench.draft.form && 'held'}
      {...bench.draft.asking ? { cursor: 'crosshair' } : {}}
      {onkeydown}
      onempty={() => bench.selected.choose([])}
    >
      {#snippet children(view)}
        <AwayArts {tiles} all={bench.view.guides.away} surveys={bench.surveys} k={view.k} />
        {#each tiles as tile (tile.page.id)}
          <PageTile
            view={tile}
            unit={bench.unit}
            safe={bench.view.guides.safe ? bench.docket.safe : undefined}
            margins={bench.view.guides.margins}
            surveys={bench.surveys}
            k={view.k}
            onpick={(event) => bench.selected.chooseOne(tile.page.id, event)}
          />
        {/each}
        {#if behind && tiles[0]}
          <g transform="translate({tiles[0].x} {tiles[0].y})" class="through" transition:fade={{ duration: 160 }}>
            <g transform={mirror(tiles[0])}>
              <NearFace
                view={{ ...tiles[0], page: behind, side: backSide(list.book), selected: false, name: '', label: '' }}
                surveys={bench.surveys}
                k={view.k}
              />
            </g>
          </g>
        {/if}
        {#each tiles as tile (tile.page.id)}
          <g transform="translate({tile.x} {tile.y + tile.page.trim.height}) scale(1 -1)">
            <LineHolds {bench} {tile} k={view.k} {toMat} />
            {#if bench.draft.asking}<ObjectPicker {bench} {tile} k={view.k} {toMat} />{/if}
          </g>
        {/each}
      {/snippet}
    </Mat>
    {#if bench.draft.asking}
      <Caption
        >{t`Click an object on the page, or draw a box round what is meant.`}
        <button class="link" onclick={() => (bench.draft.asking = undefined)}>{t`Cancel`}</button></Caption
      >
    {:else if behind}
      <Caption>{t`Leaf ${leafOf(here, list.book).leaf} held to the light: page ${shown[1]! + 1} seen through page ${shown[0]! + 1}`}</Caption>
    {/if}
    {#if !list.pages.length}
      <EmptyCard title={t`No pages to number yet`} text={t`Take in a PDF, or begin with blank pages.`}>
        <a class="btn" href="/jobs/{bench.id}/take-in">{t`Take in a file`}</a>
      </EmptyCard>
    {/if}
  </div>
</div>

<style>
  .stage {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    min-width: 0;
    min-height: 0;
  }
  .over {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 16px;
    align-items: end;
    padding: 0 14px 6px;
    background: var(--card);
    border-bottom: 1px solid var(--rule);
  }
  .turn {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: 12.5px;
    white-space: nowrap;
  }
  .turn .btn {
    padding: 2px 8px;
    font-size: 12.5px;
  }
  .light[aria-pressed='true'] {
    background: var(--act);
    color: #fff;
  }
  .mat {
    position: relative;
    min-height: 0;
  }
  .through {
    opacity: 0.5;
    mix-blend-mode: multiply;
    pointer-events: none;
  }
</style>

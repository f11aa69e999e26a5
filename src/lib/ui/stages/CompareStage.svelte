<script lang="ts">
  import { t } from '../../words/language';
  import { applyToPoint } from '../../core/measure/matrix';
  import { bleedSides, sideOf } from '../../core/pages/page';
  import type { Bench } from '../bench.svelte';
  import CompareTiles from '../mat/CompareTiles.svelte';
  import Caption from '../mat/Caption.svelte';
  import Mat from '../mat/Mat.svelte';
  import type { Zoom } from '../mat/camera.svelte';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();

  const BLINK_MS = 700;
  const [GAP, LEAST_LABELS] = [40, 54];
  let mat: ReturnType<typeof Mat> | undefined = $state();
  let [matWidth, matHeight] = $state([768, 700]);
  let source = $state(false);

  // With reduced motion nothing blinks by itself; the space bar switches instead.
  const still = typeof matchMedia === 'function' && matchMedia('(prefers-reduced-motion: reduce)').matches;
  $effect(() => {
    if (bench.view.compare !== 'blink' || still) return;
    const blinking = setInterval(() => (source = !source), BLINK_MS);
    return () => clearInterval(blinking);
  });

  const list = $derived(bench.shown.list);
  /** The selected pages that show a source, or all of them. */
  const pairs = $derived(
    list.pages.flatMap((page, index) => {
      const from = page.art && bench.surveys[page.art.source]?.pages[page.art.index];
      return from && (!bench.selected.ids.size || bench.selected.ids.has(page.id)) ? [{ page, index, from, side: sideOf(index, list.book) }] : [];
    }),
  );
  const arranged = $derived.by(() => {
    const blink = bench.view.compare === 'blink';
    let [x, y, tall, width] = [0, 0, 0, 0];
    const slots = pairs.map(({ page, from, side }) => {
      const supplied = { width: from.boxes.media.x1 - from.boxes.media.x0, height: from.boxes.media.y1 - from.boxes.media.y0 };
      const bleed = bleedSides(page.bleed, side);
      const now = { width: page.trim.width + bleed.left + bleed.right, height: page.trim.height + bleed.head + bleed.foot };
      // The page's corner that the source's upper left corner has become, from the trim's upper left corner, y down.
      const corner = applyToPoint(page.art!.place, 0, supplied.height);
      const meets = { x: -corner.x, y: corner.y - page.trim.height };
      return { supplied, bleed, now, meets };
    });
    const widthOf = ({ supplied, now }: (typeof slots)[number]) =>
      blink ? Math.max(supplied.width, now.width) : supplied.width + GAP / 2 + now.width;
    const heightOf = ({ supplied, now }: (typeof slots)[number]) => Math.max(supplied.height, now.height);
    const labels = Math.max(LEAST_LABELS, ...slots.map((slot) => heightOf(slot) * 0.13));
    const area = slots.reduce((sum, slot) => sum + (widthOf(slot) + GAP) * (heightOf(slot) + labels), 0);
    const across = Math.max(0, ...slots.map(widthOf), Math.sqrt((area * matWidth) / Math.max(1, matHeight)));
    const tiles = slots.map((slot) => {
      if (x > 0 && x + widthOf(slot) > across) {
        y += tall + labels;
        [x, tall] = [0, 0];
      }
      const at = blink
        ? { x: x + slot.meets.x, y: y + slot.meets.y }
        : { x: x + slot.supplied.width + GAP / 2 + slot.bleed.left, y: y + slot.bleed.head };
      const placed = { x, y, at };
      tall = Math.max(tall, heightOf(slot));
      x += widthOf(slot) + GAP;
      width = Math.max(width, x - GAP);
      return placed;
    });
    return { tiles, width, height: y + tall + labels };
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
    fitTo={pairs.length > 1 ? 'width' : 'all'}
    label={t`Pages and their sources`}
    onempty={() => bench.selected.choose([])}
    onkeydown={(event) => still && event.key === 'b' && (source = !source)}
  >
    {#snippet children(view)}
      {#each pairs as { page, index, from, side }, n (page.id)}
        {@const place = arranged.tiles[n]!}
        {#if place.y + Math.max(page.trim.height, from.boxes.media.y1) + 80 > view.y0 && place.y - 80 < view.y1}
          <CompareTiles
            {page}
            {side}
            source={from}
            position={index + 1}
            x={place.x}
            y={place.y}
            at={place.at}
            shown={bench.view.compare === 'beside' ? 'both' : source ? 'source' : 'page'}
            selected={bench.selected.ids.has(page.id)}
            surveys={bench.surveys}
            k={view.k}
            onpick={(event) => bench.selected.chooseOne(page.id, event)}
          />
        {/if}
      {/each}
    {/snippet}
  </Mat>
  <Caption>
    {#if bench.view.compare === 'blink'}{t`${source ? t`as supplied` : t`now`}, one over the other where the art meets${still ? t` · B changes` : ''}`}
    {:else}{t`as supplied on the left, now on the right, at one scale`}{/if}
    · <button class="link" onclick={() => (bench.view.compare = 'off')}>{t`back to the spreads`}</button>
  </Caption>
</div>

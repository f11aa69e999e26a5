<script lang="ts">
  import { t } from '../../words/language';
  import { sizeBox } from '../../core/measure/box';
  import { IDENTITY } from '../../core/measure/matrix';
  import { bleedSides } from '../../core/pages/page';
  import type { Page, Side } from '../../core/model/page';
  import type { SurveyPage, Surveys } from '../../core/model/survey';
  import { pageSurface } from '../../core/surface/pageSurface';
  import SurfaceArt from './SurfaceArt.svelte';
  import SurfaceItems from './SurfaceItems.svelte';

  interface Props {
    page: Page;
    side: Side;
    source: SurveyPage;
    position: number;
    /** Upper left corner of what is supplied, in points on the mat. */
    x: number;
    y: number;
    /** Where the present page's trim has its upper left corner; when blinking, where its art meets the source's. */
    at: { x: number; y: number };
    /** Which of the two shows; both where they lie beside each other. */
    shown: 'both' | 'source' | 'page';
    selected: boolean;
    surveys: Surveys;
    k: number;
    onpick: (event: PointerEvent) => void;
  }
  let { page, side, source, position, x, y, at, shown, selected, surveys, k, onpick }: Props = $props();

  const px = $derived(1 / k);
  /** Blinking, only what differs may change. */
  const marked = $derived(selected && shown === 'both');
  const media = $derived(source.boxes.media);
  const size = $derived({ width: media.x1 - media.x0, height: media.y1 - media.y0 });
  const surface = $derived(pageSurface(page, side));
  const bleed = $derived(bleedSides(page.bleed, side));
</script>

<g
  data-pick={page.id}
  role="option"
  tabindex="-1"
  aria-selected={selected}
  aria-label={t`Page ${position} beside its source`}
  onpointerdown={(event) => event.button === 0 && onpick(event)}
>
  {#if shown !== 'page'}
    <g transform="translate({x} {y + size.height}) scale(1 -1)">
      <rect {...size} fill="#fffdf7" />
      <SurfaceArt item={{ kind: 'art', source: page.art!.source, index: page.art!.index, matrix: IDENTITY, clip: sizeBox(size) }} {surveys} {k} />
      <rect {...size} fill="none" stroke="#1d2422" stroke-width={px} opacity="0.6" />
      <rect
        x={source.boxes.trim.x0}
        y={source.boxes.trim.y0}
        width={source.boxes.trim.x1 - source.boxes.trim.x0}
        height={source.boxes.trim.y1 - source.boxes.trim.y0}
        fill="none"
        stroke="#1d2422"
        stroke-width={1.5 * px}
      />
    </g>
    <text {x} y={y + size.height + 16 * px} font-size={12 * px}>{t`${position} as supplied`}</text>
  {/if}
  {#if shown !== 'source'}
    <g transform="translate({at.x} {at.y + page.trim.height}) scale(1 -1)">
      <rect
        x={-bleed.left}
        y={-bleed.foot}
        width={page.trim.width + bleed.left + bleed.right}
        height={page.trim.height + bleed.head + bleed.foot}
        fill="#fffdf7"
      />
      <SurfaceItems items={surface.items} {surveys} {k} />
      <rect {...page.trim} fill="none" stroke={marked ? '#f2c230' : '#1d2422'} stroke-width={(marked ? 3 : 1.5) * px} />
    </g>
    <text x={at.x} y={at.y + page.trim.height + bleed.foot + 16 * px} font-size={12 * px}>{t`${position} now`}</text>
  {/if}
</g>

<style>
  text {
    font-family: var(--narrow);
    fill: #eef4f0;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import type { Page } from '../../core/model/page';
  import type { Surveys } from '../../core/model/survey';
  import { heightOf, widthOf } from '../../core/measure/box';

  interface Props {
    /** The scan as it would come out. */
    page: Page;
    /** Counted from 1. */
    scan: number;
    surveys: Surveys;
    onanswer: (upsideDown: boolean) => void;
  }
  let { page, scan, surveys, onanswer }: Props = $props();
  const media = $derived(page.art && surveys[page.art.source]?.pages[page.art.index]?.boxes.media);
</script>

<figure>
  {#if page.art && media}
    <svg viewBox="0 0 {page.trim.width} {page.trim.height}" role="img" aria-label={t`Scan ${scan}`}>
      <rect width={page.trim.width} height={page.trim.height} fill="#fffdf7" />
      <g transform="translate(0 {page.trim.height}) scale(1 -1)">
        <image
          href="/api/sources/{page.art.source}/pages/{page.art.index}"
          width={widthOf(media)}
          height={heightOf(media)}
          transform="matrix({page.art.place.join(' ')}) translate(0 {heightOf(media)}) scale(1 -1)"
          preserveAspectRatio="none"
        />
      </g>
    </svg>
  {/if}
  <figcaption>
    <span>{t`Nothing tells which way up scan ${scan} lies.`}</span>
    <button class="btn q small" type="button" onclick={() => onanswer(false)}>{t`It stands right`}</button>
    <button class="btn q small" type="button" onclick={() => onanswer(true)}>{t`It stands upside down`}</button>
  </figcaption>
</figure>

<style>
  figure {
    margin: 0;
    padding: 8px;
    background: var(--well);
  }
  svg {
    display: block;
    width: 100%;
    max-height: 320px;
    background: var(--mat);
  }
  figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    margin-top: 6px;
    font-size: 12.5px;
  }
  figcaption span {
    flex-basis: 100%;
  }
</style>

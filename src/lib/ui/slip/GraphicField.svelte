<script lang="ts">
  import { t } from '../../words/language';
  import type { Graphic } from '../../core/docket/steps/graphic';
  import { heightOf, widthOf } from '../../core/measure/box';
  import { formatSize } from '../../core/measure/formatLength';
  import type { PageList } from '../../core/model/page';
  import { Refused } from '../api';
  import type { OnPage } from '../bench/draft.svelte';
  import type { Bench } from '../bench.svelte';
  import FileButton from '../parts/FileButton.svelte';
  import { sayTrouble } from '../../words/troubles';
  import PagesField from './PagesField.svelte';

  interface Props {
    bench: Bench;
    value: Graphic;
    before: PageList;
    /** An area of a page will do. */
    areas?: boolean;
    onchange: (graphic: Graphic) => void;
  }
  /** What is laid on pages: a page of the job, an object on one, or a file. */
  let { bench, value, before, areas = false, onchange }: Props = $props();
  let trouble = $state('');
  let busy = $state('');
  const inJob = $derived('page' in value ? value : undefined);

  async function bring(file: File): Promise<void> {
    trouble = '';
    busy = file.name;
    try {
      const source = await bench.bringGraphic(file);
      onchange({ source, name: file.name, index: 0 });
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      trouble = sayTrouble(error.trouble);
    } finally {
      busy = '';
    }
  }
  const take = ({ page, box }: OnPage): void => {
    bench.draft.asking = undefined;
    onchange({ page: { ids: [page.id] }, area: box });
  };
</script>

{#if inJob}
  <PagesField label={t`What: the page`} value={inJob.page} list={before} onchange={(page) => onchange({ page })} />
  {#if inJob.area}
    {@const { x0, x1, y0, y1 } = inJob.area}
    <p class="quiet small">
      {t`only a part of it, ${formatSize(x1 - x0, y1 - y0, bench.unit)} ·`}
      <button type="button" class="link" onclick={() => onchange({ page: inJob.page })}>{t`all of it`}</button>
    </p>
  {/if}
{:else if 'source' in value}
  {@const pages = bench.surveys[value.source]?.pages.length ?? 1}
  <div>
    <span class="label">{t`What: the file`}</span>
    <p>
      {value.name}{pages > 1 ? t`, page ${value.index + 1} of ${pages}` : ''}{value.area
        ? t`, a part of it, ${formatSize(widthOf(value.area), heightOf(value.area), bench.unit)}`
        : ''}
    </p>
  </div>
{/if}
<div class="ways">
  <FileButton words={t`From a file`} quiet onfiles={(files) => void bring(files[0]!)} />
  {#if areas}<button type="button" class="btn q" aria-pressed={bench.draft.asking === take} onclick={() => (bench.draft.asking = take)}
      >{bench.draft.asking === take ? t`Click it on the page` : t`An object on a page`}</button
    >{/if}
  {#if !inJob}<button type="button" class="btn q" onclick={() => onchange({ page: 'last' })}>{t`A page of the job`}</button>{/if}
</div>
{#if busy}<p class="quiet small" aria-live="polite">{t`Reading ${busy} …`}</p>{/if}
{#if trouble}<p class="wrong" role="alert">{trouble}</p>{/if}

<style>
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .ways :global(.btn) {
    padding: 4px 9px;
    font-size: 12.5px;
  }
</style>

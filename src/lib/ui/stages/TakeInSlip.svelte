<script lang="ts">
  import { writeNumber } from '../../core/measure/decimalSign';
  import { t } from '../../words/language';
  import { namePages } from '../../words/pages';
  import { TOLERANCES } from '../../core/measure/tolerances';
  import { formatLength } from '../../core/measure/formatLength';
  import { widthOf, heightOf } from '../../core/measure/box';
  import { describeIndexes } from '../../core/select/selection';
  import { declaredBleed } from '../../core/pages/page';
  import { sizeGroups } from '../../core/pages/sizes';
  import { sourcesOf } from '../../core/docket/docket';
  import { saySize } from '../../words/sizes';
  import { likelyWork } from '../../core/docket/likely';
  import { withScheme } from '../../core/docket/edit';
  import type { Scheme } from '../../core/sheets/schemes';
  import { schemeWords } from '../../words/schemes';
  import type { Survey } from '../../core/model/survey';
  import type { Bench } from '../bench.svelte';
  import FileButton from '../parts/FileButton.svelte';
  import Measuring from '../parts/Measuring.svelte';
  import Overview from '../slip/Overview.svelte';
  import CleanScans from './CleanScans.svelte';
  import StepForm from '../slip/StepForm.svelte';

  let { bench, chosen = $bindable() }: { bench: Bench; chosen: string | undefined } = $props();

  const sources = $derived(sourcesOf(bench.docket));
  const source = $derived(chosen ?? sources[0]);
  const survey = $derived(source ? bench.surveys[source] : undefined);
  const nameOf = (hash: string) => {
    const step = bench.docket.steps.find((each) => each.kind === 'take-in' && each.source === hash);
    return step?.kind === 'take-in' ? step.name : hash.slice(0, 12);
  };

  /** What the pages were taken for, while nothing else is done than taking them in. */
  const likely = $derived(
    sources.length > 0 && bench.docket.steps.every(({ kind }) => kind === 'take-in') && bench.docket.scheme.kind === likelyWork(bench.base.list).kind
      ? schemeWords(bench.docket.scheme.kind).name
      : '',
  );
  const others = $derived((['stitched', 'signatures', 'leaflet', 'flat', 'none'] as const).filter((kind) => kind !== bench.docket.scheme.kind));
  const become = (kind: Scheme['kind']) => bench.put(withScheme(bench.docket, kind, bench.base.list));

  /** Pages grouped by trim size and rotation, because a page with /Rotate is not the same as one drawn that way. */
  const groups = (facts: Survey) =>
    sizeGroups(facts.pages.map(({ boxes, rotate }) => ({ trim: { width: widthOf(boxes.trim), height: heightOf(boxes.trim) }, rotate })));
  function bleedOf(facts: Survey): string {
    const declared = facts.pages.map((page) => Math.max(...Object.values(declaredBleed(page))));
    const [least, most] = [Math.min(...declared), Math.max(...declared)];
    if (most < TOLERANCES.reach) return t`none supplied`;
    return least === most || most - least < TOLERANCES.reach
      ? formatLength(most, bench.unit)
      : t`${formatLength(least, bench.unit)} to ${formatLength(most, bench.unit)}`;
  }
  function labelsIn(facts: Survey): string {
    const labels = facts.pages.map((page) => page.label);
    if (labels.every((label) => label === undefined)) return 'none';
    return labels.length === 1 ? `“${labels[0]}”` : t`“${labels[0]}” to “${labels.at(-1)}”`;
  }
  const boxesGiven = (facts: Survey) => [...new Set(facts.pages.flatMap((page) => page.given))].join(', ');
  const megabytes = (bytes: number) =>
    bytes < 1024 * 1024 ? t`${Math.ceil(bytes / 1024)} kB` : `${writeNumber((bytes / 1024 / 1024).toFixed(1))} MB`;
</script>

{#if bench.draft.form}
  {#key bench.draft.form}<StepForm {bench} form={bench.draft.form} />{/key}
{:else}
  <Overview {bench} stages={['take-in']} title={t`Take in`}>
    <FileButton many quiet onfiles={(files) => void bench.incoming.takeIn(files)} />
    {#if likely}
      <p class="likely">
        {t`Taken for`}
        <b>{likely}</b>{t`, by ${bench.base.list.pages.length === 1 ? t`its one page` : t`the number and the sizes of its pages`}. It becomes`}
        {#each others as kind, n (kind)}{n ? ', ' : ''}<button class="link" onclick={() => become(kind)}>{schemeWords(kind).name}</button>{/each}
        {t`instead.`}
      </p>
    {/if}
    <Measuring {bench} />
    {#if sources.length > 1}
      <div>
        <p class="label">{t`Files of this job`}</p>
        <ul>
          {#each sources as hash (hash)}
            <li>
              <button class:on={hash === source} onclick={() => (chosen = hash)}
                >{nameOf(hash)} <span class="mono">{t`${bench.surveys[hash]?.pages.length ?? '?'} p`}</span></button
              >
            </li>
          {/each}
        </ul>
      </div>
    {/if}
    {#if survey && source}
      <dl class="facts">
        <dt>{t`file`}</dt>
        <dd>{nameOf(source)} · <a href="/api/sources/{source}?as=supplied" target="_blank" rel="noreferrer">{t`the original`}</a></dd>
        <dt>{t`pages`}</dt>
        <dd class="mono">{survey.pages.length}</dd>
        {#each groups(survey) as { size, indexes }, i (i)}
          <dt>{i ? t`also` : t`size`}</dt>
          <dd class:odd={i > 0}>
            {saySize(size, bench.unit)}{#if survey.pages[indexes[0]!]!.rotate}{t`, turned ${survey.pages[indexes[0]!]!.rotate}°`}{/if}{#if i > 0}<br
              />{namePages(indexes.length, describeIndexes(indexes))}{/if}
          </dd>
        {/each}
        <dt>{t`bleed`}</dt>
        <dd>{bleedOf(survey)}</dd>
        <dt>{t`boxes`}</dt>
        <dd>{boxesGiven(survey)}</dd>
        <dt>{t`inks`}</dt>
        <dd>
          {#each survey.inks as ink (ink.kind + ink.name)}<span class="ink {ink.kind}">{ink.name}{ink.kind === 'spot' ? t` (spot)` : ''}</span
            >{:else}{t`none`}{/each}
        </dd>
        <dt>{t`labels`}</dt>
        <dd>{labelsIn(survey)}</dd>
        <dt>{t`bookmarks`}</dt>
        <dd>{survey.bookmarks.length ? String(survey.bookmarks.length) : t`none`}</dd>
        <dt>{t`made by`}</dt>
        <dd>
          {t`${survey.producer ?? t`not said`} · PDF ${survey.pdfVersion} · ${megabytes(survey.byteCount)}${survey.encryption === 'owner' ? t` · owner password` : ''}`}
        </dd>
      </dl>
    {/if}
    <CleanScans {bench} />
  </Overview>
{/if}

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    border: 1px solid var(--rule);
    max-height: 132px;
    overflow: auto;
  }
  li button {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    width: 100%;
    padding: 5px 8px;
    border: 0;
    border-left: 3px solid transparent;
    background: var(--well);
    text-align: left;
    font-size: 13px;
    overflow-wrap: anywhere;
    cursor: pointer;
  }
  li .on {
    border-color: var(--act);
    font-weight: 600;
  }
  li .mono {
    font-size: 12px;
    white-space: nowrap;
  }
  .likely {
    font-size: 12.5px;
  }
  .odd {
    color: var(--look);
    font-weight: 500;
  }
  .ink {
    display: inline-block;
    margin: 0 6px 2px 0;
    padding: 0 5px;
    border: 1px solid var(--rule);
    background: var(--well);
  }
  .spot {
    border-color: var(--ink-2);
    border-style: dashed;
  }
</style>

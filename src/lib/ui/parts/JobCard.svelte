<script lang="ts">
  import { t } from '../../words/language';
  import type { JobListing } from '../../wire/told';
  import { sayAgo, sayMoment } from '../../words/ago';
  import { schemeWords } from '../../words/schemes';
  import { saySize } from '../../words/sizes';
  import SpreadPicture from './SpreadPicture.svelte';

  interface Props {
    job: JobListing;
    oncopy: () => void;
    ondelete: () => void;
  }
  /** A job on the list of jobs: how it looks, what it is, what is open in it. */
  let { job, oncopy, ondelete }: Props = $props();
  const { id, summary, changedAt, by, newer, alike } = $derived(job);
  let asking = $state(false);
  /** A size whose figures and unit stay on one line. */
  const unbroken = (size: string): string => size.replace(/ (?=×|[a-z]+$)|(?<=×) /g, '\u00a0');
</script>

<div class="card" role="listitem">
  <div class="open">
    <SpreadPicture spread={summary.spread} />
    <span class="text">
      <a class="title" href="/jobs/{id}"><span class="visually-hidden">{t`Open`}</span> <strong>{summary.title}</strong></a>
      <span class="quiet"
        >{schemeWords(summary.scheme).name}{#if summary.size}&nbsp;· {unbroken(saySize(summary.size, summary.unit))}{/if}</span
      >
      <span class="counts"
        ><span class="mono">{summary.pages}</span>
        {summary.pages === 1 ? t`page` : t`pages`}{#if summary.scheme !== 'none'}&nbsp;· <span class="mono">{summary.sheets}</span>
          {summary.sheets === 1 ? t`sheet` : t`sheets`}{/if}{#if summary.pieces}&nbsp;· <span class="mono">{summary.pieces}</span>
          {summary.pieces === 1 ? t`piece` : t`pieces`}{/if}</span
      >
      <span class="findings">
        {#if newer}<span class="n stop">{t`made by a newer Folder`}</span>{/if}
        {#if summary.open.stop}<span class="n stop"><span class="mono">{summary.open.stop}</span> {t`stop`}</span>{/if}
        {#if summary.open.look}<span class="n look"><span class="mono">{summary.open.look}</span> {t`look`}</span>{/if}
        {#if summary.open.note}<span class="n"><span class="mono">{summary.open.note}</span> {summary.open.note > 1 ? t`notes` : t`note`}</span>{/if}
        {#if summary.pages && !summary.open.stop && !summary.open.look}<span class="n fine">{t`nothing open`}</span>{/if}
      </span>
    </span>
  </div>
  <footer>
    {#if asking}
      <span role="alert">{t`Delete this job? Files that other jobs use stay.`}</span>
      <span class="acts"
        ><button class="link stop" onclick={ondelete}>{t`Delete`}</button><button class="link" onclick={() => (asking = false)}>{t`Keep`}</button
        ></span
      >
    {:else}
      <time class="quiet" datetime={changedAt} title={sayMoment(changedAt)}
        >{by ? `${by}, ` : t`changed `}{alike ? sayMoment(changedAt) : sayAgo(changedAt)}</time
      >
      <span class="acts"
        ><a class="link" href="/api/jobs/{id}/archive" download title={t`The docket and all files as one ZIP`}>{t`Save as file`}</a><button
          class="link"
          onclick={oncopy}>{t`Copy`}</button
        ><button class="link" onclick={() => (asking = true)}>{t`Delete`}</button></span
      >
    {/if}
  </footer>
</div>

<style>
  .card {
    display: flex;
    flex-direction: column;
    background: var(--card);
    clip-path: var(--corner);
  }
  .title {
    color: inherit;
    text-decoration: none;
  }
  /* All of the card opens the job. */
  .title::after {
    content: '';
    position: absolute;
    inset: 0;
  }
  .open {
    position: relative;
    display: grid;
    grid-template-columns: 150px 1fr;
    flex: 1;
    color: var(--ink);
    text-decoration: none;
  }
  .open:hover strong {
    color: var(--act);
    text-decoration: underline;
  }
  .open:focus-visible {
    outline-offset: -3px;
  }
  .text {
    display: flex;
    flex-direction: column;
    gap: 3px;
    padding: 16px 18px 12px;
    min-width: 0;
  }
  strong {
    font-size: 16px;
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  .findings {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: auto;
    padding-top: 10px;
  }
  .n {
    padding: 0 7px;
    border: 1px solid currentColor;
    font-size: 12px;
    color: var(--ink-2);
  }
  .n.stop,
  .link.stop {
    color: var(--cut);
  }
  .n.look {
    color: var(--look);
  }
  .n.fine {
    color: var(--fine);
  }
  footer {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 8px 18px;
    border-top: 1px solid var(--rule);
    font-size: 13px;
  }
  .acts {
    display: flex;
    gap: 14px;
    white-space: nowrap;
  }
</style>

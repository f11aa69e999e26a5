<script lang="ts">
  import { t } from '$lib/words/language';
  import { goto, invalidateAll } from '$app/navigation';
  import { saySize } from '$lib/words/sizes';
  import { api, openJobFile } from '$lib/ui/api';
  import FileButton from '$lib/ui/parts/FileButton.svelte';
  import { sayFailure } from '$lib/ui/sayFailure';
  import JobRows from '$lib/ui/parts/JobRows.svelte';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import { entriesOf } from '$lib/core/entries';
  import type { JobListing, JobSummary } from '$lib/wire/told';
  import { bringAlong } from '$lib/ui/broughtAlong';
  import Search from '@lucide/svelte/icons/search';

  let { data } = $props();
  let search = $state('');
  let busy = $state(false);

  /** What is shown of the jobs. */
  const FILTERS = {
    all: { word: t`all jobs`, takes: () => true },
    stop: { word: t`with a stop`, takes: ({ open }: JobSummary) => open.stop > 0 },
    open: { word: t`with something open`, takes: ({ open }: JobSummary) => open.stop + open.look > 0 },
    fine: { word: t`with nothing open`, takes: ({ open, pages }: JobSummary) => pages > 0 && !open.stop && !open.look },
  };
  const ORDERS = {
    changed: { word: t`changed last`, by: () => 0 },
    title: { word: t`title`, by: (a: JobListing, b: JobListing) => a.summary.title.localeCompare(b.summary.title, undefined, { numeric: true }) },
    pages: { word: t`most pages`, by: (a: JobListing, b: JobListing) => b.summary.pages - a.summary.pages },
    open: {
      word: t`most open`,
      by: (a: JobListing, b: JobListing) => b.summary.open.stop - a.summary.open.stop || b.summary.open.look - a.summary.open.look,
    },
  };
  let show = $state<keyof typeof FILTERS>('all');
  let order = $state<keyof typeof ORDERS>('changed');

  const found = $derived.by(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    const those = data.jobs.filter(({ summary }) => {
      if (!FILTERS[show].takes(summary)) return false;
      const text = `${summary.title} ${summary.scheme} ${summary.size ? saySize(summary.size, summary.unit) : ''}`.toLowerCase();
      return words.every((word) => text.includes(word));
    });
    return order === 'changed' ? those : those.sort(ORDERS[order].by);
  });
  /** Titles that several jobs have: these are told apart by when they were changed. */
  const alike = $derived.by(() => {
    const [seen, twice] = [new Set<string>(), new Set<string>()];
    for (const { summary } of data.jobs) (seen.has(summary.title) ? twice : seen).add(summary.title);
    return twice;
  });

  let wrong = $state('');
  const guard = async (work: () => Promise<unknown>): Promise<void> => {
    busy = true;
    wrong = '';
    try {
      await work();
    } catch (error) {
      wrong = sayFailure(error);
    }
    busy = false;
  };
  const start = () => guard(async () => goto(`/jobs/${(await api.newJob()).id}/take-in`));
  const begin = (files: File[]) => {
    bringAlong(files);
    return start();
  };
  const example = () => guard(async () => goto(`/jobs/${(await api.openExample()).id}/take-in`));
  const open = (file: File) => guard(async () => goto(`/jobs/${await openJobFile(file)}`));
  const copy = (id: string) => guard(() => api.copyJob(id).then(invalidateAll));
  const remove = (id: string) =>
    guard(async () => {
      await api.deleteJob(id);
      await invalidateAll();
    });
</script>

<svelte:head><title>{t`Jobs · Folder`}</title></svelte:head>
<svelte:window
  onkeydown={(event) =>
    event.key === '/' && !(event.target instanceof HTMLInputElement) && (event.preventDefault(), document.getElementById('search')?.focus())}
/>

<TopBar here="jobs">
  <label class="search"
    ><Search size={15} /><span class="visually-hidden">{t`Search jobs`}</span><input
      id="search"
      type="search"
      placeholder={t`Search jobs by name, kind or size`}
      bind:value={search}
    /></label
  >
  <FileButton words={t`Open a job file`} quiet accept=".zip" onfiles={([file]) => file && void open(file)} />
  <button class="btn" onclick={() => void start()} disabled={busy}>{t`New job`}</button>
</TopBar>
<main>
  {#if wrong}<p class="trouble" role="alert">{wrong}</p>{/if}
  {#if !data.jobs.length}
    <section class="empty">
      <h1>{t`No jobs yet`}</h1>
      <p>{t`A job is one piece of work: the files for it, what is done to their pages, and what goes to the press.`}</p>
      <div class="begin">
        <FileButton words={t`Start from your file`} many onfiles={(files) => void begin(files)} />
        <button class="btn q" onclick={() => void example()} disabled={busy}>{t`Open an example`}</button>
        <button class="link" onclick={() => void start()} disabled={busy}>{t`Start the first job empty`}</button>
      </div>
      <p class="quiet">{t`PDF, JPEG, PNG, TIFF or SVG. The example is a stapled booklet of 16 pages, to try everything on.`}</p>
    </section>
  {:else}
    <header class="over">
      <h1>{t`Jobs`}</h1>
      <label for="show">{t`show`}</label>
      <select id="show" class="field" bind:value={show}
        >{#each entriesOf(FILTERS) as [key, { word }] (key)}<option value={key}>{word}</option>{/each}</select
      >
      <label for="order">{t`by`}</label>
      <select id="order" class="field" bind:value={order}
        >{#each entriesOf(ORDERS) as [key, { word }] (key)}<option value={key}>{word}</option>{/each}</select
      >
      <span class="mono">{t`${found.length} of ${data.jobs.length}`}</span>
    </header>
  {/if}
  {#if data.jobs.length && !found.length && search}
    <p class="none">
      {t`No job answers to “${search}”.`} <button class="link" onclick={() => (search = '')}>{t`Show all ${data.jobs.length}`}</button>
    </p>
  {/if}
  <JobRows jobs={found} {alike} oncopy={(id) => void copy(id)} ondelete={(id) => void remove(id)} />
</main>

<style>
  .search {
    display: flex;
    align-items: center;
    gap: 8px;
    flex: 1;
    max-width: 460px;
    margin-left: auto;
    padding: 0 10px;
    border: 1px solid var(--rule);
    background: var(--well);
  }
  .search:focus-within {
    outline: 2px solid var(--act);
  }
  .search input {
    flex: 1;
    padding: 7px 0;
    border: 0;
    outline: none;
    background: none;
  }
  main {
    min-height: calc(100vh - 60px);
    padding: 28px;
    background-color: var(--mat);
    background-image: linear-gradient(var(--mat-fine) 1px, transparent 1px), linear-gradient(90deg, var(--mat-fine) 1px, transparent 1px);
    background-size: 38px 38px;
  }
  .over {
    display: flex;
    align-items: center;
    gap: 18px;
    max-width: 1260px;
    margin: 0 auto 18px;
    color: var(--mat-text);
    font-size: 13px;
  }
  .over h1 {
    font-size: 17px;
    margin-right: auto;
  }
  .over select {
    color: var(--ink);
    width: auto;
    padding: 3px 6px;
  }
  .begin {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 14px;
    align-items: center;
  }
  .empty {
    display: grid;
    gap: 12px;
    justify-items: start;
    width: 460px;
    margin: 12vh auto;
    padding: 28px 32px;
    background: var(--card);
    clip-path: var(--corner);
  }
  .empty h1 {
    font-size: 20px;
  }
  .none {
    max-width: 1260px;
    margin: 0 auto 20px;
    padding: 12px 18px;
    background: var(--card);
  }
</style>

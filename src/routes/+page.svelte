<script lang="ts">
  import { t } from '$lib/words/language';
  import { onMount, untrack } from 'svelte';
  import { beforeNavigate, goto, invalidateAll } from '$app/navigation';
  import { api, openJobFile } from '$lib/ui/api';
  import FileButton from '$lib/ui/parts/FileButton.svelte';
  import { sayFailure } from '$lib/ui/sayFailure';
  import JobRows from '$lib/ui/parts/JobRows.svelte';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import { entriesOf } from '$lib/core/entries';
  import { addressOf, type JobOrder, type JobQuery, type JobShow } from '$lib/wire/jobQuery';
  import { bringAlong } from '$lib/ui/broughtAlong';
  import Search from '@lucide/svelte/icons/search';

  let { data } = $props();
  /** A pause after which what is typed is searched for. */
  const SEARCH_AFTER_MS = 150;
  let busy = $state(false);

  const SHOWS: Record<JobShow, string> = {
    all: t`all jobs`,
    stop: t`with a stop`,
    open: t`with something open`,
    fine: t`with nothing open`,
  };
  const ORDERS: Record<JobOrder, string> = { changed: t`changed last`, title: t`title`, pages: t`most pages`, open: t`most open` };
  const query = $derived(data.query);
  /** What is typed to search for; the address follows it. */
  let search = $state(untrack(() => data.query.search));
  let typed: ReturnType<typeof setTimeout> | undefined;
  /** What the address last asked to search for. */
  let said = untrack(() => data.query.search);
  // Whoever comes by another way, as by the link to all jobs, finds the field as the address has it; what is being typed stays.
  $effect(() => {
    if (data.query.search === said) return;
    said = data.query.search;
    if (typed === undefined) search = said;
  });
  // What was typed before the page came to life is searched for, too.
  onMount(() => {
    if (search !== said) soon();
  });
  const forget = (): void => {
    clearTimeout(typed);
    typed = undefined;
  };
  // Whoever goes elsewhere is not called back.
  beforeNavigate(forget);
  /** Asks for other jobs, or for the same in another order. */
  const ask = (change: Partial<JobQuery>): void => {
    forget();
    void goto(`/${addressOf({ ...query, search, ...change })}`, { replaceState: true, keepFocus: true, noScroll: true });
  };
  const soon = (): void => {
    clearTimeout(typed);
    typed = setTimeout(() => ask({}), SEARCH_AFTER_MS);
  };

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
      oninput={soon}
    /></label
  >
  <FileButton words={t`Open a job file`} quiet accept=".zip" onfiles={([file]) => file && void open(file)} />
  <button class="btn" onclick={() => void start()} disabled={busy}>{t`New job`}</button>
</TopBar>
<main>
  {#if wrong}<p class="trouble" role="alert">{wrong}</p>{/if}
  {#if !data.all}
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
      <select id="show" class="field" bind:value={() => query.show, (show) => ask({ show })}
        >{#each entriesOf(SHOWS) as [key, word] (key)}<option value={key}>{word}</option>{/each}</select
      >
      <label for="order">{t`by`}</label>
      <select id="order" class="field" bind:value={() => query.order, (order) => ask({ order })}
        >{#each entriesOf(ORDERS) as [key, word] (key)}<option value={key}>{word}</option>{/each}</select
      >
      <span class="mono">{t`${data.found} of ${data.all}`}</span>
    </header>
  {/if}
  {#if data.all && !data.found && query.search}
    <p class="none">
      {t`No job answers to “${query.search}”.`}
      <button class="link" onclick={() => ((search = ''), ask({ show: 'all' }))}>{t`Show all ${data.all}`}</button>
    </p>
  {/if}
  <JobRows {query} first={data.jobs} found={data.found} oncopy={(id) => void copy(id)} ondelete={(id) => void remove(id)} />
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

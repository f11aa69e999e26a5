<script lang="ts">
  import { sayAgo, sayMoment } from '$lib/words/ago';
  import { goto, invalidateAll } from '$app/navigation';
  import { saySize } from '$lib/words/sizes';
  import { schemeWords } from '$lib/words/schemes';
  import { api, openJobFile } from '$lib/ui/api';
  import FileButton from '$lib/ui/parts/FileButton.svelte';
  import { sayFailure } from '$lib/ui/sayFailure';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import SpreadPicture from '$lib/ui/parts/SpreadPicture.svelte';
  import Search from '@lucide/svelte/icons/search';

  let { data } = $props();
  let search = $state('');
  let asking = $state<string | undefined>();
  let busy = $state(false);

  const found = $derived.by(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return data.jobs.filter(({ summary }) => {
      const text = `${summary.title} ${summary.scheme} ${summary.size ? saySize(summary.size, summary.unit) : ''}`.toLowerCase();
      return words.every((word) => text.includes(word));
    });
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
  const open = (file: File) => guard(async () => goto(`/jobs/${await openJobFile(file)}`));
  const copy = (id: string) => guard(() => api.copyJob(id).then(invalidateAll));
  const remove = (id: string) =>
    guard(async () => {
      await api.deleteJob(id);
      asking = undefined;
      await invalidateAll();
    });
  /** A size whose figures and unit stay on one line. */
  const unbroken = (size: string): string => size.replace(/ (?=×|[a-z]+$)|(?<=×) /g, '\u00a0');
</script>

<svelte:head><title>Jobs · Folder</title></svelte:head>
<svelte:window
  onkeydown={(event) =>
    event.key === '/' && !(event.target instanceof HTMLInputElement) && (event.preventDefault(), document.getElementById('search')?.focus())}
/>

<TopBar here="jobs">
  <label class="search"
    ><Search size={15} /><span class="visually-hidden">Search jobs</span><input
      id="search"
      type="search"
      placeholder="Search jobs by name, kind or size"
      bind:value={search}
    /></label
  >
  <FileButton words="Open a job file" quiet accept=".zip" onfiles={([file]) => file && void open(file)} />
  <button class="btn" onclick={() => void start()} disabled={busy}>New job</button>
</TopBar>
<main>
  {#if wrong}<p class="trouble" role="alert">{wrong}</p>{/if}
  {#if !data.jobs.length}
    <section class="empty">
      <h1>No jobs yet</h1>
      <p>A job is one piece of work: the files for it, what is done to their pages, and what goes to the press.</p>
      <button class="btn" onclick={() => void start()} disabled={busy}>Start the first job</button>
    </section>
  {:else if !found.length}
    <p class="none">No job answers to “{search}”. <button class="link" onclick={() => (search = '')}>Show all {data.jobs.length}</button></p>
  {/if}
  <ul>
    {#each found as { id, summary, changedAt, by, newer } (id)}
      <li>
        <a class="open" href="/jobs/{id}" aria-label="Open {summary.title}">
          <SpreadPicture spread={summary.spread} />
          <span class="text">
            <strong>{summary.title}</strong>
            <span class="quiet"
              >{schemeWords(summary.scheme).name}{#if summary.size}&nbsp;· {unbroken(saySize(summary.size, summary.unit))}{/if}</span
            >
            <span class="counts"
              ><span class="mono">{summary.pages}</span> page{summary.pages === 1 ? '' : 's'}{#if summary.scheme !== 'none'}&nbsp;· <span class="mono"
                  >{summary.sheets}</span
                >
                sheet{summary.sheets === 1 ? '' : 's'}{/if}{#if summary.pieces}&nbsp;· <span class="mono">{summary.pieces}</span>
                piece{summary.pieces === 1 ? '' : 's'}{/if}</span
            >
            <span class="findings">
              {#if newer}<span class="n stop">made by a newer Folder</span>{/if}
              {#if summary.open.stop}<span class="n stop"><span class="mono">{summary.open.stop}</span> stop</span>{/if}
              {#if summary.open.look}<span class="n look"><span class="mono">{summary.open.look}</span> look</span>{/if}
              {#if summary.open.note}<span class="n"><span class="mono">{summary.open.note}</span> note{summary.open.note > 1 ? 's' : ''}</span>{/if}
              {#if summary.pages && !summary.open.stop && !summary.open.look}<span class="n fine">nothing open</span>{/if}
            </span>
          </span>
        </a>
        <footer>
          {#if asking === id}
            <span role="alert">Delete this job? Files that other jobs use stay.</span>
            <span class="acts"
              ><button class="link stop" onclick={() => void remove(id)}>Delete</button><button class="link" onclick={() => (asking = undefined)}
                >Keep</button
              ></span
            >
          {:else}
            <time class="quiet" datetime={changedAt} title={sayMoment(changedAt)}>{by ? `${by}, ` : 'changed '}{sayAgo(changedAt)}</time>
            <span class="acts"
              ><a class="link" href="/api/jobs/{id}/archive" download title="The docket and all files as one ZIP">Save as file</a><button
                class="link"
                onclick={() => void copy(id)}>Copy</button
              ><button class="link" onclick={() => (asking = id)}>Delete</button></span
            >
          {/if}
        </footer>
      </li>
    {/each}
  </ul>
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
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(380px, 1fr));
    gap: 20px;
    max-width: 1260px;
    margin: 0 auto;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    flex-direction: column;
    background: var(--card);
    clip-path: var(--corner);
  }
  .open {
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

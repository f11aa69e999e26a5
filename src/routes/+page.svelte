<script lang="ts">
  import { goto, invalidateAll } from '$app/navigation';
  import { saySize } from '$lib/words/sizes';
  import { api, openJobFile } from '$lib/ui/api';
  import FileButton from '$lib/ui/parts/FileButton.svelte';
  import { sayFailure } from '$lib/ui/sayFailure';
  import JobRows from '$lib/ui/parts/JobRows.svelte';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import Search from '@lucide/svelte/icons/search';

  let { data } = $props();
  let search = $state('');
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
      await invalidateAll();
    });
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
  <JobRows jobs={found} oncopy={(id) => void copy(id)} ondelete={(id) => void remove(id)} />
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

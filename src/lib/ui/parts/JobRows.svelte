<script lang="ts">
  import { t } from '../../words/language';
  import { onDestroy } from 'svelte';
  import { SvelteMap } from 'svelte/reactivity';
  import { WindowVirtualizer } from 'virtua/svelte';
  import { JOBS_AT_ONCE, type JobQuery } from '../../wire/jobQuery';
  import type { JobListing } from '../../wire/told';
  import { api } from '../api';
  import JobCard from './JobCard.svelte';

  interface Props {
    query: JobQuery;
    /** The first jobs that the query finds, and how many it finds in all. */
    first: readonly JobListing[];
    found: number;
    oncopy: (id: string) => void;
    ondelete: (id: string) => void;
  }
  /**
   * Cards of jobs. The first ones stand where the server put them, so that a click meets what it was aimed at while the page
   * comes to life; of the rows after them only those in sight and near it are drawn, and fetched.
   */
  let { query, first, found, oncopy, ondelete }: Props = $props();
  const [CARD, GAP] = [380, 20];
  const AGAIN_MS = 2000;
  let width = $state(1224);
  const columns = $derived(Math.max(1, Math.floor((width + GAP) / (CARD + GAP))));
  /** Jobs by their number in the list, those that are there, and the parts that are asked for. */
  const jobs = $derived(new SvelteMap(first.map((job, n) => [n, job])));
  const asked = $derived(new Set(first.length ? [0] : []));
  const rows = $derived(
    Array.from({ length: Math.ceil((found - first.length) / columns) }, (_, n) =>
      Array.from({ length: Math.min(columns, found - first.length - n * columns) }, (_, m) => first.length + n * columns + m),
    ),
  );
  /** Fetches the part of the list in which a job stands, unless it is there or on its way. */
  async function want(n: number): Promise<void> {
    const [part, into, known] = [Math.floor(n / JOBS_AT_ONCE), jobs, asked];
    if (known.has(part)) return;
    known.add(part);
    const from = part * JOBS_AT_ONCE;
    // Until it comes, or another list is shown.
    while (isHere && known === asked)
      try {
        for (const [m, job] of (await api.jobs(query, from, JOBS_AT_ONCE)).entries()) into.set(from + m, job);
        return;
      } catch {
        await new Promise((done) => setTimeout(done, AGAIN_MS));
      }
  }
  let isHere = true;
  onDestroy(() => (isHere = false));
</script>

<div class="jobs" role="list" aria-label={t`Jobs`} style:--card-width="{CARD}px" style:--card-gap="{GAP}px" bind:clientWidth={width}>
  <div class="row">
    {#each first as job (job.id)}{@render card(job)}{/each}
  </div>
  <WindowVirtualizer data={rows} getKey={([n]) => n!} bufferSize={1000}>
    {#snippet children(row)}
      <div class="row">
        {#each row as n (n)}
          {@const job = jobs.get(n)}
          {#if job}{#key job.id}{@render card(job)}{/key}
          {:else}<div class="coming" aria-hidden="true" {@attach () => void want(n)}></div>{/if}
        {/each}
      </div>
    {/snippet}
  </WindowVirtualizer>
</div>
{#snippet card(job: JobListing)}<JobCard {job} oncopy={() => oncopy(job.id)} ondelete={() => ondelete(job.id)} />{/snippet}

<style>
  .jobs {
    max-width: 1260px;
    margin: 0 auto;
  }
  .row {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(var(--card-width), 100%), 1fr));
    gap: var(--card-gap);
    padding-bottom: var(--card-gap);
  }
  .coming {
    min-height: 190px;
    background: var(--card);
    opacity: 0.4;
    clip-path: var(--corner);
  }
</style>

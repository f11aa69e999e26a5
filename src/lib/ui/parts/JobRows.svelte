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
  /** Cards of jobs in rows, of which only those in sight and near it are drawn, and fetched. */
  let { query, first, found, oncopy, ondelete }: Props = $props();
  const [CARD, GAP] = [380, 20];
  const AGAIN_MS = 2000;
  let width = $state(1224);
  const columns = $derived(Math.max(1, Math.floor((width + GAP) / (CARD + GAP))));
  /** Jobs by their number in the list, those that are there, and the parts that are asked for. */
  const jobs = $derived(new SvelteMap(first.map((job, n) => [n, job])));
  const asked = $derived(new Set(first.length ? [0] : []));
  const rows = $derived(
    Array.from({ length: Math.ceil(found / columns) }, (_, n) =>
      Array.from({ length: Math.min(columns, found - n * columns) }, (_, m) => n * columns + m),
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

<div class="jobs" role="list" aria-label={t`Jobs`} style:--columns={columns} bind:clientWidth={width}>
  <WindowVirtualizer data={rows} getKey={([n]) => n!} ssrCount={Math.ceil(JOBS_AT_ONCE / columns)} bufferSize={1000}>
    {#snippet children(row)}
      <div class="row">
        {#each row as n (n)}
          {@const job = jobs.get(n)}
          {#if job}{#key job.id}<JobCard {job} oncopy={() => oncopy(job.id)} ondelete={() => ondelete(job.id)} />{/key}
          {:else}<div class="coming" aria-hidden="true" {@attach () => void want(n)}></div>{/if}
        {/each}
      </div>
    {/snippet}
  </WindowVirtualizer>
</div>

<style>
  .jobs {
    max-width: 1260px;
    margin: 0 auto;
  }
  .row {
    display: grid;
    grid-template-columns: repeat(var(--columns), 1fr);
    gap: 20px;
    padding-bottom: 20px;
  }
  .coming {
    min-height: 190px;
    background: var(--card);
    opacity: 0.4;
    clip-path: var(--corner);
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { WindowVirtualizer } from 'virtua/svelte';
  import type { JobListing } from '../../wire/told';
  import JobCard from './JobCard.svelte';

  interface Props {
    jobs: readonly JobListing[];
    /** Titles that several jobs have. */
    alike: ReadonlySet<string>;
    oncopy: (id: string) => void;
    ondelete: (id: string) => void;
  }
  /** Cards of jobs in rows, of which only those in sight and near it are drawn. */
  let { jobs, alike, oncopy, ondelete }: Props = $props();
  const [CARD, GAP] = [380, 20];
  let width = $state(1224);
  const columns = $derived(Math.max(1, Math.floor((width + GAP) / (CARD + GAP))));
  const rows = $derived(Array.from({ length: Math.ceil(jobs.length / columns) }, (_, n) => jobs.slice(n * columns, (n + 1) * columns)));
</script>

<div class="jobs" role="list" aria-label={t`Jobs`} style:--columns={columns} bind:clientWidth={width}>
  <WindowVirtualizer data={rows} getKey={(row) => row[0]!.id} ssrCount={20} bufferSize={2000}>
    {#snippet children(row)}
      <div class="row">
        {#each row as job (job.id)}<JobCard
            {job}
            isAlike={alike.has(job.summary.title)}
            oncopy={() => oncopy(job.id)}
            ondelete={() => ondelete(job.id)}
          />{/each}
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
</style>

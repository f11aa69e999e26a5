<script lang="ts">
  import { t } from '../../words/language';
  import { sayAgo } from '../../words/ago';
  import { sayStanding } from '../../words/proof';
  import type { Bench } from '../bench.svelte';
  import { proofStanding } from '../proofs';

  let { bench }: { bench: Bench } = $props();
  const { last } = $derived(proofStanding(bench.outputs));
  const stands = $derived(!last ? 'none' : !last.output.upToDate ? 'stale' : last.outcome.holds ? 'holds' : 'fails');
</script>

<p class={stands}>
  {#if last && stands === 'stale'}
    <b>{t`Proved as it was:`}</b> {t`the job is another one now.`}
  {:else if last}
    <b>{sayStanding(last.outcome)}</b>
    <small
      >{t`by the finishing line, ${sayAgo(last.output.finishedAt ?? last.output.createdAt)}${last.output.revision === undefined ? '' : t`, revision ${last.output.revision}`}${last.output.by ? t`, ordered by ${last.output.by}` : ''}`}</small
    >
  {:else}
    <b>{t`Not proved yet.`}</b>
  {/if}
</p>

<style>
  p {
    margin: 0;
    padding-left: 9px;
    border-left: 4px solid var(--safe);
    font-size: 13px;
  }
  small {
    display: block;
    font-size: 12px;
    color: var(--ink-2);
  }
  .holds {
    border-color: var(--fine);
  }
  .holds b {
    color: var(--fine);
  }
  .fails {
    border-color: var(--cut);
  }
  .fails b {
    color: var(--cut);
  }
  .stale {
    border-color: var(--look);
  }
</style>

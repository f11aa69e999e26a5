<script lang="ts">
  import { formatDistanceToNow } from 'date-fns';
  import { sayTrouble } from '../../words/errors';
  import type { RunState } from '../api';

  interface Props {
    runs: readonly RunState[];
    /** Cancels a run, or takes one that has ended off the list. */
    ondrop: (id: string) => void;
  }
  /** Files that recipes are carried out on, the newest first. */
  let { runs, ondrop }: Props = $props();
  const going = ({ state }: RunState) => state === 'waiting' || state === 'working';
  const found = ({ findings = [] }: RunState) => findings.filter(({ level }) => level !== 'note');
</script>

{#if !runs.length}
  <p class="quiet">Nothing has been worked by a recipe yet.</p>
{:else}
  <table>
    <thead><tr><th>File</th><th>Recipe</th><th>State</th><th>Result</th><th></th></tr></thead>
    <tbody>
      {#each runs as run (run.id)}
        <tr class={run.state}>
          <td class="name">{run.fileName}<small>{run.folder ? `drop folder ${run.folder}` : run.batch ? 'batch' : ''}</small></td>
          <td>{run.recipe} <small>version {run.version}</small></td>
          <td>
            {#if run.state === 'working'}{run.doing ?? 'working'}
              <progress max={run.total || undefined} value={run.total ? run.done : undefined} aria-label="{run.fileName} being worked"></progress>
            {:else}<b>{run.state}</b>{/if}
            <small>{formatDistanceToNow(run.finishedAt ?? run.createdAt, { addSuffix: true })}</small>
          </td>
          <td>
            {#if run.job}<a href="/jobs/{run.job}/hand-over">Open the job</a>{/if}
            {#if run.trouble}<p class="trouble">{sayTrouble(run.trouble)}</p>
            {:else if found(run).length}<small
                >{found(run)
                  .map(({ title }) => title)
                  .join('; ')}</small
              >{/if}
          </td>
          <td><button class="link" onclick={() => ondrop(run.id)}>{going(run) ? 'Cancel' : 'Put away'}</button></td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    background: var(--card-2);
    font-size: 13px;
  }
  th,
  td {
    padding: 6px 12px;
    border-top: 1px solid var(--rule);
    text-align: left;
    vertical-align: top;
  }
  th {
    font-size: 12px;
    color: var(--ink-2);
  }
  .name {
    overflow-wrap: anywhere;
  }
  td:last-child {
    white-space: nowrap;
  }
  small {
    display: block;
    color: var(--ink-2);
  }
  .done b {
    color: var(--fine);
  }
  .failed b,
  .trouble {
    color: var(--cut);
  }
  .trouble {
    max-width: 420px;
    margin: 2px 0 0;
  }
  progress {
    width: 90px;
    accent-color: var(--act);
  }
</style>

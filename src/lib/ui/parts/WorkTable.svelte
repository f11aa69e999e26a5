<script lang="ts">
  import { sayAgo } from '../../words/ago';
  import { sayTrouble } from '../../words/troubles';
  import { timeLeft, type FirstSeen } from '../timeLeft';
  import type { WorkState } from '../../wire/told';

  interface Props {
    work: readonly WorkState[];
    /** What is said where there is none. */
    none: string;
    /** Cancels what goes on, or takes what has ended off the list. */
    ondrop: (which: WorkState) => void;
    /** Tries again what failed. */
    onagain?: (which: WorkState) => void;
  }
  /** Running and recent work: what it is, for what, how far it is, and what came of it. */
  let { work, none, ondrop, onagain }: Props = $props();
  const KIND = { run: '', output: 'output', intake: 'taken in', measure: 'measured' } as const;
  const STAGE = { run: 'hand-over', output: 'hand-over', intake: 'take-in', measure: 'take-in' } as const;
  const going = ({ state }: WorkState) => state === 'waiting' || state === 'working';
  const found = ({ findings = [] }: WorkState) => findings.filter(({ level }) => level !== 'note');
  /** An output and what it holds stay with its job; only runs are put away here. */
  const canDrop = (each: WorkState) => each.of === 'run' || (each.of === 'output' && going(each));
  /** How far each piece of work was when it was first seen to go on with what it does now. */
  const first: Record<string, FirstSeen> = {};
  const howFar = ({ id, doing, done, total }: WorkState): string =>
    total ? [`${done} of ${total}`, timeLeft((first[`${id} ${doing}`] ??= { at: Date.now(), done }), done, total)].filter(Boolean).join(' · ') : '';
</script>

{#if !work.length}
  <p class="quiet">{none}</p>
{:else}
  <table>
    <thead><tr><th>File</th><th>For</th><th>State</th><th>Result</th><th></th></tr></thead>
    <tbody>
      {#each work as each (`${each.of} ${each.id}`)}
        <tr class={each.state}>
          <td class="name"
            >{each.name || `its files (${each.total})`}<small
              >{each.folder ? `drop folder ${each.folder}` : KIND[each.of]}{#if each.by}&nbsp;· {each.by}{/if}</small
            ></td
          >
          <td class="name">{each.for}</td>
          <td>
            {#if each.state === 'working'}{each.doing ?? 'working'}
              <progress
                max={each.total || undefined}
                value={each.total ? each.done : undefined}
                aria-label="{each.name || each.for}: {each.doing ?? 'working'}"
              ></progress>
              <small>{howFar(each)}</small>
            {:else}<b>{each.state}</b>
              <small>{sayAgo(each.finishedAt ?? each.createdAt)}</small>{/if}
          </td>
          <td>
            {#if each.job}<a href="/jobs/{each.job}/{STAGE[each.of]}">Open the job</a>{/if}
            {#if each.trouble}<p class="trouble">{sayTrouble(each.trouble)}</p>
            {:else if found(each).length}<small
                >{found(each)
                  .map(({ title }) => title)
                  .join('; ')}</small
              >{/if}
          </td>
          <td
            >{#if each.again && onagain}<button class="link" onclick={() => onagain(each)}>Try again</button>{/if}
            {#if canDrop(each)}<button class="link" onclick={() => ondrop(each)}>{going(each) ? 'Cancel' : 'Dismiss'}</button>{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
{/if}

<style>
  table {
    width: 100%;
    table-layout: fixed;
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
  th:nth-child(1),
  th:nth-child(2) {
    width: 25%;
  }
  th:nth-child(3) {
    width: 17%;
  }
  th:last-child {
    width: 90px;
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

<script lang="ts">
  import { t, translated } from '../../words/language';
  import SpreadPicture from './SpreadPicture.svelte';
  import { sayAgo } from '../../words/ago';
  import { sayTrouble } from '../../words/troubles';
  import { timeLeft, type FirstSeen } from '../timeLeft';
  import type { WorkState } from '../../wire/told';

  interface Props {
    work: readonly WorkState[];
    /** What is said if there is none. */
    none: string;
    /** Cancels what goes on, or takes what has ended off the list. */
    ondrop: (which: WorkState) => void;
    /** Tries again what failed. */
    onagain?: (which: WorkState) => void;
  }
  /** Running and recent work: what it is, for what, how far it is, and what came of it. */
  let { work, none, ondrop, onagain }: Props = $props();
  const KIND = { run: '', output: t`output`, intake: t`taken in`, measure: t`read` } as const;
  const STAGE = { run: 'hand-over', output: 'hand-over', intake: 'take-in', measure: 'take-in' } as const;
  const going = ({ state }: WorkState) => state === 'waiting' || state === 'working';
  const found = ({ findings = [] }: WorkState) => findings.filter(({ level }) => level !== 'note');
  /** What came of a job's work stays with it; only runs are put away here. */
  const canDrop = (each: WorkState) => each.of === 'run' || (each.of !== 'intake' && going(each));
  /** How far each piece of work was when it was first seen to go on with what it does now. */
  const first: Record<string, FirstSeen> = {};
  const howFar = ({ id, doing, done, total }: WorkState): string =>
    total ? [t`${done} of ${total}`, timeLeft((first[`${id} ${doing}`] ??= { at: Date.now(), done }), done, total)].filter(Boolean).join(' · ') : '';
</script>

{#if !work.length}
  <p class="quiet">{none}</p>
{:else}
  <div role="table" class="table">
    <div role="row" class="row head">
      {#each ['', t`File`, t`For`, t`State`, t`Result`, ''] as head, n (n)}<span role="columnheader">{head}</span>{/each}
    </div>
    {#each work as each (`${each.of} ${each.id}`)}
      <div role="row" class="row {each.state}">
        <span role="cell" class="picture"
          >{#if each.spread}<SpreadPicture spread={each.spread} />{/if}</span
        >
        <span role="cell" class="name"
          >{each.name || t`its pages${each.total ? ` (${each.total})` : ''}`}<small
            >{each.folder ? t`drop folder ${each.folder}` : KIND[each.of]}{#if each.by}&nbsp;· {each.by}{/if}</small
          ></span
        >
        <span role="cell" class="name">{each.for}</span>
        <span role="cell">
          {#if each.state === 'working'}{each.doing ? translated(each.doing) : t`working`}
            <progress
              max={each.total || undefined}
              value={each.total ? each.done : undefined}
              aria-label="{each.name || each.for}: {each.doing ? translated(each.doing) : t`working`}"
            ></progress>
            <small>{howFar(each)}</small>
          {:else}<b>{translated(each.state)}</b>
            <small>{sayAgo(each.finishedAt ?? each.createdAt)}</small>{/if}
        </span>
        <span role="cell">
          {#if each.of === 'output' && each.state === 'done'}<a href="/api/outputs/{each.id}/file" download>{t`Download`}</a>&nbsp;·
          {/if}{#if each.job}<a href="/jobs/{each.job}/{STAGE[each.of]}">{t`Open the job`}</a>{/if}
          {#if each.trouble}<span class="trouble">{sayTrouble(each.trouble)}</span>
          {:else if found(each).length}<small
              >{found(each)
                .map(({ title }) => title)
                .join('; ')}</small
            >{/if}
        </span>
        <span role="cell"
          >{#if each.again && onagain}<button class="link" onclick={() => onagain(each)}>{t`Try again`}</button>{/if}
          {#if canDrop(each)}<button class="link" onclick={() => ondrop(each)}>{going(each) ? t`Cancel` : t`Dismiss`}</button>{/if}</span
        >
      </div>
    {/each}
  </div>
{/if}

<style>
  .table {
    background: var(--card-2);
    font-size: 13px;
  }
  .row {
    display: grid;
    grid-template-columns: 72px minmax(0, 3fr) minmax(0, 3fr) minmax(150px, 2fr) minmax(0, 4fr) 100px;
    /* Of a long list only the rows in sight are laid out and drawn. */
    content-visibility: auto;
    contain-intrinsic-size: auto 60px;
  }
  [role='cell'],
  [role='columnheader'] {
    padding: 6px 12px;
    border-top: 1px solid var(--rule);
  }
  [role='columnheader'] {
    font-size: 12px;
    font-weight: 600;
    color: var(--ink-2);
  }
  .picture {
    padding: 3px 0 3px 3px;
    height: 60px;
  }
  .head .picture {
    height: auto;
  }
  .name {
    overflow-wrap: anywhere;
  }
  [role='cell']:last-child {
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
    display: block;
    max-width: 420px;
    margin: 2px 0 0;
  }
  progress {
    width: 90px;
    accent-color: var(--act);
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { sourcesOf } from '../../core/docket/docket';
  import { api } from '../api';
  import type { Bench } from '../bench.svelte';
  import { sayFailure } from '../sayFailure';
  import { timeLeft, type FirstSeen } from '../timeLeft';

  let { bench }: { bench: Bench } = $props();
  /** While the pages of a job are read: how far that is, with Cancel. Where they were not read to the end: another try. */
  let wrong = $state('');
  const done = $derived(bench.measuring.reduce((sum, each) => sum + each.done, 0));
  const total = $derived(bench.measuring.reduce((sum, each) => sum + each.total, 0));
  let first: FirstSeen | undefined;
  const left = $derived(total ? timeLeft((first ??= { at: Date.now(), done }), done, total) : '');
  const unread = $derived(sourcesOf(bench.docket).some((source) => bench.surveys[source]?.pages.some(({ drawn }) => !drawn)));

  async function act(what: () => Promise<unknown>): Promise<void> {
    wrong = '';
    try {
      await what();
      await bench.poll();
    } catch (error) {
      wrong = sayFailure(error);
    }
  }
</script>

{#if bench.measuring.length}
  <div class="measuring" role="status" aria-label={t`Reading the pages`}>
    <progress max={total || undefined} value={total ? done : undefined} aria-label={t`Reading the pages`}></progress>
    <span>{total ? t`pages read: ${done} of ${total}` : t`reading the pages …`}{left && ` · ${left}`}</span>
    <button class="link" type="button" onclick={() => void act(() => api.stopMeasures(bench.id))}>{t`Cancel`}</button>
  </div>
{:else if unread}
  <div class="measuring">
    <span>{t`Some pages were not read: what is drawn on them is unknown.`}</span>
    <button class="link" type="button" onclick={() => void act(() => api.tryAgain('measure', bench.id))}>{t`Read them`}</button>
  </div>
{/if}
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}

<style>
  .measuring {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    font-size: 13px;
    color: var(--ink-2);
  }
  progress {
    width: 90px;
    accent-color: var(--act);
  }
</style>

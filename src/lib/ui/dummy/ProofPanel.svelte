<script lang="ts">
  import { t } from '../../words/language';
  import { PLAIN_ERROR } from '../../core/finish/proof';
  import { canBeProved } from '../../core/finish/intended';
  import { formatLength } from '../../core/measure/formatLength';
  import { plural } from '../../words/plural';
  import { sayTrouble } from '../../words/troubles';
  import { api } from '../api';
  import type { Bench } from '../bench.svelte';
  import ProofLine from '../parts/ProofLine.svelte';
  import { proofStanding } from '../proofs';
  import { sayFailure } from '../sayFailure';
  import WeakEdges from './WeakEdges.svelte';

  let { bench }: { bench: Bench } = $props();
  const { last, coming, failed } = $derived(proofStanding(bench.outputs));
  const outcome = $derived(last?.outcome);
  const own = $derived(bench.docket.outputs.find(({ kind }) => kind === 'proof'));

  let wrong = $state('');

  async function prove(): Promise<void> {
    wrong = '';
    try {
      await bench.settled();
      await api.order(bench.id, own ?? { kind: 'proof', error: PLAIN_ERROR });
    } catch (refused) {
      wrong = sayFailure(refused);
    }
    await bench.poll();
  }
  async function cancel(): Promise<void> {
    if (coming) await api.drop(coming.id);
    await bench.poll();
  }
  const pick = (pages: readonly string[]) => bench.selected.choose(pages.slice(0, 1));
</script>

{#if canBeProved(bench.docket.scheme)}
  <section aria-label={t`Proof`}>
    <h2>{t`Proof`}</h2>
    <ProofLine {bench} />
    {#if coming}
      <p class="going">
        <progress max={coming.total || undefined} value={coming.total ? coming.done : undefined} aria-label={t`Being proved`}></progress>
        <span class="mono">{coming.total ? t`${coming.done} / ${coming.total} sheets` : t`begun`}</span>
        <button class="link" onclick={() => void cancel()}>{t`Cancel`}</button>
      </p>
    {:else}
      <button class="btn" onclick={() => void prove()} disabled={!bench.base.plan}>{t`Prove it`}</button>
    {/if}
    {#if wrong || failed}<p class="wrong" role="alert">{wrong || sayTrouble(failed?.trouble ?? { code: 'unforeseen' })}</p>{/if}
    <label class="check"
      ><input
        type="checkbox"
        checked={!!bench.docket.prove}
        onchange={(event) => bench.put({ ...bench.docket, prove: event.currentTarget.checked })}
      />
      {t`Prove the sheets whenever they go out`}</label
    >
    {#if outcome?.named.length}
      <ol>
        {#each outcome.named as { says, pages, picture } (says)}
          <li>
            {says}
            {#if picture}<img src={picture} alt={t`What was intended, what came out, and the difference`} />
              <span class="names" aria-hidden="true"><i>{t`intended`}</i><i>{t`came out`}</i><i>{t`difference`}</i></span>{/if}
            {#if pages.length}
              <span class="acts">
                <button class="link" onclick={() => pick(pages)}>{t`Show it here`}</button>
                <a href="/jobs/{bench.id}/sheets" onclick={() => bench.selected.choose(pages)}>{t`Show on Sheets`}</a>
              </span>
            {/if}
          </li>
        {/each}
      </ol>
    {/if}
    {#if outcome?.weakest}
      {@const { weakest, weak } = outcome}
      <details open={weak > 0}>
        <summary
          >{weak
            ? t`${plural(weak, 'edge')} ${weak === 1 ? t`stands` : t`stand`} less than ${formatLength(weakest.error, bench.unit)}`
            : t`Every edge stands ${formatLength(weakest.error, bench.unit)}`}</summary
        >
        <WeakEdges {weakest} unit={bench.unit} onpick={pick} />
      </details>
    {/if}
  </section>
{/if}

<style>
  section {
    display: grid;
    gap: 8px;
    grid-template-columns: minmax(0, 1fr);
  }
  h2 {
    font-size: 14px;
  }
  .going {
    display: flex;
    align-items: center;
    gap: 8px;
    margin: 0;
    font-size: 12.5px;
  }
  progress {
    flex: 1;
    min-width: 40px;
    accent-color: var(--act);
  }
  .btn {
    justify-self: start;
  }
  .check {
    font-size: 12.5px;
  }
  ol {
    display: grid;
    gap: 9px;
    margin: 0;
    padding: 0;
    list-style: none;
    font-size: 13px;
  }
  li {
    padding-left: 9px;
    border-left: 4px solid var(--cut);
  }
  img {
    display: block;
    width: 100%;
    margin-top: 4px;
    border: 1px solid var(--rule);
  }
  .names {
    display: grid;
    grid-template-columns: 1fr 1fr 1fr;
    font-size: 11.5px;
    color: var(--ink-2);
    text-align: center;
  }
  .names i {
    font-style: normal;
  }
  .acts {
    display: flex;
    gap: 14px;
    margin-top: 2px;
  }
  summary {
    font-size: 13px;
    cursor: pointer;
  }
</style>

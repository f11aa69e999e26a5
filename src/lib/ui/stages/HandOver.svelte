<script lang="ts">
  import { t } from '../../words/language';
  import { outputKey, outputKind, outputSchema, type Output } from '../../core/handover/outputs';
  import { possibleKinds } from '../../core/handover/outputs';
  import { cutsCsv } from '../../core/finish/cuts';
  import { canBeProved } from '../../core/finish/intended';
  import { templateOf, templateSvg } from '../../core/sheets/template';
  import { sheetsXjdf } from '../../core/sheets/xjdf';
  import { outputWords } from '../../words/outputs';
  import { sayTrouble } from '../../words/troubles';
  import { api } from '../api';
  import { asSaved } from '../asSaved';
  import { sayFailure } from '../sayFailure';
  import type { Bench } from '../bench.svelte';
  import ProofLine from '../parts/ProofLine.svelte';
  import OutputCard from './OutputCard.svelte';

  let { bench }: { bench: Bench } = $props();

  const work = $derived(bench.base);
  const { handing } = $derived(bench);
  const stops = $derived(work.findings.filter(({ level }) => level === 'stop'));
  /** The sheets that were made last were kept back by their proof, and the job is as it was. */
  const notProved = $derived.by(() => {
    const last = bench.outputs.find(({ spec }) => spec.kind === 'sheets');
    return !!last?.upToDate && last.state === 'failed' && last.trouble?.code === 'proof-fails';
  });
  const template = $derived(bench.docket.scheme.kind === 'leaflet' ? templateOf(work.list, bench.docket.scheme, bench.docket.safe) : undefined);
  const possible = $derived(possibleKinds(work));
  const outputs = $derived(possible.flatMap((kind) => bench.docket.outputs.filter((output) => output.kind === kind)));
  const outOfDate = $derived(
    outputs.filter((output) => {
      const made = bench.outputs.filter(({ spec }) => outputKey(spec) === outputKey(output));
      const wanted = asSaved(outputSchema, output);
      return !made.some(
        ({ state, upToDate, spec }) =>
          upToDate && (state === 'done' || state === 'waiting' || state === 'working') && asSaved(outputSchema, spec) === wanted,
      );
    }),
  );
  const beingMade = $derived(bench.outputs.filter(({ state }) => state === 'waiting' || state === 'working').length);
  let wrong = $state('');

  /** Hands a text over as a file, made only now. */
  function give(name: string, type: string, text: string): void {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type }));
    link.download = `${bench.docket.title} ${name}`;
    link.click();
    URL.revokeObjectURL(link.href);
  }

  async function make(these: readonly Output[]): Promise<void> {
    wrong = '';
    if (stops.length && !handing.despite.trim() && these.some((output) => !outputKind(output.kind).isForReading?.(output))) {
      wrong = sayTrouble({ code: 'stop-findings', data: { count: stops.length } });
      document.getElementById('despite')?.focus();
      return;
    }
    try {
      await bench.settled();
      for (const output of these) await api.order(bench.id, output, handing.despite.trim() || undefined);
    } catch (error) {
      wrong = sayFailure(error);
    }
    await bench.poll();
  }
</script>

<div class="mat" tabindex="-1">
  <div class="column">
    {#if !work.list.pages.length}
      <article>
        <h2>{t`Nothing to hand over yet`}</h2>
        <p>{t`There are no pages in this job. Take in a file first.`}</p>
        <a class="btn" href="/jobs/{bench.id}/take-in">{t`Take in a file`}</a>
      </article>
    {:else}
      {#if canBeProved(bench.docket.scheme)}<div class="proof"><ProofLine {bench} /><a href="/jobs/{bench.id}/dummy">{t`See it folded`}</a></div>{/if}
      {#if stops.length || notProved}
        <div class="warn">
          <p>
            {#if stops.length}
              {t`${stops.length === 1 ? t`1 finding says stop` : t`${stops.length} findings say stop`}: look at`}
              <a href="/jobs/{bench.id}/pages">{t`Pages`}</a>
              {t`and`} <a href="/jobs/{bench.id}/sheets">{t`Sheets`}</a>
              {t`first.`}
            {:else}{t`The sheets did not go out: what came of folding them is not what was intended. See`}
              <a href="/jobs/{bench.id}/dummy">{t`Dummy`}</a>.{/if}
            {t`To hand over all the same, say why; the job ticket prints it.`}
          </p>
          <label class="label" for="despite">{t`Goes out all the same, because`}</label>
          <input id="despite" class="field" maxlength="300" bind:value={handing.despite} placeholder={t`the customer has seen it`} />
          {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
        </div>
      {/if}
      {#if wrong && !stops.length && !notProved}<p class="warn" role="alert">{wrong}</p>{/if}
      {#if outputs.length > 1}
        <div class="all">
          <button class="btn" disabled={!outOfDate.length} onclick={() => void make(outOfDate)}>
            {outOfDate.length
              ? t`Make all that is out of date (${outOfDate.length})`
              : beingMade
                ? t`Being made: ${beingMade}`
                : t`All is up to date`}
          </button>
        </div>
      {/if}
      {#each outputs as output (outputKey(output))}
        <OutputCard {bench} {output} amount={outputWords(output.kind).amount?.(work, bench.unit) ?? ''} onmake={() => void make([output])}>
          {#if output.kind === 'sheets'}
            {#if 'stock' in bench.docket.scheme}{@const press = bench.docket.scheme}<button
                class="link"
                onclick={() => give('sheets.xjdf', 'application/vnd.cip4-xjdf+xml', sheetsXjdf(work.plan!, press, bench.docket.title))}
                >{t`Sheets as XJDF`}</button
              >{/if}
            {#if bench.docket.scheme.kind === 'flat'}<button class="link" onclick={() => give('cut list.csv', 'text/csv', cutsCsv(work.plan!))}
                >{t`Cut list`}</button
              >{/if}
          {:else if output.kind === 'template'}
            {#each template ?? [] as side (side.name)}<button
                class="link"
                onclick={() => give(`template ${side.name}.svg`, 'image/svg+xml', templateSvg(side))}>{t`${side.name} as SVG`}</button
              >{/each}
          {/if}
        </OutputCard>
      {/each}
      <article class="add">
        <h2>{t`Add an output`}</h2>
        <p class="kinds">
          {#each possible as kind (kind)}<button class="btn q small" title={outputWords(kind).said} onclick={() => handing.add(kind)}
              >{outputWords(kind).name}</button
            >{/each}
        </p>
      </article>
    {/if}
  </div>
</div>

<style>
  .mat {
    min-height: 0;
    overflow: auto;
    background: var(--mat);
    padding: 22px 28px;
  }
  .column {
    display: grid;
    gap: 14px;
    max-width: 780px;
    margin: 0 auto;
  }
  article {
    padding: 16px 22px;
    background: var(--card);
    clip-path: var(--corner);
  }
  h2 {
    font-size: 16px;
    margin-bottom: 6px;
  }
  .kinds {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  .all {
    display: flex;
    justify-content: flex-end;
  }
  .proof {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    padding: 8px 14px;
    background: var(--card);
    font-size: 13px;
  }
  .warn {
    padding: 10px 14px;
    background: var(--card);
    border-left: 4px solid var(--cut);
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { sourcesNamed } from '../../core/docket/docket';
  import { keptStamp } from '../../core/docket/steps/stamp';
  import type { PageList } from '../../core/model/page';
  import { SelectionError } from '../../core/select/selection';
  import type { StepOf } from '../../core/docket/steps';
  import { sayTrouble } from '../../words/troubles';
  import type { OwnStamp } from '../../wire/told';
  import { api, Refused } from '../api';
  import type { Bench } from '../bench.svelte';
  import Folded from '../parts/Folded.svelte';

  interface Props {
    bench: Bench;
    step: StepOf<'stamp'>;
    /** The list that the step meets. */
    before: PageList;
    onuse: (change: Partial<StepOf<'stamp'>>) => void;
  }
  /** Stamps that are kept for all jobs, with their files and settings. */
  let { bench, step, before, onuse }: Props = $props();
  let own = $state.raw<readonly OwnStamp[]>([]);
  let name = $state('');
  let trouble = $state('');
  /** What is kept: a file, or the part of the job's file that the object clicked is. */
  const kept = $derived.by(() => {
    const files = sourcesNamed(bench.docket);
    const nameOf = (source: string) => files.find((each) => each.source === source)?.name;
    try {
      return keptStamp(step, before, bench.surveys, nameOf);
    } catch (error) {
      if (error instanceof SelectionError) return undefined;
      throw error;
    }
  });

  async function ask(work: () => Promise<OwnStamp[]>): Promise<void> {
    trouble = '';
    try {
      own = await work();
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      trouble = sayTrouble(error.trouble);
    }
  }
  $effect(() => void ask(api.stamps));

  async function use({ stamp }: OwnStamp): Promise<void> {
    const { source } = stamp.graphic;
    if (!bench.surveys[source]) bench.surveys = { ...bench.surveys, [source]: await api.survey(source) };
    onuse({ ...stamp, takeOut: undefined });
  }
  async function keep(): Promise<void> {
    if (!kept) return;
    await ask(() => api.keepStamp({ name, stamp: kept }));
    if (!trouble) name = '';
  }
</script>

<Folded title={t`Kept stamps`} count={own.length}>
  <div class="kept">
    {#each own as each (each.name)}
      <p>
        <button type="button" class="link" onclick={() => void use(each)}>{each.name}</button>
        <button type="button" class="link quiet" aria-label={t`Remove ${each.name}`} onclick={() => void ask(() => api.dropStamp(each.name))}
          >{t`remove`}</button
        >
      </p>
    {:else}<p class="quiet">{t`None yet. A stamp from a file, or an object on a page, can be kept with its settings for other jobs.`}</p>{/each}
    {#if kept}
      <div class="row">
        <input class="field" aria-label={t`Name to keep it under`} placeholder={t`Name`} maxlength="60" bind:value={name} />
        <button type="button" class="btn q" disabled={!name.trim()} onclick={() => void keep()}>{t`Keep this one`}</button>
      </div>
    {/if}
    {#if trouble}<p class="wrong" role="alert">{trouble}</p>{/if}
  </div>
</Folded>

<style>
  .kept {
    display: grid;
    gap: 5px;
    margin-top: 6px;
  }
  p {
    display: flex;
    justify-content: space-between;
  }
  .btn {
    padding: 4px 9px;
    font-size: 12.5px;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { CLEANING, USUAL_CLEANING } from '../../core/pages/cleaning';
  import type { StepOf } from '../../core/docket/steps';
  import { CLEANING_WORD } from '../../words/scans';
  import { api } from '../api';
  import type { Bench } from '../bench.svelte';
  import Folded from '../parts/Folded.svelte';
  import { sayFailure } from '../sayFailure';

  /** The scans of a job, cleaned in copies of their files that take their places; the files themselves are kept. */
  let { bench }: { bench: Bench } = $props();
  const scansIn = (source: string): number => bench.surveys[source]?.pages.filter(({ drawn }) => drawn?.scan).length ?? 0;
  const files = $derived(bench.docket.steps.filter((step): step is StepOf<'take-in'> => step.kind === 'take-in' && scansIn(step.source) > 0));
  const scans = $derived(files.reduce((sum, { source }) => sum + scansIn(source), 0));
  const cleaned = $derived(files.filter((step) => step.cleaned));
  let chosen = $state<typeof USUAL_CLEANING | undefined>();
  const how = $derived(chosen ?? cleaned[0]?.cleaned ?? USUAL_CLEANING);
  const any = $derived(CLEANING.some((what) => how[what]));
  const due = $derived(files.filter((step) => CLEANING.some((what) => how[what] !== step.cleaned?.[what])));
  const coming = $derived(bench.incoming.intakes.some(({ copy, state }) => copy && state !== 'failed'));
  let wrong = $state('');

  async function clean(): Promise<void> {
    wrong = '';
    try {
      const { paper, through, edges } = how;
      for (const { source } of due) await api.clean(bench.id, source, { paper, through, edges });
      chosen = undefined;
      await bench.poll();
    } catch (error) {
      wrong = sayFailure(error);
    }
  }
  /** Without what was said of its cleaning. */
  function asItCame({ cleaned, ...step }: StepOf<'take-in'>): StepOf<'take-in'> {
    return cleaned ? { ...step, source: cleaned.from } : step;
  }
</script>

{#if scans}
  <Folded title={cleaned.length ? t`Scans, cleaned` : t`Clean the scans`} count={scans} open={cleaned.length > 0}>
    {#each CLEANING as what (what)}
      <label class="tick"
        ><input type="checkbox" checked={how[what]} onchange={(event) => (chosen = { ...how, [what]: event.currentTarget.checked })} />
        {CLEANING_WORD[what]}</label
      >
    {/each}
    <div class="acts">
      <button class="btn q" type="button" disabled={!any || !due.length || coming || bench.measuring.length > 0} onclick={() => void clean()}
        >{coming ? t`Cleaning …` : cleaned.length ? t`Clean anew` : t`Make ${files.length === 1 ? t`a clean copy` : t`clean copies`}`}</button
      >
      {#if cleaned.length}<button
          class="link"
          type="button"
          onclick={() => bench.changeSteps((steps) => steps.map((step) => (step.kind === 'take-in' ? asItCame(step) : step)))}
          >{t`Use the files as they came`}</button
        >{/if}
    </div>
    {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
    <p class="quiet small">{t`The files themselves are kept, and steps stay as they are.`}</p>
  </Folded>
{/if}

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
    margin-top: 6px;
  }
</style>

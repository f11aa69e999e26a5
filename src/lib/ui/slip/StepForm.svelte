<script lang="ts">
  import { t } from '../../words/language';
  import { namePages } from '../../words/pages';
  import { changed, refreshed } from '../../core/entries';
  import { untrack } from 'svelte';
  import { applyStep, freshStep, stepSchema, type Step } from '../../core/docket/steps';
  import { StepProblem } from '../../core/docket/stepKind';
  import type { PageList } from '../../core/model/page';
  import { sizesChanged } from '../../core/pages/changes';
  import type { Selection } from '../../core/model/selection';
  import { describeIndexes, pickedOf, resolveSelection, SelectionError } from '../../core/select/selection';
  import { sayStepProblem } from '../../words/stepProblems';
  import { plural } from '../../words/plural';
  import { stepWords } from '../../words/steps';
  import type { OpenForm } from '../bench/draft.svelte';
  import type { Bench } from '../bench.svelte';
  import { newStepId } from '../newStepId';
  import FindingCard from '../parts/FindingCard.svelte';
  import PagesField from './PagesField.svelte';
  import { stepFields } from './steps';

  let { bench, form }: { bench: Bench; form: OpenForm } = $props();

  /** The pages that the step meets: those before it on the docket. */
  const before: PageList = $derived.by(() => {
    const at = form.step ? bench.docket.steps.findIndex((step) => step.id === form.step!.id) : bench.docket.steps.length;
    return bench.base.replay.after[at - 1] ?? { pages: [], book: bench.docket.book };
  });
  /** The step as it was begun for the pages of then: what nobody changed follows other pages. */
  let begun: Step | undefined;
  untrack(() => {
    if (!form.step && !form.begun) begun = freshStep(form.kind, newStepId(), bench.beginning(before));
    bench.draft.begin(() => form.begun ?? form.step ?? begun!);
  });
  const step: Step = $derived(bench.draft.step ?? form.step!);
  function changePages(pages: Selection): void {
    const indexes = pickedOf(pages, before);
    if (begun && indexes.length) {
      const anew = freshStep(form.kind, begun.id, { ...bench.beginning(before), chosen: pages, indexes });
      bench.draft.step = { ...refreshed(step, begun, anew), pages } as Step;
      begun = anew;
    } else bench.draft.step = { ...step, pages } as Step;
  }
  /** For which pages a new step is, as its form says it now. */
  const forPages = $derived.by(() => {
    if (!before.pages.length) return t`the first pages of this job`;
    if (!('pages' in step)) return t`for the whole job`;
    const indexes = pickedOf(step.pages, before);
    const of = indexes.length === before.pages.length ? t`all pages` : namePages(indexes.length, describeIndexes(indexes, before));
    return indexes.length ? t`for ${of}` : t`say which pages`;
  });
  const Fields = $derived(stepFields(step.kind));
  const words = $derived(stepWords(step.kind));
  /** Fields that hold something that cannot be used. */
  let fieldsWrong = $state(false);

  /** Why the step cannot be applied as it is; `fields` if the field concerned says so itself. */
  const problem = $derived.by((): 'fields' | StepProblem | SelectionError | undefined => {
    if (fieldsWrong || !stepSchema.safeParse(step).success) return 'fields';
    try {
      applyStep(before, changed(step, { off: undefined }), { surveys: bench.surveys, formats: bench.docket.formats });
      return undefined;
    } catch (error) {
      if (error instanceof StepProblem || error instanceof SelectionError) return error;
      throw error;
    }
  });
  /** An error in a selection is shown at its own field, except for the pages taken from a file. */
  const said = $derived(
    problem instanceof StepProblem || (problem instanceof SelectionError && step.kind === 'take-in' && step.take) ? sayStepProblem(problem) : '',
  );
  const isChanged = $derived(!form.step || JSON.stringify(form.step) !== JSON.stringify(step));

  $effect(() => {
    const wanted = problem || !isChanged ? undefined : step;
    void bench.draft.book;
    // Work it out after the typed key is drawn, so that typing stays fast with many pages.
    let soon: ReturnType<typeof setTimeout> | undefined;
    const shown = requestAnimationFrame(() => (soon = setTimeout(() => bench.tryStep(wanted))));
    return () => {
      cancelAnimationFrame(shown);
      clearTimeout(soon);
    };
  });

  const sum = $derived.by(() => {
    if (problem) return '';
    const was = before.pages.length;
    if (step.kind === 'remove') {
      const gone = resolveSelection(step.pages, before).length;
      return t`${was} − ${gone} = ${plural(was - gone, 'page')}`;
    }
    if (step.kind === 'blank') return t`${was} + ${step.count} = ${plural(was + step.count, 'page')}`;
    if (!bench.draft.trial) return '';
    const count = sizesChanged(bench.base.list, bench.shown.list);
    return count ? t`${count} of ${was} pages change size` : '';
  });
  /** What would go wrong that does not now. */
  const raised = $derived.by(() => {
    if (!bench.draft.trial) return [];
    const known = new Set(bench.base.findings.map(({ code, pages }) => code + pages.join()));
    return bench.findings.filter(
      ({ code, pages, level, stage }) => level !== 'note' && (stage === 'pages' || stage === 'numbers') && !known.has(code + pages.join()),
    );
  });

  function accept(event: SubmitEvent): void {
    event.preventDefault();
    if (problem || !isChanged) return;
    bench.acceptStep(step);
  }

  let element: HTMLFormElement | undefined = $state();
  // The first field takes the keys at once.
  $effect(() => element?.querySelector<HTMLInputElement>('input:not([type=radio]), select')?.focus());
</script>

<form bind:this={element} onsubmit={accept}>
  <header>
    <h1>{step.kind === 'copy' && step.size ? t`Another size of this` : (words.title ?? words.name)}</h1>
    <p class="quiet">
      {form.step ? t`step ${bench.docket.steps.findIndex(({ id }) => id === step.id) + 1} of the docket` : forPages}
    </p>
  </header>
  {#if 'pages' in step}
    <PagesField value={step.pages} list={before} onchange={changePages} />
  {/if}
  <Fields
    {bench}
    {step}
    {before}
    onchange={(next, wrong = false) => {
      bench.draft.step = next;
      fieldsWrong = wrong;
    }}
  />
  {#if words.hint}<p class="quiet small">{words.hint}</p>{/if}
  {#if sum}<p class="mono sum">{sum}</p>{/if}
  {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  {#if raised.length}<h2 class="visually-hidden">{t`What would go wrong`}</h2>{/if}
  {#each raised as finding (finding.code + finding.pages.join())}<FindingCard {finding} {bench} />{/each}
  <div class="btns">
    <button class="btn" disabled={!!problem || !isChanged}>{form.step ? t`Change step` : t`Apply`}</button>
    <button class="btn q" type="button" onclick={() => bench.leave()}>{t`Cancel`}</button>
  </div>
</form>

<style>
  header p {
    font-size: 12.5px;
  }
  .sum {
    font-size: 13px;
  }
</style>

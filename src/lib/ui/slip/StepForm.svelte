<script lang="ts">
  import { changed } from '../../core/entries';
  import { untrack } from 'svelte';
  import { applyStep, freshStep, stepSchema, type Step } from '../../core/docket/steps';
  import { StepProblem } from '../../core/docket/stepKind';
  import type { PageList } from '../../core/model/page';
  import { sizesChanged } from '../../core/pages/changes';
  import { describeIndexes, resolveSelection, SelectionError } from '../../core/select/selection';
  import { sayStepProblem } from '../../words/stepProblems';
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
  untrack(() => (bench.draft.step = form.step ?? form.begun ?? freshStep(form.kind, newStepId(), bench.beginning(before))));
  const step: Step = $derived(bench.draft.step ?? form.step!);
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
      return `${was} − ${gone} = ${was - gone} pages`;
    }
    if (step.kind === 'blank') return `${was} + ${step.count} = ${was + step.count} pages`;
    if (!bench.draft.trial) return '';
    const count = sizesChanged(bench.base.list, bench.shown.list);
    return count ? `${count} of ${was} pages change size` : '';
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
    <h1>{step.kind === 'copy' && step.size ? 'Another size of this' : (words.title ?? words.name)}</h1>
    <p class="quiet">
      {form.step
        ? `step ${bench.docket.steps.findIndex(({ id }) => id === step.id) + 1} of the docket`
        : bench.selected.ids.size
          ? `for the pages selected: ${describeIndexes(bench.selected.indexes, bench.shown.list)}`
          : before.pages.length
            ? 'nothing selected: say which pages'
            : 'the first pages of this job'}
    </p>
  </header>
  {#if 'pages' in step}
    <PagesField value={step.pages} list={before} onchange={(pages) => (bench.draft.step = { ...step, pages } as Step)} />
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
  {#each raised as finding (finding.code + finding.pages.join())}<FindingCard {finding} {bench} />{/each}
  <div class="btns">
    <button class="btn" disabled={!!problem || !isChanged}>{form.step ? 'Change step' : 'Apply'}</button>
    <button class="btn q" type="button" onclick={() => bench.leave()}>Cancel</button>
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

<script lang="ts">
  import { untrack } from 'svelte';
  import { applyStep, stepSchema, type Step } from '../../core/docket/steps';
  import { StepProblem } from '../../core/docket/stepKind';
  import type { PageList } from '../../core/pages/page';
  import { describeIndexes, resolveSelection, SelectionError, type Selection } from '../../core/pages/selection';
  import { commonestSize } from '../../core/pages/leaves';
  import { sayStepProblem } from '../../words/errors';
  import { STEP_NAME } from '../../words/steps';
  import { newStepId, type Bench, type Form } from '../bench.svelte';
  import BleedFields from './BleedFields.svelte';
  import PagesField from './PagesField.svelte';
  import PlaceField from './PlaceField.svelte';
  import TrimFields from './TrimFields.svelte';

  let { bench, form }: { bench: Bench; form: Form } = $props();

  /** The pages that the step meets: those before it on the docket. */
  const before: PageList = $derived.by(() => {
    const at = form.step ? bench.docket.steps.findIndex((step) => step.id === form.step!.id) : bench.docket.steps.length;
    return bench.base.replay.after[at - 1] ?? { pages: [], book: bench.docket.book };
  });
  let step = $state.raw<Step>(untrack(() => form.step ?? fresh(form.kind)));
  /** Fields that hold something that cannot be used. */
  let fieldsWrong = $state(false);

  const beside: Selection = $derived(bench.pickedSelection ?? 'last');
  /** Why the step cannot be taken as it is; `fields` where the field concerned says so itself. */
  const problem = $derived.by((): 'fields' | StepProblem | SelectionError | undefined => {
    if (fieldsWrong || !stepSchema.safeParse(step).success) return 'fields';
    try {
      applyStep(before, { ...step, off: undefined } as Step, { surveys: bench.surveys });
      return undefined;
    } catch (error) {
      if (error instanceof StepProblem || error instanceof SelectionError) return error;
      throw error;
    }
  });
  /** A selection that does not resolve is said at its own field, but for the pages of a file. */
  const said = $derived(
    problem instanceof StepProblem || (problem instanceof SelectionError && step.kind === 'take-in' && step.take)
      ? sayStepProblem(problem as StepProblem)
      : '',
  );
  const changed = $derived(!form.step || JSON.stringify(form.step) !== JSON.stringify(step));

  $effect(() => {
    const wanted = problem || !changed ? undefined : step;
    untrack(() => bench.tryStep(wanted));
  });

  const sum = $derived.by(() => {
    if (problem) return '';
    const was = before.pages.length;
    if (step.kind === 'remove') {
      const gone = resolveSelection(step.pages, before).length;
      return `${was} − ${gone} = ${was - gone} pages`;
    }
    if (step.kind === 'blank') return `${was} + ${step.count} = ${was + step.count} pages`;
    return '';
  });

  function fresh(kind: Step['kind']): Step {
    const id = newStepId();
    const pages = bench.pickedSelection ?? 'all';
    const size = before.pages[bench.pickedIndexes[0] ?? 0]?.trim ?? commonestSize(before.pages) ?? { width: 419.5276, height: 595.2756 };
    switch (kind) {
      case 'blank':
        return { id, kind, count: 1, where: bench.picked.size ? { at: 'after', pages: bench.pickedSelection! } : { at: 'end' } };
      case 'remove':
        return { id, kind, pages: bench.pickedSelection ?? 'last' };
      case 'move':
        return { id, kind, pages: bench.pickedSelection ?? 'last', where: { at: 'end' } };
      case 'trim':
        return { id, kind, pages, width: size.width, height: size.height, content: 'hold', fixed: { x: 'centre', y: 'centre' } };
      case 'bleed': {
        const three = (3 * 72) / 25.4;
        return { id, kind, pages, head: three, foot: three, spine: three, fore: three };
      }
      default:
        throw new Error(`no form begins a step ${kind}`);
    }
  }

  function accept(event: SubmitEvent): void {
    event.preventDefault();
    if (!problem && changed) bench.acceptStep(step);
  }

  let element: HTMLFormElement | undefined = $state();
  // The first field takes the keys at once.
  $effect(() => element?.querySelector<HTMLInputElement>('input:not([type=radio]), select')?.focus());
</script>

<form bind:this={element} onsubmit={accept}>
  <header>
    <h1>{step.kind === 'trim' ? 'Trim size' : step.kind === 'blank' ? 'Blank pages' : STEP_NAME[step.kind]}</h1>
    <p class="quiet">
      {form.step
        ? `step ${bench.docket.steps.findIndex(({ id }) => id === step.id) + 1} of the docket`
        : bench.picked.size
          ? `for the pages picked: ${describeIndexes(bench.pickedIndexes)}`
          : 'nothing is picked: say which pages'}
    </p>
  </header>
  {#if step.kind === 'take-in'}
    {@const now = step}
    <p class="file">{now.name}</p>
    <div>
      <label class="label" for="take">Its pages</label>
      <input
        id="take"
        class="field mono"
        value={now.take ?? ''}
        placeholder="all"
        oninput={(event) => (step = { ...now, take: event.currentTarget.value.trim() || undefined })}
      />
    </div>
    <PlaceField value={now.where} list={before} {beside} onchange={(where) => (step = { ...now, where })} />
  {:else if step.kind === 'blank'}
    {@const now = step}
    <div>
      <label class="label" for="count">How many</label>
      <input
        id="count"
        class="field mono"
        type="number"
        min="1"
        max="2000"
        value={now.count}
        oninput={(event) => (step = { ...now, count: event.currentTarget.valueAsNumber })}
      />
      {#if !(Number.isInteger(now.count) && now.count >= 1 && now.count <= 2000)}<p class="wrong" role="alert">
          A whole number of pages from 1 to 2000.
        </p>{/if}
    </div>
    <PlaceField value={now.where} list={before} {beside} onchange={(where) => (step = { ...now, where })} />
  {:else if step.kind === 'remove'}
    {@const now = step}
    <PagesField value={now.pages} list={before} onchange={(pages) => (step = { ...now, pages })} />
    <p class="quiet small">The files they come from stay as they are; take this step out and the pages are back.</p>
  {:else if step.kind === 'move'}
    {@const now = step}
    <PagesField value={now.pages} list={before} onchange={(pages) => (step = { ...now, pages })} />
    <PlaceField value={now.where} list={before} beside="last" onchange={(where) => (step = { ...now, where })} />
  {:else if step.kind === 'trim'}
    {@const now = step}
    <PagesField value={now.pages} list={before} onchange={(pages) => (step = { ...now, pages })} />
    <TrimFields step={now} {before} unit={bench.unit} onchange={(next, wrong) => ((step = next), (fieldsWrong = wrong))} />
  {:else if step.kind === 'bleed'}
    {@const now = step}
    <PagesField value={now.pages} list={before} onchange={(pages) => (step = { ...now, pages })} />
    <BleedFields step={now} unit={bench.unit} onchange={(next, wrong) => ((step = next), (fieldsWrong = wrong))} />
  {/if}
  {#if sum}<p class="mono sum">{sum}</p>{/if}
  {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  <div class="btns">
    <button class="btn" disabled={!!problem || !changed}>{form.step ? 'Change step' : 'Put on docket'}</button>
    <button class="btn q" type="button" onclick={() => bench.leave()}>Leave</button>
  </div>
</form>

<style>
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 12px;
  }
  h1 {
    font-size: 16px;
  }
  header p,
  .small {
    font-size: 12.5px;
  }
  .file {
    font-weight: 500;
    overflow-wrap: anywhere;
  }
  .sum {
    font-size: 13px;
  }
  .btns {
    display: flex;
    gap: 8px;
  }
</style>

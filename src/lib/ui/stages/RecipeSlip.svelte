<script lang="ts">
  import { t } from '../../words/language';
  import { untrack } from 'svelte';
  import type { Askable } from '../../core/docket/askable';
  import { askableIn, freeName, recipeOf, withRecipe, type Ask, type Recipe, type RecipeValues } from '../../core/docket/recipe';
  import type { Step } from '../../core/docket/steps';
  import { formatLength } from '../../core/measure/formatLength';
  import type { PageList } from '../../core/model/page';
  import { sayAsked, sayChoice } from '../../words/asked';
  import { plural } from '../../words/plural';
  import { sayStep, stepWords } from '../../words/steps';
  import { api } from '../api';
  import { sayFailure } from '../sayFailure';
  import type { Bench } from '../bench.svelte';
  import FindingCard from '../parts/FindingCard.svelte';
  import AskedFields from '../slip/AskedFields.svelte';

  let { bench }: { bench: Bench } = $props();
  const empty: PageList = { pages: [], book: { first: 'right', spine: 'left', facing: true } };
  const { docket } = $derived(bench);

  let recipes = $state.raw<readonly Recipe[]>([]);
  let wrong = $state('');
  let done = $state('');
  $effect(() => {
    api.recipes().then(
      (found) => ({ recipes } = found),
      (error) => (wrong = sayFailure(error)),
    );
  });

  // Saving
  let name = $state(untrack(() => bench.docket.title.slice(0, 60)));
  let left = $state.raw<ReadonlySet<string>>(new Set(untrack(() => bench.docket.steps.filter(({ kind }) => kind === 'take-in').map(({ id }) => id))));
  let [book, scheme, outputs] = $state([true, true, true]);
  let more = $state.raw<readonly Ask[]>([]);
  /** Questions as they were typed, by what is asked for. */
  let questions = $state.raw<Readonly<Record<string, string>>>({});
  const keyOf = ({ step = '', path }: { step?: string | undefined; path: Ask['path'] | Askable['path'] }) => [step, ...path].join('/');
  const steps = $derived(docket.steps.filter(({ id, off }) => !left.has(id) && !off));
  const draft = $derived(recipeOf(bench.base.replay, { name: name.trim() || t`Recipe`, steps: steps.map(({ id }) => id), book, scheme, outputs }));
  const asks = $derived.by(() => {
    const there = new Set(askableNow.map(keyOf));
    const all: Ask[] = [];
    for (const ask of [...draft.asks.map((each) => ({ ...each, label: pagesOf(each) })), ...more.filter((each) => there.has(keyOf(each)))])
      all.push({ ...ask, name: freeName(all, ask.name), label: questions[keyOf(ask)] ?? ask.label });
    return all;
  });
  function pagesOf({ step, label }: Ask): string {
    const kind = steps.find(({ id }) => id === step)?.kind;
    return kind ? t`Pages for “${stepWords(kind).name}”` : label;
  }
  /** The values that can be asked for, with the step that holds each, if any. */
  const askableNow = $derived([
    ...askableIn(draft).map((value) => ({ ...value, step: undefined })),
    ...draft.steps.flatMap((step) => askableIn(draft, step).map((value) => ({ ...value, step: step.id }))),
  ]);
  /** What is not asked for yet: of a step, or besides the steps. */
  const offered = (step?: string) => {
    const asked = new Set(asks.map(keyOf));
    return askableNow.filter((value) => value.step === step && !asked.has(keyOf(value)));
  };
  const say = (step: Step) => {
    const index = docket.steps.indexOf(step);
    const { act, what } = sayStep(step, bench.unit, bench.base.replay.after[index - 1] ?? empty, docket.formats);
    return `${act} ${what}`;
  };
  const toggle = (id: string) => (left = new Set(left.has(id) ? [...left].filter((each) => each !== id) : [...left, id]));
  function ask(at: string, step?: Step): void {
    const value = offered(step?.id)[Number(at)];
    if (!value) return;
    const words = sayAsked(value.path, draft);
    const asked: Ask = {
      name: freeName(asks, String(value.path.at(-1))),
      label: `${words[0]!.toUpperCase()}${words.slice(1)}${step ? ` (${stepWords(step.kind).name})` : ''}`.slice(0, 80),
      kind: value.kind,
      path: [...value.path],
      preset: value.preset,
      ...(step ? { step: step.id } : {}),
    };
    more = [...more, asked];
  }
  const known = $derived(recipes.find((each) => each.name.toLowerCase() === name.trim().toLowerCase()));
  async function save(): Promise<void> {
    wrong = done = '';
    try {
      const saved = await api.saveRecipe({ ...draft, asks });
      done = t`Saved as “${saved.name}”, version ${saved.version}.`;
      ({ recipes } = await api.recipes());
    } catch (error) {
      wrong = sayFailure(error);
    }
  }

  // Replaying
  let chosen = $state('');
  let values = $state.raw<RecipeValues>({});
  let valuesWrong = $state(false);
  const recipe = $derived(recipes.find((each) => each.name === chosen));
  const tried = $derived.by(() => {
    if (bench.draft.recipe !== 'replay' || !recipe) return { docket: undefined, wrong: '' };
    try {
      return { docket: withRecipe(docket, recipe, values), wrong: '' };
    } catch (error) {
      return { docket: undefined, wrong: sayFailure(error) };
    }
  });
  $effect(() => {
    const trial = tried.docket;
    untrack(() => (bench.draft.trial = trial));
    return () => untrack(() => (bench.draft.trial = undefined));
  });
</script>

{#snippet askFor(label: string, step?: Step)}
  {@const values = offered(step?.id)}
  {#if values.length}
    <select
      class="field askfor"
      aria-label={label}
      value=""
      onchange={(event) => {
        ask(event.currentTarget.value, step);
        event.currentTarget.value = '';
      }}
    >
      <option value="">{t`ask for …`}</option>
      {#each values as { path }, at (path.join())}<option value={String(at)}>{sayAsked(path, draft)}</option>{/each}
    </select>
  {/if}
{/snippet}

{#if bench.draft.recipe === 'save'}
  <form
    class="fields"
    onsubmit={(event) => {
      event.preventDefault();
      void save();
    }}
  >
    <h1>{t`Save as a recipe`}</h1>
    <div>
      <label class="label" for="recipe-name">{t`Name`}</label>
      <input id="recipe-name" class="field" maxlength="60" bind:value={name} oninput={() => (done = '')} />
      {#if known && !done}<p class="quiet">{t`Becomes version ${known.version + 1} of “${known.name}”. Jobs keep what they were made with.`}</p>{/if}
    </div>
    <fieldset>
      <legend class="label">{t`Steps`}</legend>
      {#each docket.steps as step, n (step.id)}
        <div class="step" class:out={left.has(step.id)}>
          <label
            ><input type="checkbox" checked={!left.has(step.id)} disabled={step.off} onchange={() => toggle(step.id)} /> {n + 1} {say(step)}</label
          >
          {#if !left.has(step.id) && !step.off}{@render askFor(`Ask for a value of step ${n + 1}`, step)}{/if}
        </div>
      {/each}
    </fieldset>
    <label class="tick"><input type="checkbox" bind:checked={book} /> {t`how the book lies, and its safe margin`}</label>
    <label class="tick"><input type="checkbox" bind:checked={scheme} /> {t`how pages go on sheets`}</label>
    <label class="tick"><input type="checkbox" bind:checked={outputs} /> {t`what is handed over (${docket.outputs.length})`}</label>
    {@render askFor('Ask for a value besides the steps')}
    {#if asks.length}
      <div>
        <p class="label">{t`Asked for when it is replayed`}</p>
        {#each asks as each (keyOf(each))}
          {@const { name: asked, label, kind, preset } = each}
          <p class="ask">
            <input
              class="field"
              aria-label={t`Question for ${asked}`}
              value={label}
              maxlength="80"
              oninput={(event) => (questions = { ...questions, [keyOf(each)]: event.currentTarget.value })}
            />
            <span
              ><span class="mono"
                >{asked} = {kind === 'length' && typeof preset === 'number'
                  ? formatLength(preset, bench.unit)
                  : typeof preset === 'number'
                    ? Math.round(preset * 100) / 100
                    : kind === 'choice'
                      ? sayChoice(each.path, String(preset))
                      : preset}</span
              >
              {#if more.some((one) => keyOf(one) === keyOf(each))}
                <button type="button" class="link" onclick={() => (more = more.filter((one) => keyOf(one) !== keyOf(each)))}>{t`leave out`}</button>
              {:else}<small>{t`pointed at`}</small>{/if}
            </span>
          </p>
        {/each}
      </div>
    {/if}
    <div class="btns">
      {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
      {#if done}<p class="done" role="status">{done} <a href="/recipes">{t`All recipes`}</a></p>{/if}
      <button class="btn" disabled={!name.trim() || asks.some(({ label }) => !label.trim()) || (!steps.length && !book && !scheme && !outputs)}
        >{t`Save recipe`}</button
      >
      <button type="button" class="btn q" onclick={() => bench.leave()}>{done ? t`Close` : t`Cancel`}</button>
    </div>
  </form>
{:else}
  <form
    class="fields"
    onsubmit={(event) => {
      event.preventDefault();
      if (tried.docket) bench.put(tried.docket);
    }}
  >
    <h1>{t`Replay a recipe`}</h1>
    {#if !recipes.length}
      <p class="quiet">{t`There are no recipes yet. Steps that are on a docket can be saved as one, and replayed here.`}</p>
    {:else}
      <div>
        <label class="label" for="recipe">{t`Recipe`}</label>
        <select id="recipe" class="field" bind:value={chosen} onchange={() => (values = {})}>
          <option value="">{t`choose …`}</option>
          {#each recipes as { name: each, version } (each)}<option value={each}>{t`${each} (version ${version})`}</option>{/each}
        </select>
      </div>
    {/if}
    {#if recipe}
      <p class="quiet">
        {t`${plural(recipe.steps.length, 'step')}${recipe.book ? t`, how the book lies` : ''}${recipe.scheme ? t`, how pages go on sheets` : ''}${recipe.outputs ? t`, ${plural(recipe.outputs.length, 'output')}` : ''}. What it makes of this job is shown; nothing is changed yet.`}
      </p>
      <AskedFields {recipe} {values} unit={bench.unit} onchange={(next, wrong) => ([values, valuesWrong] = [next, wrong])} />
      {#if tried.wrong}<p class="wrong" role="alert">{tried.wrong}</p>{/if}
      {#if tried.docket}
        <p>{plural(bench.shown.list.pages.length, 'page')}, {plural(bench.findings.length, 'finding')}</p>
        {#each bench.findings.slice(0, 6) as finding, n (n)}<FindingCard {finding} {bench} />{/each}
      {/if}
    {/if}
    <div class="btns">
      <button class="btn" disabled={!tried.docket || valuesWrong}>{t`Replay`}</button>
      <button type="button" class="btn q" onclick={() => bench.leave()}>{t`Cancel`}</button>
    </div>
  </form>
{/if}

<style>
  h1 {
    font-size: 15px;
    margin: 0;
  }
  fieldset {
    margin: 0;
    padding: 0;
    border: 0;
    min-width: 0;
  }
  .step {
    padding: 4px 0;
    border-top: 1px solid var(--rule);
    font-size: 12.5px;
  }
  .step label,
  .tick {
    display: flex;
    gap: 7px;
    align-items: baseline;
    font-size: 13px;
  }
  .askfor {
    margin: 3px 0 2px 20px;
    width: calc(100% - 20px);
    padding: 2px 4px;
    font-size: 12px;
  }
  .out label {
    color: var(--ink-2);
  }
  .ask {
    padding: 4px 0;
    font-size: 12.5px;
  }
  .ask span {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 8px;
  }
  .ask .mono,
  .ask small {
    color: var(--ink-2);
  }
  .ask .mono {
    overflow-wrap: anywhere;
  }
  .btns {
    flex-wrap: wrap;
  }
  .btns p {
    flex: 1 0 100%;
  }
  .done {
    color: var(--fine);
    font-weight: 600;
    font-size: 13px;
  }
</style>

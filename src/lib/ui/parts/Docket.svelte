<script lang="ts">
  import { t } from '../../words/language';
  import { touchedBy } from '../../core/docket/touched';
  import { changed } from '../../core/entries';
  import type { Step } from '../../core/docket/steps';
  import type { PageList } from '../../core/model/page';
  import { sayStep } from '../../words/steps';
  import type { Bench } from '../bench.svelte';
  import { openMenu, type MenuItem } from '../menu.svelte';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Power from '@lucide/svelte/icons/power';
  import { Virtualizer } from 'virtua/svelte';

  let { bench }: { bench: Bench } = $props();
  const empty: PageList = { pages: [], book: { first: 'right', spine: 'left', facing: true } };
  const failed = $derived(new Set(bench.base.replay.failed.map(({ step }) => step.id)));
  /** Steps that redo would bring back, where it would only add to the end. */
  const ahead = $derived.by(() => {
    const last = bench.redo.at(-1);
    const now = bench.docket.steps;
    return last && now.every((step, i) => last.steps[i]?.id === step.id) ? last.steps.slice(now.length) : [];
  });

  /** From so many steps on, some of them can be looked for. */
  const LONG = 10;
  let wanted = $state('');
  /** So many stand where the server put them while the page comes to life, as clicks need; of the others those near sight are drawn. */
  const PLAIN = 30;
  let before = $state(0);
  interface Row {
    step: Step;
    index: number;
    undone: boolean;
  }
  const rows = $derived.by((): Row[] => {
    const all = [
      ...bench.docket.steps.map((step, index) => ({ step, index, undone: false })),
      ...ahead.map((step, n) => ({ step, index: bench.docket.steps.length + n, undone: true })),
    ];
    const looked = wanted.trim().toLowerCase();
    if (!looked || all.length < LONG) return all;
    return all.filter(({ step, index }) => {
      const { act, what, detail } = say(step, index);
      return `${index + 1} ${act} ${what} ${detail} ${step.recipe?.name ?? ''}`.toLowerCase().includes(looked);
    });
  });

  const say = (step: Step, index: number) => sayStep(step, bench.unit, bench.base.replay.after[index - 1] ?? empty, bench.docket.formats);
  function swap(index: number, by: -1 | 1): void {
    bench.changeSteps((steps) => {
      const [moved] = steps.splice(index, 1);
      steps.splice(index + by, 0, moved!);
      return steps;
    });
  }
  function begin(what: 'save' | 'replay'): void {
    bench.leave();
    bench.draft.recipe = what;
  }
  const remove = (id: string) => bench.changeSteps((steps) => steps.filter((each) => each.id !== id));
  /** Shows on the mat which pages a step acted on. */
  function point(step: Step, index: number): void {
    const { after } = bench.base.replay;
    bench.view.hinted = new Set(step.off ? [] : touchedBy(step, after[index - 1] ?? empty, after[index] ?? bench.base.list));
  }
  const pointNowhere = () => (bench.view.hinted = new Set());
  /** Keys on a step: Delete takes it off the docket, Alt with an arrow moves it. */
  function keys(event: KeyboardEvent, index: number): void {
    const by = ({ ArrowUp: -1, ArrowDown: 1 } as const)[event.key];
    const { steps } = bench.docket;
    if (event.key === 'Delete') remove(steps[index]!.id);
    else if (event.altKey && by && steps[index + by]) swap(index, by);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  const offersFor = (step: Step, index: number): MenuItem[] => [
    { word: t`Edit`, do: () => bench.open({ kind: step.kind, step }) },
    { word: step.off ? t`Switch on` : t`Switch off`, do: () => toggle(step.id) },
    { word: t`Earlier`, key: t`Alt ↑`, disabled: index === 0, do: () => swap(index, -1) },
    { word: t`Later`, key: t`Alt ↓`, disabled: index === bench.docket.steps.length - 1, do: () => swap(index, 1) },
    { word: t`Remove from the docket`, key: t`Del`, do: () => remove(step.id) },
  ];
  const toggle = (id: string) =>
    bench.changeSteps((steps) =>
      steps.map((step) => (step.id !== id ? step : step.off ? changed(step, { off: undefined }) : { ...step, off: true as const })),
    );
</script>

<aside aria-label={t`Docket`}>
  <header>
    <h2>{t`Docket`}</h2>
    <span>
      <button class="tool" onclick={() => bench.walk('undo')} disabled={!bench.canUndo} title={t`Undo (Ctrl+Z)`}>{t`Undo`}</button>
      <button class="tool" onclick={() => bench.walk('redo')} disabled={!bench.redo.length} title={t`Redo (Ctrl+Shift+Z)`}>{t`Redo`}</button>
    </span>
  </header>
  {#if !bench.docket.steps.length && !ahead.length}
    <p class="none">{t`Nothing yet. Each thing you do to the pages stands here as a step that can be changed later.`}</p>
  {/if}
  {#if bench.docket.steps.length >= LONG}
    <input class="field find" type="search" aria-label={t`Find steps`} placeholder={t`find steps`} bind:value={wanted} />
    {#if !rows.length}<p class="none">{t`No step says “${wanted}”.`}</p>{/if}
  {/if}
  <div class="steps">
    <ol bind:clientHeight={before}>
      {#each rows.slice(0, PLAIN) as row (row.step.id)}<li>{@render line(row)}</li>{/each}
    </ol>
    {#if rows.length > PLAIN}
      <Virtualizer data={rows.slice(PLAIN)} getKey={({ step }) => step.id} as="ol" item="li" startMargin={before} bufferSize={2000}>
        {#snippet children(row)}{@render line(row)}{/snippet}
      </Virtualizer>
    {/if}
  </div>
  <div class="recipes">
    <button class="tool" disabled={!bench.docket.steps.length} onclick={() => begin('save')}>{t`Save as a recipe`}</button>
    <button class="tool" onclick={() => begin('replay')}>{t`Replay a recipe`}</button>
  </div>
</aside>
{#snippet line({ step, index, undone }: Row)}
  {#if undone}
    {@const words = sayStep(step, bench.unit, bench.base.list)}
    <div class="step ahead">
      <button class="line" onclick={() => bench.walk('redo')} title={t`Redo brings this back`}>
        <span class="mono n">{index + 1}</span>
        <span class="words"><b>{words.act}</b> {words.what}<small>{t`undone`}</small></span>
      </button>
    </div>
  {:else}
    {@const words = say(step, index)}
    <div
      class="step"
      class:off={step.off}
      class:failed={failed.has(step.id)}
      class:here={index === bench.docket.steps.length - 1}
      class:open={bench.draft.form?.step?.id === step.id}
      role="presentation"
      oncontextmenu={(event) => openMenu(event, t`Step ${index + 1}`, offersFor(step, index))}
      onpointerenter={() => point(step, index)}
      onpointerleave={pointNowhere}
      onfocusin={() => point(step, index)}
      onfocusout={pointNowhere}
      onkeydown={(event) => keys(event, index)}
    >
      <button class="line" onclick={() => bench.open({ kind: step.kind, step })}>
        <span class="visually-hidden">{t`Edit step`}</span>
        <span class="mono n">{index + 1}<span class="visually-hidden">:</span></span>
        <span class="words"
          ><b>{words.act}</b>
          {words.what}<small>{step.off ? t`switched off` : failed.has(step.id) ? t`does not apply` : words.detail}</small>{#if step.recipe}<small
              >{t`from “${step.recipe.name}”, version ${step.recipe.version}`}</small
            >{/if}</span
        >
      </button>
      <span class="tools">
        <button
          title={step.off ? t`Switch on` : t`Switch off`}
          aria-label={t`${step.off ? t`Switch on` : t`Switch off`} step ${index + 1}`}
          onclick={() => toggle(step.id)}><Power size={13} /></button
        >
        <button
          title={t`More`}
          aria-label={t`More of step ${index + 1}`}
          onclick={(event) => openMenu(event, t`Step ${index + 1}`, offersFor(step, index))}><Ellipsis size={14} /></button
        >
      </span>
    </div>
  {/if}
{/snippet}

<style>
  aside {
    display: flex;
    flex-direction: column;
    min-height: 0;
    border-right: 1px solid var(--rule);
    background: var(--card);
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    padding: 9px 10px 7px 16px;
  }
  .recipes {
    display: flex;
    justify-content: space-between;
    padding: 6px 10px;
    border-top: 1px solid var(--rule);
  }
  h2 {
    font-size: 12px;
    color: var(--ink-2);
  }
  .tool {
    padding: 2px 6px;
    border: 1px solid transparent;
    background: none;
    font-size: 12px;
    color: var(--act);
    cursor: pointer;
  }
  .tool:hover:not(:disabled) {
    border-color: var(--rule);
    background: var(--well);
  }
  .tool:disabled {
    color: #86897f;
    cursor: default;
  }
  .none {
    padding: 8px 16px;
    font-size: 12.5px;
    color: var(--ink-2);
  }
  .steps {
    flex: 1;
    min-height: 0;
    overflow: auto;
    border-top: 1px solid var(--rule);
  }
  .steps :global(ol) {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  .find {
    width: auto;
    margin: 0 10px 8px;
    font-size: 12.5px;
  }
  .step {
    position: relative;
    display: grid;
    /* The tools have a column of their own, and cover no words. */
    grid-template-columns: minmax(0, 1fr) 26px;
    border-bottom: 1px solid var(--rule);
  }
  .line {
    display: grid;
    /* The numbers of long dockets need more room than two figures do. */
    grid-template-columns: minmax(24px, max-content) 1fr;
    column-gap: 4px;
    width: 100%;
    padding: 7px 4px 7px 10px;
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .line:hover,
  .open .line {
    background: var(--well);
  }
  .n {
    font-size: 12px;
    padding-top: 1px;
    color: var(--ink-2);
  }
  .words {
    min-width: 0;
    overflow-wrap: anywhere;
  }
  b {
    font-weight: 600;
  }
  small {
    display: block;
    font-size: 12px;
    color: var(--ink-2);
  }
  .off b {
    text-decoration: line-through;
    font-weight: 400;
  }
  .off .words {
    color: var(--ink-2);
  }
  .failed small {
    color: var(--cut);
    font-weight: 600;
  }
  .here::after {
    content: '';
    position: absolute;
    left: 0;
    top: 0;
    bottom: 0;
    width: 4px;
    background: var(--act);
  }
  .ahead {
    border-bottom-style: dashed;
    opacity: 0.72;
  }
  .tools {
    display: grid;
    align-content: start;
    padding: 4px 3px 4px 0;
    opacity: 0;
  }
  .step:hover .tools,
  .step:focus-within .tools {
    opacity: 1;
    background: var(--well);
  }
  .tools button {
    display: grid;
    place-items: center;
    width: 24px;
    height: 22px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--ink-2);
    cursor: pointer;
  }
  .tools button:hover:not(:disabled) {
    color: var(--act);
  }
</style>

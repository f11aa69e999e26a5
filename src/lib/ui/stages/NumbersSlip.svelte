<script lang="ts">
  import { t } from '../../words/language';
  import { namePages } from '../../words/pages';
  import { STEP_KINDS } from '../../core/docket/steps';
  import { labelsOf } from '../../core/numbers/labels';
  import { numberedFrom, stretchesOf } from '../../core/numbers/series';
  import { describeIndexes } from '../../core/select/selection';
  import { sayStep } from '../../words/steps';
  import type { Bench } from '../bench.svelte';
  import Acts from '../parts/Acts.svelte';
  import { actsOf } from '../slip/acts';
  import Inks from '../slip/Inks.svelte';
  import Overview from '../slip/Overview.svelte';
  import StepForm from '../slip/StepForm.svelte';
  import { saySeries } from './series';

  let { bench }: { bench: Bench } = $props();

  const list = $derived(bench.base.list);
  const none = $derived(!list.pages.length);
  const labels = $derived(labelsOf(list));
  const selected = $derived(bench.selected.indexes.filter((index) => index < list.pages.length));
  const one = $derived(selected.length === 1 ? selected[0] : undefined);

  const acts = $derived(actsOf('numbers', bench));

  // --- "This page is number …": one field begins a series. ---

  let typed = $state('');
  const renumbered = $derived(one === undefined || !typed.trim() ? undefined : numberedFrom(list, list.pages[one]!.id, typed));
  const wrong = $derived(one !== undefined && !!typed.trim() && !renumbered);
  function number(event: SubmitEvent): void {
    event.preventDefault();
    if (!renumbered) return;
    bench.acceptStep(saySeries(bench, renumbered));
    typed = '';
  }
  function tryNumber(text: string): void {
    typed = text;
    bench.tryStep(renumbered && saySeries(bench, renumbered));
  }
  $effect(() => {
    void one;
    typed = '';
  });

  /** What lies on pages: each step of such a kind is shown. */
  const LAID = new Set<string>(STEP_KINDS.flatMap(({ kind, on, button, single }) => (on === 'numbers' && button && !single ? [kind] : [])));
  const laid = $derived(bench.docket.steps.flatMap((step, index) => (LAID.has(step.kind) ? [{ step, index }] : [])));
  const stretches = $derived(stretchesOf(list));
  const said = (from: number, to: number) => {
    const shown = labels.slice(from, to).filter(Boolean);
    return shown.length ? (shown.length > 1 ? `${shown[0]} – ${shown.at(-1)}` : shown[0]) : t`no numbers`;
  };
</script>

{#if bench.draft.form}
  {#key bench.draft.form}<StepForm {bench} form={bench.draft.form} />{/key}
{:else}
  <Overview {bench} stages={['numbers']} title={t`Numbers`}>
    {#if one !== undefined}
      <form onsubmit={number} class="is">
        <label class="label" for="is-number">{t`Page ${one + 1} is number`}</label>
        <div>
          <input
            id="is-number"
            class="field mono"
            value={typed}
            placeholder={labels[one] || t`none`}
            autocomplete="off"
            aria-invalid={wrong}
            oninput={(event) => tryNumber(event.currentTarget.value)}
          />
          <button class="btn" disabled={!renumbered}>{t`Count from here`}</button>
        </div>
        {#if wrong}<p class="wrong" role="alert">{t`This cannot be counted from. Type 1, i, A, A-1, or none.`}</p>
        {:else}<p class="quiet small">{t`1, i, A, A-1 or none. A series begins here and lasts until the next.`}</p>{/if}
      </form>
    {:else if !none}
      <p class="quiet small">{t`Select a page to say which number it is, or drag the borders of the series above.`}</p>
    {/if}
    <Acts label={selected.length ? t`With ${namePages(selected.length, describeIndexes(selected, list))}` : t`Put on the pages`} {acts} />
    {#if !none}
      <table aria-label={t`Series`}>
        <tbody>
          {#each stretches as { from, to, series } (from)}
            <tr>
              <td class="mono">{from + 1}{to - from > 1 ? `–${to}` : ''}</td>
              <td>{series?.name ?? ''}</td>
              <td class="mono">{said(from, to)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if laid.length}
      <section aria-label={t`On the pages`} class="laid">
        {#each laid as { step, index } (step.id)}
          {@const words = sayStep(step, bench.unit, bench.base.replay.after[index - 1] ?? list, bench.docket.formats)}
          <button class:off={step.off} onclick={() => bench.open({ kind: step.kind, step })}
            ><b>{words.act}</b> {words.what}<small>{step.off ? t`switched off` : words.detail}</small></button
          >
        {/each}
      </section>
    {/if}
    {#if !none}<Inks {bench} />{/if}
  </Overview>
{/if}

<style>
  .is div {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 6px;
  }
  .is input {
    text-align: right;
  }
  .is .btn {
    padding: 4px 10px;
    font-size: 13px;
  }
  table {
    border-collapse: collapse;
    font-size: 12.5px;
  }
  td {
    padding: 2px 8px 2px 0;
    border-bottom: 1px solid var(--rule);
  }
  td:last-child {
    text-align: right;
    padding-right: 0;
  }
  .laid {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
  .laid button {
    padding: 4px 8px;
    border: 0;
    border-left: 3px solid var(--act);
    background: var(--card-2);
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }
  .laid small {
    display: block;
    color: var(--ink-2);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .off {
    opacity: 0.6;
  }
</style>

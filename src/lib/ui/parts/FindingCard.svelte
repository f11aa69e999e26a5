<script lang="ts">
  import { t } from '../../words/language';
  import { plural } from '../../words/plural';
  import { namePages } from '../../words/pages';
  import type { Finding } from '../../core/checks';
  import { facesOf } from '../../core/pages/page';
  import { describeIndexes } from '../../core/select/selection';
  import { LEVEL_WORD, sayFinding, sayMend } from '../../words/checks';
  import type { Bench } from '../bench.svelte';

  let { finding, bench }: { finding: Finding; bench: Bench } = $props();
  const said = $derived(sayFinding(finding, bench.unit));
  const where = $derived.by(() => {
    const ids = new Set(finding.pages);
    return describeIndexes(
      facesOf(bench.shown.list).flatMap((page, index) => (ids.has(page.id) ? [index] : [])),
      bench.shown.list,
    );
  });

  function point(): void {
    bench.selected.choose(finding.pages);
    bench.view.pointed = finding;
  }
</script>

<article class={finding.level}>
  <h3><span class="level">{LEVEL_WORD[finding.level]}</span> {said.title}</h3>
  <p>{said.text}</p>
  <div>
    {#each [finding.mend, finding.otherMend].filter((each) => each !== undefined) as mend (mend.code + JSON.stringify(mend.data ?? {}))}
      <button
        type="button"
        class="link strong"
        onclick={() => bench.put(bench.mended(mend))}
        onpointerenter={() => !bench.draft.form && !bench.draft.typing && (bench.draft.trial = bench.mended(mend))}
        onpointerleave={() => !bench.draft.form && !bench.draft.typing && (bench.draft.trial = undefined)}>{sayMend(mend)}</button
      >
    {/each}
    {#if finding.step}
      <button
        type="button"
        class="link"
        onclick={() =>
          bench.open({
            kind: bench.docket.steps.find((step) => step.id === finding.step)!.kind,
            step: bench.docket.steps.find((step) => step.id === finding.step)!,
          })}>{t`Edit the step`}</button
      >
    {:else if where}
      <button type="button" class="link" onclick={point}
        >{t`Select ${where.length > 14 ? plural(finding.pages.length, 'page') : namePages(finding.pages.length, where)}`}</button
      >
    {/if}
  </div>
</article>

<style>
  article {
    padding: 2px 0 2px 10px;
    border-left: 4px solid var(--safe);
    font-size: 13px;
  }
  .stop {
    border-color: var(--cut);
  }
  .look {
    border-color: var(--look);
  }
  h3 {
    font-size: 13px;
  }
  .level {
    font: 11px var(--mono);
    padding: 0 4px;
    margin-right: 2px;
    border: 1px solid currentColor;
    color: var(--ink-2);
  }
  .stop .level {
    color: var(--cut);
  }
  .look .level {
    color: var(--look);
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    margin-top: 2px;
  }
  .strong {
    font-weight: 600;
  }
</style>

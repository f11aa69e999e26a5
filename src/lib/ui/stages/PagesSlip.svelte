<script lang="ts">
  import { formatLength } from '../../core/measure/formatLength';
  import { bleedSides, sideOf } from '../../core/pages/page';
  import { describeIndexes } from '../../core/pages/selection';
  import { saySize } from '../../words/findings';
  import type { Step } from '../../core/docket/steps';
  import type { Bench } from '../bench.svelte';
  import Choice from '../parts/Choice.svelte';
  import Overview from '../slip/Overview.svelte';
  import StepForm from '../slip/StepForm.svelte';

  let { bench }: { bench: Bench } = $props();

  const ACTS: [Step['kind'], string, string][] = [
    ['trim', 'Size', 'S'],
    ['bleed', 'Bleed', 'E'],
    ['blank', 'Blank', 'N'],
    ['move', 'Move', 'G'],
    ['remove', 'Take out', 'Del'],
  ];
  const picked = $derived(bench.pickedIndexes);
  const page = $derived(picked.length === 1 ? bench.shown.list.pages[picked[0]!] : undefined);
  const bleed = $derived(page && bleedSides(page.bleed, sideOf(picked[0]!, bench.shown.list.book)));
  const from = $derived(page?.art && bench.docket.steps.find((step) => step.kind === 'take-in' && step.source === page.art!.source));
</script>

{#if bench.form}
  {#key bench.form}<StepForm {bench} form={bench.form} />{/key}
{:else}
  <Overview {bench} stages={['pages']} title="Pages">
    <Choice
      label="First page lies"
      options={[
        ['left', 'on the left'],
        ['right', 'on the right'],
      ]}
      value={bench.docket.book.first}
      onchange={(first) => bench.put({ ...bench.docket, book: { ...bench.docket.book, first } })}
    />
    <section aria-label="Do">
      <p class="label">
        {picked.length ? `With page${picked.length > 1 ? 's' : ''} ${describeIndexes(picked)}` : 'Pick pages, or choose what to do'}
      </p>
      <div class="acts">
        {#each ACTS as [kind, word, key] (kind)}
          <button class="act" disabled={!bench.base.list.pages.length && kind !== 'blank'} onclick={() => bench.open({ kind })}
            ><span>{word}</span><kbd>{key}</kbd></button
          >
        {/each}
      </div>
    </section>
    {#if page && bleed}
      <dl class="facts">
        <dt>trim</dt>
        <dd>{saySize(page.trim, bench.unit)}</dd>
        <dt>bleed</dt>
        <dd>
          {#if new Set(Object.values(bleed).map((value) => value.toFixed(3))).size === 1}{formatLength(bleed.head, bench.unit)} all round
          {:else}head {formatLength(bleed.head, bench.unit)}, foot {formatLength(bleed.foot, bench.unit)}, left {formatLength(
              bleed.left,
              bench.unit,
            )}, right {formatLength(bleed.right, bench.unit)}{/if}
        </dd>
        <dt>shows</dt>
        <dd>{page.art ? `page ${page.art.index + 1} of ${from?.kind === 'take-in' ? from.name : 'a file'}` : 'nothing, it is blank'}</dd>
      </dl>
    {/if}
  </Overview>
{/if}

<style>
  .acts {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px;
  }
  .act {
    display: flex;
    justify-content: space-between;
    align-items: center;
    padding: 7px 10px;
    border: 1px solid var(--rule);
    background: var(--well);
    font-weight: 500;
    cursor: pointer;
    clip-path: polygon(0 0, calc(100% - 7px) 0, 100% 7px, 100% 100%, 0 100%);
  }
  .act:hover:not(:disabled) {
    border-color: var(--act);
    color: var(--act);
  }
  .act:disabled {
    opacity: 0.5;
  }
  kbd {
    font: 11px var(--mono);
    color: var(--ink-2);
  }
</style>

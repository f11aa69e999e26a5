<script lang="ts">
  import { t } from '../../words/language';
  import { untrack } from 'svelte';
  import { outputKey, outputSchema, splitsOf, type Output } from '../../core/handover/outputs';
  import { NAME_TOKENS } from '../../core/handover/names';
  import { plainPattern } from '../../words/fileName';
  import { outputWords, sayPart } from '../../words/outputs';
  import { saySize } from '../../words/sizes';
  import { facesOf } from '../../core/pages/page';
  import { commonestSize } from '../../core/pages/sizes';
  import type { Bench } from '../bench.svelte';
  import { asSaved } from '../asSaved';
  import { outputFields } from '../slip/outputs';
  import SplitOutput from '../slip/SplitOutput.svelte';
  import PatternField from '../slip/PatternField.svelte';
  import { filesOf } from './outputFiles';

  let { bench }: { bench: Bench } = $props();
  const output = $derived(bench.docket.outputs.find((each) => outputKey(each) === bench.handing.chosen));
  let draft = $state.raw<Output | undefined>();
  const plain = (one: Output | undefined): string => asSaved(outputSchema, one);
  const stored = $derived(plain(output));
  $effect(() => {
    // For another output, or another state of it, discard what was typed. The same one that was only saved
    // meanwhile leaves it.
    void stored;
    untrack(() => {
      const { typed } = bench.handing;
      draft = typed && typed.over === stored && typed.output.kind === output?.kind ? typed.output : output;
      fieldsWrong = splitWrong = false;
    });
  });
  function change(more: object): void {
    draft = Object.assign({}, draft, more);
    bench.handing.typed = { output: draft, over: stored };
  }
  const files = $derived(draft && filesOf(bench.base, draft));
  const split = $derived(draft && 'split' in draft ? draft.split : undefined);
  const MOST_SHOWN = 12;
  const faces = $derived(facesOf(bench.base.list));
  const sizeOf = (pages: readonly number[]): string => {
    const size = draft?.kind === 'pages' ? commonestSize(pages.map((index) => faces[index]!)) : undefined;
    return size ? ` · ${saySize(size, bench.unit)}` : '';
  };
  /** Fields of its kind, or of its split, hold something that cannot be used. */
  let fieldsWrong = $state(false);
  let splitWrong = $state(false);
  const bad = $derived(splitWrong || fieldsWrong);
  const Fields = $derived(outputFields(output?.kind ?? 'docket'));
  const changed = $derived(plain(draft) !== stored);
</script>

{#if draft && output && draft.kind === output.kind}
  <form
    class="fields"
    onsubmit={(event) => {
      event.preventDefault();
      if (draft && changed && !files?.wrong && !bad) bench.handing.change(draft);
    }}
  >
    <h1>{outputWords(draft.kind).name}</h1>
    {#key draft.kind}<Fields
        {bench}
        output={draft}
        onchange={(more, wrong = false) => {
          fieldsWrong = wrong;
          change(more);
        }}
      />{/key}
    {#if splitsOf(draft.kind).length}
      <SplitOutput
        kind={draft.kind}
        {split}
        list={bench.base.list}
        onchange={(next, wrong = false) => {
          splitWrong = wrong;
          change({ split: next });
        }}
      />
    {/if}
    <PatternField
      label={t`Name of the files`}
      value={draft.name ?? plainPattern(draft)}
      tokens={NAME_TOKENS}
      read={NAME_TOKENS}
      onchange={(name) => change({ name: name === plainPattern(draft!) ? undefined : name })}
    />
    {#if files?.wrong}
      <p class="wrong" role="alert">{files.wrong}</p>
    {:else if files}
      <div class="preview">
        <p class="label">
          {split?.by === 'size'
            ? t`Named like this; how many is known once they are written`
            : files.names.length === 1
              ? t`Gives`
              : t`Gives ${files.names.length} files`}
        </p>
        <ol>
          {#each files.names.slice(0, MOST_SHOWN) as name, n (name)}
            <li>
              <b>{name}</b><span class="mono"
                >{sayPart({ ...files.parts[n]!, pages: files.parts[n]!.pages.length }, draft.kind)}{sizeOf(files.parts[n]!.pages)}</span
              >
              {#if files.parts[n]!.alone}<span>{t`the last one has no back`}</span>{/if}
            </li>
          {/each}
        </ol>
        {#if files.names.length > MOST_SHOWN}<p class="quiet">{t`and ${files.names.length - MOST_SHOWN} more`}</p>{/if}
      </div>
    {/if}
    <div class="btns">
      <button class="btn" disabled={!changed || !!files?.wrong || bad}>{t`Change output`}</button>
      <button
        type="button"
        class="btn q"
        onclick={() => {
          bench.handing.typed = undefined;
          bench.handing.chosen = undefined;
        }}>{changed ? t`Cancel` : t`Close`}</button
      >
    </div>
  </form>
{:else}
  <h1>{t`Hand over`}</h1>
  <p class="quiet">
    {t`What goes out of this job, as many files as are wanted. Each is kept with the job, made again after a change, and read again before it is handed over.`}
  </p>
{/if}

<style>
  h1 {
    font-size: 15px;
    margin: 0;
  }
  .preview ol {
    max-height: 240px;
    overflow: auto;
    margin: 4px 0 0;
    padding: 0;
    list-style: none;
    font-size: 12px;
  }
  .preview li {
    padding: 4px 0;
    border-top: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .preview li b {
    display: block;
    font-weight: 600;
  }
  .preview li span {
    color: var(--ink-2);
  }
</style>

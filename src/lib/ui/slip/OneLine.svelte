<script lang="ts" generics="Step extends StepOf<'folio'> | StepOf<'set'>">
  import { t } from '../../words/language';
  import type { StepOf } from '../../core/docket/steps';
  import type { Token } from '../../core/model/lines';
  import type { Book } from '../../core/model/page';
  import type { Bench } from '../bench.svelte';
  import { withDate } from './dated';
  import LineSettings from './LineSettings.svelte';
  import PatternField from './PatternField.svelte';
  import PlacePicker from './PlacePicker.svelte';

  interface Props {
    bench: Bench;
    step: Step;
    book: Book;
    tokens: readonly Token[];
    onchange: (step: Step, wrong?: boolean) => void;
  }
  /** One text at one place of the leaf: a folio, or the number of a set. */
  let { bench, step, book, tokens, onchange }: Props = $props();
  const change = (some: Partial<StepOf<'folio'>>) => onchange(withDate({ ...step, ...some }));
  const apart = $derived(step.left !== undefined);
</script>

<PatternField label={t`Text`} value={step.text} {tokens} onchange={(text) => change({ text })} />
{#if book.facing}
  <label class="check"
    ><input type="checkbox" checked={apart} onchange={(event) => change({ left: event.currentTarget.checked ? step.text : undefined })} />
    {t`other words on left pages`}</label
  >
  {#if apart}<PatternField label={t`On left pages`} value={step.left!} tokens={[]} optional onchange={(left) => change({ left })} />{/if}
{/if}
<PlacePicker {book} taken={[step]} chosen={step} onpick={(at) => change(at)} />
<p class="fixed">
  {#each ['left', 'right'] as const as across (across)}
    <button type="button" class="link" class:on={step.across === across} aria-pressed={step.across === across} onclick={() => change({ across })}
      >{across === 'left' ? t`always left` : t`always right`}</button
    >
  {/each}
</p>
<LineSettings {bench} {step} {onchange} />

<style>
  .check {
    font-size: 12.5px;
  }
  .fixed {
    display: flex;
    gap: 14px;
    justify-content: center;
    margin: -10px 0 -6px;
    font-size: 12.5px;
  }
  .on {
    font-weight: 700;
    text-decoration: none;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { faceAt } from '../../core/pages/page';
  import type { PageList } from '../../core/model/page';
  import { describeIndexes, resolveSelection, SelectionError } from '../../core/select/selection';
  import type { Selection } from '../../core/model/selection';
  import { saySelectionError } from '../../words/selections';

  interface Props {
    label?: string;
    value: Selection;
    /** The list that the step meets. */
    list: PageList;
    onchange: (selection: Selection) => void;
  }
  let { label = t`Pages`, value, list, onchange }: Props = $props();
  const id = $props.id();

  const resolved = $derived.by(() => {
    try {
      return { indexes: resolveSelection(value, list), wrong: '' };
    } catch (error) {
      if (!(error instanceof SelectionError)) throw error;
      return { indexes: [] as number[], wrong: saySelectionError(error) };
    }
  });
  const follows = $derived(typeof value !== 'string');
  const text = $derived(typeof value === 'string' ? value : describeIndexes(resolved.indexes, list));
  const count = $derived(resolved.indexes.length);
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <input
    {id}
    class="field mono"
    class:bad={resolved.wrong}
    value={text}
    spellcheck="false"
    autocomplete="off"
    aria-invalid={!!resolved.wrong}
    oninput={(event) => onchange(event.currentTarget.value)}
  />
  {#if resolved.wrong}
    <p class="wrong" role="alert">{resolved.wrong}</p>
  {:else}
    <p class="how">
      {count === 1 ? t`1 page` : t`${count} pages`} ·
      {#if follows}
        {t`follows ${count === 1 ? t`this very page` : t`these very pages`} ·`}
        <button type="button" class="link" onclick={() => onchange(text)}>{t`whatever stands there`}</button>
      {:else}
        {t`by place, as typed ·`}
        <button type="button" class="link" onclick={() => onchange({ ids: resolved.indexes.map((index) => faceAt(list, index)!.id) })}
          >{t`these very pages`}</button
        >
      {/if}
    </p>
  {/if}
</div>

<style>
  .bad {
    border-color: var(--cut);
  }
  .how {
    margin-top: 2px;
    font-size: 12px;
    color: var(--ink-2);
  }
</style>

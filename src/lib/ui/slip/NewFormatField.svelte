<script lang="ts">
  import { t } from '../../words/language';
  import type { Format } from '../../core/docket/format';

  interface Props {
    /** Missing: none, or that of the page beside, where they are like it; false: none all the same. */
    value: string | false | undefined;
    formats: readonly Format[];
    /** The pages are like the one beside them, in its format too. */
    like?: boolean;
    onchange: (format: string | false | undefined) => void;
  }
  /** The format that new pages get; shown where the job has any. */
  let { value, formats, like = false, onchange }: Props = $props();
  const NONE = t`none:`;
  const choose = (chosen: string) => onchange(chosen === NONE ? (like ? false : undefined) : chosen || undefined);
  const id = $props.id();
</script>

{#if formats.length}
  <div>
    <label class="label" for={id}>{t`With the format`}</label>
    <select {id} class="field" value={value === false ? NONE : (value ?? (like ? '' : NONE))} onchange={(event) => choose(event.currentTarget.value)}>
      {#if like}<option value="">{t`that of the page beside`}</option>{/if}
      <option value={NONE}>{t`none`}</option>
      {#each formats as format (format.id)}<option value={format.id}>{format.name}</option>{/each}
    </select>
  </div>
{/if}

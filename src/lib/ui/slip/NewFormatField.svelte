<script lang="ts">
  import type { Format } from '../../core/docket/format';

  interface Props {
    value: string | undefined;
    formats: readonly Format[];
    onchange: (format: string | undefined) => void;
  }
  /** The format that new pages get; shown where the job has any. */
  let { value, formats, onchange }: Props = $props();
  const id = $props.id();
</script>

{#if formats.length}
  <div>
    <label class="label" for={id}>With the format</label>
    <select {id} class="field" value={value ?? ''} onchange={(event) => onchange(event.currentTarget.value || undefined)}>
      <option value="">none</option>
      {#each formats as format (format.id)}<option value={format.id}>{format.name}</option>{/each}
    </select>
  </div>
{/if}

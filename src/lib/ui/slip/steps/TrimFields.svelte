<script lang="ts">
  import { t } from '../../../words/language';
  import { pickedOf } from '../../../core/select/selection';
  import SizeFields from '../SizeFields.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'trim'> = $props();
  const lined = $derived(pickedOf(step.pages, before).some((index) => before.pages[index]?.lines));
  const first = $derived(before.pages[pickedOf(step.pages, before)[0] ?? -1]);
</script>

<SizeFields {bench} value={step} from={first?.trim} onchange={(size, wrong) => onchange({ ...step, ...size }, wrong)} />
{#if first?.margins && step.content !== 'hold'}
  <label class="check"
    ><input
      type="checkbox"
      checked={!!step.scaleMargins}
      onchange={(event) => onchange({ ...step, scaleMargins: event.currentTarget.checked || undefined })}
    />
    {t`margins grow and shrink with the content`}</label
  >
{/if}

{#if step.content !== 'hold' && lined}
  <label class="check"
    ><input
      type="checkbox"
      checked={!!step.scaleLines}
      onchange={(event) => onchange({ ...step, scaleLines: event.currentTarget.checked || undefined })}
    />
    {t`folios and running lines grow and shrink with it`}</label
  >
{/if}

<style>
  .check {
    font-size: 12.5px;
  }
</style>

<script lang="ts">
  import { setNumber } from '../../../core/numbers/set';
  import { pickedOf } from '../../../core/select/selection';
  import Working from '../../parts/Working.svelte';
  import NumberField from '../NumberField.svelte';
  import OneLine from '../OneLine.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'set'> = $props();
  let wrong = $state<Record<string, boolean>>({});
  const id = $props.id();
  const count = $derived(pickedOf(step.pages, before).length);

  function set(field: string, change: Partial<typeof step>, bad = false): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
</script>

<div class="three">
  <NumberField label="First" value={step.start} least={0} most={999_999_999} whole onchange={(start, bad) => set('start', { start }, bad)} />
  <NumberField label="Step" value={step.by} least={-1_000_000} most={1_000_000} whole onchange={(by, bad) => set('by', { by }, bad)} />
  <NumberField label="Digits" value={step.digits} least={1} most={12} whole onchange={(digits, bad) => set('digits', { digits }, bad)} />
</div>
<div>
  <label class="label" for={id}>Prefix</label>
  <input
    {id}
    class="field mono"
    value={step.prefix ?? ''}
    maxlength="40"
    autocomplete="off"
    oninput={(event) => set('prefix', { prefix: event.currentTarget.value || undefined })}
  />
</div>
{#if count}
  <Working>
    last <span class="mono">{setNumber(count - 1, step)}</span>: {step.start} + {count - 1} × {step.by}, on {count === 1
      ? '1 page'
      : `${count} pages`}
  </Working>
{/if}
<OneLine {bench} {step} book={before.book} tokens={['number', 'title', 'piece', 'date']} {onchange} />

<style>
  .three {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 8px;
  }
</style>

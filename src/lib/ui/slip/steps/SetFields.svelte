<script lang="ts">
  import { t } from '../../../words/language';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
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
  <NumberField
    label={t`First`}
    value={step.start}
    {...limitsOf(stepKind('set').schema, 'start')}
    onchange={(start, bad) => set('start', { start }, bad)}
  />
  <NumberField label={t`Step`} value={step.by} {...limitsOf(stepKind('set').schema, 'by')} onchange={(by, bad) => set('by', { by }, bad)} />
  <NumberField
    label={t`Digits`}
    value={step.digits}
    {...limitsOf(stepKind('set').schema, 'digits')}
    onchange={(digits, bad) => set('digits', { digits }, bad)}
  />
</div>
<div>
  <label class="label" for={id}>{t`Prefix`}</label>
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
    {t`last`}
    <span class="mono">{setNumber(count - 1, step)}</span
    >{t`: ${step.start} + ${count - 1} × ${step.by}, on ${count === 1 ? t`1 page` : t`${count} pages`}`}
  </Working>
{/if}
<OneLine {bench} {step} book={before.book} tokens={['number', 'title', 'piece', 'date']} {onchange} />

<style>
  .three {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 8px;
  }
</style>

<script lang="ts">
  import { t } from '../../../words/language';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import type { FieldsProps } from '../fields';
  import NumberField from '../NumberField.svelte';
  import NewFormatField from '../NewFormatField.svelte';
  import PlaceField from '../PlaceField.svelte';

  let { bench, step, before, onchange }: FieldsProps<'take-in'> = $props();
  const picture = $derived(bench.surveys[step.source]?.picture);
  let wrong = $state(false);
  const LIMITS = limitsOf(stepKind('take-in').schema, 'ppi');
</script>

<p class="file">{step.name}</p>
<div>
  <label class="label" for="take">{t`Its pages`}</label>
  <input
    id="take"
    class="field mono"
    value={step.take ?? ''}
    placeholder={t`all`}
    oninput={(event) => onchange({ ...step, take: event.currentTarget.value.trim() || undefined })}
  />
</div>
{#if picture}
  <div>
    <NumberField
      label={t`Pixels an inch`}
      value={step.ppi ?? picture.ppi}
      {...LIMITS}
      onchange={(ppi, bad) => {
        wrong = bad;
        onchange(bad ? step : { ...step, ppi }, bad);
      }}
      onempty={() => {
        wrong = false;
        onchange({ ...step, ppi: undefined });
      }}
    />
    <p class="quiet small">
      {picture.stated ? t`The ${picture.kind} states ${Math.round(picture.ppi)}.` : t`The ${picture.kind} states none; 300 is assumed.`}
    </p>
  </div>
{/if}
<PlaceField value={step.where} list={before} beside={bench.selected.selection ?? 'last'} onchange={(where) => onchange({ ...step, where })} />
<NewFormatField value={step.format} formats={bench.docket.formats} onchange={(format) => onchange({ ...step, format: format || undefined }, wrong)} />

<style>
  .file {
    font-weight: 500;
    overflow-wrap: anywhere;
  }
</style>

<script lang="ts">
  import { t } from '../../../words/language';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import { withPurpose } from '../../../core/docket/steps/overlay';
  import { PURPOSES, type Purpose } from '../../../core/model/laid';
  import { PURPOSE_WORD } from '../../../words/numbers';
  import type { StepOf } from '../../../core/docket/steps';
  import NinePoints from '../NinePoints.svelte';
  import NumberField from '../NumberField.svelte';
  import GraphicField from '../GraphicField.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'overlay'> = $props();
  let wrong = $state(false);
  const id = $props.id();
  const change = (some: Partial<StepOf<'overlay'>>) => onchange({ ...step, ...some }, wrong);

  const purpose = (to: Purpose) => onchange(withPurpose(step, to), wrong);
</script>

<GraphicField
  {bench}
  {before}
  value={step.graphic}
  onchange={(graphic) => change({ graphic, ...('source' in graphic ? { takeOut: undefined } : {}) })}
/>
{#if 'page' in step.graphic}
  <label class="check"
    ><input type="checkbox" checked={!!step.takeOut} onchange={(event) => change({ takeOut: event.currentTarget.checked || undefined })} />
    {t`and remove it from the list`}</label
  >
{/if}
<div class="fixed">
  <NinePoints label={t`Registered at`} x={step.register.x} y={step.register.y} onpick={(register) => change({ register })} />
  <div>
    <span class="label">{t`Trims meet at`}</span>
    <strong
      >{step.register.x === 'centre' && step.register.y === 'centre'
        ? t`the middle`
        : `${step.register.y === 'centre' ? t`middle` : step.register.y}, ${step.register.x}`}</strong
    >
    <div class="scale">
      <NumberField
        label={t`Scale`}
        value={step.scale * 100}
        {...limitsOf(stepKind('overlay').schema, 'scale', 100)}
        unit="%"
        onchange={(scale, bad) => {
          wrong = bad;
          change({ scale: scale / 100 });
        }}
      />
    </div>
  </div>
</div>
<div class="row">
  <div>
    <label class="label" for={id}>{t`For`}</label>
    <select {id} class="field" value={step.purpose} onchange={(event) => purpose(event.currentTarget.value as Purpose)}>
      {#each PURPOSES as each (each)}<option value={each}>{PURPOSE_WORD[each].toLowerCase()}</option>{/each}
    </select>
  </div>
  <div>
    <label class="label" for="{id}-layer">{t`Layer`}</label>
    <input id="{id}-layer" class="field" maxlength="60" value={step.layer} oninput={(event) => change({ layer: event.currentTarget.value })} />
    {#if !step.layer.trim()}<p class="wrong" role="alert">{t`A layer needs a name, by which the cutter finds it.`}</p>{/if}
  </div>
</div>
<label class="check"
  ><input type="checkbox" checked={!!step.overprint} onchange={(event) => change({ overprint: event.currentTarget.checked || undefined })} />
  {t`overprints: knocks nothing out of the art`}</label
>
<p class="quiet small">{t`Its inks stay as they are, on their own plates.`}</p>

<style>
  .check {
    font-size: 12.5px;
  }
  .fixed {
    display: grid;
    grid-template-columns: 72px minmax(0, 1fr);
    gap: 12px;
    align-items: start;
  }
  strong {
    font-weight: 500;
  }
  .scale {
    margin-top: 4px;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { stepKind } from '../../core/docket/steps';
  import NumberField from './NumberField.svelte';

  interface Props {
    value: { name: string; quantity: number };
    onchange: (value: { name: string; quantity: number }, wrong: boolean) => void;
  }
  let { value, onchange }: Props = $props();
  const id = $props.id();
  let wrongCount = $state(false);
  const named = (name: string) => name.trim().length > 0 && name.length <= 60;
</script>

<div class="row">
  <div>
    <label class="label" for={id}>{t`Piece`}</label>
    <input
      {id}
      class="field"
      value={value.name}
      maxlength="60"
      autocomplete="off"
      oninput={(event) => onchange({ ...value, name: event.currentTarget.value }, wrongCount || !named(event.currentTarget.value))}
    />
    {#if !named(value.name)}<p class="wrong" role="alert">{t`A piece needs a name, such as Letterhead.`}</p>{/if}
  </div>
  <NumberField
    whole
    least={1}
    label={t`How many wanted`}
    value={value.quantity}
    most={limitsOf(stepKind('piece').schema, 'quantity').most}
    of={t`pieces`}
    onchange={(quantity, wrong) => {
      wrongCount = wrong;
      onchange({ ...value, quantity }, wrong || !named(value.name));
    }}
  />
</div>

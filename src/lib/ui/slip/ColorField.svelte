<script lang="ts">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { BLACK, mixOf, type Colour, colourSchema } from '../../core/ink/colour';
  import { screenColor } from '../mat/ink';
  import Choice from '../parts/Choice.svelte';
  import NumberField from './NumberField.svelte';

  interface Props {
    value: Colour;
    /** The spot inks that the job has, which are offered by name. */
    spots: readonly string[];
    onchange: (ink: Colour, wrong: boolean) => void;
  }
  let { value, spots, onchange }: Props = $props();
  const id = $props.id();

  const as = (kind: Colour['as']): Colour => {
    const [c, m, y, k] = mixOf(value);
    if (kind === 'process') return { as: 'process', c, m, y, k };
    if (kind === 'grey') return { as: 'grey', black: Math.max(k, (c + m + y) / 3) };
    return { as: 'spot', name: spots[0] ?? t`Spot`, tint: 1, mix: [c, m, y, k] };
  };
  const PARTS = [
    ['c', 'C'],
    ['m', 'M'],
    ['y', 'Y'],
    ['k', 'K'],
  ] as const;
</script>

<div class="head">
  <i style:background={screenColor(value)}></i>
  <Choice
    label={t`Ink`}
    options={[
      ['process', t`Process`],
      ['spot', t`Spot`],
      ['grey', t`Grey`],
    ]}
    value={value.as}
    onchange={(kind) => onchange(kind === 'process' && value.as === 'grey' ? BLACK : as(kind), false)}
  />
</div>
{#if value.as === 'process'}
  <div class="four">
    {#each PARTS as [part, word] (part)}
      <NumberField
        label={word}
        value={value[part] * 100}
        {...limitsOf(colourSchema, part, 100)}
        onchange={(share, wrong) => onchange({ ...value, [part]: share / 100 } as Colour, wrong)}
      />
    {/each}
  </div>
{:else if value.as === 'spot'}
  <div class="row">
    <div>
      <label class="label" for={id}>{t`Ink’s name`}</label>
      <input
        {id}
        class="field"
        list="{id}-spots"
        value={value.name}
        maxlength="120"
        autocomplete="off"
        oninput={(event) => onchange({ ...value, name: event.currentTarget.value }, !event.currentTarget.value.trim())}
      />
      <datalist id="{id}-spots"
        >{#each spots as spot (spot)}<option value={spot}></option>{/each}</datalist
      >
      {#if !value.name.trim()}<p class="wrong" role="alert">{t`An ink needs its name: plates are told apart by it.`}</p>{/if}
    </div>
    <NumberField
      label={t`Tint`}
      value={value.tint * 100}
      {...limitsOf(colourSchema, 'tint', 100)}
      unit="%"
      onchange={(tint, wrong) => onchange({ ...value, tint: tint / 100 }, wrong)}
    />
  </div>
{:else}
  <NumberField
    label={t`Grey`}
    value={value.black * 100}
    {...limitsOf(colourSchema, 'black', 100)}
    unit="% black"
    onchange={(black, wrong) => onchange({ ...value, black: black / 100 }, wrong)}
  />
{/if}

<style>
  .head {
    display: grid;
    grid-template-columns: 18px 1fr;
    gap: 8px;
    align-items: end;
  }
  i {
    height: 31px;
    border: 1px solid var(--ink-2);
  }
  .four {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 5px;
  }
</style>

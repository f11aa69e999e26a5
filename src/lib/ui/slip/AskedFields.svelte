<script lang="ts">
  import { t } from '../../words/language';
  import { optionsOf, type Recipe, type RecipeValues } from '../../core/docket/recipe';
  import type { Unit } from '../../core/measure/unit';
  import { sayChoice } from '../../words/asked';
  import LengthField from '../parts/LengthField.svelte';
  import NumberField from './NumberField.svelte';

  interface Props {
    recipe: Recipe;
    values: RecipeValues;
    unit: Unit;
    /** `wrong`: what a field holds cannot be used, and the values are those before it. */
    onchange: (values: RecipeValues, wrong: boolean) => void;
  }
  /** What a recipe asks for, with what it is if nothing else is said. */
  let { recipe, values, unit, onchange }: Props = $props();
  const id = $props.id();
  let wrong = $state<Record<string, boolean>>({});
  /** Takes the value of a field; undefined while it holds what cannot be used. */
  function set(name: string, value: string | number | undefined): void {
    wrong = { ...wrong, [name]: value === undefined };
    onchange(value === undefined ? values : { ...values, [name]: value }, Object.values(wrong).some(Boolean));
  }
</script>

{#each recipe.asks as ask (ask.name)}
  {@const { name, label, kind, preset } = ask}
  {@const value = values[name] ?? preset}
  {#if kind === 'length'}
    <LengthField {label} value={typeof value === 'number' ? value : 0} {unit} onchange={(points) => set(name, points)} />
  {:else if kind === 'choice'}
    <div>
      <label class="label" for="{id}-{name}">{label}</label>
      <select id="{id}-{name}" class="field" value={value ?? ''} onchange={(event) => set(name, event.currentTarget.value)}>
        {#if value === undefined}<option value="">{t`choose …`}</option>{/if}
        {#each optionsOf(recipe, ask) as option (option)}<option value={option}>{sayChoice(ask.path, option)}</option>{/each}
      </select>
    </div>
  {:else if kind === 'number'}
    <NumberField
      {label}
      value={typeof value === 'number' ? value : undefined}
      least={-Infinity}
      most={Infinity}
      onchange={(number, bad) => set(name, bad ? undefined : number)}
    />
  {:else}
    <div>
      <label class="label" for="{id}-{name}">{label}</label>
      <input
        id="{id}-{name}"
        class="field"
        class:mono={kind !== 'text'}
        value={value ?? ''}
        oninput={(event) => set(name, event.currentTarget.value)}
      />
    </div>
  {/if}
{/each}

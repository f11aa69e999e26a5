<script lang="ts">
  import { t } from '../../words/language';
  import type * as z from 'zod';
  import { plainFields } from '../../core/docket/plainFields';
  import { formatLength } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import type { PageList } from '../../core/model/page';
  import type { Place } from '../../core/select/place';
  import type { Selection } from '../../core/model/selection';
  import type { FieldWords } from '../../words/fieldWords';
  import Choice from '../parts/Choice.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import NumberField from './NumberField.svelte';
  import PagesField from './PagesField.svelte';
  import PlaceField from './PlaceField.svelte';

  interface Props {
    schema: z.ZodObject;
    words: Record<string, FieldWords>;
    /** What the fields hold, by name. */
    value: Record<string, unknown>;
    /** Fields that are asked for elsewhere. */
    apart?: readonly string[];
    unit: Unit;
    /** The pages that places and selections are of. */
    list: PageList;
    onchange: (name: string, value: unknown, wrong: boolean) => void;
  }
  /** Fields drawn from a schema and its words alone. */
  let { schema, words, value, apart = [], unit, list, onchange }: Props = $props();
  const id = $props.id();
  const label = (name: string) => {
    const said = words[name];
    return typeof said === 'object' ? said.label : (said ?? name);
  };
  /** The values to choose from as words, none first if nothing may be chosen. */
  function options(name: string, from: readonly (string | number | boolean)[], optional: boolean): [string, string][] {
    const said = words[name];
    const known = typeof said === 'object' ? said.options : {};
    return [...(optional ? [''] : []), ...from.map(String)].map((each) => [each, known[each] ?? (each || t`none`)]);
  }
  const set = (name: string, next: unknown, wrong = false) => onchange(name, next, wrong);
</script>

{#each plainFields(schema, apart) as { name, optional, holds } (name)}
  {#if holds.type === 'choice'}
    <Choice
      label={label(name)}
      options={options(name, holds.values, optional)}
      value={String(value[name] ?? '')}
      onchange={(chosen) =>
        set(
          name,
          holds.values.find((value) => String(value) === chosen),
        )}
    />
  {:else if holds.type === 'length'}
    <LengthField
      label={label(name)}
      value={value[name] as number | undefined}
      {unit}
      check={(points) =>
        points < holds.least || points > holds.most ? t`From ${formatLength(holds.least, unit)} to ${formatLength(holds.most, unit)}.` : undefined}
      onchange={(points) => set(name, points, points === undefined)}
    />
  {:else if holds.type === 'number'}
    <NumberField
      label={label(name)}
      value={value[name] as number | undefined}
      least={holds.least}
      most={holds.most}
      whole={holds.whole}
      onchange={(number, wrong) => set(name, number, wrong)}
    />
  {:else if holds.type === 'text'}
    <div>
      <label class="label" for="{id}-{name}">{label(name)}</label>
      <input
        id="{id}-{name}"
        class="field"
        maxlength={holds.longest}
        value={value[name] ?? ''}
        oninput={(event) => set(name, event.currentTarget.value || undefined, !optional && !event.currentTarget.value.trim())}
      />
    </div>
  {:else if holds.type === 'place'}
    <PlaceField value={value[name] as Place} {list} beside="last" onchange={(where) => set(name, where)} />
  {:else}
    <PagesField label={label(name)} value={(value[name] ?? 'all') as Selection} {list} onchange={(pages) => set(name, pages)} />
  {/if}
{/each}

<script lang="ts">
  import { plainFields } from '../../../core/docket/plainFields';
  import { stepKind, type Step } from '../../../core/docket/steps';
  import { formatLength } from '../../../core/measure/formatLength';
  import type { Place } from '../../../core/pages/place';
  import type { Selection } from '../../../core/pages/selection';
  import { stepWords } from '../../../words/steps';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import NumberField from '../NumberField.svelte';
  import PagesField from '../PagesField.svelte';
  import PlaceField from '../PlaceField.svelte';
  import type { FieldsProps } from '../fields';

  /** Fields drawn from the schema of a step and its words alone. */
  let { bench, step, before, onchange }: FieldsProps<Step['kind']> = $props();
  const id = $props.id();
  const values = $derived(step as unknown as Record<string, unknown>);
  const words = $derived(stepWords(step.kind).fields ?? {});
  const label = (name: string) => {
    const said = words[name];
    return typeof said === 'object' ? said.label : (said ?? name);
  };
  /** The values to choose from as words, none first where nothing may be chosen. */
  function options(name: string, from: readonly (string | number | boolean)[], optional: boolean): [string, string][] {
    const said = words[name];
    const known = typeof said === 'object' ? said.options : {};
    return [...(optional ? [''] : []), ...from.map(String)].map((value) => [value, known[value] ?? (value || 'none')]);
  }
  let bad = $state.raw<ReadonlySet<string>>(new Set());
  function set(name: string, value: unknown, wrong = false): void {
    bad = new Set([...bad].filter((each) => each !== name).concat(wrong ? [name] : []));
    const next = { ...step, ...(wrong ? {} : { [name]: value }) } as Step;
    onchange(next, bad.size > 0);
  }
</script>

{#each plainFields(stepKind(step.kind).schema) as { name, optional, holds } (name)}
  {#if holds.type === 'choice'}
    <Choice
      label={label(name)}
      options={options(name, holds.values, optional)}
      value={String(values[name] ?? '')}
      onchange={(chosen) =>
        set(
          name,
          holds.values.find((value) => String(value) === chosen),
        )}
    />
  {:else if holds.type === 'length'}
    <LengthField
      label={label(name)}
      value={values[name] as number | undefined}
      unit={bench.unit}
      check={(points) =>
        points < holds.least || points > holds.most
          ? `From ${formatLength(holds.least, bench.unit)} to ${formatLength(holds.most, bench.unit)}.`
          : undefined}
      onchange={(points) => set(name, points, points === undefined)}
    />
  {:else if holds.type === 'number'}
    <NumberField
      label={label(name)}
      value={values[name] as number | undefined}
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
        value={values[name] ?? ''}
        oninput={(event) => set(name, event.currentTarget.value || undefined, !optional && !event.currentTarget.value.trim())}
      />
    </div>
  {:else if holds.type === 'place'}
    <PlaceField value={values[name] as Place} list={before} beside="last" onchange={(where) => set(name, where)} />
  {:else}
    <PagesField label={label(name)} value={(values[name] ?? 'all') as Selection} list={before} onchange={(pages) => set(name, pages)} />
  {/if}
{/each}

<script lang="ts" generics="Step extends StepOf<'folio'> | StepOf<'running'> | StepOf<'set'>">
  import { t, translated } from '../../words/language';
  import { FACES } from '../../core/model/faces';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { stepKind, type StepOf } from '../../core/docket/steps';
  import type { Bench } from '../bench.svelte';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import { spotsOf } from './spots';
  import ColorField from './ColorField.svelte';
  import NumberField from './NumberField.svelte';

  type Lined = StepOf<'folio'> | StepOf<'running'> | StepOf<'set'>;
  interface Props {
    bench: Bench;
    step: Step;
    onchange: (step: Step, wrong?: boolean) => void;
  }
  /** How lines are set, and where they do not show. */
  let { bench, step, onchange }: Props = $props();
  let wrong = $state<Record<string, boolean>>({});
  const id = $props.id();

  function set(field: string, change: Partial<Lined>, bad = false): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
  const length = (field: 'x' | 'y', points: number | undefined) => set(field, points === undefined ? {} : { [field]: points }, points === undefined);
  const away = $derived(step.away?.length ?? 0);
  const notOn = $derived(
    [step.blanks ? '' : t`blanks`, step.notFirst ? t`first pages` : '', away ? t`${away} clicked away` : '']
      .filter(Boolean)
      .map((words, n) => (n ? `, ${words}` : ` · ${words}`))
      .join(''),
  );
</script>

<div class="row">
  <LengthField
    label={step.from === 'trim' ? t`From the side` : t`Inwards`}
    value={step.x}
    unit={bench.unit}
    onchange={(points) => length('x', points)}
  />
  <LengthField
    label={step.from === 'trim' ? t`From head or foot` : t`Off the text`}
    value={step.y}
    unit={bench.unit}
    onchange={(points) => length('y', points)}
  />
</div>
<div class="row face">
  <div>
    <label class="label" for={id}>{t`Face`}</label>
    <select {id} class="field" value={step.face} onchange={(event) => set('face', { face: event.currentTarget.value as Lined['face'] })}>
      {#each FACES as face (face)}<option>{face}</option>{/each}
    </select>
  </div>
  <NumberField
    label={t`Size`}
    value={step.size}
    {...limitsOf(stepKind('folio').schema, 'size')}
    unit="pt"
    onchange={(size, bad) => set('size', { size }, bad)}
  />
</div>
{#if step.date}
  <div>
    <label class="label" for="{id}-date">{t`Date`}</label>
    <input
      id="{id}-date"
      class="field mono"
      type="date"
      value={step.date}
      onchange={(event) => event.currentTarget.value && set('date', { date: event.currentTarget.value })}
    />
  </div>
{/if}
<Folded
  title={t`From the ${translated(step.from)} · ${translated(step.weight)} · ${step.ink.as === 'spot' ? step.ink.name : translated(step.ink.as)}`}
>
  <div class="more">
    <Choice
      label={t`Measured from`}
      options={[
        ['trim', t`the trim`],
        ['margin', t`the margins`],
      ]}
      value={step.from}
      onchange={(from) => set('from', { from })}
    />
    <label
      ><input
        type="checkbox"
        checked={step.weight === 'strong'}
        onchange={(event) => set('weight', { weight: event.currentTarget.checked ? 'strong' : 'regular' })}
      />
      {t`strong letters`}</label
    >
    <ColorField value={step.ink} spots={spotsOf(bench)} onchange={(ink, bad) => set('ink', { ink }, bad)} />
  </div>
</Folded>
<Folded title={t`Where not${notOn}`}>
  <div class="more">
    <label
      ><input
        type="checkbox"
        checked={!step.blanks}
        onchange={(event) => set('blanks', { blanks: event.currentTarget.checked ? undefined : true })}
      />
      {t`on blank pages`}</label
    >
    <label
      ><input
        type="checkbox"
        checked={!!step.notFirst}
        onchange={(event) => set('notFirst', { notFirst: event.currentTarget.checked || undefined })}
      />
      {t`on the first page of a series`}</label
    >
    <p class="quiet">
      {#if away}
        {t`Clicked away from ${away === 1 ? t`1 page` : t`${away} pages`} ·`}
        <button type="button" class="link" onclick={() => set('away', { away: undefined })}>{t`give back`}</button>
      {:else}
        {t`The cross at a line takes it off that page alone.`}
      {/if}
    </p>
  </div>
</Folded>

<style>
  .face {
    grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  }
  select {
    width: 100%;
  }
  .more {
    display: grid;
    gap: 6px;
    margin-top: 6px;
    font-size: 12.5px;
  }
</style>

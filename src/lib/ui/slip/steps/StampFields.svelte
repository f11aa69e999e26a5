<script lang="ts">
  import { t } from '../../../words/language';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import { graphicOf } from '../../../core/docket/steps/graphic';
  import { scaleOf } from '../../../core/docket/steps/stamp';
  import { StepProblem } from '../../../core/docket/stepKind';
  import type { StepOf } from '../../../core/docket/steps';
  import { formatSize } from '../../../core/measure/formatLength';
  import { BESIDE, placeBeside, type Beside, BESIDE_GAP } from '../../../core/numbers/placeLaid';
  import type { Placing } from '../../../core/model/laid';
  import { SelectionError } from '../../../core/select/selection';
  import { PLACE_WORD } from '../../../words/numbers';
  import type { OnPage } from '../../bench/draft.svelte';
  import Choice from '../../parts/Choice.svelte';
  import Folded from '../../parts/Folded.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import GraphicField from '../GraphicField.svelte';
  import KeptStamps from '../KeptStamps.svelte';
  import NumberField from '../NumberField.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'stamp'> = $props();
  let wrong = $state<Record<string, boolean>>({});
  const id = $props.id();

  function set(field: string, change: Partial<StepOf<'stamp'>>, bad = false): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
  const place = (change: Partial<Placing>, field = 'placing', bad = false) => set(field, { placing: { ...step.placing, ...change } }, bad);

  /** The size of the graphic itself; undefined while there is none. */
  const own = $derived.by(() => {
    try {
      return graphicOf(step.graphic, before, bench.surveys).size;
    } catch (error) {
      if (error instanceof StepProblem || error instanceof SelectionError) return undefined;
      throw error;
    }
  });
  const scale = $derived(own ? scaleOf(step.size, own) : 1);
  function sizeBy(by: StepOf<'stamp'>['size']['by']): void {
    if (!own) return;
    if (by === 'scale') set('size', { size: { by, scale } });
    else if (by === 'width') set('size', { size: { by, width: own.width * scale } });
    else set('size', { size: { by, height: own.height * scale } });
  }

  // --- Beside an object that is on the page already. ---

  let object = $state.raw<OnPage | undefined>();
  let beside = $state<{ at: Beside; gap: number }>({ at: 'outer', gap: BESIDE_GAP });
  const take = (clicked: OnPage): void => {
    bench.draft.asking = undefined;
    object = clicked;
    stand(beside);
  };
  function stand(how: { at: Beside; gap: number }): void {
    beside = how;
    if (!object || !own) return;
    const size = { width: own.width * scale, height: own.height * scale };
    place(placeBeside(object.box, how, size, object.page, object.side));
  }
  const BESIDE_WORD: Record<Beside, string> = { outer: t`outer`, inner: t`inner`, head: t`over`, foot: t`under` };
</script>

<GraphicField
  {bench}
  {before}
  areas
  value={step.graphic}
  onchange={(graphic) => set('graphic', { graphic, takeOut: 'page' in graphic && !graphic.area ? step.takeOut : undefined })}
/>
{#if 'page' in step.graphic && !step.graphic.area}
  <label class="check"
    ><input type="checkbox" checked={!!step.takeOut} onchange={(event) => set('takeOut', { takeOut: event.currentTarget.checked || undefined })} />
    {t`and remove it from the list`}</label
  >
{/if}
<div class="row">
  <div>
    <label class="label" for="{id}-by">{t`Size by`}</label>
    <select id="{id}-by" class="field" value={step.size.by} onchange={(event) => sizeBy(event.currentTarget.value as 'scale')}>
      <option value="scale">{t`share`}</option><option value="width">{t`width`}</option><option value="height">{t`height`}</option>
    </select>
  </div>
  {#if step.size.by === 'scale'}
    <NumberField
      label={t`Of its size`}
      value={step.size.scale * 100}
      {...limitsOf(stepKind('stamp').schema, 'size.scale', 100)}
      unit="%"
      onchange={(share, bad) => set('size', { size: { by: 'scale', scale: share / 100 } }, bad)}
    />
  {:else}
    {@const by = step.size.by}
    <LengthField
      label={by === 'width' ? t`Width` : t`Height`}
      value={step.size.by === 'width' ? step.size.width : step.size.height}
      unit={bench.unit}
      check={(points) => (points < limitsOf(stepKind('stamp').schema, 'size.width').least ? t`A stamp is larger than 0.` : undefined)}
      onchange={(points) =>
        set('size', points === undefined ? {} : { size: by === 'width' ? { by, width: points } : { by, height: points } }, points === undefined)}
    />
  {/if}
</div>
{#if own}<p class="quiet small mono">{formatSize(own.width * scale, own.height * scale, bench.unit)}</p>{/if}
<div class="row">
  <div>
    <label class="label" for="{id}-x">{t`Across`}</label>
    <select id="{id}-x" class="field" value={step.placing.x} onchange={(event) => place({ x: event.currentTarget.value as Placing['x'] })}>
      {#each ['outer', 'inner', 'centre', 'left', 'right'] as const as x (x)}<option value={x}>{PLACE_WORD[x]}</option>{/each}
    </select>
  </div>
  <div>
    <label class="label" for="{id}-y">{t`Up`}</label>
    <select id="{id}-y" class="field" value={step.placing.y} onchange={(event) => place({ y: event.currentTarget.value as Placing['y'] })}>
      {#each ['head', 'centre', 'foot'] as const as y (y)}<option value={y}>{y}</option>{/each}
    </select>
  </div>
</div>
<div class="row">
  <LengthField
    label={t`In across`}
    value={step.placing.dx}
    unit={bench.unit}
    onchange={(dx) => place(dx === undefined ? {} : { dx }, 'dx', dx === undefined)}
  />
  <LengthField
    label={t`In up`}
    value={step.placing.dy}
    unit={bench.unit}
    onchange={(dy) => place(dy === undefined ? {} : { dy }, 'dy', dy === undefined)}
  />
</div>
<Folded title={t`Beside an object`} open={!!object}>
  <div class="beside">
    <button type="button" class="btn q" aria-pressed={bench.draft.asking === take} onclick={() => (bench.draft.asking = take)}
      >{object ? t`Another object` : t`Click it on the page`}</button
    >
    {#if bench.draft.asking === take}<p class="quiet small">{t`Click what is on the page already, such as its number.`}</p>{/if}
    {#if object}
      <Choice
        label={t`Stands`}
        options={BESIDE.map((at) => [at, BESIDE_WORD[at]] as const)}
        value={beside.at}
        onchange={(at) => stand({ ...beside, at })}
      />
      <LengthField label={t`Gap`} value={beside.gap} unit={bench.unit} onchange={(gap) => gap !== undefined && stand({ ...beside, gap })} />
      <p class="quiet small">{t`Measured from the outer edge, so it holds on left and right pages.`}</p>
    {/if}
  </div>
</Folded>
<KeptStamps {bench} {step} {before} onuse={(change) => set('graphic', change)} />
<Folded title={t`Turn, opacity, behind`}>
  <div class="row">
    <NumberField
      label={t`Turn`}
      value={step.placing.turn}
      {...limitsOf(stepKind('stamp').schema, 'placing.turn')}
      unit="°"
      onchange={(turn, bad) => place({ turn }, 'turn', bad)}
    />
    <NumberField
      label={t`Opacity`}
      value={step.opacity * 100}
      {...limitsOf(stepKind('stamp').schema, 'opacity', 100)}
      unit="%"
      onchange={(share, bad) => set('opacity', { opacity: share / 100 }, bad)}
    />
  </div>
  <Choice
    label={t`Measured from`}
    options={[
      ['trim', t`trim`],
      ['bleed', t`bleed`],
      ['margin', t`margins`],
    ]}
    value={step.placing.box}
    onchange={(box) => place({ box })}
  />
  <label class="check"
    ><input type="checkbox" checked={!!step.behind} onchange={(event) => set('behind', { behind: event.currentTarget.checked || undefined })} />
    {t`behind the art`}</label
  >
</Folded>

<style>
  .check {
    font-size: 12.5px;
  }
  .beside {
    display: grid;
    gap: 8px;
    margin-top: 6px;
  }
</style>

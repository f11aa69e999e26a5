<script lang="ts">
  import { formatFigure, formatSize } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { NAMED_SIZES, nameSize, sizeByName } from '../../core/paper/sizes';
  import type { StepOf } from '../../core/docket/steps';
  import type { PageList } from '../../core/pages/page';
  import { contentScale, type FixedPoint } from '../../core/pages/resize';
  import { resolveSelection, SelectionError } from '../../core/pages/selection';
  import { sayPageLength } from '../../words/lengths';
  import Choice from '../parts/Choice.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import Working from '../parts/Working.svelte';

  interface Props {
    step: StepOf<'trim'>;
    before: PageList;
    unit: Unit;
    onchange: (step: StepOf<'trim'>, wrong: boolean) => void;
  }
  let { step, before, unit, onchange }: Props = $props();

  let wrong = $state({ width: false, height: false });
  const known = $derived(nameSize(step));
  const families = [...new Set(NAMED_SIZES.map(({ family }) => family))];
  const first = $derived.by(() => {
    try {
      return before.pages[resolveSelection(step.pages, before)[0]!]?.trim;
    } catch (error) {
      if (error instanceof SelectionError) return undefined;
      throw error;
    }
  });
  const scale = $derived(first && contentScale(first, step, step.content));

  function side(which: 'width' | 'height', points: number | undefined): void {
    wrong = { ...wrong, [which]: points === undefined };
    onchange({ ...step, ...(points === undefined ? {} : { [which]: points }) }, wrong.width || wrong.height);
  }
  function named(name: string): void {
    const size = sizeByName(name);
    if (!size) return;
    wrong = { width: false, height: false };
    onchange({ ...step, width: size.width, height: size.height }, false);
  }
  const XS: FixedPoint['x'][] = ['left', 'centre', 'right'];
  const YS: FixedPoint['y'][] = ['head', 'centre', 'foot'];
  const fixedWord = $derived(
    step.fixed.x === 'centre' && step.fixed.y === 'centre'
      ? 'centre'
      : `${step.fixed.y === 'centre' ? 'middle' : step.fixed.y}, ${step.fixed.x === 'fore' ? 'fore edge' : step.fixed.x === 'centre' ? 'middle' : step.fixed.x}`,
  );
  const percent = (value: number) => `${formatFigure(value * 100, 'pt')} %`;
</script>

<div>
  <label class="label" for="named-size">Named size</label>
  <select id="named-size" class="field" value={known?.name ?? ''} onchange={(event) => named(event.currentTarget.value)}>
    <option value="" disabled>own size</option>
    {#each families as family (family)}
      <optgroup label={family}>
        {#each NAMED_SIZES.filter((size) => size.family === family) as size (size.name)}
          <option value={size.name}>{size.name} · {formatSize(size.width, size.height, unit)}</option>
        {/each}
      </optgroup>
    {/each}
  </select>
</div>
<div class="row">
  <LengthField label="Width" value={step.width} {unit} check={sayPageLength} onchange={(points) => side('width', points)} />
  <LengthField label="Height" value={step.height} {unit} check={sayPageLength} onchange={(points) => side('height', points)} />
  <button
    class="btn q swap"
    type="button"
    title="Swap width and height"
    aria-label="Swap width and height"
    onclick={() => onchange({ ...step, width: step.height, height: step.width }, false)}>⇄</button
  >
</div>
<Choice
  label="Content"
  options={[
    ['hold', 'Hold'],
    ['fit', 'Fit'],
    ['fill', 'Fill'],
    ['stretch', 'Stretch'],
  ]}
  value={step.content}
  onchange={(content) => onchange({ ...step, content }, wrong.width || wrong.height)}
/>
<div class="fixed">
  <div class="points" role="radiogroup" aria-label="Fixed point">
    {#each YS as y (y)}
      {#each XS as x (x)}
        <button
          type="button"
          role="radio"
          aria-checked={step.fixed.x === x && step.fixed.y === y}
          aria-label="{y} {x}"
          class:on={step.fixed.x === x && step.fixed.y === y}
          onclick={() => onchange({ ...step, fixed: { x, y } }, wrong.width || wrong.height)}
        ></button>
      {/each}
    {/each}
  </div>
  <div>
    <span class="label">Fixed point</span>
    <strong>{fixedWord}</strong>
    <div class="mirror">
      {#each [['spine', 'spine'], ['fore', 'fore edge']] as const as [x, word] (x)}
        <button
          type="button"
          class="link"
          class:chosen={step.fixed.x === x}
          onclick={() => onchange({ ...step, fixed: { ...step.fixed, x } }, wrong.width || wrong.height)}>{word}</button
        >
      {/each}
    </div>
  </div>
</div>
{#if first && scale}
  <Working>
    <code>{formatSize(first.width, first.height, unit)} → {formatSize(step.width, step.height, unit)}</code><br />
    {#if step.content === 'hold'}content keeps its real size
    {:else if Math.abs(scale[0] - scale[1]) < 1e-9}content at {percent(scale[0])}
    {:else}content at {percent(scale[0])} across, {percent(scale[1])} up and down{/if}; bleed keeps its width
  </Working>
{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 30px;
    gap: 6px;
    align-items: start;
  }
  .swap {
    margin-top: 20px;
    padding: 5px 0;
    justify-content: center;
  }
  .fixed {
    display: grid;
    grid-template-columns: 72px 1fr;
    gap: 12px;
    align-items: center;
  }
  .points {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    place-items: center;
    height: 66px;
    background: var(--well);
    border: 1px solid var(--ink-2);
    margin: 2px;
  }
  .points button {
    width: 12px;
    height: 12px;
    padding: 0;
    border: 1px solid var(--ink-2);
    border-radius: 50%;
    background: #fff;
    cursor: pointer;
  }
  .points .on {
    width: 14px;
    height: 14px;
    border-color: var(--act);
    background: var(--act);
  }
  strong {
    font-weight: 500;
  }
  .mirror {
    display: flex;
    gap: 10px;
    font-size: 12.5px;
  }
  .chosen {
    font-weight: 700;
    text-decoration: none;
  }
  code {
    font: 12px var(--mono);
  }
</style>

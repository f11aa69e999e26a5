<script lang="ts" generics="How extends Pick<Resize, 'content' | 'fixed'>">
  import type { FixedPoint, Resize } from '../../core/pages/resize';
  import Choice from '../parts/Choice.svelte';

  interface Props {
    value: How;
    onchange: (value: How) => void;
  }
  let { value, onchange }: Props = $props();

  const XS: FixedPoint['x'][] = ['left', 'centre', 'right'];
  const YS: FixedPoint['y'][] = ['head', 'centre', 'foot'];
  const word = $derived(
    value.fixed.x === 'centre' && value.fixed.y === 'centre'
      ? 'centre'
      : `${value.fixed.y === 'centre' ? 'middle' : value.fixed.y}, ${value.fixed.x === 'fore' ? 'fore edge' : value.fixed.x === 'centre' ? 'middle' : value.fixed.x}`,
  );
  const fix = (change: Partial<FixedPoint>) => onchange({ ...value, fixed: { ...value.fixed, ...change } });
</script>

<Choice
  label="Content"
  options={[
    ['hold', 'Hold'],
    ['fit', 'Fit'],
    ['fill', 'Fill'],
    ['stretch', 'Stretch'],
  ]}
  value={value.content}
  onchange={(content) => onchange({ ...value, content })}
/>
<div class="fixed">
  <div class="points" role="radiogroup" aria-label="Fixed point">
    {#each YS as y (y)}
      {#each XS as x (x)}
        {@const on = value.fixed.x === x && value.fixed.y === y}
        <button type="button" role="radio" aria-checked={on} aria-label="{y} {x}" class:on onclick={() => fix({ x, y })}></button>
      {/each}
    {/each}
  </div>
  <div>
    <span class="label">Fixed point</span>
    <strong>{word}</strong>
    <div class="mirror">
      {#each [['spine', 'spine'], ['fore', 'fore edge']] as const as [x, said] (x)}
        <button type="button" class="link" class:chosen={value.fixed.x === x} onclick={() => fix({ x })}>{said}</button>
      {/each}
    </div>
  </div>
</div>

<style>
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
</style>

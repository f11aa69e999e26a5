<script lang="ts" generics="How extends Pick<Resize, 'content' | 'fixed'>">
  import { t, translated } from '../../words/language';
  import type { FixedPoint, Resize } from '../../core/pages/resize';
  import Choice from '../parts/Choice.svelte';
  import NinePoints from './NinePoints.svelte';

  interface Props {
    value: How;
    onchange: (value: How) => void;
  }
  let { value, onchange }: Props = $props();

  const word = $derived(
    value.fixed.x === 'centre' && value.fixed.y === 'centre'
      ? t`centre`
      : `${value.fixed.y === 'centre' ? t`middle` : translated(value.fixed.y)}, ${value.fixed.x === 'fore' ? t`fore edge` : value.fixed.x === 'centre' ? t`middle` : translated(value.fixed.x)}`,
  );
  const fix = (change: Partial<FixedPoint>) => onchange({ ...value, fixed: { ...value.fixed, ...change } });
</script>

<Choice
  label={t`Content`}
  options={[
    ['hold', t`Keep size`],
    ['fit', t`Fit`],
    ['fill', t`Fill`],
    ['stretch', t`Stretch`],
  ]}
  value={value.content}
  onchange={(content) => onchange({ ...value, content })}
/>
<div class="fixed">
  <NinePoints label={t`Fixed point`} x={value.fixed.x} y={value.fixed.y} onpick={fix} />
  <div>
    <span class="label">{t`Fixed point`}</span>
    <strong>{word}</strong>
    <div class="mirror">
      {#each [['spine', t`spine`], ['fore', t`fore edge`]] as const as [x, said] (x)}
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

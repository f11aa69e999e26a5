<script lang="ts">
  type X = 'left' | 'centre' | 'right';
  type Y = 'head' | 'centre' | 'foot';
  interface Props {
    label: string;
    /** The point that is chosen; none of the nine where it is one that mirrors. */
    x: string;
    y: Y;
    onpick: (point: { x: X; y: Y }) => void;
  }
  /** The corners, edges and middle of a page, one of which is selected. */
  let { label, x, y, onpick }: Props = $props();
  const XS: readonly X[] = ['left', 'centre', 'right'];
  const YS: readonly Y[] = ['head', 'centre', 'foot'];
</script>

<div role="radiogroup" aria-label={label}>
  {#each YS as row (row)}
    {#each XS as column (column)}
      {@const on = x === column && y === row}
      <button type="button" role="radio" aria-checked={on} aria-label="{row} {column}" class:on onclick={() => onpick({ x: column, y: row })}
      ></button>
    {/each}
  {/each}
</div>

<style>
  div {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    place-items: center;
    width: 68px;
    height: 66px;
    background: var(--well);
    border: 1px solid var(--ink-2);
    margin: 2px;
  }
  button {
    width: 12px;
    height: 12px;
    padding: 0;
    border: 1px solid var(--ink-2);
    border-radius: 50%;
    background: #fff;
    cursor: pointer;
  }
  .on {
    width: 14px;
    height: 14px;
    border-color: var(--act);
    background: var(--act);
  }
</style>

<script lang="ts">
  import { stepKeys } from '../slip/acts';

  let { onclose }: { onclose: () => void } = $props();
  const KEYS: [string, string][] = [
    ['Ctrl Z / Ctrl Shift Z', 'undo / redo'],
    ['Alt 1 … 5', 'go to a stage'],
    ['/', 'type which pages are selected'],
    ['Ctrl A', 'select all pages'],
    ['← → Home End', 'select the page before, after, first, last'],
    ['Shift with those', 'select all the way there'],
    ['Esc', 'cancel what is being tried; then select nothing'],
    ...stepKeys(),
    ['L on Numbers, Sheets', 'hold the leaf, the sheets to the light'],
    ['O   C on Sheets', 'turn the sheets over; look at one corner after another'],
    ['Alt ← →', 'move the selected pages by one; with Home, End to an end'],
    ['Drag pages', 'move them; with Shift, hang them on a leaf'],
    ['Enter in a slip', 'put on the docket'],
    ['↑ ↓ in a length', 'one more, one less; with Shift ten'],
    ['Arrows in a crop', 'move it; with Shift ten times as far'],
    ['D', 'measure a distance'],
    ['V', 'against the source: beside, blink, off'],
    ['+  −  0  9', 'zoom in, out, fit, the whole book'],
    ['Wheel / Ctrl wheel', 'move the mat / zoom'],
    ['Space and drag', 'move the mat'],
    ['?', 'this list'],
  ];
  let panel: HTMLElement | undefined = $state();
  $effect(() => panel?.focus());
</script>

<svelte:window onkeydown={(event) => (event.key === 'Escape' || event.key === '?') && (event.stopPropagation(), onclose())} />
<div class="over" role="presentation" onclick={onclose}></div>
<div class="panel" role="dialog" aria-label="Keys" tabindex="-1" bind:this={panel}>
  <h2>Keys</h2>
  <dl>
    {#each KEYS as [key, what] (key)}
      <div>
        <dt class="mono">{key}</dt>
        <dd>{what}</dd>
      </div>
    {/each}
  </dl>
  <button class="btn q" onclick={onclose}>Close</button>
</div>

<style>
  .over {
    position: fixed;
    inset: 0;
    z-index: 9;
  }
  .panel {
    position: fixed;
    right: 12px;
    bottom: 50px;
    z-index: 10;
    width: 800px;
    max-width: calc(100vw - 24px);
    max-height: calc(100vh - 70px);
    overflow: auto;
    padding: 16px 20px;
    background: var(--card);
    border: 1px solid var(--ink-2);
    outline: none;
  }
  h2 {
    font-size: 16px;
    margin-bottom: 8px;
  }
  dl {
    columns: 2;
    column-gap: 28px;
    margin: 0 0 12px;
    font-size: 13px;
  }
  dl div {
    display: grid;
    grid-template-columns: 152px 1fr;
    gap: 10px;
    padding: 2px 0;
    break-inside: avoid;
  }
  dt {
    font-size: 12px;
  }
  dd {
    margin: 0;
  }
</style>

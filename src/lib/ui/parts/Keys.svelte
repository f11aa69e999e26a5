<script lang="ts">
  import { stepKeys } from '../slip/acts';

  let { onclose }: { onclose: () => void } = $props();
  const KEYS: [string, string][] = [
    ['Ctrl Z / Ctrl Shift Z', 'undo / redo'],
    ['Alt 1 … 6', 'go to a stage'],
    ['/', 'type which pages are selected'],
    ['Ctrl A', 'select all pages'],
    ['← → Home End', 'select the page before, after, first, last'],
    ['Shift with those', 'select all the way there'],
    ['Esc', 'cancel what is being tried; then select nothing'],
    ...stepKeys(),
    ['L on Numbers, Sheets', 'hold the leaf, the sheets to the light'],
    ['O   C on Sheets', 'turn the sheets over; look at one corner after another'],
    ['← → Space on Dummy', 'what is done before, next; make it step by step'],
    ['Shift with arrows', 'turn the dummy by hand'],
    ['O   U   0 on Dummy', 'from below; fold out; bring it back'],
    ['Alt ← →', 'move the selected pages by one; with Home, End to an end'],
    ['Drag pages', 'move them; with Shift, hang them on a leaf'],
    ['Enter in a slip', 'apply'],
    ['↑ ↓ in a length', 'one more, one less; with Shift ten'],
    ['Arrows in a crop', 'move it; with Shift ten times as far'],
    ['D', 'measure a distance'],
    ['V', 'against the source: beside, blink, off'],
    ['+  −  0  9', 'zoom in, out, fit, the whole book'],
    ['Right button, menu key', 'what can be done to pages, to a step'],
    ['Z, double click', 'zoom to the pages selected, to a page'],
    ['Wheel / Ctrl wheel', 'move the mat / zoom'],
    ['Space and drag', 'move the mat'],
    ['?', 'this list'],
  ];
  let panel: HTMLDialogElement | undefined = $state();
  $effect(() => panel?.showModal());
  /** A click beside the list is one on the dialog itself. */
  const onclick = (event: MouseEvent) => event.target === panel && panel?.close();
  function onkeydown(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === '?') panel?.close();
  }
</script>

<dialog aria-label="Keys" bind:this={panel} {onclose} {onclick} {onkeydown}>
  <div>
    <h2>Keys</h2>
    <dl>
      {#each KEYS as [key, what] (key)}
        <div>
          <dt class="mono">{key}</dt>
          <dd>{what}</dd>
        </div>
      {/each}
    </dl>
    <button class="btn q" onclick={() => panel?.close()}>Close</button>
  </div>
</dialog>

<style>
  dialog {
    inset: auto 12px 50px auto;
    width: 800px;
    max-width: calc(100vw - 24px);
    max-height: calc(100vh - 70px);
    padding: 0;
    background: var(--card);
    color: var(--ink);
    border: 1px solid var(--ink-2);
  }
  dialog::backdrop {
    background: none;
  }
  dialog > div {
    padding: 16px 20px;
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

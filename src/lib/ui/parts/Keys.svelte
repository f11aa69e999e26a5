<script lang="ts">
  import { t } from '../../words/language';
  import { stepKeys } from '../slip/acts';

  let { onclose }: { onclose: () => void } = $props();
  const KEYS: [string, string][] = [
    [t`Ctrl Z / Ctrl Shift Z`, t`undo / redo`],
    [t`Alt 1 … 6`, t`go to a stage`],
    ['/', t`type which pages are selected`],
    [t`Ctrl A`, t`select all pages`],
    [t`← → Home End`, t`select the page before, after, first, last`],
    [t`Shift with those`, t`select all the way there`],
    [t`Esc`, t`cancel what is being tried; then select nothing`],
    ...stepKeys(),
    [t`L on Numbers, Sheets`, t`hold the leaf, the sheets to the light`],
    [t`O   C on Sheets`, t`turn the sheets over; look at one corner after another`],
    [t`← → Space on Dummy`, t`what is done before, next; make it step by step`],
    [t`Shift with arrows`, t`turn the dummy by hand`],
    [t`O   U   0 on Dummy`, t`from below; fold out; bring it back`],
    [t`Alt ← →`, t`move the selected pages by one; with Home, End to an end`],
    [t`Del, Alt ↑ ↓ on a step`, t`take it off the docket; move it earlier, later`],
    [t`Drag pages`, t`move them; with Shift, hang them on a leaf`],
    [t`Enter in a slip`, t`apply`],
    [t`↑ ↓ in a length`, t`one more, one less; with Shift ten`],
    [t`Arrows in a crop`, t`move it; with Shift ten times as far`],
    ['D', t`measure a distance`],
    ['V', t`against the source: beside, blink, off`],
    ['+  −  0  9', t`zoom in, out, fit, the whole book`],
    [t`Right button, menu key`, t`what can be done to pages, to a step`],
    [t`Z, double click`, t`zoom to the pages selected, to a page`],
    [t`Wheel / Ctrl wheel`, t`move the mat / zoom`],
    [t`Space and drag`, t`move the mat`],
    ['?', t`this list`],
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

<dialog aria-label={t`Keys`} bind:this={panel} {onclose} {onclick} {onkeydown}>
  <div>
    <h2>{t`Keys`}</h2>
    <dl>
      {#each KEYS as [key, what] (key)}
        <div>
          <dt class="mono">{key}</dt>
          <dd>{what}</dd>
        </div>
      {/each}
    </dl>
    <button class="btn q" onclick={() => panel?.close()}>{t`Close`}</button>
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

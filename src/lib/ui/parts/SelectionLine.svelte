<script lang="ts">
  import { t, translated } from '../../words/language';
  import { SIDE_WORD } from '../../words/book';
  import { plural } from '../../words/plural';
  import { UNITS, type Unit } from '../../core/measure/unit';
  import { leafOf } from '../../core/pages/leaves';
  import type { Step } from '../../core/docket/steps';
  import { STEP_KINDS } from '../../core/docket/steps';
  import { stepWords } from '../../words/steps';
  import { addressesOf } from '../../core/pages/panels';
  import { faceLabels } from '../../core/numbers/labels';
  import { formatFigure, formatLength, UNIT_SIGN } from '../../core/measure/formatLength';
  import { bleedSides, faceAt, sideAt } from '../../core/pages/page';
  import type { Page } from '../../core/model/page';
  import { saySize } from '../../words/sizes';
  import type { Zoom } from '../mat/camera.svelte';
  import type { Bench } from '../bench.svelte';

  interface Props {
    bench: Bench;
    zoom: number;
    onzoom: (what: Zoom) => void;
    onkeys: () => void;
    /** Begins a step with the selected pages. */
    onact: (kind: Step['kind']) => void;
    /** The pages are typed: the mat takes the keys again. */
    ondone: () => void;
  }
  let { bench, zoom, onzoom, onkeys, onact, ondone }: Props = $props();

  const list = $derived(bench.shown.list);
  const words = $derived.by(() => {
    const count = list.pages.length;
    if (!count) return t`no pages yet`;
    if (!selected.length) return t`${plural(count, 'page')}, none selected`;
    const first = faceAt(list, selected[0]!)!;
    if (selected.length > 1) return t`${selected.length} of ${count}${list.panels?.length ? ` + ${list.panels.length}` : ''} pages`;
    const label = faceLabels(list).get(first.id);
    const address = addressesOf(list).get(first.id);
    const side = sideAt(selected[0]!, list);
    const { leaf, face } = leafOf(selected[0]!, list.book);
    const where = address ? t`panel ${address}` : t`${selected[0]! + 1} of ${count}`;
    const lies = address ? t`folds over the ${translated(first.panel!.folds)}` : t`${SIDE_WORD[side]}, leaf ${leaf} ${translated(face)}`;
    return `${where} · ${saySize(first.trim, bench.unit)}${label && (address || label !== String(selected[0]! + 1)) ? t` · label “${label}”` : ''} · ${lies} · ${bleedOf(first)}`;
  });
  /** The boxes that the source of the one page selected gave. */
  const boxes = $derived.by(() => {
    const art = selected.length === 1 ? faceAt(list, selected[0]!)?.art : undefined;
    const given = art && bench.surveys[art.source]?.pages[art.index]?.given;
    return given ? t` · boxes ${given.join(', ')}` : '';
  });
  function bleedOf(page: Page): string {
    const { left, right, head, foot } = bleedSides(page.bleed, sideAt(selected[0]!, list));
    const figures = [...new Set([head, right, foot, left].map((points) => formatLength(points, bench.unit)))];
    return figures.length === 1
      ? t`bleed ${figures[0]}`
      : t`bleed ${[head, right, foot, left].map((points) => formatFigure(points, bench.unit)).join(' ')} ${UNIT_SIGN[bench.unit]} (head, right, foot, left)`;
  }
  const selected = $derived(bench.selected.indexes);
  /** What can be done to the pages selected. */
  const ACTS = STEP_KINDS.filter(({ schema, key }) => 'pages' in schema.shape && key).map(({ kind }) => kind);
  const GUIDES = [
    ['safe', t`safe`],
    ['margins', t`margins`],
    ['away', t`cut-away`],
  ] as const;
  const UNIT_WORD: Record<Unit, string> = { mm: 'mm', cm: 'cm', in: t`inch, 1/8`, 'in-decimal': t`inch, 0.1`, pt: t`point`, pica: t`pica` };
</script>

<footer>
  <label class="pick"
    ><i></i>
    {t`selected`}
    <input
      id="selected"
      class="field mono"
      class:bad={bench.selected.error}
      value={bench.selected.text}
      placeholder={t`3, 5-9, last`}
      spellcheck="false"
      autocomplete="off"
      oninput={(event) => bench.selected.type(event.currentTarget.value)}
      onkeydown={(event) => {
        if (event.key !== 'Enter' || bench.selected.error) return;
        event.preventDefault();
        ondone();
      }}
      aria-invalid={!!bench.selected.error}
    /></label
  >
  {#if bench.selected.ids.size}
    <select
      class="acts"
      aria-label={t`Do with these pages`}
      value=""
      onchange={(event) => {
        const kind = event.currentTarget.value as Step['kind'];
        event.currentTarget.value = '';
        onact(kind);
      }}
    >
      <option value="" disabled>{t`do …`}</option>
      {#each ACTS as kind (kind)}<option value={kind}>{stepWords(kind).name}</option>{/each}
    </select>
  {/if}
  <span
    class="words"
    title={bench.selected.error ? undefined : `${words}${boxes}`}
    class:bad={bench.selected.error}
    role={bench.selected.error ? 'alert' : undefined}>{bench.selected.error || words}</span
  >
  <span class="right">
    {#if zoom}
      <span class="show"
        >{t`show`}
        {#each GUIDES as [key, word] (key)}
          <button class="guide" aria-pressed={bench.view.guides[key]} onclick={() => bench.view.toggleGuide(key)}>{word}</button>
        {/each}</span
      >
      <span class="zoom">
        <button onclick={() => onzoom('out')} aria-label={t`Zoom out`} title={t`Zoom out (-)`}>−</button>
        <button class="mono" onclick={() => onzoom('real')} title={t`Real size`}>{Math.round(((zoom * 72) / 96) * 100)} %</button>
        <button onclick={() => onzoom('in')} aria-label={t`Zoom in`} title={t`Zoom in (+)`}>+</button>
        <button onclick={() => onzoom('fit')} title={t`Fit (0)`}>{t`Fit`}</button>
        <button onclick={() => onzoom('whole')} title={t`The whole book (9)`}>{t`All`}</button>
      </span>
    {/if}
    <select
      aria-label={t`Unit`}
      value={bench.unit}
      onchange={(event) => bench.putBeside({ ...bench.docket, unit: event.currentTarget.value as Unit })}
    >
      {#each UNITS as unit (unit)}<option value={unit}>{UNIT_WORD[unit]}</option>{/each}
    </select>
    <button class="keys" onclick={onkeys}><kbd>?</kbd> {t`keys`}</button>
  </span>
</footer>

<style>
  footer {
    grid-column: 1 / -1;
    display: flex;
    align-items: center;
    gap: 16px;
    padding: 0 12px 0 16px;
    border-top: 1px solid var(--rule);
    background: var(--card);
    font-size: 13px;
    min-width: 0;
  }
  .pick {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  i {
    width: 11px;
    height: 11px;
    background: var(--pick);
    border: 1px solid var(--ink);
  }
  input {
    width: 150px;
    padding: 3px 8px;
    font-size: 13px;
  }
  input.bad {
    border-color: var(--cut);
  }
  .words {
    flex: 1;
    min-width: 0;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    color: var(--ink-2);
  }
  .words.bad {
    color: var(--cut);
  }
  .right {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  .zoom {
    display: flex;
  }
  button,
  select {
    border: 1px solid var(--rule);
    background: var(--well);
    padding: 2px 7px;
    font-size: 12px;
    cursor: pointer;
  }
  select {
    width: 92px;
  }
  .acts {
    width: 62px;
  }
  .zoom button + button {
    border-left: 0;
  }
  .show {
    display: flex;
    align-items: baseline;
    gap: 8px;
    color: var(--ink-2);
    font-size: 12.5px;
  }
  .guide {
    border: 0;
    padding: 0;
    background: none;
  }
  .guide[aria-pressed='true'] {
    color: var(--act);
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .keys {
    border: 0;
    background: none;
  }
  kbd {
    font: 11px var(--mono);
    border: 1px solid var(--rule);
    padding: 0 4px;
    background: var(--well);
  }
</style>

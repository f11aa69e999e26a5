<script lang="ts">
  import { t } from '../../../words/language';
  import { describeIndexes, pickedOf, resolveSelection, SelectionError } from '../../../core/select/selection';
  import type { Selection } from '../../../core/model/selection';
  import { NUMBER_STYLES, type NumberStyle } from '../../../core/model/series';
  import type { SeriesFrom } from '../../../core/docket/steps/numbers';
  import { saySelectionError } from '../../../words/selections';
  import { STYLE_WORD } from '../../../words/numbers';
  import type { FieldsProps } from '../fields';

  let { step, before, onchange }: FieldsProps<'numbers'> = $props();
  let open = $state<number | undefined>();
  let starts = $state<Record<number, string>>({});

  const said = (from: Selection): string => (typeof from === 'string' ? from : describeIndexes(pickedOf(from, before).slice(0, 1), before));
  function wrongFrom(from: Selection): string {
    try {
      resolveSelection(from, before);
      return '';
    } catch (error) {
      if (error instanceof SelectionError) return saySelectionError(error);
      throw error;
    }
  }
  const put = (n: number, change: Partial<SeriesFrom>) => send(step.series.map((series, i) => (i === n ? { ...series, ...change } : series)));
  const wrongStart = (text: string | undefined) => text !== undefined && text.trim() !== '' && !/^\s*[1-9]\d{0,4}\s*$/.test(text);
  const send = (series: SeriesFrom[]) => onchange({ ...step, series }, Object.values(starts).some(wrongStart));
  function start(n: number, text: string): void {
    starts = { ...starts, [n]: text };
    if (wrongStart(text)) onchange(step, true);
    else put(n, { start: text.trim() ? Number(text) : undefined });
  }
  function add(): void {
    const last = step.series.at(-1)!;
    const from = pickedOf(last.from, before)[0] ?? 0;
    const id = before.pages[Math.min(before.pages.length - 1, from + 1)]!.id;
    send([...step.series, { from: { ids: [id] }, style: 'D', start: 1 }]);
    open = step.series.length;
  }
  function drop(n: number): void {
    open = undefined;
    starts = {};
    send(step.series.filter((_, i) => i !== n));
  }
  const flag = (event: Event & { currentTarget: HTMLInputElement }) => event.currentTarget.checked || undefined;
</script>

<table>
  <thead><tr><th>{t`from page`}</th><th>{t`style`}</th><th>{t`first`}</th><td></td></tr></thead>
  <tbody>
    {#each step.series as series, n (n)}
      <tr class:open={open === n}>
        <td
          ><input
            class="field mono"
            aria-label={t`Series ${n + 1} begins at page`}
            value={said(series.from)}
            class:bad={wrongFrom(series.from)}
            oninput={(event) => put(n, { from: event.currentTarget.value })}
          /></td
        >
        <td
          ><select
            class="field"
            aria-label={t`Style of series ${n + 1}`}
            value={series.style}
            onchange={(event) => put(n, { style: event.currentTarget.value as NumberStyle })}
            >{#each NUMBER_STYLES as style (style)}<option value={style}>{STYLE_WORD[style]}</option>{/each}</select
          ></td
        >
        <td
          ><input
            class="field mono"
            aria-label={t`First number of series ${n + 1}`}
            placeholder={n ? t`goes on` : '1'}
            value={starts[n] ?? series.start ?? ''}
            class:bad={wrongStart(starts[n])}
            oninput={(event) => start(n, event.currentTarget.value)}
          /></td
        >
        <td
          ><button
            type="button"
            class="link"
            aria-expanded={open === n}
            aria-label={t`More of series ${n + 1}`}
            onclick={() => (open = open === n ? undefined : n)}>{open === n ? t`less` : t`more`}</button
          ></td
        >
      </tr>
      {#if wrongFrom(series.from)}<tr><td colspan="4"><p class="wrong" role="alert">{wrongFrom(series.from)}</p></td></tr>{/if}
      {#if wrongStart(starts[n])}<tr
          ><td colspan="4"><p class="wrong" role="alert">{t`A whole number from 1, or nothing to go on counting.`}</p></td></tr
        >{/if}
      {#if open === n}
        <tr>
          <td colspan="4"
            ><div class="more">
              <div class="three">
                {#each [['name', t`Name`, 60], ['prefix', t`Prefix`, 40], ['suffix', t`Suffix`, 40]] as const as [field, word, most] (field)}
                  <label
                    ><span class="label">{word}</span><input
                      class="field"
                      maxlength={most}
                      value={series[field] ?? ''}
                      oninput={(event) => put(n, { [field]: event.currentTarget.value || undefined })}
                    /></label
                  >
                {/each}
              </div>
              <label
                ><input type="checkbox" checked={!series.skipBlanks} onchange={(event) => put(n, { skipBlanks: flag(event) ? undefined : true })} />
                {t`counts blank pages`}</label
              >
              <label
                ><input type="checkbox" checked={!!series.panels} onchange={(event) => put(n, { panels: flag(event) })} />
                {t`counts fold-out panels`}</label
              >
              {#if step.series.length > 1}<button type="button" class="link" onclick={() => drop(n)}>{t`Remove this series`}</button>{/if}
            </div></td
          >
        </tr>
      {/if}
    {/each}
  </tbody>
</table>
<button type="button" class="link" onclick={add}>{t`Another series`}</button>
<p class="quiet small">
  {t`Each series lasts until the next begins. Pages before the first carry no number. Where “first” is empty, it goes on from the one before.`}
</p>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }
  th {
    font-size: 11.5px;
    font-weight: 500;
    text-align: left;
    color: var(--ink-2);
  }
  td {
    padding: 2px 4px 2px 0;
  }
  td:nth-child(1) {
    width: 64px;
  }
  td:nth-child(3) {
    width: 62px;
  }
  td input.mono {
    text-align: right;
  }
  .field {
    width: 100%;
  }
  .bad {
    border-color: var(--cut);
  }
  .more {
    display: grid;
    gap: 3px;
    padding: 4px 0 8px;
    font-size: 12.5px;
    justify-items: start;
  }
  .three {
    display: grid;
    grid-template-columns: 2fr 1fr 1fr;
    gap: 6px;
    width: 100%;
  }
</style>

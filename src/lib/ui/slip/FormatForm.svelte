<script lang="ts">
  import { t } from '../../words/language';
  import { plural } from '../../words/plural';
  import { formatSchema, type Format } from '../../core/docket/format';
  import { mm } from '../../core/measure/unit';
  import { COLUMN_GAP, PLAIN_BLEED, PLAIN_MARGINS } from '../../core/docket/shapes';
  import { sayWrongBleed } from '../../words/lengths';
  import { StepProblem } from '../../core/docket/stepKind';
  import { sizesChanged } from '../../core/pages/changes';
  import { frontSide } from '../../core/pages/page';
  import { leaveRoom } from '../../core/pages/margins';
  import { withFormat } from '../../core/docket/edit';
  import { sayStepProblem } from '../../words/stepProblems';
  import type { Bench } from '../bench.svelte';
  import EdgeFields from './EdgeFields.svelte';
  import { bookEdges } from './edges';
  import MarginFields from './MarginFields.svelte';
  import PaperFields from './PaperFields.svelte';

  let { bench, format }: { bench: Bench; format: Format } = $props();

  const known = $derived(bench.docket.formats.find(({ id }) => id === format.id));
  let wrong = $state<Record<string, boolean>>({});
  const taken = $derived(bench.docket.formats.some(({ id, name }) => id !== format.id && name.toLowerCase() === format.name.trim().toLowerCase()));
  /** Why its margins cannot be used with its size. */
  const full = $derived.by(() => {
    const { trim, margins } = format;
    const room =
      !trim || !margins || leaveRoom({ trim, margins, columns: { count: margins.columns, gap: margins.gap } }, frontSide(bench.docket.book));
    return room ? '' : sayStepProblem(new StepProblem('no-column'));
  });
  const bad = $derived(Object.values(wrong).some(Boolean) || taken || !!full || !formatSchema.safeParse(format).success);
  const changed = $derived(!known || JSON.stringify(known) !== JSON.stringify(format));

  function set(field: string, change: Partial<Format>, isWrong = false): void {
    wrong = { ...wrong, [field]: isWrong };
    bench.draft.format = { ...format, ...change };
  }
  function without(field: 'trim' | 'bleed' | 'margins'): void {
    const rest = { ...format };
    delete rest[field];
    wrong = { ...wrong, [field]: false };
    bench.draft.format = rest;
  }
  $effect(() => {
    bench.draft.trial = bad || !changed ? undefined : withFormat(bench.docket, format);
  });
  /** Pages with this format, and how many of them would get another size. */
  const users = $derived(bench.base.list.pages.filter((page) => page.format?.id === format.id).length);
  const resized = $derived(bench.draft.trial ? sizesChanged(bench.base.list, bench.shown.list) : 0);

  function accept(event: SubmitEvent): void {
    event.preventDefault();
    if (!bad && changed) bench.put(withFormat(bench.docket, { ...format, name: format.name.trim() }));
  }
  const A5 = { width: mm(148), height: mm(210) };
  const PARTS = [
    ['trim', t`trim size`, { trim: A5 }],
    ['bleed', t`bleed`, { bleed: PLAIN_BLEED }],
    ['margins', t`margins and columns`, { margins: { ...PLAIN_MARGINS, columns: 1, gap: COLUMN_GAP } }],
  ] as const;
</script>

<form onsubmit={accept}>
  <h1>{known ? t`Format` : t`New format`}</h1>
  <div>
    <label class="label" for="format-name">{t`Name`}</label>
    <input
      id="format-name"
      class="field"
      maxlength="60"
      autocomplete="off"
      value={format.name}
      oninput={(event) => set('name', { name: event.currentTarget.value })}
    />
    {#if taken}<p class="wrong" role="alert">{t`Another format of this job has that name. Choose one that tells them apart.`}</p>
    {:else if !format.name.trim()}<p class="wrong" role="alert">{t`A format needs a name, such as Body.`}</p>{/if}
  </div>
  <div class="parts">
    <span class="label">{t`Sets`}</span>
    {#each PARTS as [part, word, fresh] (part)}
      <label
        ><input type="checkbox" checked={!!format[part]} onchange={(event) => (event.currentTarget.checked ? set(part, fresh) : without(part))} />
        {word}</label
      >
    {/each}
  </div>
  {#if format.trim}<PaperFields {bench} value={format.trim} onchange={(trim, isWrong) => set('trim', { trim }, isWrong)} />{/if}
  {#if format.bleed}
    <EdgeFields
      label={t`Bleed`}
      edges={bookEdges(bench.docket.book)}
      values={format.bleed}
      unit={bench.unit}
      check={(points) => sayWrongBleed(points, bench.unit)}
      onchange={(edges, isWrong) => set('bleed', { bleed: { ...format.bleed, ...edges } }, isWrong)}
    />
  {/if}
  {#if format.margins}
    <MarginFields
      book={bench.docket.book}
      value={format.margins}
      {...format.trim ? { trim: format.trim } : {}}
      unit={bench.unit}
      onchange={(margins, isWrong) => set('margins', { margins }, isWrong)}
    />
  {/if}
  {#if full}<p class="wrong" role="alert">{full}</p>{/if}
  {#if users}<p class="mono sum">{t`${plural(users, 'page')} have it; ${resized} change size`}</p>{/if}
  <div class="btns">
    <button class="btn" disabled={bad || !changed}>{known ? t`Change format` : t`Keep format`}</button>
    <button class="btn q" type="button" onclick={() => bench.leave()}>{t`Cancel`}</button>
  </div>
</form>

<style>
  .parts {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    font-size: 12.5px;
  }
  .sum {
    font-size: 13px;
  }
</style>

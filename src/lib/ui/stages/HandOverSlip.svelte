<script lang="ts">
  import { untrack } from 'svelte';
  import {
    outputKey,
    outputSchema,
    PART_MB,
    PRESS_PPI,
    PRESS_TURNS,
    PREVIEW_PPI,
    type Output,
    type PressTurn,
    type Split,
  } from '../../core/handover/output';
  import { cutsOf, plannedTurn, pressMistake } from '../../core/handover/standIns';
  import { NAME_TOKENS } from '../../core/handover/names';
  import { plainPattern } from '../../words/fileName';
  import { OUTPUT_NAME, PRESS_MISTAKE, sayCutBy, sayPart, splitName, SPLITS, TURN_SAID, type SplitBy } from '../../words/outputs';
  import { saySize } from '../../words/sizes';
  import { facesOf } from '../../core/pages/page';
  import { commonestSize } from '../../core/pages/sizes';
  import type { Bench } from '../bench.svelte';
  import Choice from '../parts/Choice.svelte';
  import CountField from '../slip/CountField.svelte';
  import PagesField from '../slip/PagesField.svelte';
  import { asSaved } from '../asSaved';
  import PatternField from '../slip/PatternField.svelte';
  import { filesOf } from './outputFiles';

  let { bench }: { bench: Bench } = $props();
  const output = $derived(bench.docket.outputs.find((each) => outputKey(each) === bench.handing.chosen));
  let draft = $state.raw<Output | undefined>();
  const plain = (one: Output | undefined): string => asSaved(outputSchema, one);
  const stored = $derived(plain(output));
  $effect(() => {
    // Another output, or another state of it: what was typed belonged to the one before. The same one that was only saved
    // meanwhile leaves it.
    void stored;
    untrack(() => (draft = output));
  });
  const change = (more: object) => (draft = { ...draft!, ...more } as Output);
  const files = $derived(draft && filesOf(bench.base, draft));
  const split = $derived(draft && 'split' in draft ? draft.split : undefined);
  const FRESH: { [By in SplitBy]: Extract<Split, { by: By }> } = {
    every: { by: 'every', count: 10 },
    bookmarks: { by: 'bookmarks', level: 0 },
    series: { by: 'series' },
    pieces: { by: 'pieces' },
    places: { by: 'places', at: '1' },
    faces: { by: 'faces' },
    size: { by: 'size', mb: 10 },
  };
  const MOST_SHOWN = 12;
  const faces = $derived(facesOf(bench.base.list));
  const sizeOf = (pages: readonly number[]): string => {
    const size = draft?.kind === 'pages' ? commonestSize(pages.map((index) => faces[index]!)) : undefined;
    return size ? ` · ${saySize(size, bench.unit)}` : '';
  };
  const level = $derived(split?.by === 'bookmarks' ? split.level : 0);
  const bounds = $derived(draft?.kind === 'press' ? PRESS_PPI : PREVIEW_PPI);
  const wrongNumber = $derived(
    (split?.by === 'every' && !(Number.isInteger(split.count) && split.count >= 1)) ||
      (split?.by === 'size' && !(split.mb >= PART_MB.least && split.mb <= PART_MB.most)) ||
      (!!draft && 'ppi' in draft && !(Number.isInteger(draft.ppi) && draft.ppi >= bounds.least && draft.ppi <= bounds.most)),
  );
  const changed = $derived(plain(draft) !== stored);
</script>

{#if draft && output && draft.kind === output.kind}
  <form
    class="fields"
    onsubmit={(event) => {
      event.preventDefault();
      if (draft && changed && !files?.wrong && !wrongNumber) bench.handing.change(draft);
    }}
  >
    <h2>{OUTPUT_NAME[draft.kind]}</h2>
    {#if draft.kind === 'pages'}
      <Choice
        label="Pages"
        options={[
          ['all', 'all of them'],
          ['some', 'some'],
        ]}
        value={draft.pages === undefined ? 'all' : 'some'}
        onchange={(which) => change({ pages: which === 'all' ? undefined : bench.pickedText.trim() || 'all' })}
      />
      {#if draft.pages !== undefined}
        <PagesField label="Which" value={draft.pages} list={bench.base.list} onchange={(pages) => change({ pages })} />
      {/if}
      <Choice
        label="A viewer shows"
        options={[
          ['bleed', 'trim and bleed'],
          ['trim', 'the trim only'],
        ]}
        value={draft.crop}
        onchange={(crop) => change({ crop })}
      />
    {:else if draft.kind === 'map'}
      <Choice
        label="As"
        options={[
          ['csv', 'CSV'],
          ['json', 'JSON'],
        ]}
        value={draft.as}
        onchange={(as) => change({ as })}
      />
    {:else if draft.kind === 'press'}
      {@const planned = bench.base.plan && plannedTurn(bench.base.plan)}
      {@const mistake = bench.base.plan && pressMistake(bench.base.plan, draft)}
      {#if planned === 'one-side'}<p class="quiet">The sheets have one printed side each.</p>{:else}
        <div>
          <label class="label" for="turn">The press prints each sheet</label>
          <select
            id="turn"
            class="field"
            value={draft.turn ?? ''}
            onchange={(event) => change({ turn: (event.currentTarget.value || undefined) as PressTurn | undefined })}
          >
            <option value="">as planned{planned ? `: ${planned.replace('-', ' ')}` : ''}</option>
            {#each PRESS_TURNS as turn (turn)}<option value={turn}>{TURN_SAID[turn]}</option>{/each}
          </select>
          {#if planned && mistake}
            <p class="wrong" role="alert">The sheets are laid to be {TURN_SAID[planned]}. {PRESS_MISTAKE[mistake]}</p>
          {/if}
        </div>
      {/if}
    {:else if draft.kind === 'cutter'}
      {@const known = cutsOf(bench.base, draft.of)}
      {#if bench.base.plan}
        <Choice
          label="Cuts"
          options={[
            ['pages', 'pages'],
            ['sheets', 'sheets'],
          ]}
          value={draft.of}
          onchange={(of) => change({ of, by: undefined })}
        />
      {/if}
      <div>
        <label class="label" for="by">Follows</label>
        <select
          id="by"
          class="field"
          value={draft.by ? sayCutBy(draft.by) : ''}
          onchange={(event) => change({ by: known.find((by) => sayCutBy(by) === event.currentTarget.value) })}
        >
          <option value="">{known[0] ? `the likeliest: ${sayCutBy(known[0])}` : 'nothing: no ink or layer to follow'}</option>
          {#each known.map(sayCutBy) as by (by)}<option value={by}>{by}</option>{/each}
        </select>
      </div>
    {:else if draft.kind === 'previews'}
      <Choice
        label="Of"
        options={[
          ['pages', 'pages'],
          ['sheets', 'sheet sides'],
        ]}
        value={draft.of}
        onchange={(of) => change({ of })}
      />
    {/if}
    {#if 'ppi' in draft}
      <div>
        <label class="label" for="ppi">Pixels an inch</label>
        <input
          id="ppi"
          class="field mono"
          type="number"
          min={bounds.least}
          max={bounds.most}
          value={draft.ppi}
          oninput={(event) => change({ ppi: event.currentTarget.valueAsNumber })}
        />
        {#if wrongNumber}<p class="wrong" role="alert">A whole number from {bounds.least} to {bounds.most}.</p>{/if}
      </div>
    {/if}
    {#if SPLITS[draft.kind]}
      <div>
        <label class="label" for="split">Split</label>
        <select id="split" class="field" value={split?.by ?? ''} onchange={(event) => change({ split: FRESH[event.currentTarget.value as SplitBy] })}>
          <option value="">one file</option>
          {#each SPLITS[draft.kind]! as by (by)}<option value={by}>{splitName(by, draft.kind)}</option>{/each}
        </select>
      </div>
      {#if split?.by === 'every'}
        <CountField
          label={draft.kind === 'sheets' ? 'Sides a file' : draft.kind === 'spreads' ? 'Spreads a file' : 'Pages a file'}
          value={split.count}
          most={100000}
          of={draft.kind === 'sheets' ? 'sides' : 'pages'}
          onchange={(count) => change({ split: { by: 'every', count } })}
        />
      {:else if split?.by === 'bookmarks'}
        <CountField
          label="Bookmarks of level"
          value={level + 1}
          most={21}
          of="levels"
          onchange={(value) => change({ split: { by: 'bookmarks', level: Math.max(0, (value || 1) - 1) } })}
        />
      {:else if split?.by === 'places'}
        <PagesField label="A file begins at" value={split.at} list={bench.base.list} onchange={(at) => change({ split: { by: 'places', at } })} />
      {:else if split?.by === 'faces'}
        <label class="tick"
          ><input
            type="checkbox"
            checked={!!split.reverse}
            onchange={(event) => change({ split: { by: 'faces', ...(event.currentTarget.checked ? { reverse: true } : {}) } })}
          /> backs in reverse, for a pile that comes out the wrong way round</label
        >
      {:else if split?.by === 'size'}
        <div>
          <label class="label" for="mb">Largest file, MB</label>
          <input
            id="mb"
            class="field mono"
            type="number"
            step="any"
            min={PART_MB.least}
            max={PART_MB.most}
            value={split.mb}
            oninput={(event) => change({ split: { by: 'size', mb: event.currentTarget.valueAsNumber } })}
          />
          {#if wrongNumber}<p class="wrong" role="alert">A number of megabytes from {PART_MB.least} to {PART_MB.most}.</p>{/if}
        </div>
      {/if}
    {/if}
    <PatternField
      label="Name of the files"
      value={draft.name ?? plainPattern(draft)}
      tokens={NAME_TOKENS}
      read={NAME_TOKENS}
      onchange={(name) => change({ name: name === plainPattern(draft!) ? undefined : name })}
    />
    {#if files?.wrong}
      <p class="wrong" role="alert">{files.wrong}</p>
    {:else if files}
      <div class="preview">
        <p class="label">
          {split?.by === 'size'
            ? 'Named like this; how many is known once they are written'
            : files.names.length === 1
              ? 'Gives'
              : `Gives ${files.names.length} files`}
        </p>
        <ol>
          {#each files.names.slice(0, MOST_SHOWN) as name, n (name)}
            <li>
              <b>{name}</b><span class="mono"
                >{sayPart({ ...files.parts[n]!, pages: files.parts[n]!.pages.length }, draft.kind)}{sizeOf(files.parts[n]!.pages)}</span
              >
              {#if files.parts[n]!.alone}<span>the last one has no back</span>{/if}
            </li>
          {/each}
        </ol>
        {#if files.names.length > MOST_SHOWN}<p class="quiet">and {files.names.length - MOST_SHOWN} more</p>{/if}
      </div>
    {/if}
    <div class="btns">
      <button class="btn" disabled={!changed || !!files?.wrong || wrongNumber}>Change output</button>
      <button type="button" class="btn q" onclick={() => (bench.handing.chosen = undefined)}>{changed ? 'Cancel' : 'Close'}</button>
    </div>
  </form>
{:else}
  <h2>Hand over</h2>
  <p class="quiet">
    What goes out of this job, as many files as are wanted. Each is kept with the job, made again after a change, and read again before it is handed
    over.
  </p>
{/if}

<style>
  h2 {
    font-size: 15px;
    margin: 0;
  }
  .preview ol {
    max-height: 240px;
    overflow: auto;
    margin: 4px 0 0;
    padding: 0;
    list-style: none;
    font-size: 12px;
  }
  .preview li {
    padding: 4px 0;
    border-top: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .preview li b {
    display: block;
    font-weight: 600;
  }
  .preview li span {
    color: var(--ink-2);
  }
  .tick {
    display: flex;
    gap: 8px;
    align-items: baseline;
    font-size: 13px;
  }
</style>

<script lang="ts">
  import { formatDistanceToNow } from 'date-fns';
  import type { Output } from '../../core/docket/docket';
  import { formatLength, formatSize } from '../../core/measure/formatLength';
  import { cutsCsv } from '../../core/sheets/cuts';
  import { mapCsv, sheetMap } from '../../core/sheets/map';
  import { allSheets, sidesOf } from '../../core/sheets/plan';
  import { sheetsXjdf } from '../../core/sheets/xjdf';
  import { templateOf, templateSvg } from '../../core/sheets/template';
  import { saySize } from '../../words/findings';
  import { commonestSize } from '../../core/pages/sizes';
  import { sayTrouble } from '../../words/errors';
  import { api, Refused, type OutputState } from '../api';
  import type { Bench } from '../bench.svelte';

  let { bench }: { bench: Bench } = $props();

  const work = $derived(bench.base);
  const size = $derived(commonestSize(work.list.pages));
  const stops = $derived(work.findings.filter(({ level }) => level === 'stop').length);
  const crop = $derived(bench.docket.outputs.find((output) => output.kind === 'pages')?.crop ?? 'bleed');
  const of = (kind: Output['kind']) => bench.outputs.filter(({ spec }) => spec.kind === kind);
  const docketUrl = $derived(`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(bench.docket, null, 2))}`);
  const sides = $derived(work.plan ? sidesOf(work.plan).length : 0);
  const template = $derived(bench.docket.scheme.kind === 'leaflet' ? templateOf(work.list, bench.docket.scheme, bench.docket.safe) : undefined);
  /** Hands a text over as a file, made only now: a map of many sheets is long. */
  function give(name: string, type: string, text: string): void {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type }));
    link.download = `${bench.docket.title} ${name}`;
    link.click();
    URL.revokeObjectURL(link.href);
  }
  let wrong = $state('');

  async function order(output: Output): Promise<void> {
    wrong = '';
    try {
      await api.order(bench.id, output);
    } catch (error) {
      wrong = error instanceof Refused ? sayTrouble(error.trouble) : 'The server does not answer. Try again in a moment.';
    }
    await bench.poll();
  }
  async function drop({ id }: OutputState): Promise<void> {
    await api.drop(id);
    await bench.poll();
  }
  function setCrop(value: 'bleed' | 'trim'): void {
    bench.put({ ...bench.docket, outputs: bench.docket.outputs.map((output) => (output.kind === 'pages' ? { ...output, crop: value } : output)) });
  }
  const bytes = (count: number) => (count < 1024 * 1024 ? `${Math.ceil(count / 1024)} kB` : `${(count / 1024 / 1024).toFixed(1)} MB`);
</script>

{#snippet result(output: OutputState)}
  <li class={output.state}>
    {#if output.state === 'done'}
      <a class="file" href="/api/outputs/{output.id}/file" download={output.fileName}>{output.fileName}</a>
      <span class="mono">{bytes(output.size ?? 0)}</span>
      <span class={output.fresh ? 'fresh' : 'stale'}>{output.fresh ? 'fresh' : 'stale: the job has changed since'}</span>
      <span class="quiet">{formatDistanceToNow(output.finishedAt ?? output.createdAt, { addSuffix: true })}</span>
      <button class="link" onclick={() => void drop(output)}>Delete</button>
    {:else if output.state === 'failed'}
      <span class="stale" role="alert">{sayTrouble(output.trouble ?? { code: 'unknown' })}</span>
      <button class="link" onclick={() => void drop(output)}>Put away</button>
    {:else if output.state === 'cancelled'}
      <span class="quiet">Cancelled. Nothing was written.</span>
      <button class="link" onclick={() => void drop(output)}>Put away</button>
    {:else}
      <progress max={output.total || undefined} value={output.total ? output.done : undefined} aria-label="Being made"></progress>
      <span class="mono">{output.total ? `${output.done} of ${output.total}` : output.state === 'waiting' ? 'waiting' : 'beginning'}</span>
      <button class="link" onclick={() => void drop(output)}>Cancel</button>
    {/if}
  </li>
{/snippet}

<div class="bench">
  <div class="column">
    {#if !work.list.pages.length}
      <article>
        <h2>Nothing to hand over yet</h2>
        <p>There are no pages in this job. Take in a file first.</p>
        <a class="btn" href="/jobs/{bench.id}/take-in">Take in a file</a>
      </article>
    {:else}
      {#if stops}
        <p class="warn">
          {stops === 1 ? '1 finding says stop' : `${stops} findings say stop`}. The files can be made all the same; look at
          <a href="/jobs/{bench.id}/pages">Pages</a>
          and <a href="/jobs/{bench.id}/sheets">Sheets</a> first.
        </p>
      {/if}
      {#if work.plan}<article>
          <div class="what">
            <h2>Sheet PDF</h2>
            <p>
              For the press: each page one side of a sheet{sides > allSheets(work.plan) ? ', front and back in turn' : ''}, marks on layers of their
              own.
            </p>
            <p class="mono amount">
              {allSheets(work.plan)} sheet{allSheets(work.plan) === 1 ? '' : 's'} · {sides} side{sides === 1 ? '' : 's'} · {formatSize(
                work.plan.sheet.width,
                work.plan.sheet.height,
                bench.unit,
              )}{#if work.plan.cover}{@const { sheet } = work.plan.cover.plan}, the cover {formatSize(sheet.width, sheet.height, bench.unit)}{/if}
            </p>
          </div>
          <button class="btn" onclick={() => void order({ kind: 'sheets' })}>Make sheet PDF</button>
          <p class="lists">
            <button class="link" onclick={() => give('sheet map.csv', 'text/csv', mapCsv(work.plan!))}>Sheet map as CSV</button>
            <button class="link" onclick={() => give('sheet map.json', 'application/json', JSON.stringify(sheetMap(work.plan!), null, 2))}
              >as JSON</button
            >
            {#if 'stock' in bench.docket.scheme}{@const press = bench.docket.scheme}<button
                class="link"
                onclick={() => give('sheets.xjdf', 'application/vnd.cip4-xjdf+xml', sheetsXjdf(work.plan!, press, bench.docket.title))}
                >Sheets as XJDF</button
              >{/if}
            {#if bench.docket.scheme.kind === 'flat'}<button class="link" onclick={() => give('cut list.csv', 'text/csv', cutsCsv(work.plan!))}
                >Cut list</button
              >{/if}
          </p>
          <ul>
            {#each of('sheets') as output (output.id)}{@render result(output)}{/each}
          </ul>
        </article>{/if}
      {#if template}<article>
          <div class="what">
            <h2>Blank template</h2>
            <p>For a designer: trim, bleed, safe area and folds of both sides.</p>
            <p class="mono amount">
              {formatSize(template[0]!.trim.x1 - template[0]!.trim.x0, template[0]!.trim.y1 - template[0]!.trim.y0, bench.unit)} · folds at {template[0]!.folds
                .map(({ at }) => formatLength(at - template[0]!.trim.x0, bench.unit))
                .join(', ')}
            </p>
          </div>
          <button class="btn" onclick={() => void order({ kind: 'template' })}>Make template PDF</button>
          <p class="lists">
            {#each template as side (side.name)}<button
                class="link"
                onclick={() => give(`template ${side.name}.svg`, 'image/svg+xml', templateSvg(side))}>{side.name} as SVG</button
              >{/each}
          </p>
          <ul>
            {#each of('template') as output (output.id)}{@render result(output)}{/each}
          </ul>
        </article>{/if}
      {#if bench.docket.book.facing}<article>
          <div class="what">
            <h2>Spreads PDF</h2>
            <p>For a proof: facing pages side by side, as a reader meets them, at their trim.</p>
          </div>
          <button class="btn" onclick={() => void order({ kind: 'spreads' })}>Make spreads PDF</button>
          <ul>
            {#each of('spreads') as output (output.id)}{@render result(output)}{/each}
          </ul>
        </article>{/if}
      <article>
        <div class="what">
          <h2>Reading-order PDF</h2>
          <p>For proofs and screens: one page after the other, with boxes, labels and title; links and layers stay.</p>
          <p class="mono amount">{work.list.pages.length + (work.list.panels?.length ?? 0)} pages{size ? ` · ${saySize(size, bench.unit)}` : ''}</p>
          <div class="crop" role="radiogroup" aria-label="What a viewer shows">
            A viewer shows
            <label><input type="radio" name="crop" checked={crop === 'bleed'} onchange={() => setCrop('bleed')} /> trim and bleed</label>
            <label><input type="radio" name="crop" checked={crop === 'trim'} onchange={() => setCrop('trim')} /> the trim only</label>
          </div>
        </div>
        <button class="btn" onclick={() => void order({ kind: 'pages', crop })}>Make reading-order PDF</button>
        <ul>
          {#each of('pages') as output (output.id)}{@render result(output)}{/each}
        </ul>
      </article>
    {/if}
    <article>
      <div class="what">
        <h2>Docket</h2>
        <p>The steps of this job as JSON: kept with the files, the command line makes the same outputs from it.</p>
        <p class="mono amount">{bench.docket.steps.length} steps</p>
      </div>
      <a class="btn q" href={docketUrl} download="{bench.docket.title}.docket.json">Download docket</a>
    </article>
    {#if wrong}<p class="warn" role="alert">{wrong}</p>{/if}
  </div>
</div>

<style>
  .bench {
    grid-column: 2 / -1;
    min-height: 0;
    overflow: auto;
    background: var(--mat);
    padding: 26px 32px;
  }
  .column {
    display: grid;
    gap: 16px;
    max-width: 780px;
    margin: 0 auto;
  }
  article {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: start;
    gap: 10px 24px;
    padding: 18px 22px;
    background: var(--card);
    clip-path: var(--corner);
  }
  h2 {
    font-size: 16px;
    margin-bottom: 2px;
  }
  .amount {
    margin-top: 4px;
    font-size: 12.5px;
    color: var(--ink-2);
  }
  .lists {
    grid-column: 1 / -1;
    display: flex;
    gap: 16px;
    margin: 0;
    font-size: 13px;
  }
  .crop {
    display: flex;
    gap: 14px;
    margin-top: 8px;
    font-size: 13px;
  }
  ul {
    grid-column: 1 / -1;
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 16px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    font-size: 13px;
  }
  .file {
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  .fresh {
    color: var(--fine);
    font-weight: 600;
  }
  .stale {
    color: var(--cut);
  }
  .quiet {
    margin-left: auto;
  }
  progress {
    flex: 1;
    accent-color: var(--act);
  }
  .warn {
    padding: 10px 14px;
    background: var(--card);
    border-left: 4px solid var(--cut);
  }
</style>

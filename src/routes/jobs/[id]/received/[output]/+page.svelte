<script lang="ts">
  import { t } from '$lib/words/language';
  import { formatSize } from '$lib/core/measure/formatLength';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import { plural } from '$lib/words/plural';
  import { sayWay } from '$lib/words/lengths';
  import { sayCutBy } from '$lib/words/machines';
  import { outputWords, sayOutput } from '$lib/words/outputs';

  let { data } = $props();
  const { job, title, unit } = $derived(data);
  const { id, spec, files, upToDate } = $derived(data.output);
  type File = (typeof files)[number];

  /** The files with where each lies in the output; those of a sheet together. */
  const groups = $derived.by(() => {
    const all: { n: number; file: File }[][] = [];
    files.forEach((file, n) => {
      if (file.side === 'back') all.at(-1)!.push({ n, file });
      else all.push([{ n, file }]);
    });
    return all;
  });
  const cutsPages = $derived(spec.kind === 'cutter' && spec.of === 'pages');
  const sum = $derived(
    files.reduce((all, { cut }) => ({ length: all.length + (cut?.length ?? 0), pieces: all.pieces + (cut?.pieces ?? 0) }), { length: 0, pieces: 0 }),
  );
  const inAll = $derived(
    spec.kind === 'press'
      ? `${plural(groups.length, 'sheet')}, ${plural(files.length, 'side')}`
      : t`${plural(files.length, cutsPages ? 'page' : 'sheet')} · ${sayWay(sum.length, unit)} to cut · ${plural(sum.pieces, 'piece')}`,
  );
  /** How it was set up, as it was carried out. */
  const setUp = $derived(files[0]?.cut ? sayCutBy(files[0].cut.by) : sayOutput(spec).join(' · '));
  const upsideDown = $derived(files.some((file) => file.upsideDown));
</script>

<svelte:head><title>{t`${outputWords(spec.kind).name} · ${title} · Folder`}</title></svelte:head>

<TopBar here="jobs">
  <a class="btn q" href="/jobs/{job}/hand-over">{t`Back to ${title}`}</a>
</TopBar>
<main class="lists">
  <section>
    <h1>{t`${outputWords(spec.kind).name}: what it received`}</h1>
    <p class="mono">{inAll} · {setUp}</p>
    <p class="quiet">
      {t`A stand-in is a small simulated machine: nothing was printed or cut.`}
      {#if spec.kind === 'cutter'}{t`Pieces are all that comes loose, what falls out of holes too.`}{/if}
      {#if !upToDate}<b class="out-of-date">{t`The job has changed since this was sent.`}</b>{/if}
    </p>
    {#if upsideDown}
      <p class="trouble" role="alert">
        {t`The backs come out upside down: the press turned the sheets on the other edge than they were laid for. Set the press to the other edge, or choose this one on Sheets.`}
      </p>
    {/if}
    {#if spec.kind === 'cutter' && files.some(({ cut }) => !cut?.length)}
      <p class="trouble" role="alert">
        {t`${plural(files.filter(({ cut }) => !cut?.length).length, cutsPages ? t`page` : t`sheet`)} with no path to follow: nothing is cut there.`}
      </p>
    {/if}
  </section>
  <ol class:pairs={groups.some(({ length }) => length > 1)}>
    {#each groups as group (group[0]!.n)}
      <li>
        {#each group as { n, file } (n)}
          <figure>
            <a href="/api/outputs/{id}/file/{n}" download={file.name} title={t`Download ${file.name}`}>
              <img
                src="/api/outputs/{id}/file/{n}"
                alt={file.name}
                loading="lazy"
                width={file.size && Math.round(file.size.width)}
                height={file.size && Math.round(file.size.height)}
              />
            </a>
            <figcaption>
              <b>{cutsPages ? t`Page` : t`Sheet`} {file.from}{file.side ? `, ${file.side}` : ''}</b><span class="mono">
                {#if file.size}{formatSize(file.size.width, file.size.height, unit)}{/if}
                {#if file.upsideDown}{t`· upside down`}{/if}
              </span>
              {#if file.cut}<span class="mono">{sayWay(file.cut.length, unit)} · {plural(file.cut.pieces, 'piece')}</span>{/if}
            </figcaption>
          </figure>
        {/each}
      </li>
    {/each}
  </ol>
</main>

<style>
  ol {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
    gap: 18px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  ol.pairs {
    grid-template-columns: 1fr;
  }
  li {
    display: grid;
    align-items: end;
    grid-auto-columns: 1fr;
    grid-auto-flow: column;
    gap: 18px;
    padding: 14px;
    background: var(--mat);
  }
  figure {
    min-width: 0;
    margin: 0;
  }
  img {
    display: block;
    width: auto;
    max-width: 100%;
    height: auto;
    max-height: 420px;
    margin: 0 auto;
    background: #fff;
  }
  ol:not(.pairs) img {
    max-height: 300px;
  }
  figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    margin-top: 6px;
    font-size: 13px;
    color: var(--card);
  }
  figcaption .mono {
    color: var(--mat-text);
  }
  .out-of-date {
    color: var(--cut);
  }
</style>

<script lang="ts">
  import { t } from '$lib/words/language';
  import { plural } from '$lib/words/plural';
  import { onMount, untrack } from 'svelte';
  import type { Recipe, RecipeValues } from '$lib/core/docket/recipe';
  import { safeName } from '$lib/core/handover/names';
  import { api, Refused, uploadRun } from '$lib/ui/api';
  import type { ReplayedState } from '$lib/wire/told';
  import AskedFields from '$lib/ui/slip/AskedFields.svelte';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import PickJobs from '$lib/ui/parts/PickJobs.svelte';
  import WorkTable from '$lib/ui/parts/WorkTable.svelte';
  import { inSets } from '$lib/ui/pictureSets';
  import { sayFailure } from '$lib/ui/sayFailure';
  import { sayWaiting } from '$lib/words/scans';
  import { sayTrouble } from '$lib/words/troubles';
  import { schemeWords } from '$lib/words/schemes';
  import { stepWords } from '$lib/words/steps';

  let { data } = $props();
  let recipes = $state.raw(untrack(() => data.recipes));
  let unread = $state.raw(untrack(() => data.unread));
  let by = $state.raw<Record<string, string>>(untrack(() => data.by));
  let folders = $state.raw(untrack(() => data.folders));
  let work = $state.raw(untrack(() => data.work));
  const runs = $derived(work.filter((each) => each.of === 'run'));
  let wrong = $state('');
  /** The recipe that is being set to work, and on what. */
  let chosen = $state<string | undefined>();
  let values = $state.raw<RecipeValues>({});
  let valuesWrong = $state(false);
  let selected = $state.raw<readonly string[]>([]);
  let results = $state.raw<readonly ReplayedState[]>([]);
  let sending = $state('');
  let asking = $state<string | undefined>();
  let folderName = $state('');
  const recipe = $derived(recipes.find(({ name }) => name === chosen));
  const FAULTS: [string, string][] = [
    ['turned', t`some turned`],
    ['fronts-backs', t`fronts, then backs`],
    ['sheet-missing', t`a sheet missing`],
    ['double-feed', t`two sheets fed at once`],
    ['mixed-sizes', t`scans of several sizes`],
    ['cut-off', t`file cut off`],
    ['noise', t`noise`],
    ['shadow', t`shadow at the fold`],
    ['dirty-glass', t`dirty glass`],
  ];
  /** Faults of pictures alone: the PDF is made by the scanner's own program. */
  const OF_PICTURES: readonly string[] = ['double-feed', 'noise', 'shadow', 'dirty-glass', 'mixed-sizes'];
  const KINDS: [string, string][] = [
    ['pdf', t`one PDF, words behind its scans`],
    ['jpeg', t`a directory of JPEGs`],
    ['tiff', t`a directory of TIFFs`],
  ];
  let kind = $state('pdf');
  let faults = $state<string[]>(['turned']);

  const guard = async (work: () => Promise<unknown>): Promise<void> => {
    wrong = '';
    try {
      await work();
    } catch (error) {
      wrong = sayFailure(error);
    }
  };
  onMount(() => {
    const look = async () => {
      try {
        [work, folders] = await Promise.all([api.work(), api.dropFolders()]);
      } catch {
        // Asked again in a moment.
      }
    };
    const again = setInterval(() => void look(), 1000);
    return () => clearInterval(again);
  });

  function choose(name: string): void {
    chosen = chosen === name ? undefined : name;
    [values, valuesWrong, selected, results, folderName] = [{}, false, [], [], ''];
  }
  const take = (files: FileList | null) =>
    guard(async () => {
      const batch = crypto.randomUUID();
      const all = await inSets([...(files ?? [])]);
      for (const [n, file] of all.entries()) {
        sending = t`sending ${n + 1} of ${all.length}`;
        await uploadRun(chosen!, values, batch, file);
      }
      work = await api.work();
    }).finally(() => (sending = ''));
  const replay = () => guard(async () => (results = await api.replayOnJobs(chosen!, selected, values)));
  const addFolder = () =>
    guard(async () => {
      folders = await api.addDropFolder({ name: folderName.trim(), recipe: chosen!, values });
      folderName = '';
    });
  const remove = (name: string) =>
    guard(async () => {
      await api.dropRecipe(name);
      ({ recipes, unread, by } = await api.recipes());
      asking = undefined;
    });
  const bring = (files: FileList | null) =>
    guard(async () => {
      const text = await files?.[0]?.text();
      if (text === undefined) return;
      let json: unknown;
      try {
        json = JSON.parse(text);
      } catch {
        throw new Refused(400, { code: 'recipe-invalid', data: { reason: t`it is not JSON` } });
      }
      await api.saveRecipe(json);
      ({ recipes, unread, by } = await api.recipes());
    });
  const exported = (recipe: Recipe) =>
    `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify({ ...recipe, lengths: 'points of 1/72 inch' }, null, 2))}`;
  const holds = ({ steps, scheme, outputs }: Recipe): string =>
    [
      ...steps.map(({ kind }) => stepWords(kind).name.toLowerCase()),
      ...(scheme ? [schemeWords(scheme.kind).name] : []),
      ...(outputs ? [plural(outputs.length, 'output')] : []),
    ].join(' · ');
</script>

<svelte:head><title>{t`Recipes · Folder`}</title></svelte:head>

<TopBar here="recipes">
  <label class="btn q"
    >{t`Import a recipe`}<input
      class="visually-hidden"
      type="file"
      accept=".json,application/json"
      onchange={(event) => void bring(event.currentTarget.files)}
    /></label
  >
</TopBar>
<main class="lists">
  {#if wrong}<p class="trouble" role="alert">{wrong} <button class="link" onclick={() => (wrong = '')}>{t`Seen`}</button></p>{/if}
  <section class="cards">
    <h1>{t`Recipes`}</h1>
    {#if !recipes.length}<p class="quiet">
        {t`None yet. Open a job, do the work once, and choose`} <b>{t`Save as a recipe`}</b>
        {t`under its docket: the steps can then be replayed on other jobs, on many files, and on whatever lands in a drop folder.`}
      </p>{/if}
    {#each unread as { name, trouble } (name)}
      <p class="trouble" role="alert">
        <b>{name}</b>
        {t`is kept, but cannot be used. ${sayTrouble(trouble)}`}
        {#if asking === name}{t`Delete it?`} <button class="link stop" onclick={() => void remove(name)}>{t`Delete`}</button>
          <button class="link" onclick={() => (asking = undefined)}>{t`Keep`}</button>
        {:else}<button class="link" onclick={() => (asking = name)}>{t`Delete`}</button>{/if}
      </p>
    {/each}
    {#each recipes as each (each.name)}
      <article class:chosen={chosen === each.name}>
        <div class="head">
          <div>
            <h2>
              {each.name}
              <small
                >{t`version ${each.version}`}{#if by[each.name]}&nbsp;· {by[each.name]}{/if}</small
              >
            </h2>
            <p class="quiet">{holds(each)}</p>
          </div>
          <span class="acts">
            {#if asking === each.name}
              <span role="alert">{t`Delete it? What was made with it stays.`}</span>
              <button class="link stop" onclick={() => void remove(each.name)}>{t`Delete`}</button>
              <button class="link" onclick={() => (asking = undefined)}>{t`Keep`}</button>
            {:else}
              <button class="btn small" aria-expanded={chosen === each.name} onclick={() => choose(each.name)}>{t`Use it`}</button>
              <a class="link" href={exported(each)} download="{safeName(each.name)}.recipe.json">{t`JSON`}</a>
              <button class="link" onclick={() => (asking = each.name)}>{t`Delete`}</button>
            {/if}
          </span>
        </div>
        {#if chosen === each.name && recipe}
          <div class="use">
            {#if recipe.asks.length}<div class="asked">
                <AskedFields {recipe} {values} unit="mm" onchange={(next, wrong) => ([values, valuesWrong] = [next, wrong])} />
              </div>{/if}
            <div>
              <h3>{t`On files`}</h3>
              <p class="quiet">
                {t`Each becomes a job of its own, worked and handed over; pictures chosen together become one, in the order of their names.`}
              </p>
              <label class="btn q small"
                >{sending || t`Choose files`}<input
                  class="visually-hidden"
                  type="file"
                  multiple
                  disabled={!!sending || valuesWrong}
                  onchange={(event) => void take(event.currentTarget.files)}
                /></label
              >
            </div>
            <div>
              <h3>{t`On jobs`}</h3>
              <PickJobs bind:selected />
              <button class="btn q small" disabled={!selected.length || valuesWrong} onclick={() => void replay()}
                >{selected.length ? t`Replay on ${plural(selected.length, 'job')}` : t`Replay on no job`}</button
              >
            </div>
            <div>
              <h3>{t`On a drop folder`}</h3>
              <p class="quiet">{t`A directory that is watched: files that have arrived are processed by this recipe as it is then.`}</p>
              <label class="label" for="folder-name">{t`Its name`}</label>
              <input id="folder-name" class="field" maxlength="120" bind:value={folderName} />
              <button class="btn q small" disabled={!folderName.trim() || valuesWrong} onclick={() => void addFolder()}>{t`Add drop folder`}</button>
            </div>
          </div>
          {#if results.length}
            <table>
              <thead><tr><th>{t`Job`}</th><th>{t`Pages`}</th><th>{t`Found`}</th></tr></thead>
              <tbody>
                {#each results as { job, title, pages, findings, trouble } (job)}
                  <tr
                    ><td><a href="/jobs/{job}/pages">{title}</a></td><td class="mono">{pages}</td><td
                      >{trouble
                        ? sayTrouble(trouble)
                        : findings
                            .filter(({ level }) => level !== 'note')
                            .map(({ title: said }) => said)
                            .join('; ') || t`nothing`}</td
                    ></tr
                  >
                {/each}
              </tbody>
            </table>
          {/if}
        {/if}
      </article>
    {/each}
  </section>
  <section class="cards">
    <h1>{t`Drop folders`}</h1>
    {#if !folders.length}<p class="quiet">{t`None yet. Choose`} <b>{t`Use it`}</b> {t`on a recipe to bind it to one.`}</p>{/if}
    {#each folders as folder (folder.id)}
      <article>
        <div class="head">
          <div>
            <h2>{folder.name} <small>{folder.paused ? t`paused` : folder.trouble ? t`in trouble` : t`watched`}</small></h2>
            <p class="quiet">
              {t`by`} <b>{folder.recipe}</b> · <span class="mono" title={folder.path}>…/{folder.path.split('/').slice(-2).join('/')}</span>
            </p>
            <p>
              <span class="mono">{folder.waiting}</span>
              {t`in progress ·`} <span class="mono">{folder.done}</span>
              {t`done ·`}
              <span class="mono" class:stop={folder.failed > 0}>{folder.failed}</span>
              {t`failed`}
            </p>
            {#each folder.sets ?? [] as set (set.name)}<p class="look">{sayWaiting(set)}</p>{/each}
            {#if folder.trouble}<p class="stop" role="alert">{sayTrouble(folder.trouble)}</p>{/if}
          </div>
          <span class="acts">
            <button
              class="btn q small"
              onclick={() => void guard(async () => (folders = await api.changeDropFolder(folder.id, { paused: !folder.paused })))}
              >{folder.paused ? t`Go on` : t`Pause`}</button
            >
            <button class="link" onclick={() => void guard(async () => (folders = await api.dropDropFolder(folder.id)))}>{t`Remove`}</button>
          </span>
        </div>
        <details>
          <summary>{t`Scanner (a simulated stand-in)`}</summary>
          <p class="quiet">{t`Delivers the demo's booklet here as raw scans, with the faults chosen.`}</p>
          <p class="faults">
            <label
              >{t`It delivers`}
              <select class="field" bind:value={kind}
                >{#each KINDS as [value, said] (value)}<option {value}>{said}</option>{/each}</select
              ></label
            >
          </p>
          <p class="faults">
            {#each FAULTS.filter(([fault]) => kind !== 'pdf' || !OF_PICTURES.includes(fault)) as [fault, said] (fault)}<label
                ><input type="checkbox" value={fault} bind:group={faults} /> {said}</label
              >{/each}
          </p>
          <p class="faults">
            <button class="btn q small" onclick={() => void guard(() => api.scan(folder.id, faults, kind))}>{t`Scan one now`}</button>
            <button
              class="btn q small"
              onclick={() => void guard(async () => (folders = await api.changeDropFolder(folder.id, { scanEvery: folder.scanEvery ? null : 10 })))}
              >{folder.scanEvery ? t`Stop scanning every ${folder.scanEvery} s` : t`Scan one every 10 s`}</button
            >
          </p>
        </details>
      </article>
    {/each}
  </section>
  <section>
    <h1>{t`Recipe runs`}</h1>
    <WorkTable
      work={runs}
      none={t`No recipe has run yet.`}
      onagain={(each) => void guard(async () => (work = await api.tryAgain(each.of, each.id)))}
      ondrop={({ id }) =>
        void guard(async () => {
          await api.dropRun(id);
          work = await api.work();
        })}
    />
  </section>
</main>

<style>
  /* As many beside each other as there is room for; the one that is used takes all of it. */
  .cards {
    grid-template-columns: repeat(auto-fill, minmax(min(520px, 100%), 1fr));
    align-items: start;
  }
  .cards > :not(article),
  .cards > .chosen {
    grid-column: 1 / -1;
  }
  h2 {
    font-size: 15.5px;
  }
  h2 small {
    font-weight: 400;
    font-size: 12.5px;
    color: var(--ink-2);
  }
  h3 {
    font-size: 13px;
    margin-bottom: 2px;
  }
  article {
    padding: 14px 18px;
    background: var(--card-2);
    clip-path: var(--corner);
  }
  article.chosen {
    box-shadow: inset 4px 0 0 var(--act);
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 20px;
  }
  .acts {
    display: flex;
    flex: none;
    align-items: baseline;
    align-self: start;
    gap: 14px;
    font-size: 13px;
  }
  .use {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
    gap: 18px;
    margin-top: 12px;
    padding-top: 12px;
    border-top: 1px solid var(--rule);
    font-size: 13px;
  }
  .use > div {
    display: grid;
    align-content: start;
    justify-items: start;
    gap: 5px;
  }
  .use .field {
    width: 100%;
  }
  .asked {
    grid-column: 1 / -1;
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 234px));
    gap: 10px 18px;
    align-items: end;
  }
  .asked :global(.field) {
    width: 100%;
  }
  .faults {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    margin: 6px 0 0;
    font-size: 13px;
  }
  details {
    margin-top: 8px;
    font-size: 13px;
  }
  summary {
    cursor: pointer;
    color: var(--act);
  }
  table {
    width: 100%;
    margin-top: 10px;
    border-collapse: collapse;
    font-size: 13px;
  }
  th,
  td {
    padding: 5px 8px 5px 0;
    border-top: 1px solid var(--rule);
    text-align: left;
    vertical-align: top;
  }
  .stop {
    color: var(--cut);
  }
  .mono {
    overflow-wrap: anywhere;
  }
</style>

<script lang="ts">
  import { t } from '$lib/words/language';
  import { plural } from '$lib/words/plural';
  import { facesOf } from '$lib/core/pages/page';
  import { onDestroy, onMount, setContext, untrack } from 'svelte';
  import { afterNavigate, goto } from '$app/navigation';
  import { page } from '$app/state';
  import { STEP_KINDS, stepKind, type Step } from '$lib/core/docket/steps';
  import type { Stage } from '$lib/core/checks/finding';
  import { schemeWords } from '$lib/words/schemes';
  import { Bench } from '$lib/ui/bench.svelte';
  import { takeBrought } from '$lib/ui/broughtAlong';
  import Docket from '$lib/ui/parts/Docket.svelte';
  import { isTyped } from '$lib/ui/isTyped';
  import { keysShown } from '$lib/ui/keysShown.svelte';
  import StageLine from '$lib/ui/parts/StageLine.svelte';
  import Menu from '$lib/ui/parts/Menu.svelte';
  import SelectionLine from '$lib/ui/parts/SelectionLine.svelte';
  import type { Present } from '$lib/wire/told';
  import type { Zoom } from '$lib/ui/mat/camera.svelte';
  import { countsOf } from '$lib/ui/proofs';
  import { Pictures } from '$lib/ui/pictures.svelte';
  import { isPossible } from '$lib/ui/slip/acts';
  import { SHORTCUTS } from '$lib/ui/slip/shortcuts';
  import CompareStage from '$lib/ui/stages/CompareStage.svelte';
  import DummySlip from '$lib/ui/stages/DummySlip.svelte';
  import DummyStage from '$lib/ui/stages/DummyStage.svelte';
  import HandOver from '$lib/ui/stages/HandOver.svelte';
  import HandOverSlip from '$lib/ui/stages/HandOverSlip.svelte';
  import NumbersSlip from '$lib/ui/stages/NumbersSlip.svelte';
  import NumbersStage from '$lib/ui/stages/NumbersStage.svelte';
  import PagesSlip from '$lib/ui/stages/PagesSlip.svelte';
  import PagesStage from '$lib/ui/stages/PagesStage.svelte';
  import RecipeSlip from '$lib/ui/stages/RecipeSlip.svelte';
  import SheetsSlip from '$lib/ui/stages/SheetsSlip.svelte';
  import SheetsStage from '$lib/ui/stages/SheetsStage.svelte';
  import TakeInSlip from '$lib/ui/stages/TakeInSlip.svelte';
  import TakeInStage from '$lib/ui/stages/TakeInStage.svelte';

  let { data } = $props();
  const bench = untrack(() => new Bench(data.job, data.surveys));
  const pictures = new Pictures();
  setContext('pictures', pictures);

  const STAGES: [Stage, string][] = [
    ['take-in', t`Take in`],
    ['pages', t`Pages`],
    ['numbers', t`Numbers`],
    ['sheets', t`Sheets`],
    ['dummy', t`Dummy`],
    ['hand-over', t`Hand over`],
  ];
  const stage = $derived(STAGES.find(([key]) => key === page.params.stage)?.[0] ?? (bench.docket.steps.length ? 'pages' : 'take-in'));
  let zoom = $state(0);
  let chosen = $state<string | undefined>();
  let view: { zoomTo: (what: Zoom) => void; focus: () => void } | undefined = $state();
  let title: HTMLInputElement | undefined = $state();

  $effect.pre(() => bench.look(stage));

  const go = (to: Stage) => void goto(`/jobs/${bench.id}/${to}`, { keepFocus: true });
  $effect(() => bench.judgeSoon());

  /** Whether what is seen here is saved. */
  const standing = $derived(
    bench.saving.signedOut
      ? t`You are signed out. Your changes are kept here: sign in again in another tab.`
      : bench.saving.away
        ? bench.saving.unsent
          ? t`Not saved yet: the server does not answer. Your changes are kept here and sent when it is back.`
          : t`The server does not answer. What you change is kept here until it is back.`
        : bench.saving.unsent
          ? t`saving`
          : bench.notice
            ? t`see below`
            : bench.by && bench.by !== data.person
              ? t`saved by ${bench.by}`
              : t`saved`,
  );
  const sayPresent = ({ person, doing }: Present) => t`${person ?? t`another window`} is here too${doing ? ` (${doing})` : ''}`;
  const keepUnsent = (event: BeforeUnloadEvent) => {
    bench.saving.keep();
    // Asked only while something could be lost from sight.
    if (bench.saving.away && bench.saving.unsent) event.preventDefault();
  };

  onMount(() => {
    bench.sendLeftOver();
    const brought = takeBrought();
    if (brought.length) void bench.incoming.takeIn(brought);
    void bench.poll();
    const look = () => void bench.poll();
    window.addEventListener('focus', look);
    return () => window.removeEventListener('focus', look);
  });
  onDestroy(() => {
    bench.close();
    pictures.close();
  });

  function rename(event: Event & { currentTarget: HTMLInputElement }): void {
    const text = event.currentTarget.value.trim().slice(0, 200);
    if (text && text !== bench.docket.title) bench.putBeside({ ...bench.docket, title: text });
    else event.currentTarget.value = bench.docket.title;
  }

  /** What had the focus is gone with a form or a stage: the mat has it, else the stage, so that the next key means something. */
  function holdFocus(): void {
    if (document.activeElement !== document.body) return;
    view?.focus();
    if (document.activeElement === document.body) document.querySelector<HTMLElement>('main [tabindex]')?.focus();
  }
  afterNavigate(() => void setTimeout(holdFocus));
  $effect(() => {
    void [stage, bench.draft.form, bench.draft.format, bench.draft.recipe, bench.notice];
    const soon = setTimeout(holdFocus);
    return () => clearTimeout(soon);
  });

  /** Opens a step's form where its pages are seen. */
  async function begin(kind: Step['kind'], begun?: Step): Promise<void> {
    const where = stepKind(kind).on;
    if (stage !== where) await goto(`/jobs/${bench.id}/${where}`, { keepFocus: true });
    bench.look(where);
    if (begun) bench.open({ kind, begun });
    else bench.begin(kind);
  }
  const COMPARE = { off: 'beside', beside: 'blink', blink: 'off' } as const;
  /** Keys that the mat knows; where nothing else has the focus that takes them, they are the mat's. */
  const OF_MAT = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End', '+', '-', '=', '0', '9', 'z'];
  function passToMat(event: KeyboardEvent): boolean {
    const at = event.target;
    const isFree = at === document.body || (at instanceof Element && at.matches('button, a, summary, input[type=checkbox]'));
    // With Ctrl they are the browser's: its own zoom.
    if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return false;
    if (!isFree || !view || !OF_MAT.includes(event.key) || (at instanceof Element && at.closest('dialog, [role=menu]'))) return false;
    event.preventDefault();
    view.focus();
    document.activeElement?.dispatchEvent(new KeyboardEvent('keydown', event));
    return true;
  }
  function onkeydown(event: KeyboardEvent): void {
    const typing = isTyped(event.target);
    const control = event.ctrlKey || event.metaKey;
    if (control && event.key.toLowerCase() === 'z' && !(typing instanceof HTMLInputElement && typing.type === 'text' && typing.id === 'title')) {
      event.preventDefault();
      bench.walk(event.shiftKey ? 'redo' : 'undo');
    } else if (event.altKey && STAGES[Number(event.key) - 1]) {
      event.preventDefault();
      go(STAGES[Number(event.key) - 1]![0]);
    } else if (event.key === 'Escape') {
      if (bench.view.measure) bench.view.measure = false;
      else if (bench.draft.isOpen || bench.draft.trial) bench.leave();
      else if (!typing) bench.selected.choose([]);
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      holdFocus();
    } else if (typing || (event.isTrusted && passToMat(event))) return;
    else if (control && event.key.toLowerCase() === 'a') {
      event.preventDefault();
      bench.selected.choose(facesOf(bench.shown.list).map(({ id }) => id));
    } else if (control || event.altKey) return;
    else if (event.key === '/') {
      event.preventDefault();
      document.getElementById('selected')?.focus();
    } else if (event.key === 'd') {
      if (stage !== 'pages') go('pages');
      bench.view.measure = !bench.view.measure;
    } else if (event.key === 'v') {
      if (stage !== 'pages') go('pages');
      bench.view.compare = COMPARE[bench.view.compare];
    } else {
      const kind = STEP_KINDS.find(({ key }) => key === event.key)?.kind;
      const begun = SHORTCUTS.find(({ key }) => key === event.key)?.step(bench);
      if (!begun && !(kind && isPossible(kind, bench))) return;
      event.preventDefault();
      void (begun ? begin(begun.kind, begun) : begin(kind!));
    }
  }
</script>

<svelte:head><title>{t`${bench.docket.title} · Folder`}</title></svelte:head>
<svelte:window {onkeydown} onbeforeunload={keepUnsent} onpagehide={() => bench.goAway()} />

<div class="room">
  <header>
    <a class="brand" href="/" title={t`All jobs`}><img src="/folder.svg" alt="" width="22" height="22" />{t`Folder`}</a>
    <div class="job">
      <input
        id="title"
        bind:this={title}
        value={bench.docket.title}
        aria-label={t`Title of the job`}
        onchange={rename}
        onkeydown={(event) => event.key === 'Enter' && title?.blur()}
      />
      <span class="quiet" class:away={bench.saving.away} aria-live="polite" title={standing}
        >{#if bench.saving.away}{standing}{:else}{t`${schemeWords(bench.docket.scheme.kind).name} · ${plural(bench.base.list.pages.length, 'page')} · ${standing}`}{#if bench.others.length}&nbsp;·
            <b class="others" title={bench.others.map(sayPresent).join(', ')}
              >{bench.others.length === 1 ? sayPresent(bench.others[0]!) : t`also open in ${bench.others.length} other windows`}</b
            >{/if}{/if}</span
      >
    </div>
    <nav aria-label={t`Stages`}>
      {#each STAGES as [key, word], i (key)}
        {@const { count, stop } = countsOf(key, bench.base.findings, bench.outputs)}
        <a href="/jobs/{bench.id}/{key}" class:on={stage === key} aria-current={stage === key ? 'page' : undefined} title={t`Alt ${i + 1}`}
          >{word}{#if bench.drafts[key].isOpen && stage !== key}<span
              class="begun"
              title={t`Begun here, not applied yet`}
              aria-label={t`begun, not applied yet`}>…</span
            >{/if}{#if count}<span class="n mono" class:stop aria-label={t`${count} findings`}>{count}</span>{/if}</a
        >
      {/each}
    </nav>
  </header>
  <Docket {bench} />
  {#if stage === 'hand-over'}
    <main><HandOver {bench} /></main>
    <aside class="slip" aria-label={t`Slip`}>
      {#key stage}<StageLine {stage} />{/key}
      {#if bench.draft.recipe}<RecipeSlip {bench} />{:else}<HandOverSlip {bench} />{/if}
    </aside>
  {:else}
    <main>
      {#if stage === 'take-in'}<TakeInStage {bench} {chosen} bind:zoom bind:this={view} />
      {:else if stage === 'pages'}{#if bench.view.compare === 'off'}<PagesStage {bench} bind:zoom bind:this={view} />{:else}<CompareStage
            {bench}
            bind:zoom
            bind:this={view}
          />{/if}
      {:else if stage === 'numbers'}<NumbersStage {bench} bind:zoom bind:this={view} />
      {:else if stage === 'dummy'}<DummyStage {bench} bind:zoom bind:this={view} />
      {:else}<SheetsStage {bench} bind:zoom bind:this={view} />{/if}
    </main>
    <aside class="slip" aria-label={t`Slip`}>
      {#key stage}<StageLine {stage} />{/key}
      {#if bench.draft.recipe}<RecipeSlip {bench} />
      {:else if stage === 'take-in'}<TakeInSlip {bench} bind:chosen />
      {:else if stage === 'pages'}<PagesSlip {bench} />
      {:else if stage === 'numbers'}<NumbersSlip {bench} />
      {:else if stage === 'dummy'}<DummySlip {bench} />
      {:else}<SheetsSlip {bench} />{/if}
    </aside>
  {/if}
  {#if bench.notice}
    <p class="notice" role="alert">{bench.notice} <button class="link" onclick={() => (bench.notice = '')}>{t`Seen`}</button></p>
  {/if}
  <SelectionLine
    {bench}
    zoom={stage === 'hand-over' ? 0 : zoom}
    onzoom={(what) => view?.zoomTo(what)}
    onkeys={() => (keysShown.on = true)}
    onact={(kind) => begin(kind)}
    ondone={() => view?.focus()}
  />
</div>
<Menu />

<style>
  .room {
    display: grid;
    grid-template: 52px minmax(0, 1fr) 38px / 228px minmax(0, 1fr) 284px;
    height: 100vh;
    overflow: hidden;
  }
  header {
    grid-column: 1 / -1;
    display: flex;
    align-items: stretch;
    min-width: 0;
    border-bottom: 1px solid var(--rule);
  }
  .brand {
    display: flex;
    align-items: center;
    gap: 10px;
    flex: 0 0 228px;
    padding: 0 16px;
    border-right: 1px solid var(--rule);
    font-size: 17px;
    font-weight: 700;
    color: var(--ink);
    text-decoration: none;
  }
  .job {
    display: flex;
    flex-direction: column;
    justify-content: center;
    flex: 1;
    min-width: 120px;
    padding: 0 10px;
  }
  .job input {
    width: 100%;
    max-width: 380px;
    padding: 0 7px;
    border: 1px solid transparent;
    background: none;
    font-weight: 600;
    text-overflow: ellipsis;
  }
  .job input:hover,
  .job input:focus {
    border-color: var(--rule);
    background: var(--well);
  }
  .job span {
    padding: 0 8px;
    font-size: 12px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .job .away {
    color: var(--cut);
    font-weight: 600;
  }
  .job .others {
    color: var(--act);
    font-weight: 500;
  }
  nav {
    display: flex;
    align-items: flex-end;
    gap: 2px;
    padding-right: 12px;
  }
  nav a {
    display: flex;
    align-items: center;
    gap: 7px;
    padding: 9px 15px 8px;
    border: 1px solid var(--rule);
    border-bottom: 0;
    background: var(--card-2);
    color: var(--ink);
    font-weight: 500;
    text-decoration: none;
    white-space: nowrap;
    clip-path: polygon(0 0, calc(100% - 9px) 0, 100% 9px, 100% 100%, 0 100%);
  }
  nav a.on {
    padding-top: 12px;
    background: var(--mat);
    border-color: var(--mat);
    color: #fff;
  }
  .begun {
    font-weight: 700;
    color: var(--act);
  }
  .n {
    padding: 0 5px;
    border: 1px solid currentColor;
    border-radius: 8px;
    background: #fff;
    color: var(--look);
    font-size: 11px;
  }
  .n.stop {
    color: var(--cut);
  }
  main {
    display: contents;
  }
  .slip {
    overflow: auto;
    padding: 14px 16px;
    border-left: 1px solid var(--rule);
    background: var(--card);
  }
  .notice {
    position: fixed;
    left: 50%;
    bottom: 52px;
    translate: -50% 0;
    z-index: 5;
    max-width: 620px;
    padding: 10px 16px;
    background: var(--card);
    border: 1px solid var(--ink-2);
    border-left: 4px solid var(--cut);
  }
  /* Wide screens give the panels more room. */
  @media (min-width: 1600px) {
    .room {
      grid-template-columns: 270px minmax(0, 1fr) 372px;
    }
    .brand {
      flex-basis: 270px;
    }
  }
  @media (max-width: 1100px) {
    .room {
      grid-template-columns: 184px minmax(0, 1fr) 268px;
    }
    .brand {
      flex-basis: 184px;
    }
    nav a {
      padding-inline: 10px;
    }
  }
  /* Narrow ones, and those that are magnified, show one under the other, and scroll. */
  @media (max-width: 860px) {
    .room {
      display: flex;
      flex-direction: column;
      height: auto;
      overflow: visible;
    }
    header,
    nav {
      flex-wrap: wrap;
    }
    .room > :global(main > *) {
      flex: none;
      height: 70vh;
    }
    .room > :global(aside) {
      order: 1;
      border: 0;
      border-top: 1px solid var(--rule);
    }
    .room > .slip {
      order: 0;
    }
    .room > :global(footer) {
      order: 2;
      flex-wrap: wrap;
      padding-block: 6px;
    }
  }
</style>

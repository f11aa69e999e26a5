<script lang="ts">
  import { getContext, onDestroy, tick, untrack } from 'svelte';
  import { finishPlanOf } from '../../core/finish/finishPlan';
  import { errs, PLAIN_ERRORS, withErrors } from '../../core/finish/errors';
  import { hasFoldOuts, openingOf } from '../../core/finish/states/book';
  import { sheetsToFollow } from '../../core/finish/states/states';
  import { facesInSight } from '../../core/finish/states/placed';
  import { Timeline } from '../../core/finish/states/timeline';
  import type { Bench } from '../bench.svelte';
  import type { Drawing, SeenFace } from '../dummy/drawing';
  import { Faces } from '../dummy/faces.svelte';
  import { namesOn, pageAt, printedAt, printedFace, type Face } from '../dummy/facePainter';
  import { FlatDrawing } from '../dummy/flatDrawing';
  import StateRow from '../dummy/StateRow.svelte';
  import type { Zoom } from '../mat/camera.svelte';
  import Caption from '../mat/Caption.svelte';
  import EmptyCard from '../parts/EmptyCard.svelte';
  import type { Pictures } from '../pictures.svelte';
  import { sayOpening, sayFace } from '../../words/dummy';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();
  const pictures = getContext<Pictures>('pictures');
  const view = untrack(() => bench.dummy);

  const plan = $derived(bench.shown.plan);
  const finish = $derived(plan && finishPlanOf({ list: bench.shown.list, plan, scheme: bench.shown.docket.scheme }, bench.docket.title));
  const sheets = $derived(finish ? sheetsToFollow(finish) : []);
  const sheet = $derived(sheets.includes(view.sheet) ? view.sheet : (sheets[0] ?? 1));
  /** With a sentence in its place where machines that err so make nothing. */
  const timeline = $derived.by(() => {
    if (!finish || !sheets.length) return undefined;
    try {
      return new Timeline(withErrors(finish, view.errors), sheet);
    } catch (error) {
      return String(error);
    }
  });
  const made = $derived(typeof timeline === 'object' ? timeline : undefined);
  const moment = $derived(made && view.place <= made.last ? made.at(view.place, view.out) : undefined);
  const foldsOut = $derived(!!made?.book && moment?.open !== undefined && hasFoldOuts(made.book, moment.open));

  let canvas: HTMLCanvasElement | undefined = $state();
  let mat: HTMLDivElement | undefined = $state();
  let drawing = $state.raw<Drawing | undefined>();
  let [width, height] = $state([0, 0]);
  /** Where the piece came to rest last. */
  let rests = $state<number | undefined>();
  let seen = $state.raw<readonly SeenFace[]>([]);
  let labels = $state.raw<readonly { x: number; y: number; text: string }[]>([]);
  /** The browser draws nothing in three dimensions. */
  let without = $state(false);
  const flat = $derived(view.flat || without);

  const faces = new Faces(pictures, () => drawing?.repainted());
  onDestroy(() => {
    view.close();
    faces.close();
    drawing?.close();
  });
  $effect(() => {
    const now = made;
    untrack(() => view.set(now));
  });

  // What draws is made anew for each canvas.
  $effect(() => {
    const on = canvas;
    const isFlat = flat;
    if (!on) return;
    let gone = false;
    void begin(on, isFlat).then((begun) => {
      if (gone) return begun?.close();
      drawing = begun;
    });
    return () => {
      gone = true;
      untrack(() => drawing?.close());
      drawing = undefined;
    };
  });
  async function begin(on: HTMLCanvasElement, isFlat: boolean): Promise<Drawing | undefined> {
    const paint = faces.get.bind(faces);
    if (isFlat) return new FlatDrawing(on, paint, rendered);
    try {
      const { DummyScene } = await import('../dummy/scene');
      return new DummyScene(on, paint, rendered);
    } catch {
      without = true;
      return undefined;
    }
  }

  $effect(() => {
    if (!drawing || !width || !height) return;
    drawing.resize(width, height);
    untrack(() => drawing?.bringBack(view.over));
    drawing.grids(bench.unit);
  });
  $effect(() => {
    const { going } = view;
    if (!drawing) return;
    drawing.show(
      going,
      untrack(() => view.t),
    );
    drawing.grids(untrack(() => bench.unit));
  });
  $effect(() => drawing?.advance(view.t));
  $effect(() => {
    const wanted = view.going && drawing ? [...drawing.faces, ...comingNext()] : [];
    if (plan) faces.refresh({ plan, surveys: bench.surveys, selected: bench.selected.ids, errors: view.errors }, wanted);
  });

  /** Faces that will be seen next, so that their pictures are there by then. */
  function comingNext(): Face[] {
    if (!made || !drawing || view.place >= made.last) return [];
    const { parts } = made.at(view.place + 1, view.out);
    return [...facesInSight(parts)].flatMap(([n, { above }]): Face[] => {
      const part = parts[n];
      if (!part || !above || part.waste) return [];
      const face = { sheet: part.sheet, face: part.up, flat: part.flat };
      faces.get(face, drawing?.k ?? 1);
      return [face];
    });
  }

  let told: ReturnType<typeof setTimeout> | undefined;
  /** What is seen is told once things have come to rest. */
  function rendered(): void {
    clearTimeout(told);
    told = setTimeout(() => {
      if (!drawing) return;
      zoom = drawing.k;
      rests = view.t === 0 || view.t === 1 ? view.place : undefined;
      seen = drawing.seen();
      labels = (moment?.state?.piles ?? []).map(({ box, height: high, pieces, name, pile }) => ({
        ...drawing!.toScreen((box.x0 + box.x1) / 2, box.y0, high),
        text: `${name ?? `pile ${pile}`} · ${pieces}`,
      }));
    }, 60);
  }
  onDestroy(() => clearTimeout(told));
  const inSight = $derived(
    seen.map((face) => {
      const printed = plan && printedFace(plan, face, view.errors);
      return { ...face, names: printed ? namesOn(printed, face.flat) : [] };
    }),
  );

  // A page selected elsewhere is brought into sight: its sheet is followed, or the book opened there.
  $effect(() => {
    const { ids } = bench.selected;
    const [only] = ids;
    if (ids.size === 1 && only) untrack(() => bring(only));
  });
  function bring(id: string): void {
    const at = plan && printedAt(plan, id);
    if (!at || !made) return;
    const { book } = made;
    if (!book || view.place < made.made || at.sheet > plan.sheetCount) {
      if (at.sheet !== sheet) view.sheet = at.sheet;
      return;
    }
    const open = openingOf(book, at.sheet, at.face, at.flat);
    if (open !== undefined && made.made + open !== view.place) view.go(made.made + open);
  }

  let down: { x: number; y: number } | undefined;
  function onpointerup(event: PointerEvent): void {
    const from = down;
    down = undefined;
    if (!from || event.button !== 0 || Math.hypot(event.clientX - from.x, event.clientY - from.y) > 4) return;
    const met = drawing?.meet(event.clientX, event.clientY);
    const printed = met && plan && printedFace(plan, met, view.errors);
    const page = printed && pageAt(printed, met.x, met.y);
    if (page) bench.selected.chooseOne(page.id, event);
    else bench.selected.choose([]);
  }

  function turnOver(): void {
    view.over = !view.over;
    drawing?.bringBack(view.over);
  }
  function bringBack(): void {
    view.over = false;
    drawing?.bringBack(false);
  }
  const QUARTER = Math.PI / 12;
  const KEYS: Record<string, () => void> = {
    ArrowRight: () => view.step(1),
    ArrowLeft: () => view.step(-1),
    Home: () => view.go(0),
    End: () => made && view.go(made.made),
    ' ': () => view.play(),
    o: turnOver,
    u: () => foldsOut && view.foldOut(),
    '0': bringBack,
    '+': () => drawing?.zoomBy(1.25),
    '=': () => drawing?.zoomBy(1.25),
    '-': () => drawing?.zoomBy(0.8),
  };
  const TURNS: Record<string, () => void> = {
    ArrowLeft: () => drawing?.turnBy(-QUARTER, 0),
    ArrowRight: () => drawing?.turnBy(QUARTER, 0),
    ArrowUp: () => drawing?.turnBy(0, -QUARTER),
    ArrowDown: () => drawing?.turnBy(0, QUARTER),
  };
  function onkeydown(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const { target } = event;
    if (target instanceof HTMLInputElement || target instanceof HTMLSelectElement) return;
    if (target instanceof HTMLButtonElement && event.key === ' ') return;
    const act = event.shiftKey ? (TURNS[event.key] ?? KEYS[event.key]) : KEYS[event.key];
    if (!act) return;
    event.stopPropagation();
    event.preventDefault();
    act();
  }
  $effect(() => {
    if (mat && document.activeElement === document.body) mat.focus();
  });
  export function zoomTo(what: Zoom): void {
    if (what === 'in') drawing?.zoomBy(1.25);
    else if (what === 'out') drawing?.zoomBy(0.8);
    else bringBack();
  }
  export const focus = () => mat?.focus();
  function follow(event: Event & { currentTarget: HTMLSelectElement }): void {
    view.sheet = Number(event.currentTarget.value);
    void tick().then(() => view.jump(0));
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="stage" {onkeydown}>
  {#if plan && made && finish}
    <div class="looks" role="toolbar" aria-label="How the dummy is looked at">
      {#if sheets.length > 1}
        <label
          >Sheet <select value={sheet} onchange={follow} aria-label="Sheet that is followed">
            {#each sheets as each (each)}<option value={each}>{each}{each > plan.sheetCount ? ', cover' : ''}</option>{/each}
          </select></label
        >
      {/if}
      {#if foldsOut}<button aria-pressed={view.out} onclick={() => view.foldOut()}>Fold out</button>{/if}
      <button aria-pressed={view.over} onclick={turnOver}>From below</button>
      <button onclick={bringBack}>Bring back</button>
      <button
        aria-pressed={flat}
        disabled={without}
        title={without ? 'This browser draws nothing in three dimensions.' : undefined}
        onclick={() => (view.flat = !view.flat)}>Flat</button
      >
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="mat"
      role="group"
      aria-label="Dummy"
      tabindex="0"
      bind:this={mat}
      bind:clientWidth={width}
      bind:clientHeight={height}
      onpointerdown={(event) => (down = { x: event.clientX, y: event.clientY })}
      {onpointerup}
    >
      {#key flat}<canvas bind:this={canvas} data-dimensions={flat ? 2 : 3}></canvas>{/key}
      {#each labels as { x, y, text } (text)}<span class="pile" style:left="{x}px" style:top="{y}px">{text}</span>{/each}
      <ul class="visually-hidden" aria-label="In sight" data-rests={rests}>
        {#each inSight as { sheet: on, face, flat: part, names, corners, turnedHere }, n (n)}
          <li
            data-sheet={on}
            data-face={face}
            data-here={turnedHere}
            data-pages={names.join(' ')}
            data-flat="{part.x0} {part.y0} {part.x1} {part.y1}"
            data-corners={corners.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')}
          >
            {sayFace(on, face, names)}
          </li>
        {/each}
      </ul>
      <Caption>
        {moment?.open === undefined
          ? `Sheet ${sheet} of ${sheets.length}`
          : sayOpening(inSight.filter(({ turnedHere }) => turnedHere).map(({ names }) => names))}{errs(view.errors)
          ? ' · with machines that err'
          : ''}
      </Caption>
    </div>
    <StateRow {view} timeline={made} {finish} unit={bench.unit} />
  {:else if typeof timeline === 'string'}
    <EmptyCard
      title="Nothing comes out"
      text="Machines that err so make nothing of these sheets: a cut or fold falls outside its paper. Take less on the right."
    >
      <button class="btn" onclick={() => (view.errors = PLAIN_ERRORS)}>Without errors</button>
    </EmptyCard>
  {:else if bench.shown.list.pages.length}
    <EmptyCard title="Nothing is folded" text="These pages stay separate: they are on no sheets, so there is nothing to make.">
      <a class="btn" href="/jobs/{bench.id}/sheets">Put them on sheets</a>
    </EmptyCard>
  {:else}
    <EmptyCard title="No pages, no dummy" text="Take in a file first; the piece is then made here, step by step.">
      <a class="btn" href="/jobs/{bench.id}/take-in">Take in a file</a>
    </EmptyCard>
  {/if}
</div>

<style>
  .stage {
    position: relative;
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    min-width: 0;
    min-height: 0;
    background: var(--mat);
  }
  .mat {
    position: relative;
    min-height: 0;
    overflow: hidden;
  }
  .mat:focus-visible {
    outline: 2px solid var(--pick);
    outline-offset: -2px;
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    touch-action: none;
  }
  .looks {
    position: absolute;
    z-index: 1;
    top: 12px;
    right: 14px;
    display: flex;
    background: var(--card);
    border: 1px solid var(--rule);
    font-size: 12.5px;
  }
  .looks button,
  .looks label {
    padding: 3px 10px;
    border: 0;
    border-left: 1px solid var(--rule);
    background: none;
    color: var(--act);
    font: 500 12.5px var(--sans, inherit);
    cursor: pointer;
  }
  .looks > :first-child {
    border-left: 0;
  }
  .looks select {
    border: 0;
    background: var(--well);
    font: inherit;
    color: var(--ink);
  }
  .looks [aria-pressed='true'] {
    background: var(--act);
    color: #fff;
  }
  .pile {
    position: absolute;
    translate: -50% 6px;
    padding: 1px 8px;
    background: var(--card);
    font-size: 12px;
    white-space: nowrap;
    pointer-events: none;
  }
</style>

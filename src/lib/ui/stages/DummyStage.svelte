<script lang="ts">
  import { t } from '../../words/language';
  import { getContext, tick, untrack } from 'svelte';
  import { errs, PLAIN_ERRORS } from '../../core/finish/errors';
  import { sayFace, sayOpening } from '../../words/dummy';
  import type { Bench } from '../bench.svelte';
  import type { Drawing, SeenFace } from '../dummy/drawing';
  import { CLOSER, dummyKeys, FARTHER } from '../dummy/dummyKeys';
  import { Faces } from '../dummy/faces.svelte';
  import { FlatDrawing } from '../dummy/flatDrawing';
  import { Making } from '../dummy/making.svelte';
  import StateRow from '../dummy/StateRow.svelte';
  import type { Zoom } from '../mat/camera.svelte';
  import Caption from '../mat/Caption.svelte';
  import EmptyCard from '../parts/EmptyCard.svelte';
  import type { Pictures } from '../pictures.svelte';

  let { bench, zoom = $bindable(0) }: { bench: Bench; zoom: number } = $props();
  const view = untrack(() => bench.dummy);
  const making = untrack(() => new Making(bench));
  const { plan, finish, sheets, sheet, timeline, moment, foldsOut } = $derived(making);

  let canvas: HTMLCanvasElement | undefined = $state();
  let mat: HTMLDivElement | undefined = $state();
  let drawing = $state.raw<Drawing | undefined>();
  let [width, height] = $state([0, 0]);
  /** Where the piece came to rest last, and what is seen there. */
  let rests = $state<number | undefined>();
  let seen = $state.raw<readonly SeenFace[]>([]);
  let labels = $state.raw<readonly { x: number; y: number; text: string }[]>([]);
  /** The browser draws nothing in three dimensions. */
  let without = $state(false);
  const flat = $derived(view.flat || without);
  const inSight = $derived(making.named(seen));

  const faces = new Faces(getContext<Pictures>('pictures'), () => drawing?.repainted());
  let told: ReturnType<typeof setTimeout> | undefined;
  // In a browser alone: a server that draws the stage has nothing to close.
  $effect(() => () => {
    clearTimeout(told);
    view.close();
    faces.close();
    drawing?.close();
  });
  $effect(() => {
    const [now, plans] = [timeline, finish];
    untrack(() => view.set(now, plans));
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
      return new DummyScene(on, paint, rendered, () => (without = true));
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
    const t = untrack(() => view.t);
    drawing?.show(going, t);
    drawing?.grids(untrack(() => bench.unit));
  });
  $effect(() => drawing?.advance(view.t));
  $effect(() => {
    const next = view.going && drawing ? making.next() : [];
    for (const face of next) faces.get(face, drawing?.k ?? 1);
    if (plan)
      faces.refresh({ plan, surveys: bench.surveys, selected: bench.selected.ids, errors: view.errors }, [...(drawing?.faces ?? []), ...next]);
  });

  /** What is seen is told at once at first, then whenever things have come to rest. */
  function rendered(): void {
    clearTimeout(told);
    told = setTimeout(tell, seen.length ? 60 : 0);
  }
  function tell(): void {
    if (!drawing) return;
    zoom = drawing.k;
    rests = view.t === 0 || view.t === 1 ? view.place : undefined;
    seen = drawing.seen();
    labels = (moment?.state?.piles ?? []).map(({ box, height: high, pieces, name, pile }) => ({
      ...drawing!.toScreen((box.x0 + box.x1) / 2, box.y0, high),
      text: `${name ?? t`pile ${pile}`} · ${pieces}`,
    }));
  }

  // A page selected elsewhere is brought into sight.
  $effect(() => {
    const { ids } = bench.selected;
    const [only] = ids;
    if (ids.size === 1 && only) untrack(() => making.bring(only));
  });

  let down: { x: number; y: number } | undefined;
  function onpointerup(event: PointerEvent): void {
    const from = down;
    down = undefined;
    // Further than this it was turned by hand.
    if (!from || event.button !== 0 || Math.hypot(event.clientX - from.x, event.clientY - from.y) > 4) return;
    making.select(drawing?.meet(event.clientX, event.clientY), event);
  }

  const { onkeydown, over } = dummyKeys(view, making, () => drawing);
  export function zoomTo(what: Zoom): void {
    if (what === 'in') drawing?.zoomBy(CLOSER);
    else if (what === 'out') drawing?.zoomBy(FARTHER);
    else over(false);
  }
  export const focus = () => mat?.focus();
  function follow(event: Event & { currentTarget: HTMLSelectElement }): void {
    view.sheet = Number(event.currentTarget.value);
    void tick().then(() => view.jump(0));
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="stage" {onkeydown}>
  {#if plan && timeline && finish}
    <div class="looks" role="toolbar" aria-label={t`How the dummy is looked at`}>
      {#if sheets.length > 1}
        <label
          >{t`Sheet`}
          <select value={sheet} onchange={follow} aria-label={t`Sheet that is followed`}>
            {#each sheets as each (each)}<option value={each}>{each}{each > plan.sheetCount ? t`, cover` : ''}</option>{/each}
          </select></label
        >
      {/if}
      {#if foldsOut}<button aria-pressed={view.out} onclick={() => view.foldOut()}>{t`Fold out`}</button>{/if}
      <button aria-pressed={view.over} onclick={() => over(!view.over)}>{t`From below`}</button>
      <button onclick={() => over(false)}>{t`Bring back`}</button>
      <button
        aria-pressed={flat}
        disabled={without}
        title={without ? t`This browser draws nothing in three dimensions.` : undefined}
        onclick={() => (view.flat = !view.flat)}>{t`Flat`}</button
      >
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      class="mat"
      role="group"
      aria-label={t`Dummy`}
      tabindex="0"
      bind:this={mat}
      bind:clientWidth={width}
      bind:clientHeight={height}
      onpointerdown={(event) => (down = { x: event.clientX, y: event.clientY })}
      {onpointerup}
    >
      {#key flat}<canvas bind:this={canvas} data-dimensions={flat ? 2 : 3}></canvas>{/key}
      {#each labels as { x, y, text } (text)}<span class="pile" style:left="{x}px" style:top="{y}px">{text}</span>{/each}
      <ul class="visually-hidden" aria-label={t`In sight`} data-rests={rests}>
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
          ? t`Sheet ${sheet} of ${sheets.length}`
          : sayOpening(inSight.filter(({ turnedHere }) => turnedHere).map(({ names }) => names))}{errs(view.errors)
          ? t` · with machines that err`
          : ''}
      </Caption>
    </div>
    <StateRow {view} {timeline} {finish} unit={bench.unit} />
  {:else if making.fails}
    <EmptyCard
      title={t`Nothing comes out`}
      text={t`Machines that err so make nothing of these sheets: a cut or fold falls outside its paper. Take less on the right.`}
    >
      <button class="btn" onclick={() => (view.errors = PLAIN_ERRORS)}>{t`Without errors`}</button>
    </EmptyCard>
  {:else if bench.shown.list.pages.length}
    <EmptyCard title={t`Nothing is folded`} text={t`These pages stay separate: they are on no sheets, so there is nothing to make.`}>
      <a class="btn" href="/jobs/{bench.id}/sheets">{t`Put them on sheets`}</a>
    </EmptyCard>
  {:else}
    <EmptyCard title={t`No pages, no dummy`} text={t`Take in a file first; the piece is then made here, step by step.`}>
      <a class="btn" href="/jobs/{bench.id}/take-in">{t`Take in a file`}</a>
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
    top: 12px;
  }
  .looks select {
    border: 0;
    background: var(--well);
    font: inherit;
    color: var(--ink);
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

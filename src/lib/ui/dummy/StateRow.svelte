<script lang="ts">
  import { t } from '../../words/language';
  import { bounds, heightOf, widthOf } from '../../core/measure/box';
  import type { Unit } from '../../core/measure/unit';
  import { outlineOf } from '../../core/finish/line/paper';
  import type { FinishPlan } from '../../core/finish/operations';
  import { facesInSight, type Placed } from '../../core/finish/states/placed';
  import type { Timeline } from '../../core/finish/states/timeline';
  import { sayState } from '../../words/dummy';
  import type { DummyView } from './dummyView.svelte';

  interface Props {
    view: DummyView;
    timeline: Timeline;
    finish: FinishPlan;
    unit: Unit;
  }
  /** What is done, one small drawing after another, and the openings of a book. */
  let { view, timeline, finish, unit }: Props = $props();

  const small = $derived(
    timeline.states.map((state) => {
      const lies = state.parts.filter(({ tilt }) => !tilt);
      const seen = facesInSight(lies);
      const parts = lies.filter((_, n) => seen.get(n)?.above).reverse();
      const box = lies.length ? bounds(lies.map(outlineOf)) : { x0: 0, y0: 0, x1: 1, y1: 1 };
      return { ...sayState(state, finish, unit), parts, waste: lies.filter(({ waste }) => waste), box };
    }),
  );
  const outline = (part: Placed) => {
    const { x0, y1, ...rest } = outlineOf(part);
    return { x: x0, y: -y1, width: rest.x1 - x0, height: y1 - rest.y0 };
  };
  const [WIDE, HIGH] = [46, 34];
  let row: HTMLDivElement | undefined = $state();
  $effect(() => {
    row?.querySelector(`[data-at="${Math.min(view.place, timeline.made)}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  });
  const leaves = $derived(timeline.last - timeline.made);
  function type(event: Event & { currentTarget: HTMLInputElement }): void {
    const typed = Number(event.currentTarget.value);
    if (Number.isInteger(typed) && typed >= 1 && typed <= timeline.last + 1) view.go(typed - 1);
    else event.currentTarget.value = `${view.place + 1}`;
  }
</script>

<div class="made">
  <div class="acts">
    <button class="btn" onclick={() => view.play()} title={view.playing ? undefined : t`Make it step by step`}
      >{view.playing ? t`Stop` : t`Play`}</button
    >
    <label class="mono"
      ><input class="field mono" value={view.place + 1} onchange={type} inputmode="numeric" aria-label={t`State, of ${timeline.last + 1}`} />
      / {timeline.last + 1}</label
    >
  </div>
  <div class="row" bind:this={row} role="toolbar" aria-label={t`What is done`}>
    {#each small as { short, does, parts, waste, box }, n (n)}
      <button data-at={n} class:on={view.place === n} aria-current={view.place === n ? 'step' : undefined} title={does} onclick={() => view.go(n)}>
        <svg width={WIDE} height={HIGH} viewBox="{box.x0} {-box.y1} {widthOf(box)} {heightOf(box)}" aria-hidden="true">
          {#each parts as part, i (i)}<rect {...outline(part)} vector-effect="non-scaling-stroke" class:back={part.up === 'back'} />{/each}
          {#each waste as part, i (i)}<rect {...outline(part)} class="waste" />{/each}
        </svg>
        <span>{short}</span>
      </button>
    {/each}
  </div>
  {#if leaves}
    <div class="leaves">
      <label for="opening">{t`Open it`}</label>
      <input
        id="opening"
        type="range"
        min="0"
        max={leaves}
        value={Math.max(0, view.place - timeline.made)}
        oninput={(event) => view.go(timeline.made + Number(event.currentTarget.value))}
      />
      <span>
        <button
          class="link"
          onclick={() => view.go(Math.max(timeline.made, view.place - 1))}
          disabled={view.place <= timeline.made}
          aria-label={t`Leaf back`}>‹</button
        >
        <span class="mono">{t`leaf ${Math.max(0, view.place - timeline.made)} / ${leaves}`}</span>
        <button
          class="link"
          onclick={() => view.go(Math.max(timeline.made, view.place) + 1)}
          disabled={view.place >= timeline.last}
          aria-label={t`Leaf on`}>›</button
        >
      </span>
    </div>
  {/if}
</div>

<style>
  .made {
    display: flex;
    align-items: stretch;
    min-width: 0;
    background: var(--card);
    border-top: 1px solid var(--rule);
  }
  .acts,
  .leaves {
    display: grid;
    align-content: center;
    gap: 5px;
    padding: 6px 12px;
    font-size: 12.5px;
    flex: none;
  }
  .acts {
    border-right: 1px solid var(--rule);
  }
  .leaves {
    border-left: 1px solid var(--rule);
    justify-items: center;
  }
  .acts input {
    width: 46px;
    padding: 1px 4px;
    text-align: right;
  }
  .row {
    display: flex;
    flex: 1;
    min-width: 0;
    overflow-x: auto;
  }
  .row button {
    display: grid;
    justify-items: center;
    align-content: center;
    gap: 3px;
    flex: none;
    min-width: 70px;
    padding: 7px 6px 5px;
    border: 0;
    border-right: 1px solid var(--rule);
    background: none;
    color: var(--ink);
    font-size: 12px;
    white-space: nowrap;
    cursor: pointer;
  }
  .row button.on {
    background: var(--mat);
    color: #fff;
  }
  rect {
    fill: #fffdf6;
    stroke: #1d2422;
    stroke-width: 1px;
  }
  rect.back {
    fill: #d9d2bf;
  }
  .waste {
    fill: #b5452c99;
    stroke: none;
  }
  input[type='range'] {
    width: 118px;
    accent-color: var(--act);
  }
</style>

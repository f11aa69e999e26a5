<script lang="ts">
  import { untrack, type Snippet } from 'svelte';
  import type { Box } from '../../core/measure/box';
  import type { Unit } from '../../core/measure/unit';
  import { Camera, type FitTo, type View, type Zoom } from './camera.svelte';
  import { gridFor, multiples } from './grid';
  import Rulers from './Rulers.svelte';

  interface Props {
    unit: Unit;
    /** What lies on the mat, in points, from (0, 0) right and down. */
    width: number;
    height: number;
    fitTo?: FitTo;
    label: string;
    /** A list of pages to choose from, unless nothing on it can be chosen. */
    role?: 'listbox' | 'group';
    children: Snippet<[View]>;
    onmarquee?: (box: Box, add: boolean) => void;
    onempty?: () => void;
    onkeydown?: (event: KeyboardEvent) => void;
    /** The pointer, in points on the mat; undefined when it leaves. */
    onhover?: (at: { x: number; y: number } | undefined, event?: PointerEvent) => void;
    /** The mat stays as it is, whatever comes to lie on it; or unless that would run off it. */
    still?: 'held' | 'unless-larger' | undefined;
    cursor?: string;
    zoom?: number;
  }
  let {
    unit,
    width,
    height,
    fitTo = 'all',
    label,
    role = 'listbox',
    children,
    onmarquee,
    onempty,
    onkeydown,
    onhover,
    still,
    cursor,
    zoom = $bindable(1),
  }: Props = $props();

  const camera = new Camera();
  const view = $derived(camera.view);
  let marquee = $state<Box | undefined>();
  let panning = $state(false);
  let spaceHeld = $state(false);
  let svg: SVGSVGElement | undefined = $state();

  const grid = $derived(gridFor(unit, view.k));
  const xs = $derived(multiples(grid.fine, view.x0, view.x1));
  const ys = $derived(multiples(grid.fine, view.y0, view.y1));
  const isHeavy = (at: number) => Math.abs(at / grid.heavy - Math.round(at / grid.heavy)) < 1e-6;

  // Until the mat is moved by hand, what lies on it stays fitted.
  $effect(() => {
    if (camera.touched || still === 'held' || width <= 0 || camera.width <= 100) return;
    if (!still || camera.scaleFor({ width, height }, fitTo) < untrack(() => camera.k)) fit();
  });
  $effect(() => {
    zoom = camera.k;
  });

  const fit = (to = fitTo): void => camera.fit({ width, height }, to);

  export function zoomTo(what: Zoom): void {
    if (what === 'fit') fit();
    else if (what === 'whole') {
      fit('all');
      camera.touched = true;
    } else camera.zoom(what);
  }

  export const show = (box: Box): void => camera.show(box);
  export const lookAt = (box: Box): void => camera.lookAt(box);
  export const pan = (x: number, y: number): void => camera.pan(x, y);
  /** Where the mat is on the screen. */
  export const frame = (): DOMRect => svg!.getBoundingClientRect();
  export const focus = (): void => svg?.focus();

  /** Where a pointer is, in pixels from the mat's corner. */
  function onScreen({ clientX, clientY }: { clientX: number; clientY: number }): { x: number; y: number } {
    const { left, top } = frame();
    return { x: clientX - left, y: clientY - top };
  }
  /** Where a pointer is, in points on the mat. */
  export function toMat(event: { clientX: number; clientY: number }): { x: number; y: number } {
    const { x, y } = onScreen(event);
    return camera.toMat(x, y);
  }

  function onwheel(event: WheelEvent): void {
    event.preventDefault();
    const { x, y } = onScreen(event);
    if (event.ctrlKey || event.metaKey) return camera.zoomBy(Math.exp(-event.deltaY * 0.002), x, y);
    const sideways = event.shiftKey && !event.deltaX;
    camera.pan(-(sideways ? event.deltaY : event.deltaX), sideways ? 0 : -event.deltaY);
  }

  /** Fingers on the mat, where each is: one on the empty mat moves it, two zoom. */
  let staying: ReturnType<typeof setTimeout> | undefined;
  const [STAYS_MS, STAYS_PX] = [550, 8];
  function askFor({ clientX, clientY }: PointerEvent): void {
    const asked = { clientX, clientY, pointerType: 'touch', bubbles: true, cancelable: true };
    // What was pressed may be drawn anew by now.
    document.elementFromPoint(clientX, clientY)?.dispatchEvent(new PointerEvent('contextmenu', asked));
  }
  const fingers = new Map<number, { x: number; y: number }>();
  function touch(event: PointerEvent, onPage: boolean): void {
    fingers.set(event.pointerId, onScreen(event));
    clearTimeout(staying);
    // A finger that stays asks for the menu, as the right button does; not every browser says so by itself.
    if (fingers.size === 1) staying = setTimeout(() => askFor(event), STAYS_MS);
    if (fingers.size > 2 || (fingers.size === 1 && onPage)) return;
    svg!.setPointerCapture(event.pointerId);
  }
  function slide(event: PointerEvent): void {
    const was = fingers.get(event.pointerId);
    const at = was && onScreen(event);
    if (was && at && Math.hypot(at.x - was.x, at.y - was.y) > STAYS_PX) clearTimeout(staying);
    if (!was || !svg?.hasPointerCapture(event.pointerId)) return;
    const now = onScreen(event);
    const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1];
    if (other) {
      const apart = (at: { x: number; y: number }) => Math.max(10, Math.hypot(at.x - other.x, at.y - other.y));
      camera.zoomBy(apart(now) / apart(was), (now.x + other.x) / 2, (now.y + other.y) / 2);
    }
    const share = other ? 0.5 : 1;
    camera.pan((now.x - was.x) * share, (now.y - was.y) * share);
    fingers.set(event.pointerId, now);
  }
  function lift(event: PointerEvent): void {
    clearTimeout(staying);
    fingers.delete(event.pointerId);
  }

  function onpointerdown(event: PointerEvent): void {
    if (event.pointerType === 'touch') return touch(event, event.target instanceof Element && !!event.target.closest('[data-pick]'));
    const from = onScreen(event);
    const pans = event.button === 1 || (event.button === 0 && spaceHeld);
    const onPage = event.target instanceof Element && event.target.closest('[data-pick]');
    if (!svg || (!pans && (event.button !== 0 || onPage))) return;
    svg.setPointerCapture(event.pointerId);
    let [last, moved] = [from, false];
    panning = pans;
    const ends = new AbortController();
    const move = (e: PointerEvent) => {
      const now = onScreen(e);
      moved ||= Math.hypot(now.x - from.x, now.y - from.y) > 4;
      if (pans) camera.pan(now.x - last.x, now.y - last.y);
      else if (moved && onmarquee)
        marquee = { x0: Math.min(from.x, now.x), y0: Math.min(from.y, now.y), x1: Math.max(from.x, now.x), y1: Math.max(from.y, now.y) };
      last = now;
    };
    const up = (e: PointerEvent) => {
      ends.abort();
      panning = false;
      if (marquee) {
        const [low, high] = [camera.toMat(marquee.x0, marquee.y0), camera.toMat(marquee.x1, marquee.y1)];
        onmarquee?.({ x0: low.x, y0: low.y, x1: high.x, y1: high.y }, e.ctrlKey || e.metaKey || e.shiftKey);
      } else if (!pans && !moved) onempty?.();
      marquee = undefined;
    };
    svg.addEventListener('pointermove', move, ends);
    svg.addEventListener('pointerup', up, ends);
    svg.addEventListener('pointercancel', up, ends);
  }

  const ZOOM_KEYS: Readonly<Record<string, Zoom>> = { '+': 'in', '=': 'in', '-': 'out', '0': 'fit', '9': 'whole' };
  function keys(event: KeyboardEvent): void {
    if (event.key === ' ') {
      spaceHeld = true;
      event.preventDefault();
      return;
    }
    const zooms = event.ctrlKey || event.metaKey ? undefined : ZOOM_KEYS[event.key];
    if (zooms) zoomTo(zooms);
    else onkeydown?.(event);
  }
</script>

<svelte:window onkeyup={(event) => event.key === ' ' && (spaceHeld = false)} onblur={() => (spaceHeld = false)} />

<div class="mat" bind:clientWidth={camera.width} bind:clientHeight={camera.height}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <svg
    bind:this={svg}
    width={camera.width}
    height={camera.height}
    tabindex="0"
    {role}
    aria-multiselectable={role === 'listbox' || undefined}
    aria-label={label}
    class:panning={panning || spaceHeld}
    {onwheel}
    {onpointerdown}
    onpointermove={(event) => {
      slide(event);
      onhover?.(toMat(event), event);
    }}
    onpointerup={lift}
    onpointercancel={lift}
    onpointerleave={() => onhover?.(undefined)}
    style:cursor={panning || spaceHeld ? undefined : cursor}
    onkeydown={keys}
  >
    <defs>
      <pattern id="bleed-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="scale({1 / view.k}) rotate(45)">
        <rect width="5" height="5" fill="#E9C48B" />
        <line x1="0" y1="0" x2="0" y2="5" stroke="#C77F14" stroke-width="2.4" />
      </pattern>
    </defs>
    <g stroke-width="1" shape-rendering="crispEdges">
      {#each xs as x (x)}
        {@const px = camera.ox + x * view.k}
        <line x1={px} x2={px} y1="0" y2={camera.height} stroke={isHeavy(x) ? 'var(--mat-heavy)' : 'var(--mat-fine)'} />
      {/each}
      {#each ys as y (y)}
        {@const px = camera.oy + y * view.k}
        <line y1={px} y2={px} x1="0" x2={camera.width} stroke={isHeavy(y) ? 'var(--mat-heavy)' : 'var(--mat-fine)'} />
      {/each}
    </g>
    {#if camera.ready}
      <g transform="translate({camera.ox} {camera.oy}) scale({view.k})">{@render children(view)}</g>
    {/if}
    <Rulers {camera} {unit} />
    {#if marquee}
      <rect class="marquee" x={marquee.x0} y={marquee.y0} width={marquee.x1 - marquee.x0} height={marquee.y1 - marquee.y0} />
    {/if}
  </svg>
</div>

<style>
  .mat {
    position: relative;
    background: var(--mat);
    overflow: hidden;
    min-width: 0;
    min-height: 0;
    height: 100%;
  }
  svg {
    display: block;
    position: absolute;
    touch-action: none;
    user-select: none;
  }
  svg:focus-visible {
    outline: 2px solid var(--pick);
    outline-offset: -2px;
  }
  .panning {
    cursor: grab;
  }
  .marquee {
    fill: #f2c23022;
    stroke: var(--pick);
    stroke-dasharray: 4 3;
  }
</style>

<script lang="ts" module>
  export type Zoom = 'in' | 'out' | 'fit' | 'whole' | 'real';

  /** What the mat's contents are drawn with: pixels a point, and the part in sight in points, y down. */
  export interface View {
    k: number;
    x0: number;
    y0: number;
    x1: number;
    y1: number;
  }
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';
  import { formatFigure } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { gridFor, multiples } from './grid';

  interface Props {
    unit: Unit;
    /** What lies on the mat, in points, from (0, 0) right and down. */
    width: number;
    height: number;
    /** Fits the whole, or the width only where the whole is long. */
    fitTo?: 'all' | 'width';
    label: string;
    children: Snippet<[View]>;
    onmarquee?: (box: { x0: number; y0: number; x1: number; y1: number }, add: boolean) => void;
    onempty?: () => void;
    onkeydown?: (event: KeyboardEvent) => void;
    /** The pointer, in points on the mat; undefined when it leaves. */
    onhover?: (at: { x: number; y: number } | undefined, event?: PointerEvent) => void;
    /** The mat stays as it is, whatever comes to lie on it. */
    still?: boolean;
    cursor?: string;
    zoom?: number;
  }
  let {
    unit,
    width,
    height,
    fitTo = 'all',
    label,
    children,
    onmarquee,
    onempty,
    onkeydown,
    onhover,
    still = false,
    cursor,
    zoom = $bindable(1),
  }: Props = $props();

  const RULER = 22;
  const MARGIN = 26;
  const [SMALLEST, LARGEST] = [0.01, 60];
  let [viewWidth, viewHeight] = $state([800, 700]);
  let k = $state(1);
  let [ox, oy] = $state([RULER + MARGIN, RULER + MARGIN]);
  let [touched, ready] = $state([false, false]);
  let marquee = $state<{ x0: number; y0: number; x1: number; y1: number } | undefined>();
  let panning = $state(false);
  let spaceHeld = $state(false);
  let svg: SVGSVGElement | undefined = $state();

  const view: View = $derived({ k, x0: (RULER - ox) / k, y0: (RULER - oy) / k, x1: (viewWidth - ox) / k, y1: (viewHeight - oy) / k });
  const grid = $derived(gridFor(unit, k));
  const xs = $derived(multiples(grid.fine, view.x0, view.x1));
  const ys = $derived(multiples(grid.fine, view.y0, view.y1));
  const isHeavy = (at: number) => Math.abs(at / grid.heavy - Math.round(at / grid.heavy)) < 1e-6;
  const labelXs = $derived(multiples(grid.label, view.x0, view.x1));
  const labelYs = $derived(multiples(grid.label, view.y0, view.y1));

  // Until the mat is moved by hand, what lies on it stays fitted.
  $effect(() => {
    if (!touched && !still && width > 0 && viewWidth > 100) fit();
  });
  $effect(() => {
    zoom = k;
  });

  function fit(to = fitTo): void {
    const [w, h] = [viewWidth - RULER - 2 * MARGIN, viewHeight - RULER - 2 * MARGIN];
    const across = w / Math.max(1, width);
    const whole = Math.min(across, h / Math.max(1, height));
    // A long row of rows is fitted by its width; a short one whole.
    k = clamp(to === 'width' && whole < across * 0.72 ? Math.min(across, 1.6) : Math.min(whole, 2.2));
    ox = RULER + MARGIN + Math.max(0, (w - width * k) / 2);
    oy = RULER + MARGIN + Math.max(0, Math.min(40, (h - height * k) / 2));
    touched = false;
    ready = true;
  }

  export function zoomTo(what: Zoom): void {
    if (what === 'fit') fit();
    else if (what === 'whole') {
      fit('all');
      touched = true;
    }
    // Real size: a point on paper is a seventy-second of an inch here, as far as the screen tells the truth.
    else zoomBy(what === 'real' ? 96 / 72 / k : what === 'in' ? 1.25 : 0.8);
  }

  /** Zooms by a factor about a point of the view, its middle by default. */
  function zoomBy(factor: number, x = viewWidth / 2, y = viewHeight / 2): void {
    const next = clamp(k * factor);
    ox = x - ((x - ox) * next) / k;
    oy = y - ((y - oy) * next) / k;
    k = next;
    touched = true;
  }

  /** Brings a box into sight. */
  export function show(box: { x0: number; y0: number; x1: number; y1: number }): void {
    if (box.x0 >= view.x0 && box.x1 <= view.x1 && box.y0 >= view.y0 && box.y1 <= view.y1) return;
    ox = (viewWidth + RULER) / 2 - ((box.x0 + box.x1) / 2) * k;
    oy = (viewHeight + RULER) / 2 - ((box.y0 + box.y1) / 2) * k;
    touched = true;
  }

  /** Zooms in on a box. */
  export function lookAt(box: { x0: number; y0: number; x1: number; y1: number }): void {
    k = clamp(Math.min((viewWidth - RULER) / (box.x1 - box.x0), (viewHeight - RULER) / (box.y1 - box.y0)));
    ox = (viewWidth + RULER) / 2 - ((box.x0 + box.x1) / 2) * k;
    oy = (viewHeight + RULER) / 2 - ((box.y0 + box.y1) / 2) * k;
    touched = true;
  }

  /** Where a pointer is, in points on the mat. */
  export function toMat({ clientX, clientY }: { clientX: number; clientY: number }): { x: number; y: number } {
    const box = svg!.getBoundingClientRect();
    return { x: (clientX - box.left - ox) / k, y: (clientY - box.top - oy) / k };
  }

  /** Moves the mat, in pixels. */
  export function pan(x: number, y: number): void {
    ox += x;
    oy += y;
    touched = true;
  }
  /** Where the mat is on the screen. */
  export const frame = (): DOMRect => svg!.getBoundingClientRect();

  export const focus = (): void => svg?.focus();

  const clamp = (value: number) => Math.min(LARGEST, Math.max(SMALLEST, value));

  function onwheel(event: WheelEvent): void {
    event.preventDefault();
    const box = svg!.getBoundingClientRect();
    if (event.ctrlKey || event.metaKey) zoomBy(Math.exp(-event.deltaY * 0.002), event.clientX - box.left, event.clientY - box.top);
    else {
      const sideways = event.shiftKey && !event.deltaX;
      ox -= sideways ? event.deltaY : event.deltaX;
      oy -= sideways ? 0 : event.deltaY;
      touched = true;
    }
  }

  function onpointerdown(event: PointerEvent): void {
    const box = svg!.getBoundingClientRect();
    const at = { x: event.clientX - box.left, y: event.clientY - box.top };
    const pan = event.button === 1 || (event.button === 0 && spaceHeld);
    const onPage = event.target instanceof Element && event.target.closest('[data-pick]');
    if (!pan && (event.button !== 0 || onPage)) return;
    svg!.setPointerCapture(event.pointerId);
    const start = { ox, oy };
    let moved = false;
    panning = pan;
    const move = (e: PointerEvent) => {
      const now = { x: e.clientX - box.left, y: e.clientY - box.top };
      moved ||= Math.hypot(now.x - at.x, now.y - at.y) > 4;
      if (pan) {
        ox = start.ox + now.x - at.x;
        oy = start.oy + now.y - at.y;
        touched = true;
      } else if (moved && onmarquee) {
        marquee = { x0: Math.min(at.x, now.x), y0: Math.min(at.y, now.y), x1: Math.max(at.x, now.x), y1: Math.max(at.y, now.y) };
      }
    };
    const up = (e: PointerEvent) => {
      svg!.removeEventListener('pointermove', move);
      svg!.removeEventListener('pointerup', up);
      svg!.removeEventListener('pointercancel', up);
      panning = false;
      if (marquee)
        onmarquee?.(
          { x0: (marquee.x0 - ox) / k, y0: (marquee.y0 - oy) / k, x1: (marquee.x1 - ox) / k, y1: (marquee.y1 - oy) / k },
          e.ctrlKey || e.metaKey || e.shiftKey,
        );
      else if (!pan && !moved) onempty?.();
      marquee = undefined;
    };
    svg!.addEventListener('pointermove', move);
    svg!.addEventListener('pointerup', up);
    svg!.addEventListener('pointercancel', up);
  }

  function keys(event: KeyboardEvent): void {
    if (event.key === ' ') {
      spaceHeld = true;
      event.preventDefault();
    } else if (!event.ctrlKey && !event.metaKey && (event.key === '+' || event.key === '=')) zoomTo('in');
    else if (!event.ctrlKey && !event.metaKey && event.key === '-') zoomTo('out');
    else if (!event.ctrlKey && !event.metaKey && event.key === '0') fit();
    else if (!event.ctrlKey && !event.metaKey && event.key === '9') zoomTo('whole');
    else onkeydown?.(event);
  }
</script>

<svelte:window onkeyup={(event) => event.key === ' ' && (spaceHeld = false)} onblur={() => (spaceHeld = false)} />

<div class="mat" bind:clientWidth={viewWidth} bind:clientHeight={viewHeight}>
  <svg
    bind:this={svg}
    width={viewWidth}
    height={viewHeight}
    tabindex="0"
    role="listbox"
    aria-multiselectable="true"
    aria-label={label}
    class:panning={panning || spaceHeld}
    {onwheel}
    {onpointerdown}
    onpointermove={(event) => onhover?.(toMat(event), event)}
    onpointerleave={() => onhover?.(undefined)}
    style:cursor={panning || spaceHeld ? undefined : cursor}
    onkeydown={keys}
  >
    <defs>
      <pattern id="bleed-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="scale({1 / k}) rotate(45)">
        <rect width="5" height="5" fill="#E9C48B" />
        <line x1="0" y1="0" x2="0" y2="5" stroke="#C77F14" stroke-width="2.4" />
      </pattern>
    </defs>
    <g stroke-width="1" shape-rendering="crispEdges">
      {#each xs as x (x)}
        <line x1={ox + x * k} x2={ox + x * k} y1="0" y2={viewHeight} stroke={isHeavy(x) ? 'var(--mat-heavy)' : 'var(--mat-fine)'} />
      {/each}
      {#each ys as y (y)}
        <line y1={oy + y * k} y2={oy + y * k} x1="0" x2={viewWidth} stroke={isHeavy(y) ? 'var(--mat-heavy)' : 'var(--mat-fine)'} />
      {/each}
    </g>
    {#if ready}
      <g transform="translate({ox} {oy}) scale({k})">{@render children(view)}</g>
    {/if}
    <g class="ruler" aria-hidden="true">
      <rect width={viewWidth} height={RULER} />
      <rect width={RULER} height={viewHeight} />
      {#each labelXs as x (x)}
        {#if ox + x * k > RULER + 4}
          <line x1={ox + x * k} x2={ox + x * k} y1={RULER - 6} y2={RULER} />
          <text x={ox + x * k + 3} y="14">{formatFigure(x, unit)}</text>
        {/if}
      {/each}
      {#each labelYs as y (y)}
        {#if oy + y * k > RULER + 4}
          <line y1={oy + y * k} y2={oy + y * k} x1={RULER - 6} x2={RULER} />
          <text transform="translate(8 {oy + y * k + 3}) rotate(90)">{formatFigure(y, unit)}</text>
        {/if}
      {/each}
      <rect width={RULER} height={RULER} />
      <text x="3" y="14">{unit === 'pica' ? 'p' : unit}</text>
    </g>
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
  .ruler rect {
    fill: var(--mat);
  }
  .ruler line {
    stroke: var(--mat-text);
    stroke-width: 1;
  }
  .ruler text {
    font: 10.5px var(--mono);
    fill: var(--mat-text);
  }
  .marquee {
    fill: #f2c23022;
    stroke: var(--pick);
    stroke-dasharray: 4 3;
  }
</style>

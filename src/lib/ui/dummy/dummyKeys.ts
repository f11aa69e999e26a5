import type { Drawing } from './drawing';
import type { DummyView } from './dummyView.svelte';
import type { Making } from './making.svelte';

const BREADTH = Math.PI / 12;
export const [CLOSER, FARTHER] = [1.25, 0.8];

/** What the keys do on the dummy: alone, and with Shift. */
export function dummyKeys(view: DummyView, making: Making, drawing: () => Drawing | undefined) {
  const turn = (side: number, up: number) => () => drawing()?.turnBy(side * BREADTH, up * BREADTH);
  const over = (isOver: boolean) => {
    view.over = isOver;
    drawing()?.bringBack(isOver);
  };
  const alone: Record<string, () => void> = {
    ArrowRight: () => view.step(1),
    ArrowLeft: () => view.step(-1),
    Home: () => view.go(0),
    End: () => making.timeline && view.go(making.timeline.made),
    ' ': () => view.play(),
    o: () => over(!view.over),
    u: () => making.foldsOut && view.foldOut(),
    '0': () => over(false),
    '+': () => drawing()?.zoomBy(CLOSER),
    '=': () => drawing()?.zoomBy(CLOSER),
    '-': () => drawing()?.zoomBy(FARTHER),
  };
  const shifted: Record<string, () => void> = {
    ArrowLeft: turn(-1, 0),
    ArrowRight: turn(1, 0),
    ArrowUp: turn(0, -1),
    ArrowDown: turn(0, 1),
  };
  const onkeydown = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const { target, key } = event;
    if (target instanceof HTMLInputElement || target instanceof HTMLSelectElement) return;
    if (target instanceof HTMLButtonElement && key === ' ') return;
    const act = (event.shiftKey && shifted[key]) || alone[key];
    if (!act) return;
    event.stopPropagation();
    event.preventDefault();
    act();
  };
  return { onkeydown, over };
}

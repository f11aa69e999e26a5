/** A press becomes a pull when the pointer has gone this far, in pixels. */
const PULL_PX = 4;

interface At {
  clientX: number;
  clientY: number;
}

/** Follows the pointer from a press until it is let go; `move` is called once it has really moved, `done` with whether it had. */
export function follow(
  press: PointerEvent,
  move: (event: PointerEvent) => void,
  done?: (moved: boolean, event: At) => void,
): void {
  let moved = false;
  const onmove = (event: PointerEvent) => {
    moved ||= Math.hypot(event.clientX - press.clientX, event.clientY - press.clientY) > PULL_PX;
    if (moved) move(event);
  };
  const end = (event: PointerEvent) => {
    window.removeEventListener('pointermove', onmove);
    window.removeEventListener('pointerup', end);
    window.removeEventListener('pointercancel', end);
    done?.(moved && event.type === 'pointerup', event);
  };
  window.addEventListener('pointermove', onmove);
  window.addEventListener('pointerup', end);
  window.addEventListener('pointercancel', end);
}

/** What a menu offers. */
export interface MenuItem {
  word: string;
  key?: string;
  disabled?: boolean;
  do: () => void;
}

/** The menu that is open, at a place on the screen in pixels; one at a time. */
export const menu = $state<{ at?: { x: number; y: number }; label: string; items: readonly MenuItem[] }>({
  label: '',
  items: [],
});

/** Opens a menu where the right button was pressed, or the menu key, beside what has the focus. */
export function openMenu(event: MouseEvent, label: string, items: readonly MenuItem[]): void {
  if (!items.length) return;
  event.preventDefault();
  event.stopPropagation();
  menu.at = { x: event.clientX, y: event.clientY };
  menu.label = label;
  menu.items = items;
}

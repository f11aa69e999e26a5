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

/** Opens a menu where the pointer is; under its button, where that was pressed by a key. */
export function openMenu(event: MouseEvent, label: string, items: readonly MenuItem[]): void {
  if (!items.length) return;
  event.preventDefault();
  event.stopPropagation();
  menu.at = { x: event.clientX, y: event.clientY };
  if (!event.detail && event.type === 'click' && event.currentTarget instanceof Element) {
    const { left, bottom } = event.currentTarget.getBoundingClientRect();
    menu.at = { x: left, y: bottom };
  }
  menu.label = label;
  menu.items = items;
}

/** Fields that take no text. */
const TEXTLESS = ['checkbox', 'radio', 'range', 'button', 'submit', 'file', 'color'];

/** The field that text is typed in, or a choice made by letters, where that has the keys: other keys act on what is looked at. */
export function isTyped(target: EventTarget | null): Element | undefined {
  const field = target instanceof Element ? target.closest('input, select, textarea') : null;
  return field && !(field instanceof HTMLInputElement && TEXTLESS.includes(field.type)) ? field : undefined;
}

import { expect, type Page } from '@playwright/test';

/** Sizes of window at which nothing may be cut off: a small laptop, a common one, a large screen. */
export const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
  { width: 1920, height: 1080 },
];

/** Words that run out of what they stand in, out of the window, or are longer than the choice that shows them. */
const cutOff = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const pen = document.createElement('canvas').getContext('2d')!;
    const reach = (element: HTMLElement) => {
      const range = document.createRange();
      range.selectNodeContents(element);
      return range.getBoundingClientRect().right;
    };
    /** The nearest edge that hides what runs over it; none where it can be scrolled to, or is shortened with dots and a title. */
    const edgeOf = (element: HTMLElement): number => {
      for (let at: HTMLElement | null = element; at; at = at.parentElement) {
        const { overflowX, textOverflow } = getComputedStyle(at);
        if (/auto|scroll/.test(overflowX) || (textOverflow === 'ellipsis' && at.closest('[title]')))
          return Infinity;
        if (/hidden|clip/.test(overflowX)) return at.getBoundingClientRect().right;
      }
      return innerWidth;
    };
    for (const element of document.querySelectorAll<HTMLElement>('body *')) {
      // What is folded away is not seen.
      if (!element.checkVisibility() || element.closest('svg, option, [class*=hidden]')) continue;
      const style = getComputedStyle(element);
      if (element instanceof HTMLSelectElement) {
        pen.font = style.font;
        const text = element.selectedOptions[0]?.textContent.trim() ?? '';
        const room =
          element.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight) - 14;
        if (pen.measureText(text).width > room + 1) found.push(`choice “${text}”`);
        continue;
      }
      const says = [...element.childNodes].some(
        (node) => node.nodeType === 3 && node.textContent!.trim().length > 1,
      );
      const { left, right, width } = element.getBoundingClientRect();
      if (!says || width < 2 || left >= innerWidth) continue;
      const end = reach(element);
      if ((style.display !== 'inline' && end > right + 2) || end > edgeOf(element) + 2)
        found.push(`${element.tagName} “${element.textContent!.trim().slice(0, 60)}”`);
    }
    // Fields without words run out of the slip unseen otherwise: it scrolls up and down alone.
    for (const panel of document.querySelectorAll('aside'))
      if (panel.scrollWidth > panel.clientWidth + 1) found.push(`${panel.ariaLabel}: wider than it is`);
    return [...new Set(found)];
  });

/** Nothing that the page says is cut off, at any size of window. */
export async function expectWhole(page: Page, what: string, sizes = SIZES): Promise<void> {
  for (const size of sizes) {
    await page.setViewportSize(size);
    await page.waitForTimeout(60);
    expect(await cutOff(page), `${what} at ${size.width} × ${size.height}`).toEqual([]);
  }
}

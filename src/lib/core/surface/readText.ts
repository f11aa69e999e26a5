import { sizeBox } from '../measure/box';
import { applyToPoint, compose, scale } from '../measure/matrix';
import { wordsKey, type ReadWords } from '../model/readWord';
import type { Page } from '../model/page';
import type { TextItem } from '../model/surface';
import { missingGlyphs, textWidth } from '../numbers/faceMetrics';
import { artsOf } from '../pages/page';
import type { Setting } from '../model/faces';

/** What read words are set in, where nobody sees them. */
const SET: Omit<Setting, 'size'> = { face: 'Source Sans 3', weight: 'regular' };

/** The words that were read on what a page shows, each in its place and as long as it is there, to be found and copied but not seen. */
export function readText(page: Page, words: ReadWords): TextItem[] {
  const { x1, y1 } = sizeBox(page.trim);
  return artsOf(page).flatMap((art) =>
    (words.get(wordsKey(art.source, art.index)) ?? []).flatMap(({ text: read, width, size, matrix }) => {
      const place = compose(matrix, art.place);
      const middle = applyToPoint(place, width / 2, size / 3);
      // What lies beyond the trim is on a neighbour.
      if (middle.x < 0 || middle.y < 0 || middle.x > x1 || middle.y > y1) return [];
      const missing = new Set(missingGlyphs(read, SET));
      const text = [...read].filter((char) => !missing.has(char)).join('');
      const setting: Setting = { ...SET, size };
      const natural = textWidth(text, setting);
      if (!natural) return [];
      return [
        {
          ...setting,
          kind: 'text' as const,
          text,
          ink: { as: 'grey' as const, black: 1 },
          align: 'left' as const,
          unseen: true as const,
          matrix: compose(scale(width / natural, 1), place),
        },
      ];
    }),
  );
}

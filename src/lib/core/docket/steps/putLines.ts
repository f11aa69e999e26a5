import { PatternError, readPattern } from '../../numbers/pattern';
import { type Lines, linesShape, type PageLines, PLAIN_LINES, type TextAt } from '../../model/lines';
import type { Page, PageList } from '../../model/page';
import { type Selection, selectionSchema } from '../../model/selection';
import { mm } from '../../measure/unit';
import { StepProblem, type Beginning } from '../stepKind';
import { changePages } from './base';

/** What every step that puts lines on pages has. */
export const onPages = { pages: selectionSchema, ...linesShape };

/** A step that puts lines of text on pages, read. */
interface Wanted extends Omit<Lines, 'texts'> {
  id: string;
  kind: string;
  off?: true | undefined;
  recipe?: object | undefined;
  pages: Selection;
}

/** The list with lines on the pages selected; `number` gives each its number in a numbered set. Throws StepProblem, SelectionError. */
export function putLines(
  list: PageList,
  { id, kind: _, off: _o, recipe: _r, pages, ...setting }: Wanted,
  texts: readonly TextAt[],
  number?: (nth: number) => string,
): PageList {
  for (const at of texts) checkPatterns(at);
  const lines: Lines = { ...setting, texts };
  let nth = 0;
  return changePages(list, pages, (page, _side, index): Page => {
    if (setting.from === 'margin' && !page.margins)
      throw new StepProblem('no-margins', { position: index + 1 });
    const mine: PageLines = { step: id, lines, ...(number ? { number: number(nth++) } : {}) };
    return { ...page, lines: [...(page.lines ?? []), mine] };
  });
}

/** Lines as a form begins them: well inside the trim, for the pages selected or for all. */
export const plainLines = ({ list, chosen = 'all', safe }: Beginning) => ({
  ...PLAIN_LINES,
  pages: chosen,
  x: Math.max(safe, list.pages[0]?.margins?.fore ?? mm(10)),
  y: mm(8),
});

/** Throws StepProblem if a pattern cannot be read; only those for left and first pages may be empty. */
function checkPatterns({ text, left, first }: TextAt): void {
  for (const pattern of [text, left, first]) {
    if (pattern === undefined || (pattern !== text && !pattern.trim())) continue;
    try {
      readPattern(pattern);
    } catch (error) {
      if (error instanceof PatternError) throw new StepProblem(error.code, { seen: error.seen });
      throw error;
    }
  }
}

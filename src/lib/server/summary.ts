import type { WorkedOut } from '../core/checks';
import type { Docket } from '../core/docket/docket';
import { heightOf, widthOf, type Size } from '../core/measure/box';
import { spreadsOf } from '../core/pages/leaves';
import { commonestSize } from '../core/pages/sizes';
import { sideOf } from '../core/pages/page';
import type { Side } from '../core/model/page';
import { allSheets } from '../core/sheets/plan';
import { pageSurface } from '../core/surface/pageSurface';
import type { Surface } from '../core/model/surface';
import { entryAt } from '../core/entries';

/** What the list of jobs shows of one. */
export interface JobSummary {
  title: string;
  unit: Docket['unit'];
  scheme: Docket['scheme']['kind'];
  pages: number;
  sheets: number;
  size?: Size;
  /** How many differently named pieces there are. */
  pieces: number;
  open: { stop: number; look: number; note: number };
  /** The first spread, from left to right or from head to foot, with the size of each source page as seen. */
  spread: { side: Side; surface: Surface; media?: Size }[];
}

/** Works out what the list of jobs shows. */
export function summarise({ docket, surveys, list, plan, findings }: WorkedOut): JobSummary {
  const first = spreadsOf(list.pages.length, list.book)[0];
  const indexes = [first?.left, first?.right, first?.upper, first?.lower].filter(
    (index) => index !== undefined,
  );
  const count = (level: string) => findings.filter((finding) => finding.level === level).length;
  const size = commonestSize(list.pages);
  return {
    title: docket.title,
    unit: docket.unit,
    scheme: docket.scheme.kind,
    pages: list.pages.length,
    sheets: plan ? allSheets(plan) : 0,
    ...(size ? { size } : {}),
    pieces: new Set(list.pages.flatMap(({ piece }) => (piece ? [piece.name] : []))).size,
    open: { stop: count('stop'), look: count('look'), note: count('note') },
    spread: indexes.map((index) => {
      const side = sideOf(index, list.book);
      const { art } = entryAt(list.pages, index);
      const media = art && surveys[art.source]?.pages[art.index]?.boxes.media;
      return {
        side,
        surface: pageSurface(entryAt(list.pages, index), side),
        ...(media ? { media: { width: widthOf(media), height: heightOf(media) } } : {}),
      };
    }),
  };
}

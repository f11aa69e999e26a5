import type { WorkedOut } from '../core/checks';
import { heightOf, widthOf } from '../core/measure/box';
import { spreadsOf } from '../core/pages/leaves';
import { commonestSize } from '../core/pages/sizes';
import { sideOf } from '../core/pages/page';
import { allSheets } from '../core/sheets/plan';
import { pageSurface } from '../core/surface/pageSurface';
import { entryAt } from '../core/entries';
import type { JobSummary } from '../wire/told';
import { LANGUAGES, type Language } from '../words/language';
import { schemeWords } from '../words/schemes';
import { saySize } from '../words/sizes';
import { speakIn } from './speech';

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

/** All that a job is found by on the list of jobs: its title, kind and size, in small letters and every language. */
export const foundBy = ({ title, scheme, size, unit }: JobSummary): string =>
  [
    ...new Set([
      title,
      ...(Object.keys(LANGUAGES) as Language[]).flatMap((language) =>
        speakIn(language, () => [schemeWords(scheme).name, size ? saySize(size, unit) : '']),
      ),
    ]),
  ]
    .join('\n')
    .toLowerCase();

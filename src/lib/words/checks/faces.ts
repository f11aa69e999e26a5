import { spoken, t } from '../language';
import { listed } from '../listed';
import type { CheckWords, FindingWith } from './checkWords';

const WHY_LOST: Record<FindingWith<'face-lost'>['why'], string> = spoken({
  'fold-out':
    'A folded leaflet has no leaves that fold-outs could hang on, so they would be missing from it. Remove them, or choose another scheme.',
  'one-side':
    'These pages are the backs of others, and only one side of the sheet is printed. Print both sides, or make every page a piece of its own.',
  cover: 'This part of the cover has no place on its sheet, so the book would be bound without it.',
  place:
    'The scheme has no place for it, so the finished piece would be without it. Change the scheme, or remove the page.',
});

const some = (names: readonly string[]): string => {
  const shown = names.slice(0, MOST_NAMED);
  const text = listed(names.length > MOST_NAMED ? [...shown, t`${names.length - MOST_NAMED} more`] : shown);
  return text.charAt(0).toUpperCase() + text.slice(1);
};

/** So many are named, the rest counted. */
const MOST_NAMED = 6;

export const faces: CheckWords<'faces'> = {
  found: {
    'face-lost': (finding) => ({
      title: t`${some(finding.faces)} ${finding.faces.length === 1 ? t`lies` : t`lie`} on no sheet`,
      text: WHY_LOST[finding.why],
    }),
    'face-uneven': (finding) => ({
      title: t`${some(finding.faces.map(({ name }) => name))} ${finding.faces.length === 1 ? t`lies` : t`lie`} on the sheets as often as nobody wants`,
      text: finding.faces
        .slice(0, MOST_NAMED)
        .map(({ name, there, wanted }) => t`${name}: ${there} instead of ${wanted}`)
        .join('; '),
    }),
  },
  mends: {
    'both-sides': () => t`Print both sides`,
    'loose-pages': () => t`Make every page a piece of its own`,
  },
};

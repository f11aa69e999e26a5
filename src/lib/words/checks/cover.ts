import { t } from '../language';
import { formatFigure, formatLength } from '../../core/measure/formatLength';
import { plural } from '../plural';
import { COVER_WORD } from '../book';
import { listed } from '../listed';
import type { CheckWords } from './checkWords';

export const cover: CheckWords<'cover'> = {
  found: {
    'cover-unplanned': () => ({
      title: t`The cover goes on no sheet`,
      text: t`Pages were made a cover, and only a book in signatures has one that is printed apart. Choose that scheme, or switch the cover step off.`,
    }),
    'cover-bare': (finding) => {
      const parts = listed(finding.parts.map((part) => COVER_WORD[part]));
      return {
        title: t`The cover’s ${parts} ${finding.parts.length === 1 ? t`shows` : t`show`} nothing`,
        text: t`White paper would stand between the printed front and back. Take in a page for it, put text on the spine, or take in the whole outside as one page.`,
      };
    },
    'cover-missing': (finding) => ({
      title: t`The cover has no ${finding.parts.join(' and no ')}`,
      text: t`Its place on the sheet stays white. Take in the page and make it part of the cover.`,
    }),
    'spine-unknown': () => ({
      title: t`How thick is the book?`,
      text: t`The spine follows from the thickness of a leaf, which is not known. Type grammage and bulk of the paper, or the width of the spine.`,
    }),
    'spine-impossible': (finding, { unit }) => ({
      title: t`The cover does not go round this book`,
      text: t`${finding.width > 0 ? t`Its spine is ${formatLength(finding.width, unit)} wide, which makes each of the ${plural(finding.leaves, 'leaf', 'leaves')} ${formatLength(Math.max(0, finding.leaf), unit)} thick: no paper is` : t`It leaves nothing for a spine, and the book has ${plural(finding.leaves, 'leaf', 'leaves')}`}. It cannot be bound so. Type grammage and bulk of the paper, then give the cover the width that the sum asks for.`,
    }),
    'spine-differs': (finding, { unit }) => ({
      title: t`The spine is not as wide as the book is thick`,
      text: t`${formatLength(finding.typed, unit)} was typed, the leaves make ${formatLength(finding.worked, unit)}. Folds land on the front or the back.`,
    }),
    'spine-text-large': (finding, { unit }) => ({
      title: t`The text is too large for the spine`,
      text: t`It is ${formatLength(finding.height, unit)} high and ${formatLength(finding.room, unit)} are free once 1.5 mm stay clear at both sides. It would run over the fold: set it smaller, or leave it out.`,
    }),
    'cover-size': (finding, { unit, size }) => ({
      title: t`The cover’s ${COVER_WORD[finding.part]} has the wrong size`,
      text: t`It is ${size(finding.size)}; the book asks for ${size(finding.wanted)}${finding.sum ? t` = 2 × ${formatFigure(finding.sum.page, unit)} + spine ${formatFigure(finding.sum.spine, unit)}${finding.sum.flap ? t` + 2 × flap ${formatFigure(finding.sum.flap, unit)}` : ''}` : ''}. Spine and folds would lie off their place.`,
    }),
    'cover-bleed': (finding, { unit }) => ({
      title: t`The cover’s ${COVER_WORD[finding.part]} has too little bleed`,
      text: t`${formatLength(finding.there, unit)} are there where it is cut, ${formatLength(finding.wanted, unit)} are wanted. White shows where the knife is off.`,
    }),
  },
  mends: {
    'cover-to-sum': () => t`Make it that size about its middle`,
    'worked-spine': () => t`Use the width worked out`,
  },
};

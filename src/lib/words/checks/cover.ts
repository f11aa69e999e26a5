import { formatFigure, formatLength } from '../../core/measure/formatLength';
import { plural } from '../plural';
import { COVER_WORD } from '../book';
import { listed } from '../listed';
import type { CheckWords } from './checkWords';

export const cover: CheckWords<'cover'> = {
  found: {
    'cover-unplanned': () => ({
      title: 'The cover goes on no sheet',
      text: 'Pages were made a cover, and only a book in signatures has one that is printed apart. Choose that scheme, or switch the cover step off.',
    }),
    'cover-bare': (finding) => {
      const parts = listed(finding.parts.map((part) => COVER_WORD[part]));
      return {
        title: `The cover’s ${parts} ${finding.parts.length === 1 ? 'shows' : 'show'} nothing`,
        text: 'White paper would stand between the printed front and back. Take in a page for it, put text on the spine, or take in the whole outside as one page.',
      };
    },
    'cover-missing': (finding) => ({
      title: `The cover has no ${finding.parts.join(' and no ')}`,
      text: 'Its place on the sheet stays white. Take in the page and make it part of the cover.',
    }),
    'spine-unknown': () => ({
      title: 'How thick is the book?',
      text: 'The spine follows from the thickness of a leaf, which is not known. Type grammage and bulk of the paper, or the width of the spine.',
    }),
    'spine-impossible': (finding, { unit }) => ({
      title: 'The cover does not go round this book',
      text: `${finding.width > 0 ? `Its spine is ${formatLength(finding.width, unit)} wide, which makes each of the ${plural(finding.leaves, 'leaf', 'leaves')} ${formatLength(Math.max(0, finding.leaf), unit)} thick: no paper is` : `It leaves nothing for a spine, and the book has ${plural(finding.leaves, 'leaf', 'leaves')}`}. It cannot be bound so. Type grammage and bulk of the paper, then give the cover the width that the sum asks for.`,
    }),
    'spine-differs': (finding, { unit }) => ({
      title: 'The spine is not as wide as the book is thick',
      text: `${formatLength(finding.typed, unit)} was typed, the leaves make ${formatLength(finding.worked, unit)}. Folds land on the front or the back.`,
    }),
    'spine-text-large': (finding, { unit }) => ({
      title: 'The text is too large for the spine',
      text: `It is ${formatLength(finding.height, unit)} high and ${formatLength(finding.room, unit)} are free once 1.5 mm stay clear at both sides. It would run over the fold: set it smaller, or leave it out.`,
    }),
    'cover-size': (finding, { unit, size }) => ({
      title: `The cover’s ${COVER_WORD[finding.part]} has the wrong size`,
      text: `It is ${size(finding.size)}; the book asks for ${size(finding.wanted)}${finding.sum ? ` = 2 × ${formatFigure(finding.sum.page, unit)} + spine ${formatFigure(finding.sum.spine, unit)}${finding.sum.flap ? ` + 2 × flap ${formatFigure(finding.sum.flap, unit)}` : ''}` : ''}. Spine and folds would lie off their place.`,
    }),
    'cover-bleed': (finding, { unit }) => ({
      title: `The cover’s ${COVER_WORD[finding.part]} has too little bleed`,
      text: `${formatLength(finding.there, unit)} are there where it is cut, ${formatLength(finding.wanted, unit)} are wanted. White shows where the knife is off.`,
    }),
  },
  mends: {
    'cover-to-sum': () => 'Make it that size about its middle',
    'worked-spine': () => 'Use the width worked out',
  },
};

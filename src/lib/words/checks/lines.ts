import { formatLength } from '../../core/measure/formatLength';
import type { CheckWords } from './checkWords';

export const lines: CheckWords<'lines'> = {
  found: {
    'lines-near-trim': (finding, { unit, pages }) => ({
      title: finding.nearest < 0 ? 'A line runs over the trim' : 'A line too near to the trim',
      text: `${pages}: it comes to ${formatLength(Math.abs(finding.nearest), unit)} ${finding.nearest < 0 ? 'beyond' : 'from'} the trim; ${formatLength(finding.safe, unit)} are safe. A cut 1 mm off takes some of it away. Move it inwards, or set it smaller.`,
    }),
    'lines-in-spine': (finding, { unit, pages }) => ({
      title: 'A line runs into the spine',
      text: `${pages}: it comes to ${finding.nearest < 0 ? 'the other side of the spine' : `${formatLength(finding.nearest, unit)} from the spine`}; ${formatLength(finding.safe, unit)} are safe. Bound, it is hard to read or gone. Move it towards the fore edge.`,
    }),
    'lines-on-art': (_, { pages }) => ({
      title: 'A line on top of the art',
      text: `${pages}: text or a picture is there already, and the two print over each other. Move the line, or leave those pages out.`,
    }),
    'lines-meet': (_, { pages }) => ({
      title: 'Two lines at one place',
      text: `${pages}: one line prints over another. Move one of them, or remove it.`,
    }),
    'glyph-missing': (finding) => ({
      title: 'Letters that the face does not have',
      text: `${finding.face} has no ${finding.chars.map((char) => `“${char}”`).join(', ')}: an empty box would be printed. ${finding.mend ? `${String(finding.mend.data!.face)} has ${finding.chars.length === 1 ? 'it' : 'them'}.` : 'No face here has all of them; write it another way.'}`,
    }),
    'folio-fixed-side': (finding) => ({
      title: `Numbers at the ${finding.side} of every page`,
      text: `On one face of each leaf that is the outer edge, on the other it is the spine. At the outer edge they fall on each other.`,
    }),
    'overlay-larger': (finding, { size }) => ({
      title: 'The overlay is larger than the page',
      text: `It is ${size(finding.overlay)}, the page ${size(finding.page)}: what reaches beyond the bleed is cut off. Size the pages like the overlay, or lay over another one.`,
    }),
  },
  mends: {
    'other-face': (data) => `Set it in ${data.face}`,
    'outer-edge': () => 'Put them at the outer edge',
  },
};

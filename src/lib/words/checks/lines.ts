import { t, translated } from '../language';
import { formatLength } from '../../core/measure/formatLength';
import type { CheckWords } from './checkWords';

export const lines: CheckWords<'lines'> = {
  found: {
    'lines-near-trim': (finding, { unit, pages }) => ({
      title: finding.nearest < 0 ? t`A line runs over the trim` : t`A line too near to the trim`,
      text: t`${pages}: it comes to ${formatLength(Math.abs(finding.nearest), unit)} ${finding.nearest < 0 ? t`beyond` : t`from`} the trim; ${formatLength(finding.safe, unit)} are safe. A cut 1 mm off takes some of it away. Move it inwards, or set it smaller.`,
    }),
    'lines-in-spine': (finding, { unit, pages }) => ({
      title: t`A line runs into the spine`,
      text: t`${pages}: it comes to ${finding.nearest < 0 ? t`the other side of the spine` : t`${formatLength(finding.nearest, unit)} from the spine`}; ${formatLength(finding.safe, unit)} are safe. Bound, it is hard to read or gone. Move it towards the fore edge.`,
    }),
    'lines-on-art': (_, { pages }) => ({
      title: t`A line on top of the art`,
      text: t`${pages}: text or a picture is there already, and the two print over each other. Move the line, or leave those pages out.`,
    }),
    'lines-meet': (_, { pages }) => ({
      title: t`Two lines at one place`,
      text: t`${pages}: one line prints over another. Move one of them, or remove it.`,
    }),
    'glyph-missing': (finding) => ({
      title: t`Letters that the face does not have`,
      text: t`${finding.face} has no ${finding.chars.map((char) => `“${char}”`).join(', ')}: an empty box would be printed. ${finding.mend ? t`${String(finding.mend.data!.face)} has ${finding.chars.length === 1 ? t`it` : t`them`}.` : t`No face here has all of them; write it another way.`}`,
    }),
    'folio-fixed-side': (finding) => ({
      title: t`Numbers at the ${translated(finding.side)} of every page`,
      text: t`On one face of each leaf that is the outer edge, on the other it is the spine. At the outer edge they fall on each other.`,
    }),
    'overlay-larger': (finding, { size }) => ({
      title: t`The overlay is larger than the page`,
      text: t`It is ${size(finding.overlay)}, the page ${size(finding.page)}: what reaches beyond the bleed is cut off. Size the pages like the overlay, or lay over another one.`,
    }),
  },
  mends: {
    'other-face': (data) => t`Set it in ${data.face}`,
    'outer-edge': () => t`Put them at the outer edge`,
  },
};

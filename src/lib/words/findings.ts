import type { Finding, Mend } from '../core/checks/finding';
import type { Size } from '../core/measure/box';
import type { CoverPart } from '../core/pages/cover';
import type { ActiveKind } from '../core/pages/survey';
import { describeIndexes } from '../core/pages/selection';
import { formatFigure, formatLength, formatSize } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { opposite, type Side } from '../core/pages/page';
import { sayStepProblem } from './errors';
import { plural } from './plural';
import { saySize } from './sizes';
import { sayFoldError } from './schemes';
import { COVER_WORD, SPINE_OF, WHERE } from './book';

export interface Said {
  /** What is wrong, in a few words. */
  title: string;
  /** What it will do on paper, and what to do. */
  text: string;
}

const ACTIVE_WORD: Record<ActiveKind, string> = {
  javascript: 'scripts',
  launch: 'commands that start other programs',
  'open-action': 'things to be done when it is opened',
  'embedded-file': 'other files inside it',
  xfa: 'a form that draws itself (XFA)',
  'form-action': 'buttons that send or change a form',
  media: 'sound, film or 3D',
  'other-file': 'links into other files',
  'layer-action': 'buttons that switch layers',
};
const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

const MARK_WORD = {
  registration: 'registration marks',
  bar: 'the colour bar',
  slug: 'the slug line',
} as const;

/** So many are named, the rest counted. */
const MOST_NAMED = 6;
const some = (names: readonly string[]): string => {
  const shown = names.slice(0, MOST_NAMED);
  const text = listed(names.length > MOST_NAMED ? [...shown, `${names.length - MOST_NAMED} more`] : shown);
  return text.charAt(0).toUpperCase() + text.slice(1);
};
const WHY_LOST: Record<Extract<Finding, { code: 'face-lost' }>['why'], string> = {
  'fold-out':
    'A folded leaflet has no leaves that fold-outs could hang on, so they would be missing from it. Take them off, or choose another scheme.',
  'one-side':
    'These pages are the backs of others, and only one side of the sheet is printed. Print both sides, or make every page a piece of its own.',
  cover: 'This part of the cover has no place on its sheet, so the book would be bound without it.',
  place:
    'The scheme has no place for it, so the finished piece would be without it. Change the scheme, or take the page out.',
};

/** The words for a finding, lengths in the job's unit. */
export function sayFinding(finding: Finding, unit: Unit): Said {
  const size = ({ width, height }: Size) => formatSize(width, height, unit);
  const pages = plural(finding.pages.length, 'page');
  const there = (part: CoverPart | undefined) =>
    part ? `The cover’s ${COVER_WORD[part]} has` : `${pages} ${finding.pages.length === 1 ? 'has' : 'have'}`;
  switch (finding.code) {
    case 'step-failed':
      return {
        title: 'A step does not apply',
        text: `${sayStepProblem(finding.problem)} The pages pass this step unchanged until it is edited or taken out.`,
      };
    case 'active-content':
      return {
        title: `“${finding.name}” can do more than be looked at`,
        text: `It holds ${listed(finding.kinds.map((kind) => ACTIVE_WORD[kind]))}. None of it prints, and print shops refuse it: it is left out of everything that goes out. The file itself stays as it is.`,
      };
    case 'page-broken':
      return {
        title: `${pages} of “${finding.name}” cannot be drawn`,
        text: 'Some of what belongs there is missing in the file or damaged, so it would come out white or in part. Ask for the file again, or put another page there.',
      };
    case 'file-rebuilt':
      return {
        title: `“${finding.name}” was damaged`,
        text: 'What could be found in it was put together anew. Look at every page before anything is printed, or ask for the file again.',
      };
    case 'annotations-print':
      return {
        title: `${pages} of “${finding.name}” ${finding.pages.length === 1 ? 'has' : 'have'} notes or form fields that print`,
        text: 'What was filled in, stamped or written on top is printed with the page, on sheets and on copies too.',
      };
    case 'annotations-screen':
      return {
        title: `${pages} of “${finding.name}” ${finding.pages.length === 1 ? 'has' : 'have'} notes that only show on screens`,
        text: 'They are marked as not to be printed, so they are left out on sheets, copies and pictures.',
      };
    case 'mixed-sizes':
      return {
        title: 'One size is not like the rest',
        text: `${pages} ${finding.pages.length === 1 ? 'is' : 'are'} not ${saySize(finding.commonest, unit)} like the others. Trimmed together, they come out cut off or with white edges.`,
      };
    case 'leaf-two-sizes':
      return {
        title: 'A leaf with two sizes',
        text: `Its front is ${size(finding.front)}, its back ${size(finding.back)}. One piece of paper has one size: make both the same.`,
      };
    case 'bleed-missing':
      return {
        title: 'No bleed supplied',
        text: `${pages} end${finding.pages.length === 1 ? 's' : ''} at the trim. Where colour runs to the edge, a cut 1 mm off leaves a white line: ask for art with 3 mm bleed.`,
      };
    case 'bleed-short':
      return {
        title: 'The art does not reach the bleed',
        text: `${pages}: ${formatLength(finding.wanted, unit)} asked for, ${formatLength(finding.there, unit)} there. The strip between stays white; ask for art with more bleed.`,
      };
    case 'over-safe-area':
      return {
        title: 'Too near to the trim',
        text: `${there(finding.part)} text or art ${finding.nearest < 0 ? 'over the trim' : `${formatLength(finding.nearest, unit)} from the trim`}; ${formatLength(finding.safe, unit)} are safe. A cut 1 mm off takes some of it away or leaves it looking crooked.`,
      };
    case 'low-resolution':
      return {
        title: 'An image too coarse for its size',
        text: `${finding.part ? `The cover’s ${COVER_WORD[finding.part]}` : pages}: ${Math.round(finding.ppi)} pixels an inch at the size it is printed. Under 200 it looks soft; make it smaller or ask for a better one.`,
      };
    case 'lines-near-trim':
      return {
        title: finding.nearest < 0 ? 'A line runs over the trim' : 'A line too near to the trim',
        text: `${pages}: it comes to ${formatLength(Math.abs(finding.nearest), unit)} ${finding.nearest < 0 ? 'beyond' : 'from'} the trim; ${formatLength(finding.safe, unit)} are safe. A cut 1 mm off takes some of it away. Move it inwards, or set it smaller.`,
      };
    case 'lines-in-spine':
      return {
        title: 'A line runs into the spine',
        text: `${pages}: it comes to ${finding.nearest < 0 ? 'the other side of the spine' : `${formatLength(finding.nearest, unit)} from the spine`}; ${formatLength(finding.safe, unit)} are safe. Bound, it is hard to read or gone. Move it towards the fore edge.`,
      };
    case 'lines-on-art':
      return {
        title: 'A line on top of the art',
        text: `${pages}: text or a picture is there already, and the two print over each other. Move the line, or leave those pages out.`,
      };
    case 'lines-meet':
      return {
        title: 'Two lines at one place',
        text: `${pages}: one line prints over another. Move one of them, or take it out.`,
      };
    case 'glyph-missing':
      return {
        title: 'Letters that the face does not have',
        text: `${finding.face} has no ${finding.chars.map((char) => `“${char}”`).join(', ')}: an empty box would be printed. ${finding.mend ? `${String(finding.mend.data!.face)} has ${finding.chars.length === 1 ? 'it' : 'them'}.` : 'No face here has all of them; write it another way.'}`,
      };
    case 'folio-fixed-side':
      return {
        title: `Numbers at the ${finding.side} of every page`,
        text: `On one face of each leaf that is the outer edge, on the other it is the spine. At the outer edge they fall on each other.`,
      };
    case 'spots-alike':
      return {
        title: 'One ink under two names',
        text: `${finding.names.map((name) => `“${name}”`).join(' and ')} differ only in spelling, and each makes a plate of its own. Print them with one ink, if they are one.`,
      };
    case 'rgb-content':
      return {
        title: 'Colours of a screen',
        text: `${pages} ${finding.pages.length === 1 ? 'has' : 'have'} RGB colours, which have no plates: the press converts them, and they may come out duller. For exact colour ask for process or spot inks.`,
      };
    case 'knocks-out':
      return {
        title: `The ${finding.purpose} line knocks out the art`,
        text: 'It does not overprint, so the art under it is left white. Where the knife is a hair off, a white line shows.',
      };
    case 'overlay-larger':
      return {
        title: 'The overlay is larger than the page',
        text: `It is ${size(finding.overlay)}, the page ${size(finding.page)}: what reaches beyond the bleed is cut off. Size the pages like the overlay, or lay over another one.`,
      };
    case 'pairs-apart':
      return {
        title: 'The pairs have come apart',
        text: `Page 1 of ${finding.name || 'the interior'} was made to lie ${WHERE[finding.side]} and now lies ${WHERE[opposite(finding.side)]}, so facing pages no longer face. A cover put in front does this; a blank inside each cover mends it.`,
      };
    case 'panel-too-wide':
      return {
        title: 'A panel too wide to fold in',
        text: `It is ${formatLength(finding.width, unit)} wide and folds over ${formatLength(finding.over, unit)}. ${finding.level === 'stop' ? 'As wide as what it folds into, it buckles' : 'With so little room it may catch'}; by practice it is 1.5 to 3 mm narrower.`,
      };
    case 'panel-height':
      return {
        title: 'A panel of another height',
        text: `It is ${formatLength(finding.height, unit)} high, its leaf ${formatLength(finding.leaf, unit)}. They are one piece of paper: make both the same.`,
      };
    case 'fold-at-trim':
      return {
        title: 'The knife would open the fold-out',
        text: `Its leaf is ${formatLength(finding.width, unit)} wide in a book of ${formatLength(finding.book, unit)}, so the fold lies at the fore-edge trim. By practice it stays 3 to 6 mm inside.`,
      };
    case 'panels-meet':
      return {
        title: 'Two panels would meet',
        text: `Folded in from both ends they take ${formatLength(finding.together, unit)} of the ${formatLength(finding.space, unit)} between. Make them narrower, so that they close without touching.`,
      };
    case 'panel-one-face':
      return {
        title: 'A panel wants two pages',
        text: `${plural(finding.given, 'page')} were given, and every panel has a front and a back: the last back stays blank.`.replace(
          '1 page were',
          '1 page was',
        ),
      };
    case 'kept-pair-split':
      return {
        title: finding.lost
          ? 'Half of a kept pair is gone'
          : finding.pairs === 1
            ? 'A kept pair has come apart'
            : `${finding.pairs} kept pairs have come apart`,
        text: finding.lost
          ? 'Pages that were to stay together are no longer both there. What runs across the spread is cut in half.'
          : `This step puts pages that must face each other back to back${finding.pairs > 1 ? `, the first at page ${finding.first}` : `, from page ${finding.first}`}. What runs across the spread comes apart.`,
      };
    case 'scan-unsure':
      return {
        title: `Nothing tells which way up ${finding.scans.length === 1 ? 'a scan lies' : 'some scans lie'}`,
        text: `No number and no word was read on scan ${listed(finding.scans.map(String))}, and others of the set are turned. Turned the wrong way, the cover would be upside down and pages in each other’s place: look at ${finding.scans.length === 1 ? 'it' : 'them'}, and set the turns of this step by hand.`,
      };
    case 'sheet-missing':
      return {
        title: 'Scans are missing',
        text: `Going by the numbers on the pages, ${sayNumbers(finding.numbers)} ${finding.numbers.length === 1 ? 'is' : 'are'} not there: a sheet was not scanned. Scan it, or take the gap as it is.`,
      };
    case 'sheet-doubled':
      return {
        title: 'Scans are there twice',
        text: `${sayNumbers(finding.numbers)} came more than once: a sheet was scanned twice. Take the second one out.`,
      };
    case 'order-differs':
      return {
        title: 'Numbers that do not count up',
        text: `${finding.agree} pages carry the number that their place wants, ${finding.differ} another one. Look at those before you go on.`,
      };
    case 'blanks-wanted':
      return {
        title: `${plural(finding.count, 'blank')} fill the last sheet`.replace(
          '1 blank fill',
          '1 blank fills',
        ),
        text: `${plural(finding.total, 'page')} ${finding.total === 1 ? 'does' : 'do'} not divide by ${finding.by}. ${finding.pad === 'end' ? 'The blanks go after the last page' : 'The blanks go before the last page, which stays the back cover'}.`,
      };
    case 'gang-apart':
      return {
        title: 'The pieces do not fit on one sheet',
        text: `Each lies on a sheet of its own, to be printed as often as it is wanted: ${listed(
          finding.sheets
            .slice(0, MOST_NAMED)
            .map((count, n) => `sheet ${n + 1} ${count} times for ${finding.wanted[n]}`),
        )}${finding.sheets.length > MOST_NAMED ? ' and so on' : ''}. Take a larger sheet to gang them.`,
      };
    case 'marks-dropped':
      return {
        title: `No room for ${listed(finding.marks.map((mark) => MARK_WORD[mark]))}`,
        text: 'Left out where it would lie on the work or off the sheet. Take a larger sheet, or shorter marks.',
      };
    case 'face-lost':
      return {
        title: `${some(finding.faces)} ${finding.faces.length === 1 ? 'lies' : 'lie'} on no sheet`,
        text: WHY_LOST[finding.why],
      };
    case 'face-uneven':
      return {
        title: `${some(finding.faces.map(({ name }) => name))} ${finding.faces.length === 1 ? 'lies' : 'lie'} on the sheets as often as nobody wants`,
        text: finding.faces
          .slice(0, MOST_NAMED)
          .map(({ name, there, wanted }) => `${name}: ${there} instead of ${wanted}`)
          .join('; '),
      };
    case 'first-page-side':
      return {
        title: `The first page lies ${WHERE[opposite(finding.side)]}`,
        text: `A stitched booklet with its spine at the ${SPINE_OF[finding.side]} begins ${WHERE[finding.side]}: its outer sheet folds round the others with page 1 in front.`,
      };
    case 'sheet-too-small':
      return {
        title: finding.of ? 'The cover’s sheet is too small' : 'The sheet is too small',
        text: `The trims do not fit on ${size(finding.sheet)}. With bleed and marks they need ${size(finding.needed)}.`,
      };
    case 'fold-impossible':
      return {
        title: 'Paper cannot be folded like this',
        text: `${sayFoldError(finding.error, (points) => formatLength(points, unit))} Give the panel the width that the fold asks for, or choose another fold.`,
      };
    case 'fold-in-tight': {
      const [what, wide, less, more] =
        finding.axis === 'vertical'
          ? [`Panel ${finding.panel}`, 'wide', 'narrower', 'wider']
          : [`Row ${finding.panel} of panels, from the head,`, 'high', 'lower', 'higher'];
      return {
        title: `${what} has no room to fold in`,
        text: `It is ${finding.room < 0 ? `${formatLength(-finding.room, unit)} ${more} than` : finding.room < 0.01 ? `as ${wide} as` : `only ${formatLength(finding.room, unit)} ${less} than`} what it folds into; ${formatLength(finding.wanted, unit)} are wanted. It buckles, or the edge shows. Make it ${less}.`,
      };
    }
    case 'panels-missing':
      return {
        title: 'Panels are missing',
        text: `A leaflet of this fold takes ${plural(finding.each, 'page')}, ${finding.given} are there: the rest stay white. Add the pages, or choose whole sides.`,
      };
    case 'creep-over-safe':
      return {
        title: 'Creep ends at the safe margin',
        text: `The innermost leaf should move into the spine by ${formatLength(finding.wanted, unit)}; ${formatLength(finding.done, unit)} are safe, so it stops there, and ${plural(finding.leaves, 'leaf is', 'leaves are')} trimmed up to ${formatLength(finding.wanted - finding.done, unit)} too near to the art. Narrow the inner pages instead, or use more, thinner signatures.`,
      };
    case 'cover-unplanned':
      return {
        title: 'The cover goes on no sheet',
        text: 'Pages were made a cover, and only a book in signatures has one that is printed apart. Choose that scheme, or switch the cover step off.',
      };
    case 'cover-bare': {
      const parts = listed(finding.parts.map((part) => COVER_WORD[part]));
      return {
        title: `The cover’s ${parts} ${finding.parts.length === 1 ? 'shows' : 'show'} nothing`,
        text: 'White paper would stand between the printed front and back. Take in a page for it, put text on the spine, or take in the whole outside as one page.',
      };
    }
    case 'cover-missing':
      return {
        title: `The cover has no ${finding.parts.join(' and no ')}`,
        text: 'Its place on the sheet stays white. Take in the page and make it part of the cover.',
      };
    case 'spine-unknown':
      return {
        title: 'How thick is the book?',
        text: 'The spine follows from the thickness of a leaf, which is not known. Type grammage and bulk of the paper, or the width of the spine.',
      };
    case 'spine-impossible':
      return {
        title: 'The cover does not go round this book',
        text: `${finding.width > 0 ? `Its spine is ${formatLength(finding.width, unit)} wide, which makes each of the ${plural(finding.leaves, 'leaf', 'leaves')} ${formatLength(Math.max(0, finding.leaf), unit)} thick: no paper is` : `It leaves nothing for a spine, and the book has ${plural(finding.leaves, 'leaf', 'leaves')}`}. It cannot be bound so. Type grammage and bulk of the paper, then give the cover the width that the sum asks for.`,
      };
    case 'spine-differs':
      return {
        title: 'The spine is not as wide as the book is thick',
        text: `${formatLength(finding.typed, unit)} was typed, the leaves make ${formatLength(finding.worked, unit)}. Folds land on the front or the back.`,
      };
    case 'spine-text-large':
      return {
        title: 'The text is too large for the spine',
        text: `It is ${formatLength(finding.height, unit)} high and ${formatLength(finding.room, unit)} are free once 1.5 mm stay clear at both sides. It would run over the fold: set it smaller, or leave it out.`,
      };
    case 'cover-size':
      return {
        title: `The cover’s ${COVER_WORD[finding.part]} has the wrong size`,
        text: `It is ${size(finding.size)}; the book asks for ${size(finding.wanted)}${finding.sum ? ` = 2 × ${formatFigure(finding.sum.page, unit)} + spine ${formatFigure(finding.sum.spine, unit)}${finding.sum.flap ? ` + 2 × flap ${formatFigure(finding.sum.flap, unit)}` : ''}` : ''}. Spine and folds would lie off their place.`,
      };
    case 'cover-bleed':
      return {
        title: `The cover’s ${COVER_WORD[finding.part]} has too little bleed`,
        text: `${formatLength(finding.there, unit)} are there where it is cut, ${formatLength(finding.wanted, unit)} are wanted. White shows where the knife is off.`,
      };
    case 'by-hand':
      return {
        title: `${plural(finding.places.length, 'cell')} changed by hand`,
        text: `${finding.folded ? 'Folded' : 'Cut'}, the piece shows ${sayPlaces(finding.places)}.`,
      };
    case 'by-hand-gone':
      return {
        title: 'A cell changed by hand is gone',
        text: `${plural(finding.count, 'change')} by hand ${finding.count === 1 ? 'is' : 'are'} for cells that these sheets do not have, and nothing is done there.`,
      };
    case 'caliper-unknown':
      return {
        title: 'How thick is the paper?',
        text: 'Creep follows from the thickness of a leaf, and neither that nor grammage and bulk are known. Nothing is moved until they are typed.',
      };
    case 'across-grain':
      return {
        title: 'The spine folds across the grain',
        text: 'Folded across its grain, paper cracks at the fold and the pages do not lie flat. Use paper with the other grain, or turn the work on the sheet.',
      };
    case 'bleed-off-sheet':
      return {
        title: finding.of ? 'The cover’s bleed runs off its sheet' : 'The bleed runs off the sheet',
        text: `The trims fit on ${size(finding.sheet)}, the bleed does not, so edges may stay white. With bleed and marks: ${size(finding.needed)}.`,
      };
    case 'marks-off-sheet':
      return {
        title: finding.of ? 'No room for all marks of the cover' : 'No room for all marks',
        text: `Marks run off ${size(finding.sheet)} and will not show whole. With marks the sheet needs ${size(finding.needed)}.`,
      };
  }
}

/** Page numbers in words: `pages 3, 4 and 13`. */
const sayNumbers = (numbers: readonly number[]): string =>
  `${numbers.length === 1 ? 'page' : 'pages'} ${describeIndexes(numbers.map((number) => number - 1))}`;

/** What is met where, in words: `page 6 where 3 belongs, nothing where 8 belongs`. */
function sayPlaces(places: readonly { place: string; shows?: string; turned: boolean }[]): string {
  const said = places.slice(0, MOST_PLACES).map(({ place, shows, turned }) => {
    const upside = turned ? ' upside down' : '';
    if (!shows) return `nothing where ${place} belongs`;
    return shows === place ? `page ${place}${upside}` : `page ${shows}${upside} where ${place} belongs`;
  });
  const more = places.length - said.length;
  return `${said.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
const MOST_PLACES = 6;

/** What the button of a mend says. */
export function sayMend({ code, data = {} }: Mend): string {
  switch (code) {
    case 'blank-inside-covers':
      return data.count === 2 ? 'Blank inside each cover' : 'Blank before it';
    case 'commonest-size':
      return 'Size them like the rest';
    case 'turn-like-rest':
      return 'Turn them like the rest';
    case 'larger-sheet':
      return `Use ${data.name}`;
    case 'same-leaf-size':
      return 'Size its back like its front';
    case 'mirror-bleed':
      return 'Mirror the edge into the bleed';
    case 'enlarge-bleed':
      return 'Enlarge the art to reach it';
    case 'narrow-panel':
      return 'Make it narrower';
    case 'panel-height':
      return 'Make it as high as its leaf';
    case 'narrow-leaf':
      return 'Make its leaf narrower';
    case 'blank-for-pairs':
      return data.count === 1 ? 'Put one blank before it' : 'Put a blank before and behind';
    case 'other-face':
      return `Set it in ${data.face}`;
    case 'one-ink':
      return `Print them all with “${data.name}”`;
    case 'overprint':
      return 'Let it overprint';
    case 'both-sides':
      return 'Print both sides';
    case 'loose-pages':
      return 'Make every page a piece of its own';
    case 'outer-edge':
      return 'Put them at the outer edge';
    case 'first-side':
      return `First page ${WHERE[data.side as Side]}`;
    case 'worked-widths':
      return 'Use the widths the fold asks for';
    case 'creep-by-scale':
      return 'Narrow the inner pages instead';
    case 'make-cover':
      return 'Make it a cover, printed apart';
    case 'cover-to-sum':
      return 'Make it that size about its middle';
    case 'worked-spine':
      return 'Use the width worked out';
    case 'as-planned':
      return 'As the scheme has it';
    case 'drop-gone':
      return 'Drop what is gone';
    case 'turn-work':
      return 'Turn the work on the sheet';
    case 'fill-with-blanks':
      return `${data.count === 1 ? '1 blank' : `${data.count} blanks`} ${data.place === 'end' ? 'at the end' : 'before the last page'}`;
  }
}

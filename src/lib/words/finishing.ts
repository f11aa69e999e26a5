import { firstOf, lastOf } from '../core/entries';
import type {
  CutOperation,
  CutPiece,
  FoldOperation,
  Operation,
  OperationOf,
  Place,
} from '../core/finish/operations';
import type { Crease } from '../core/fold/creases';
import { formatFigure, formatLength, formatSize, UNIT_SIGN } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import type { Spine } from '../core/model/page';
import { describeIndexes } from '../core/select/selection';
import { plural } from './plural';
import { WORK_STYLE_NAME } from './press';

/** An operation as it is told: what is done, and how, in lines. */
export interface Told {
  does: string;
  lines: string[];
}

/** Where operations are carried out. */
export const PLACE_NAME: Record<Place, string> = {
  press: 'At the press',
  guillotine: 'At the guillotine',
  folder: 'At the folder',
  bindery: 'In the bindery',
};

/** Numbers from 1 in words: `1-4, 6`. */
export const runs = (numbers: readonly number[]): string =>
  describeIndexes(numbers.map((number) => number - 1));
const sheetsOf = (sheets: readonly number[]): string =>
  `${sheets.length > 1 ? 'sheets' : 'sheet'} ${runs(sheets)}`;
const TURNED = {
  90: 'turned by a quarter clockwise',
  180: 'turned by a half',
  270: 'turned by a quarter anticlockwise',
} as const;
/** Sheets in the order in which they are laid. */
const listed = (sheets: readonly { sheet: number }[]): string => sheets.map(({ sheet }) => sheet).join(', ');
const SPINE_AT: Record<Spine, string> = { left: 'at the left', right: 'at the right', head: 'at the head' };
/** The edge at which folded sheets are jogged. */
const JOGGED: Record<Spine, string> = { left: 'head', right: 'head', head: 'left edge' };
const ENDS: Record<Spine, readonly [string, string]> = {
  left: ['head', 'foot'],
  right: ['head', 'foot'],
  head: ['left edge', 'right edge'],
};
const COVER_NAME: Record<OperationOf<'cover'>['parts'][number]['part'], string> = {
  'back-flap': 'back flap',
  back: 'back',
  spine: 'spine',
  front: 'front',
  'front-flap': 'front flap',
};
export const coverPartName = (part: keyof typeof COVER_NAME): string => COVER_NAME[part];

/** One operation; `number` is its own on the ticket. */
type Tell = { [Kind in Operation['kind']]: (told: OperationOf<Kind>, unit: Unit, number: string) => Told };
const TELL: Tell = {
  print: ({ sheets, paper, sides, work, turns, gripper, each }, unit) => ({
    does: `Print ${sheetsOf(sheets)} on ${sides === 2 ? 'both sides' : 'one side'}`,
    lines: [
      [
        `Paper ${formatSize(paper.width, paper.height, unit)}`,
        paper.grammage && `${paper.grammage} g/m²`,
        paper.caliper && `${formatLength(paper.caliper, unit)} thick`,
        paper.grain && `${paper.grain} grain`,
        gripper && `gripper edge at the foot, ${formatLength(gripper, unit)}`,
      ]
        .filter(Boolean)
        .join(', '),
      sides === 1
        ? 'The back stays white.'
        : `${WORK_STYLE_NAME[work]}, turned over ${turns === 'vertical' ? 'from side to side' : 'from head to foot'}`,
      each
        ? `${each.net} + ${each.overs} overs = ${each.total} of each sheet${sheets.length > 1 ? `, ${each.total * sheets.length} in all` : ''}`
        : 'No quantity is given.',
    ],
  }),
  cut: ({ sheets, cuts, pieces }, unit) => ({
    does: `Cut ${sheetsOf(sheets)}, front up, waste in brackets`,
    lines: [...sayCuts(cuts, unit), ...sayPieces(pieces, unit)],
  }),
  'cut-out': ({ sheets, pieces }, unit) => ({
    does: `Cut out of ${sheetsOf(sheets)}: no cut goes right through between the pieces`,
    lines: [
      ...pieces.map(
        ({ strip, x, y, size }) =>
          `piece ${strip}: ${formatSize(size.width, size.height, unit)}, ${formatLength(x, unit)} from the left, ${formatLength(y, unit)} from the foot`,
      ),
      ...sayPieces(pieces, unit),
    ],
  }),
  fold: ({ sheets, pile, size, folds, turn, closed }, unit, number) => ({
    does: `Fold ${pile === undefined ? sheetsOf(sheets) : `the pieces of pile ${pile} of ${sheetsOf(sheets)}`}, ${formatSize(size.width, size.height, unit)}, front up`,
    lines: folds.length
      ? [
          ...folds.map((fold) => `${number}.${fold.number} ${sayFold(fold, unit)}`),
          `${turn ? `Then it is ${TURNED[turn]}. ` : ''}Folded it is ${formatSize(closed.width, closed.height, unit)}.`,
        ]
      : ['Paper cannot be folded so: see the findings.'],
  }),
  'tip-in': ({ sheet, after, inside, from, spine }, unit) => ({
    does: `Tip in sheet ${sheet} ${after ? `after leaf ${after}` : 'before the first leaf'}`,
    lines: [
      `Its spine edge ${formatLength(from, unit)} from the fold of the others, its trim ${formatLength(inside, unit)} inside its ${JOGGED[spine]}.`,
    ],
  }),
  nest: ({ sheets, spine }, unit) => ({
    does:
      sheets.length > 1
        ? `Nest sheets ${listed(sheets)}: each inside the one before`
        : `Nest sheet ${listed(sheets)}: it is the only one`,
    lines: [`Spines together, ${SPINE_AT[spine]}.`, ...sayInside(sheets, spine, unit)],
  }),
  gather: ({ sheets, spine }, unit) => ({
    does:
      sheets.length > 1
        ? `Gather sheets ${listed(sheets)}: the first on top`
        : `Gather ${sheets.length ? `sheet ${listed(sheets)}: it is the only one` : 'no folded sheets: the block is of leaves'}`,
    lines: [`Spines together, ${SPINE_AT[spine]}.`, ...sayInside(sheets, spine, unit)],
  }),
  bind: ({ how, spine, roughing }, unit) => ({
    does: {
      stitch: `Wire-stitch through the fold, ${SPINE_AT[spine]}`,
      glue: `Take ${formatLength(roughing, unit)} off the spine, ${SPINE_AT[spine]}, roughen it and glue it`,
      sew: `Sew through the folds, ${SPINE_AT[spine]}`,
    }[how],
    lines: how === 'sew' && roughing ? [`Take ${formatLength(roughing, unit)} off the spine.`] : [],
  }),
  cover: ({ sheet, parts, creases, spine, inside }, unit) => ({
    does: `Cover: crease sheet ${sheet}, outside up, and glue the block into its spine`,
    lines: [
      `Creases from the ${spine === 'head' ? 'foot' : 'left'}: ${creases.map((at) => formatFigure(at, unit)).join(' · ')} ${UNIT_SIGN[unit]}`,
      `${parts.map(({ part, length }) => `${COVER_NAME[part]} ${formatFigure(length, unit)}`).join(' · ')} ${UNIT_SIGN[unit]}`,
      `Its trim lies ${formatLength(inside, unit)} inside its ${JOGGED[spine]}.`,
      ...(parts.some(({ part }) => part.endsWith('flap')) ? ['Fold the flaps in once it is trimmed.'] : []),
    ],
  }),
  trim: ({ spine, size, inside }, unit) => {
    const [along, across] = spine === 'head' ? [size.height, size.width] : [size.width, size.height];
    const [first, last] = ENDS[spine];
    return {
      does: `Trim to ${formatSize(size.width, size.height, unit)}`,
      lines: [
        `1. fore edge, ${formatLength(along, unit)} from the spine`,
        `2. ${first}, ${formatLength(inside, unit)} off`,
        `3. ${last}, ${formatLength(across, unit)} from the ${first}`,
      ],
    };
  },
  stack: ({ sheets, by, piles }) => ({
    does: {
      alike: `Lay alike pieces of ${sheetsOf(sheets)} together${sheets.length > 1 ? ', those of each sheet by themselves' : ''}`,
      sheets: `Lay the pieces on one pile: sheet after sheet, ${sheetsOf(sheets)}`,
      strips: `Lay the cut piles on one another, each with ${sheetsOf(sheets)}, the first sheet on top`,
    }[by],
    lines: piles.map(({ pile, name, strips = [], pieces }) => {
      if (by === 'alike')
        return `pile ${pile}${name ? `, ${name}` : ''}: ${plural(pieces, 'piece')} from each sheet`;
      const blank = sheets.length * strips.length - pieces;
      const rest = blank ? `; ${plural(blank, 'place')} at its end ${blank === 1 ? 'is' : 'are'} blank` : '';
      return `from the top: ${sayStrips(strips)}; ${plural(pieces, 'piece')}${rest}`;
    }),
  }),
  count: ({ products }, unit) => ({
    does: 'What comes out',
    lines: products.map(({ name, product, size, each, wanted }) =>
      [
        `${name ?? (products.length > 1 ? `Piece ${product}` : 'Piece')}: ${formatSize(size.width, size.height, unit)}`,
        wanted && `${wanted} wanted`,
        `${each} from each sheet, or set of sheets`,
      ]
        .filter(Boolean)
        .join(', '),
    ),
  }),
};

/** An operation as it is told on the ticket, under its number there. */
export const sayOperation = (operation: Operation, unit: Unit, number: string): Told =>
  (TELL[operation.kind] as (told: Operation, unit: Unit, number: string) => Told)(operation, unit, number);

/** Where the trim of folded sheets lies, those together that have it alike. */
function sayInside(sheets: OperationOf<'nest'>['sheets'], spine: Spine, unit: Unit): string[] {
  const alike = new Map<string, number[]>();
  for (const { sheet, inside } of sheets) {
    const said = formatLength(inside, unit);
    alike.set(said, [...(alike.get(said) ?? []), sheet]);
  }
  return [...alike].map(
    ([said, those]) => `The trim of ${sheetsOf(those)} lies ${said} inside the ${JOGGED[spine]}.`,
  );
}

/** One fold as an operator is told it: `upright, 100 mm from the left: left part under`. */
export function sayFold({ axis, at, moves, goes, layers, there }: FoldOperation, unit: Unit): string {
  const part = { left: 'left', right: 'right', head: 'upper', foot: 'lower' }[moves];
  const where = axis === 'vertical' ? 'upright' : 'level';
  const from = axis === 'vertical' ? 'the left' : 'the foot';
  return `${where}, ${formatLength(at, unit)} from ${from}: ${part} part ${goes}${layers < there ? `, ${layers} of ${there} layers` : layers > 1 ? `, ${layers} layers` : ''}`;
}

/** Cuts in a line for each way that paper lies under the knife; strips that are cut alike once. */
function sayCuts(cuts: readonly CutOperation[], unit: Unit): string[] {
  const lines: CutOperation[][] = [];
  for (const cut of cuts) {
    const last = lines.at(-1);
    if (last && firstOf(last).strips === cut.strips && firstOf(last).axis === cut.axis && !lastOf(last).rest)
      last.push(cut);
    else lines.push([cut]);
  }
  return lines.map((line) => {
    const { number, axis, paper, strips } = firstOf(line);
    const places = line
      .map(({ at, off }) => (off === 'waste' ? `(${formatFigure(at, unit)})` : formatFigure(at, unit)))
      .join(' · ');
    const rest = lastOf(line).rest === 'piece' ? ' and what is left' : '';
    const numbers = line.length > 1 ? `${number}–${number + line.length - 1}` : `${number}`;
    return `cut ${numbers}: ${sayStrips(strips)}, ${formatSize(paper.width, paper.height, unit)}, from the ${axis === 'vertical' ? 'left' : 'foot'}: ${places} ${UNIT_SIGN[unit]}${rest}`;
  });
}

/** What comes of each piece, those together that are laid alike. */
function sayPieces(pieces: readonly CutPiece[], unit: Unit): string[] {
  const alike = new Map<string, string[]>();
  for (const { strip, size, pile, turn, over } of pieces) {
    const how = [turn && TURNED[turn], over && 'turned over from side to side'].filter(Boolean);
    const said = `${formatSize(size.width, size.height, unit)} on pile ${pile}${how.length ? `, ${how.join(', then ')}` : ''}`;
    alike.set(said, [...(alike.get(said) ?? []), strip]);
  }
  return [...alike].map(
    ([said, strips]) => `${plural(strips.length, 'piece')}, ${sayStrips(strips)}: ${said}`,
  );
}

/** Strips by their names: `the sheet`, `strips 1-4`, `strip 2.1`. */
export function sayStrips(strips: readonly string[]): string {
  if (strips.every((name) => !name)) return 'the sheet';
  const whole = strips.every((name) => /^\d+$/.test(name));
  return `${strips.length > 1 ? 'strips' : 'strip'} ${whole ? runs(strips.map(Number)) : strips.join(', ')}`;
}

/** A fold where it lies on a sheet: its number, and whether it closes over the face that is seen or away from it. */
export const sayCrease = ({ fold, way }: Crease): string => `${fold + 1} ${way}`;

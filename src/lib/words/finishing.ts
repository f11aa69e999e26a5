import { spoken, t } from './language';
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
export const PLACE_NAME: Record<Place, string> = spoken({
  press: 'At the press',
  guillotine: 'At the guillotine',
  folder: 'At the folder',
  bindery: 'In the bindery',
});

/** Numbers from 1 in words: `1-4, 6`. */
export const runs = (numbers: readonly number[]): string =>
  describeIndexes(numbers.map((number) => number - 1));
const sheetsOf = (sheets: readonly number[]): string =>
  `${sheets.length > 1 ? t`sheets` : t`sheet`} ${runs(sheets)}`;
const TURNED = spoken({
  90: 'turned by a quarter clockwise',
  180: 'turned by a half',
  270: 'turned by a quarter anticlockwise',
} as const);
/** Sheets in the order in which they are laid. */
const listed = (sheets: readonly { sheet: number }[]): string => sheets.map(({ sheet }) => sheet).join(', ');
const SPINE_AT: Record<Spine, string> = spoken({
  left: 'at the left',
  right: 'at the right',
  head: 'at the head',
});
/** The edge at which folded sheets are jogged. */
const JOGGED: Record<Spine, string> = spoken({ left: 'head', right: 'head', head: 'left edge' });
const ENDS: Record<Spine, readonly [string, string]> = spoken({
  left: ['head', 'foot'],
  right: ['head', 'foot'],
  head: ['left edge', 'right edge'],
});
const COVER_NAME: Record<OperationOf<'cover'>['parts'][number]['part'], string> = spoken({
  'back-flap': 'back flap',
  back: 'back',
  spine: 'spine',
  front: 'front',
  'front-flap': 'front flap',
});
export const coverPartName = (part: keyof typeof COVER_NAME): string => COVER_NAME[part];

/** One operation; `number` is its own on the ticket. */
type Tell = { [Kind in Operation['kind']]: (told: OperationOf<Kind>, unit: Unit, number: string) => Told };
const TELL: Tell = {
  print: ({ sheets, paper, sides, work, turns, gripper, each }, unit) => ({
    does: t`Print ${sheetsOf(sheets)} on ${sides === 2 ? t`both sides` : t`one side`}`,
    lines: [
      [
        t`Paper ${formatSize(paper.width, paper.height, unit)}`,
        paper.grammage && t`${paper.grammage} g/m²`,
        paper.caliper && t`${formatLength(paper.caliper, unit)} thick`,
        paper.grain && t`${paper.grain} grain`,
        gripper && t`gripper edge at the foot, ${formatLength(gripper, unit)}`,
      ]
        .filter(Boolean)
        .join(', '),
      sides === 1
        ? t`The back stays white.`
        : t`${WORK_STYLE_NAME[work]}, turned over ${turns === 'vertical' ? t`from side to side` : t`from head to foot`}`,
      each
        ? t`${each.net} + ${each.overs} overs = ${each.total} of each sheet${sheets.length > 1 ? t`, ${each.total * sheets.length} in all` : ''}`
        : t`No quantity is given.`,
    ],
  }),
  cut: ({ sheets, cuts, pieces }, unit) => ({
    does: t`Cut ${sheetsOf(sheets)}, front up, waste in brackets`,
    lines: [...sayCuts(cuts, unit), ...sayPieces(pieces, unit)],
  }),
  'cut-out': ({ sheets, pieces }, unit) => ({
    does: t`Cut out of ${sheetsOf(sheets)}: no cut goes right through between the pieces`,
    lines: [
      ...pieces.map(
        ({ strip, x, y, size }) =>
          t`piece ${strip}: ${formatSize(size.width, size.height, unit)}, ${formatLength(x, unit)} from the left, ${formatLength(y, unit)} from the foot`,
      ),
      ...sayPieces(pieces, unit),
    ],
  }),
  fold: ({ sheets, pile, size, folds, turn, closed }, unit, number) => ({
    does: t`Fold ${pile === undefined ? sheetsOf(sheets) : t`the pieces of pile ${pile} of ${sheetsOf(sheets)}`}, ${formatSize(size.width, size.height, unit)}, front up`,
    lines: folds.length
      ? [
          ...folds.map((fold) => `${number}.${fold.number} ${sayFold(fold, unit)}`),
          t`${turn ? t`Then it is ${TURNED[turn]}. ` : ''}Folded it is ${formatSize(closed.width, closed.height, unit)}.`,
        ]
      : [t`Paper cannot be folded so: see the findings.`],
  }),
  'tip-in': ({ sheet, after, inside, from, spine }, unit) => ({
    does: t`Tip in sheet ${sheet} ${after ? t`after leaf ${after}` : t`before the first leaf`}`,
    lines: [
      t`Its spine edge ${formatLength(from, unit)} from the fold of the others, its trim ${formatLength(inside, unit)} inside its ${JOGGED[spine]}.`,
    ],
  }),
  nest: ({ sheets, spine }, unit) => ({
    does:
      sheets.length > 1
        ? t`Nest sheets ${listed(sheets)}: each inside the one before`
        : t`Nest sheet ${listed(sheets)}: it is the only one`,
    lines: [t`Spines together, ${SPINE_AT[spine]}.`, ...sayInside(sheets, spine, unit)],
  }),
  gather: ({ sheets, spine }, unit) => ({
    does:
      sheets.length > 1
        ? t`Gather sheets ${listed(sheets)}: the first on top`
        : t`Gather ${sheets.length ? t`sheet ${listed(sheets)}: it is the only one` : t`no folded sheets: the block is of leaves`}`,
    lines: [t`Spines together, ${SPINE_AT[spine]}.`, ...sayInside(sheets, spine, unit)],
  }),
  bind: ({ how, spine, roughing }, unit) => ({
    does: {
      stitch: t`Wire-stitch through the fold, ${SPINE_AT[spine]}`,
      glue: t`Take ${formatLength(roughing, unit)} off the spine, ${SPINE_AT[spine]}, roughen it and glue it`,
      sew: t`Sew through the folds, ${SPINE_AT[spine]}`,
    }[how],
    lines: how === 'sew' && roughing ? [t`Take ${formatLength(roughing, unit)} off the spine.`] : [],
  }),
  cover: ({ sheet, parts, creases, spine, inside }, unit) => ({
    does: t`Cover: crease sheet ${sheet}, outside up, and glue the block into its spine`,
    lines: [
      t`Creases from the ${spine === 'head' ? t`foot` : t`left`}: ${creases.map((at) => formatFigure(at, unit)).join(' · ')} ${UNIT_SIGN[unit]}`,
      `${parts.map(({ part, length }) => `${COVER_NAME[part]} ${formatFigure(length, unit)}`).join(' · ')} ${UNIT_SIGN[unit]}`,
      t`Its trim lies ${formatLength(inside, unit)} inside its ${JOGGED[spine]}.`,
      ...(parts.some(({ part }) => part.endsWith('flap')) ? [t`Fold the flaps in once it is trimmed.`] : []),
    ],
  }),
  trim: ({ spine, size, inside }, unit) => {
    const [along, across] = spine === 'head' ? [size.height, size.width] : [size.width, size.height];
    const [first, last] = ENDS[spine];
    return {
      does: t`Trim to ${formatSize(size.width, size.height, unit)}`,
      lines: [
        t`1. fore edge, ${formatLength(along, unit)} from the spine`,
        t`2. ${first}, ${formatLength(inside, unit)} off`,
        t`3. ${last}, ${formatLength(across, unit)} from the ${first}`,
      ],
    };
  },
  stack: ({ sheets, by, piles }) => ({
    does: {
      alike: t`Lay alike pieces of ${sheetsOf(sheets)} together${sheets.length > 1 ? t`, those of each sheet by themselves` : ''}`,
      sheets: t`Lay the pieces on one pile: sheet after sheet, ${sheetsOf(sheets)}`,
      strips: t`Lay the cut piles on one another, each with ${sheetsOf(sheets)}, the first sheet on top`,
    }[by],
    lines: piles.map(({ pile, name, strips = [], pieces }) => {
      if (by === 'alike')
        return t`pile ${pile}${name ? `, ${name}` : ''}: ${plural(pieces, 'piece')} from each sheet`;
      const blank = sheets.length * strips.length - pieces;
      const rest = blank
        ? t`; ${plural(blank, 'place')} at its end ${blank === 1 ? t`is` : t`are`} blank`
        : '';
      return t`from the top: ${sayStrips(strips)}; ${plural(pieces, 'piece')}${rest}`;
    }),
  }),
  count: ({ products }, unit) => ({
    does: t`What comes out`,
    lines: products.map(({ name, product, size, each, wanted }) =>
      [
        `${name ?? (products.length > 1 ? t`Piece ${product}` : t`Piece`)}: ${formatSize(size.width, size.height, unit)}`,
        wanted && t`${wanted} wanted`,
        t`${each} from each sheet, or set of sheets`,
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
    ([said, those]) => t`The trim of ${sheetsOf(those)} lies ${said} inside the ${JOGGED[spine]}.`,
  );
}

/** One fold as an operator is told it: `upright, 100 mm from the left: left part under`. */
export function sayFold({ axis, at, moves, goes, layers, there }: FoldOperation, unit: Unit): string {
  const part = { left: t`left`, right: t`right`, head: t`upper`, foot: t`lower` }[moves];
  const where = axis === 'vertical' ? t`upright` : t`level`;
  const from = axis === 'vertical' ? t`the left` : t`the foot`;
  return t`${where}, ${formatLength(at, unit)} from ${from}: ${part} part ${goes}${layers < there ? t`, ${layers} of ${there} layers` : layers > 1 ? t`, ${layers} layers` : ''}`;
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
    const rest = lastOf(line).rest === 'piece' ? t` and what is left` : '';
    const numbers = line.length > 1 ? `${number}–${number + line.length - 1}` : `${number}`;
    return t`cut ${numbers}: ${sayStrips(strips)}, ${formatSize(paper.width, paper.height, unit)}, from the ${axis === 'vertical' ? t`left` : t`foot`}: ${places} ${UNIT_SIGN[unit]}${rest}`;
  });
}

/** What comes of each piece, those together that are laid alike. */
function sayPieces(pieces: readonly CutPiece[], unit: Unit): string[] {
  const alike = new Map<string, string[]>();
  for (const { strip, size, pile, turn, over } of pieces) {
    const how = [turn && TURNED[turn], over && t`turned over from side to side`].filter(Boolean);
    const said = t`${formatSize(size.width, size.height, unit)} on pile ${pile}${how.length ? `, ${how.join(', then ')}` : ''}`;
    alike.set(said, [...(alike.get(said) ?? []), strip]);
  }
  return [...alike].map(
    ([said, strips]) => `${plural(strips.length, 'piece')}, ${sayStrips(strips)}: ${said}`,
  );
}

/** Strips by their names: `the sheet`, `strips 1-4`, `strip 2.1`. */
export function sayStrips(strips: readonly string[]): string {
  if (strips.every((name) => !name)) return t`the sheet`;
  const whole = strips.every((name) => /^\d+$/.test(name));
  return `${strips.length > 1 ? t`strips` : t`strip`} ${whole ? runs(strips.map(Number)) : strips.join(', ')}`;
}

/** A fold where it lies on a sheet: its number, and whether it closes over the face that is seen or away from it. */
export const sayCrease = ({ fold, way }: Crease): string => `${fold + 1} ${way}`;

import * as z from 'zod';
import { patternSchema } from '../fold/patterns';
import { distance, lengthWithin, pageLength } from '../measure/lengthSchema';
import { mm } from '../measure/unit';
import { colourSchema } from '../surface/colour';
import { stockSchema } from '../paper/stock';
import { sizeByName } from '../paper/sizes';

const count = (most: number) => z.number().int().min(1).max(most);

export const WORK_STYLES = ['sheetwise', 'work-and-turn', 'work-and-tumble', 'single-side'] as const;
export type WorkStyle = (typeof WORK_STYLES)[number];
export const LAYS = ['centre', 'left', 'right'] as const;

/** How large marks may be, from the least to the most, in points: by what can be printed and what a margin holds. */
export const MARK_LIMITS = { length: [mm(1), mm(30)], offset: [0, mm(30)], weight: [0.05, 4] } as const;
/** A panel that is narrower by more than this is another panel. */
export const MOST_ALLOWANCE = mm(20);
/** A leaf thicker than this does not fold. */
export const MOST_FOLDED = mm(2);
/** Sheets more for setting up and spoilage, in per cent, by practice. */
export const PLAIN_OVERS = 3;

/** Printer's marks, each kind on or off; lengths in points. */
const marksSchema = z.object({
  trim: z.boolean(),
  fold: z.boolean(),
  centre: z.boolean().optional(),
  registration: z.boolean().optional(),
  bar: z.boolean().optional(),
  /** Where to cut and to fold, as paths on layers of their own that neither show nor print: for a cutter or a creaser. */
  paths: z.boolean().optional(),
  /** What the slug line says, with tokens; none where it is left out. */
  slug: z.string().max(300).optional(),
  /** What `{date}` stands for: a day as YYYY-MM-DD. */
  date: z.iso.date().optional(),
  length: lengthWithin(MARK_LIMITS.length).optional(),
  /** Their least distance from the trim; they keep clear of the bleed all the same. */
  offset: lengthWithin(MARK_LIMITS.offset).optional(),
  weight: lengthWithin(MARK_LIMITS.weight).optional(),
});
export type MarkSettings = z.infer<typeof marksSchema>;

const copiesSchema = z.union([z.literal('most'), z.object({ across: count(100), up: count(100) })]);

/** A cell by its number on a side, row by row from the head, as the sheet map counts them; all from 1. */
const cellAtSchema = z.object({
  sheet: z.number().int().min(1).max(100_000),
  side: z.enum(['front', 'back']),
  cell: z.number().int().min(1).max(10_000),
});
export type CellAt = z.infer<typeof cellAtSchema>;

/** A change to what the scheme put in a cell. */
const byHandSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('turn'), at: cellAtSchema }),
  z.object({ do: z.literal('leave-out'), at: cellAtSchema }),
  z.object({ do: z.literal('swap'), at: cellAtSchema, with: cellAtSchema }),
]);
export type ByHand = z.infer<typeof byHandSchema>;

/** What all schemes say of the sheet and of how it goes through the press. */
const pressFields = {
  /** The paper, in either orientation; it is laid so that the piece fits. */
  stock: stockSchema,
  /** Edge on which the press or duplexer turns the sheet. */
  turn: z.enum(['short-edge', 'long-edge']),
  work: z.enum(WORK_STYLES).optional(),
  /** The strip at the sheet's foot that the press holds: nothing is printed there. */
  gripper: distance.optional(),
  /** Where the work lies: in the middle, or at a side of the sheet and its gripper edge. */
  lay: z.enum(LAYS).optional(),
  /** The whole work turned clockwise on the sheet. */
  turned: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).optional(),
  /** How many of the piece lie on a sheet: side by side and one above the other, or as many as fit. One where left out. */
  copies: copiesSchema.optional(),
  /** Between copies, from trim to trim. */
  between: distance.optional(),
  /** How many finished pieces are wanted (left out where they say so themselves), and sheets more for setting up and for spoilage, in per cent. */
  run: z
    .object({
      pieces: z.number().int().min(1).max(10_000_000).optional(),
      overs: z.number().min(0).max(100),
    })
    .optional(),
  marks: marksSchema,
  /** Cells changed by hand, one after another. */
  byHand: z.array(byHandSchema).max(500).optional(),
};

/** Inner leaves are moved towards the spine, or made narrower, by the paper's thickness (from the stock, or as given). */
const creepSchema = z.object({
  by: z.enum(['shift', 'scale']),
  caliper: lengthWithin([0, MOST_FOLDED]).optional(),
});

/** How pages go on sheets. *Stitched*: folded sheets nested in each other, wire-stitched through the fold. Lengths in points. */
export const stitchedSchema = z.object({
  kind: z.literal('stitched'),
  ...pressFields,
  /** Space between the two pages at the fold, half on each side. */
  gap: distance,
  /** Where blanks go that fill the last sheet. */
  pad: z.enum(['before-last', 'end']),
  /** Pages a folded sheet has. */
  signature: z.union([z.literal(4), z.literal(8), z.literal(16), z.literal(32)]).optional(),
  /** Off the head, foot and fore edge of a sheet folded more than once. */
  cutOff: distance.optional(),
  creep: creepSchema.optional(),
});
export type Stitched = z.infer<typeof stitchedSchema>;

/** How large the text on a spine may be and is where nothing is said, in points. */
export const SPINE_TEXT = { least: 4, most: 72, plain: 11 } as const;
const SPINE_WAYS = ['down', 'up'] as const;

/** The cover of a bound book: back, spine and front side by side, with flaps beyond them; lengths in points. */
const coverSchema = z.object({
  stock: stockSchema,
  /** Added to the thickness of the leaves: boards, glue. */
  added: distance,
  /** The spine's width, where it is not to be worked out. */
  spine: distance.optional(),
  /** How far the cover reaches beyond the fore edges, to be folded in; none where left out. */
  flap: distance.optional(),
  /** What is printed in the middle of the spine, reading from its head or from its foot. */
  text: z.string().max(200).optional(),
  textSize: lengthWithin([SPINE_TEXT.least, SPINE_TEXT.most]).optional(),
  /** Black where left out. */
  ink: colourSchema.optional(),
  runs: z.enum(SPINE_WAYS),
  copies: copiesSchema.optional(),
});
export type CoverScheme = z.infer<typeof coverSchema>;

/** *Signatures*: folded sheets gathered one after another, glued or sewn. */
export const signaturesSchema = z.object({
  kind: z.literal('signatures'),
  ...pressFields,
  signature: z.union([z.literal(4), z.literal(8), z.literal(16), z.literal(32)]),
  /** What is left for the last signature makes smaller ones, or is filled up with blanks. */
  last: z.enum(['smaller', 'blanks']),
  pad: z.enum(['before-last', 'end']),
  /** Taken off the spine of a glued book, on each page. */
  roughing: distance,
  cutOff: distance,
  /** Bars that step down the spines, so that a signature out of order shows. */
  collating: z.boolean(),
  creep: creepSchema.optional(),
  /** What the thread of a sewn book adds between one signature and the next. */
  thread: distance.optional(),
  /** How a cover is printed, where the book has one; as PLAIN_COVER where left out. */
  cover: coverSchema.optional(),
});
export type Signatures = z.infer<typeof signaturesSchema>;

/** *Leaflet*: one sheet folded in any way; pages are its two whole sides, or single panels. */
export const leafletSchema = z.object({
  kind: z.literal('leaflet'),
  ...pressFields,
  pattern: patternSchema,
  pages: z.enum(['sides', 'panels']),
  /** Which side of the folded piece the first pages are: the front of the sheet is its outside. */
  first: z.enum(['outside', 'inside']).optional(),
  /** The panels' widths from the left of the front, where they are not to be worked out. */
  widths: z.array(pageLength).max(16).optional(),
  /** How much narrower a panel is made because it folds inside another. */
  allowance: lengthWithin([0, MOST_ALLOWANCE]),
});
export type Leaflet = z.infer<typeof leafletSchema>;

export const RUNS_OF_CELLS = ['across', 'down', 'snake'] as const;
export const START_CORNERS = ['head-left', 'head-right', 'foot-left', 'foot-right'] as const;

/**
 * *Flat*: pieces side by side, cut apart. *repeat*: a sheet for each piece, all its cells alike. *sequence*: piece after piece
 * from cell to cell. *stack*: piles of cut sheets, laid on one another, are in order. *gang*: pieces by the amounts wanted.
 */
export const flatSchema = z.object({
  kind: z.literal('flat'),
  ...pressFields,
  arrange: z.enum(['repeat', 'sequence', 'stack', 'gang']),
  goes: z.enum(RUNS_OF_CELLS),
  start: z.enum(START_CORNERS),
});
export type Flat = z.infer<typeof flatSchema>;

/** *Reader spreads*: facing pages side by side, for a screen or a proof. *Single*: each page by itself, with marks. */
export const spreadsSchema = z.object({ kind: z.literal('spreads'), marks: marksSchema });
export const singleSchema = z.object({ kind: z.literal('single'), marks: marksSchema });

export const schemeSchema = z.discriminatedUnion('kind', [
  stitchedSchema,
  signaturesSchema,
  leafletSchema,
  flatSchema,
  spreadsSchema,
  singleSchema,
  /** A job whose pages go on no sheets here: separate pieces, or files for a screen. */
  z.object({ kind: z.literal('none') }),
]);
export type Scheme = z.infer<typeof schemeSchema>;
/** A scheme whose pages go through a press on stock. */
export type PressScheme = Extract<Scheme, { stock: object }>;
/** What such schemes have in common. */
export type Press = Pick<
  PressScheme,
  'stock' | 'turn' | 'work' | 'gripper' | 'lay' | 'turned' | 'copies' | 'between' | 'run' | 'marks' | 'byHand'
>;

const sra3 = sizeByName('SRA3')!;
const PLAIN: Press = {
  stock: { width: sra3.width, height: sra3.height },
  turn: 'short-edge',
  marks: { trim: true, fold: true },
};
/** 3 mm, by practice: what is cut off at head, foot and fore edge, and taken off the spine of a glued book. */
const CUT_OFF = mm(3);

/** Every kind of scheme as it begins. */
export const PLAIN_SCHEMES = {
  stitched: { ...PLAIN, kind: 'stitched', gap: 0, pad: 'before-last' },
  signatures: {
    ...PLAIN,
    kind: 'signatures',
    stock: { width: mm(640), height: mm(900) },
    signature: 16,
    last: 'smaller',
    pad: 'end',
    roughing: CUT_OFF,
    cutOff: CUT_OFF,
    collating: true,
  },
  leaflet: { ...PLAIN, kind: 'leaflet', pattern: { fold: 'letter' }, pages: 'sides', allowance: mm(2) },
  flat: {
    ...PLAIN,
    kind: 'flat',
    copies: 'most',
    between: mm(6),
    arrange: 'repeat',
    goes: 'across',
    start: 'head-left',
  },
  spreads: { kind: 'spreads', marks: { trim: true, fold: false } },
  single: { kind: 'single', marks: { trim: true, fold: false } },
  none: { kind: 'none' },
} as const satisfies { [Kind in Scheme['kind']]: Extract<Scheme, { kind: Kind }> };
export const PLAIN_COVER: CoverScheme = {
  stock: { width: sra3.width, height: sra3.height },
  added: 0,
  runs: 'down',
};
export const DEFAULT_SCHEME: Stitched = PLAIN_SCHEMES.stitched;

/** Printer's marks: each line's length and weight, and its least distance from the trim (it also keeps clear of the bleed). By practice. */
export const MARK_LENGTH = mm(5);
export const MARK_OFFSET = mm(3);
export const MARK_WEIGHT = 0.25;

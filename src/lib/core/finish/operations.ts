import * as z from 'zod';
import { WORK_STYLES } from '../sheets/pressTerms';

/*
 * The finishing plan: what is done to the printed sheets, in order, as an operator is told. It says nothing of what is printed
 * where. Lengths are in points; sheets, and the paper that lies before the operator, are measured from their left and from their
 * foot, front up unless said otherwise.
 */

export const FINISH_VERSION = 1;

const length = z.number().min(0);
const number = z.number().int().min(1);
const size = z.object({ width: length, height: length });
const axis = z.enum(['vertical', 'horizontal']);
/** Clockwise, in degrees. */
const turn = z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]);
/** Numbers of printed sheets, from 1, a cover's last. */
const sheets = z.array(number).min(1);
/** Where a piece is bound as it lies with its head up. */
const spine = z.enum(['left', 'right', 'head']);

/** Prints sheets on both sides or on one. Pages of the sheet PDF follow in the order of the sheets, front and back in turn. */
const print = z.object({
  kind: z.literal('print'),
  sheets,
  paper: size.extend({
    grammage: z.number().optional(),
    caliper: length.optional(),
    grain: z.enum(['long', 'short']).optional(),
  }),
  sides: z.union([z.literal(1), z.literal(2)]),
  work: z.enum(WORK_STYLES),
  /** The axis, as the front lies, about which the sheet is turned over. */
  turns: axis,
  /** At the foot of the sheet. */
  gripper: length.optional(),
  /** How many of each sheet: those that become pieces, those more for setting up and spoilage, and both. */
  each: z.object({ net: number, overs: z.number().int().min(0), total: number }).optional(),
});

const off = z.enum(['waste', 'piece']);
/** Cuts that are made alike on several strips: these go under the knife one on another, or one after another. */
export const cutOperationSchema = z.object({
  number,
  axis,
  /** What comes off before the knife, at the left or the foot; and, with the last of a run of cuts, what stays behind it. */
  off,
  rest: off.optional(),
  /** From the left of the paper under the knife, or from its foot. */
  at: length,
  /** The paper under the knife. */
  paper: size,
  /** Empty for the sheet; `3` for its third strip from the left or the foot, `3.2` for the second of that. */
  strips: z.array(z.string()),
});
export type CutOperation = z.infer<typeof cutOperationSchema>;

/** A piece that comes out of a sheet, as large as it lies there, and how it is laid on its pile: turned, then turned over from side to side. */
const cutPiece = z.object({
  strip: z.string(),
  size,
  /** Which of the piles it goes on. */
  pile: number,
  turn,
  over: z.literal(true).optional(),
});
export type CutPiece = z.infer<typeof cutPiece>;
const cut = z.object({
  kind: z.literal('cut'),
  sheets,
  cuts: z.array(cutOperationSchema),
  pieces: z.array(cutPiece),
});
/** Pieces that no through-cut parts: cut out singly, each from the lower left corner of its sheet. */
const cutOut = z.object({
  kind: z.literal('cut-out'),
  sheets,
  pieces: z.array(cutPiece.extend({ x: length, y: length })),
});

/** One fold, with the piece as it lies before it. */
export const foldOperationSchema = z.object({
  number,
  /** The fold is parallel to this axis. */
  axis,
  /** From the left edge of the piece as it lies, or from its foot. */
  at: length,
  piece: size,
  /** The part that moves. */
  moves: z.enum(['left', 'right', 'head', 'foot']),
  goes: z.enum(['over', 'under']),
  /** How many layers of paper move, counted from the side that they go to, and how many lie there. */
  layers: number,
  there: number,
});
export type FoldOperation = z.infer<typeof foldOperationSchema>;

/** Folds sheets, or the pieces of a pile cut out of them, and turns what comes out so that its head is up. */
const fold = z.object({
  kind: z.literal('fold'),
  sheets,
  pile: number.optional(),
  size,
  folds: z.array(foldOperationSchema),
  turn,
  closed: size,
});

/** A folded sheet as it is laid to others: the trim lies so far inside the edge at which the pieces are jogged. */
const laid = z.object({ sheet: number, inside: length });
/** Puts folded sheets one inside another, the outermost first: spines together, the trims in one line. */
const nest = z.object({ kind: z.literal('nest'), spine, sheets: z.array(laid).min(1) });
/** Puts folded sheets one after another, the first on top. */
const gather = z.object({ kind: z.literal('gather'), spine, sheets: z.array(laid) });
/** Glues a leaf with what folds out of it into the block, after so many of its leaves, at this distance from the fold of the others. */
const tipIn = z.object({
  kind: z.literal('tip-in'),
  spine,
  sheet: number,
  after: z.number().int().min(0),
  inside: length,
  from: length,
});
/** Stitches through the fold; or takes the spine off and glues; or sews. */
const bind = z.object({
  kind: z.literal('bind'),
  how: z.enum(['stitch', 'glue', 'sew']),
  spine,
  /** Taken off the spine. */
  roughing: length,
});
export const COVER_FACES = ['back-flap', 'back', 'spine', 'front', 'front-flap'] as const;
export type CoverFace = (typeof COVER_FACES)[number];
/** Creases a cover and glues it round the block; its trim lies so far inside its edges. */
const cover = z.object({
  kind: z.literal('cover'),
  sheet: number,
  spine,
  /** What lies side by side on the outside, from the left or from the foot, with its length; outermost ones to the trim. */
  parts: z.array(z.object({ part: z.enum(COVER_FACES), length })),
  creases: z.array(length),
  /** How far the trim lies inside the first edge and inside the one at which pieces are jogged. */
  before: length,
  inside: length,
});
/** Three knives: the fore edge, then both ends. What stays is so large; at the ends so much comes off first. */
const trim = z.object({ kind: z.literal('trim'), spine, size, inside: length });
/**
 * Lays pieces on a pile, the first on top: those of one sheet after another, or all sheets of one strip after another, in the
 * order of the strips; or the alike ones of each sheet on a pile of their own. Of a pile in order the last places may be blank.
 */
const stack = z.object({
  kind: z.literal('stack'),
  sheets,
  by: z.enum(['sheets', 'strips', 'alike']),
  piles: z
    .array(
      z.object({
        pile: number,
        name: z.string().optional(),
        /** Of a pile in order, from the top. */
        strips: z.array(z.string()).min(1).optional(),
        /** How many come from each sheet, or lie on a pile in order, that are no blanks. */
        pieces: number,
      }),
    )
    .min(1),
});
/** What comes out, how many of it one sheet of each kind gives, and how many are wanted. */
const count = z.object({
  kind: z.literal('count'),
  products: z.array(
    z.object({ product: number, name: z.string().optional(), size, each: number, wanted: number.optional() }),
  ),
});

/** Every operation, in the order in which a line makes them. */
export const OPERATIONS = [
  print,
  cut,
  cutOut,
  fold,
  tipIn,
  nest,
  gather,
  bind,
  cover,
  trim,
  stack,
  count,
] as const;
export const operationSchema = z.discriminatedUnion('kind', OPERATIONS);
export type Operation = z.infer<typeof operationSchema>;
export type OperationOf<Kind extends Operation['kind']> = Extract<Operation, { kind: Kind }>;

/** How what comes out is read: leaves bound at a spine, a folded piece by its sides or its panels, loose leaves. */
const made = z.object({
  reads: z.enum(['bound', 'sides', 'panels', 'leaves']),
  spine,
});

export const finishPlanSchema = z.object({
  version: z.literal(FINISH_VERSION),
  title: z.string(),
  made,
  operations: z.array(operationSchema),
});
export type FinishPlan = z.infer<typeof finishPlanSchema>;

/** The number of what comes out of a pile of pieces of a sheet: each sheet has one, or they all come from the same sheet. */
export const productOf = (sheet: number, pile: number): number => sheet + pile - 1;

/** Where operations are carried out, in the order of the work. */
export const PLACES = ['press', 'guillotine', 'folder', 'bindery'] as const;
export type Place = (typeof PLACES)[number];
/** Where each kind of operation is carried out; what comes out is counted by whoever hands it over. */
export const PLACE_OF: Record<Exclude<Operation['kind'], 'count'>, Place> = {
  print: 'press',
  cut: 'guillotine',
  'cut-out': 'guillotine',
  stack: 'guillotine',
  fold: 'folder',
  nest: 'bindery',
  gather: 'bindery',
  'tip-in': 'bindery',
  bind: 'bindery',
  cover: 'bindery',
  trim: 'bindery',
};

import { LAYS, WORK_STYLES, byHandSchema } from './pressTerms';
import * as z from 'zod';
import { distance, lengthWithin } from '../measure/lengthSchema';
import { mm } from '../measure/unit';
import { colourSchema } from '../ink/colour';
import { marksSchema } from './marks';
import { stockSchema } from '../paper/stock';
import { sizeByName } from '../paper/sizes';

const count = (most: number) => z.number().int().min(1).max(most);

/** A panel that is narrower by more than this is another panel. */
export const MOST_ALLOWANCE = mm(20);
/** A leaf thicker than this does not fold. */
export const MOST_FOLDED = mm(2);
/** Sheets more for setting up and spoilage, in per cent, by practice. */
export const PLAIN_OVERS = 3;

const copiesSchema = z.union([z.literal('most'), z.object({ across: count(100), up: count(100) })]);

/** What schemes say of the sheet and of how it goes through the press. */
export const pressFields = {
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
export const creepSchema = z.object({
  by: z.enum(['shift', 'scale']),
  caliper: lengthWithin([0, MOST_FOLDED]).optional(),
});

/** How large the text on a spine may be and is if nothing is said, in points. */
export const SPINE_TEXT = { least: 4, most: 72, plain: 11 } as const;
const SPINE_WAYS = ['down', 'up'] as const;

/** The cover of a bound book: back, spine and front side by side, with flaps beyond them; lengths in points. */
export const coverSchema = z.object({
  stock: stockSchema,
  /** Added to the thickness of the leaves: boards, glue. */
  added: distance,
  /** The spine's width, where it is not to be worked out. */
  spine: distance.optional(),
  /** How far the cover reaches beyond the fore edges, to be folded in; none if left out. */
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

export const RUNS_OF_CELLS = ['across', 'down', 'snake'] as const;
export const START_CORNERS = ['head-left', 'head-right', 'foot-left', 'foot-right'] as const;

/** How a sheet goes through the press. */
export type Press = z.infer<z.ZodObject<typeof pressFields>>;

const sra3 = sizeByName('SRA3')!;
/** Sheet and press as every scheme begins them. */
export const PLAIN_PRESS: Press = {
  stock: { width: sra3.width, height: sra3.height },
  turn: 'short-edge',
  marks: { trim: true, fold: true },
};
export const PLAIN_COVER: CoverScheme = {
  stock: { width: sra3.width, height: sra3.height },
  added: 0,
  runs: 'down',
};

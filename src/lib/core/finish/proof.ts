import * as z from 'zod';
import { TOLERANCES } from '../measure/tolerances';
import { mm } from '../measure/unit';
import { COVER_FACES } from './operations';

/*
 * The proof: every page of what a finishing line made out of the bytes that go to the press, held against the page that was
 * intended. Lengths in points.
 */

/**
 * A page may lie this far from its place and is right all the same: half of what machines keep to. Leaves inside others are pushed
 * out besides, and are right as long as they lie no further off than machines err.
 */
export const MOST_OFF = mm(0.5);
/** Whether a page lies too far off: further than it may, but for so much as the leaves around it push it, where machines err by as much. */
export function isOff(off: { x: number; y: number }, push: { x: number; y: number }): boolean {
  const far = ({ x, y }: { x: number; y: number }) => Math.max(Math.abs(x), Math.abs(y));
  if (far(off) <= MOST_OFF) return false;
  return far(off) > PLAIN_ERROR || far({ x: off.x - push.x, y: off.y - push.y }) > MOST_OFF;
}

/** So much of what is cut off at the fore edge is of a leaf that others push out, where machines err by as much. */
export const cutByPush = (cut: number, pushed = 0): number =>
  pushed <= PLAIN_ERROR ? Math.min(Math.max(0, cut), pushed) : 0;

/** Dots an inch at which pages are compared, if nothing is said. */
export const PLAIN_PROOF_PPI = 72;
/** Inner leaves may be made narrower instead of moved, so that they end at the spine: by no more than this. */
export const MOST_NARROWED = mm(4);
/** Content is looked for this far from its place. */
export const FARTHEST = mm(6);

const face = z.enum(['front', 'back']);
const at = z.union([
  z.object({ leaf: z.number().int(), panel: z.number().int().optional(), face }),
  z.object({ cover: z.enum(COVER_FACES), face }),
]);
const box = z.object({ x0: z.number(), y0: z.number(), x1: z.number(), y1: z.number() });
const shift = z.object({ x: z.number(), y: z.number() });
const edges = z.object({ left: z.number(), right: z.number(), head: z.number(), foot: z.number() });

/** What was found of a page: right, or how it is wrong. */
export const verdictSchema = z.discriminatedUnion('is', [
  /** As intended, so far from its place, to the right and upwards. */
  z.object({ is: z.literal('same'), by: shift }),
  z.object({ is: z.literal('shifted'), by: shift }),
  /** Turned clockwise. */
  z.object({ is: z.literal('turned'), turn: z.union([z.literal(90), z.literal(180), z.literal(270)]) }),
  z.object({ is: z.literal('mirrored') }),
  /** Another page of the job is met, by its place among those intended, from 0. */
  z.object({ is: z.literal('other'), page: z.number().int(), turn: z.union([z.literal(0), z.literal(180)]) }),
  /** White paper. */
  z.object({ is: z.literal('missing') }),
  /** So much of it was cut off at its edges. */
  z.object({ is: z.literal('cut'), by: edges }),
  /** White paper shows beside it at its edges. */
  z.object({ is: z.literal('white'), by: edges }),
  /** Something else is met, where on the page. */
  z.object({ is: z.literal('different'), where: box }),
  /** The finished piece has no such page. */
  z.object({ is: z.literal('absent') }),
]);
export type Verdict = z.infer<typeof verdictSchema>;

export const pageVerdictSchema = z.object({
  /** The product and the copy of it, from 1, as the line gives them; and the page among those intended, from 0. */
  product: z.number().int(),
  copy: z.number().int(),
  page: z.number().int(),
  at: at.optional(),
  /** Where it was printed. */
  sheet: z.number().int().optional(),
  face: face.optional(),
  verdict: verdictSchema,
});
export type PageVerdict = z.infer<typeof pageVerdictSchema>;

/** What a knife is taken to err by at most, if nothing is said: what guillotines and binding machines keep to. */
export const PLAIN_ERROR = TOLERANCES.machine;
/** Further than this from an edge nothing is looked for. */
export const EDGE_REACH = mm(8);

/** How much error an edge of a page stands, in points: nothing where no error of up to `EDGE_REACH` does harm. */
export const edgeSchema = z.object({
  product: z.number().int(),
  copy: z.number().int(),
  page: z.number().int(),
  edge: z.enum(['left', 'right', 'head', 'foot']),
  /** Until white paper shows, if the cut falls outside its line. */
  white: z.number().optional(),
  /** Until something that stands clear of the edge is cut into, if it falls inside. */
  cut: z.number().optional(),
});
export type Edge = z.infer<typeof edgeSchema>;

/** How much error an edge stands before either. */
export const standsOf = ({ white = Infinity, cut = Infinity }: Edge): number => Math.min(white, cut);

export const proofSchema = z.object({
  version: z.literal(1),
  /** Dots an inch at which pages were compared. */
  ppi: z.number(),
  pages: z.array(pageVerdictSchema),
  /** The edges that are cut, the weakest first, if these were asked for. */
  edges: z.array(edgeSchema).optional(),
  /** Leaves that do not open, by the product, the copy and their places, from 0. */
  joined: z.array(
    z.object({ product: z.number(), copy: z.number(), leaves: z.tuple([z.number(), z.number()]) }),
  ),
  /** Leaves from which something that folds out was cut off, from 0. */
  cutOff: z.array(z.object({ product: z.number(), copy: z.number(), leaf: z.number() })),
  /** How many sides the press was given, and how many the plan prints. */
  sides: z.object({ given: z.number(), planned: z.number() }),
});
export type Proof = z.infer<typeof proofSchema>;

/** Something that is wrong with what came out. */
export interface NamedWrong {
  says: string;
  /** Ids of the page that should be there, and of the one that is met. */
  pages: readonly string[];
  /** Where it was printed. */
  sheet?: number;
  face?: 'front' | 'back';
  /** What was intended, what was met, and the difference, side by side: a PNG as a data URL. */
  picture?: string;
}

/** An edge of a finished page by the page's name; see `Edge`. */
export interface NamedEdge extends Pick<Edge, 'edge' | 'white' | 'cut'> {
  name: string;
  pages: readonly string[];
}

/** What a proof comes to: how many pages were compared, how many are wrong, and how many edges stand less than they should. */
export interface Outcome {
  holds: boolean;
  pages: number;
  wrong: number;
  weak: number;
  /** What is wrong: the first ones. */
  named: readonly NamedWrong[];
  /** The weakest edges, and what knives are taken to err by, where edges were measured. */
  weakest?: { error: number; edges: readonly NamedEdge[] };
}

/** A proof as it stands on a ticket: what it came to, of which revision of the job, and when (ISO 8601). */
export interface Proved {
  outcome: Pick<Outcome, 'holds' | 'pages' | 'wrong' | 'weak'>;
  revision?: number;
  at: string;
}

/** Whether a proof holds: something came out, every page is as intended, every leaf opens and keeps what folds out, and no side is left over. */
export const holds = ({ pages, joined, cutOff, sides }: Proof): boolean =>
  pages.length > 0 &&
  !joined.length &&
  !cutOff.length &&
  sides.given === sides.planned &&
  pages.every(({ verdict }) => verdict.is === 'same');

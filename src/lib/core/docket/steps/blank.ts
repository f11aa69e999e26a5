import * as z from 'zod';
import { indexOfPlace, insertPages, placeSchema } from '../../select/place';
import { frontSide } from '../../pages/page';
import type { Page, Side } from '../../model/page';
import { mm } from '../../measure/unit';
import { defineStep } from '../stepKind';
import { bleedEdges, marginsSchema, sizeSchema } from '../shapes';
import { stepBase } from './base';
import { formatted } from './format';
import { withMargins } from './margins';

/** How blank pages look that are not like their neighbour. */
export const blankShapeSchema = z.object({
  ...sizeSchema.shape,
  bleed: z.object(bleedEdges),
  margins: marginsSchema.optional(),
});
export type BlankShape = z.infer<typeof blankShapeSchema>;

/** Letters that the shipped faces have. */
const WESTERN = /^[\u0020-\u007e\u00a0-\u00ff\u2013\u2014\u2018-\u201e\u2026\u20ac]*$/;
/** What blanks say, where they say anything. By practice. */
export const LEFT_BLANK = 'This page intentionally left blank';

/** The shape of the first blank pages of a job with nothing in it. */
export const A4_SHAPE: BlankShape = {
  width: mm(210),
  height: mm(297),
  bleed: { head: 0, foot: 0, spine: 0, fore: 0 },
};

/** Puts blank pages in, of a given shape, else of the size, bleed and margins of their neighbour; A4 without bleed where the list is empty. */
export const blank = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('blank'),
    count: z.number().int().min(1).max(2000),
    where: placeSchema,
    shape: blankShapeSchema.optional(),
    /** Id of a format of the docket that the new pages get; that of a neighbour that they are like where missing, and none for false. */
    format: z.union([z.string().min(1).max(64), z.literal(false)]).optional(),
    /** Words in the middle of each, in letters of western Europe. */
    words: z.string().trim().min(1).max(120).regex(WESTERN).optional(),
  }),
)({
  kind: 'blank',
  on: 'pages',
  key: 'n',
  button: true,
  fresh: ({ list, chosen }) => ({
    kind: 'blank',
    count: list.pages.length ? 1 : 4,
    where: chosen ? { at: 'after', pages: chosen } : { at: 'end' },
    ...(list.pages.length ? {} : { shape: A4_SHAPE }),
  }),
  possible: () => true,
  apply(list, step, { formats }) {
    const index = indexOfPlace(step.where, list);
    const beside = step.where.at === 'before' || index === 0 ? list.pages[index] : list.pages[index - 1];
    const look =
      step.shape || !beside ? shaped(step.shape ?? A4_SHAPE, frontSide(list.book)) : likeNeighbour(beside);
    const { format: _, ...loose } = look;
    const pages = Array.from({ length: step.count }, (_, n): Page => ({
      ...(step.format === false ? loose : look),
      id: `${step.id}:${n + 1}`,
      ...(step.words ? { words: step.words } : {}),
    }));
    return insertPages(list, index, formatted(pages, step.format || undefined, formats, list.book));
  },
});

const shaped = ({ width, height, bleed, margins }: BlankShape, side: Side): Omit<Page, 'id'> => {
  const page: Page = { id: '', trim: { width, height }, bleed: { by: 'edge' as const, ...bleed } };
  return margins ? withMargins(page, margins, side) : page;
};

const likeNeighbour = ({ trim, bleed, margins, columns, format, piece }: Page): Omit<Page, 'id'> => ({
  trim,
  bleed,
  ...(margins ? { margins } : {}),
  ...(columns ? { columns } : {}),
  ...(format ? { format } : {}),
  ...(piece ? { piece } : {}),
});

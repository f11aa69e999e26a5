import * as z from 'zod';
import { mm } from '../../measure/unit';
import { lengthWithin, MOST_POINTS } from '../../measure/lengthSchema';
import type { Size } from '../../measure/box';
import { placingSchema, type Laid } from '../../model/laid';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { stepBase } from './base';
import type { PageList } from '../../model/page';
import type { Surveys } from '../../model/survey';
import {
  fileOf,
  graphicFileSchema,
  graphicOf,
  graphicSchema,
  inItsFile,
  layOn,
  type Graphic,
} from './graphic';

const side = lengthWithin([0.1, MOST_POINTS]);
/** How large a stamp is: a share of its real size, or its width or height in points, the other following. */
export const stampSizeSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('scale'), scale: z.number().min(0.001).max(1000) }),
  z.object({ by: z.literal('width'), width: side }),
  z.object({ by: z.literal('height'), height: side }),
]);
export type StampSize = z.infer<typeof stampSizeSchema>;

/** The scale that gives a graphic its size. */
export function scaleOf(wanted: StampSize, { width, height }: Size): number {
  if (wanted.by === 'scale') return wanted.scale;
  return wanted.by === 'width' ? wanted.width / width : wanted.height / height;
}

const settings = {
  size: stampSizeSchema,
  placing: placingSchema,
  opacity: z.number().min(0).max(1),
  behind: z.literal(true).optional(),
};
/** A stamp as it is kept for other jobs: a file, and how it is put on pages. */
export const keptStampSchema = z.object({ graphic: graphicFileSchema, ...settings });
export type KeptStamp = z.infer<typeof keptStampSchema>;

/**
 * A stamp of a step as it can be kept for other jobs, an object of this one by the file that it came in. `nameOf` gives the
 * name of a file. Undefined where it cannot be kept. Throws SelectionError.
 */
export function keptStamp(
  { graphic, size, placing, opacity, behind }: Omit<KeptStamp, 'graphic'> & { graphic: Graphic },
  list: PageList,
  surveys: Surveys,
  nameOf: (source: string) => string | undefined,
): KeptStamp | undefined {
  const own = inItsFile(graphic, list, surveys, nameOf);
  if (!own) return undefined;
  const kept = keptStampSchema.safeParse({
    graphic: own.graphic,
    // As large as it is here.
    size: size.by === 'scale' ? { ...size, scale: size.scale / own.scale } : size,
    placing,
    opacity,
    ...(behind ? { behind } : {}),
  });
  return kept.data;
}

/** Puts a graphic on pages at a place of the leaf. */
export const stamp = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('stamp'),
    pages: selectionSchema,
    graphic: graphicSchema,
    ...settings,
    takeOut: z.literal(true).optional(),
  }),
)({
  kind: 'stamp',
  on: 'numbers',
  key: 'w',
  button: true,
  fresh: ({ chosen = 'all' }) => ({
    kind: 'stamp',
    pages: chosen,
    graphic: { page: 'last' },
    size: { by: 'width', width: mm(30) },
    placing: { box: 'trim', x: 'outer', y: 'foot', dx: mm(10), dy: mm(10), turn: 0 },
    opacity: 1,
  }),
  sources: ({ graphic }) => fileOf(graphic),
  apply(list, step, { surveys }) {
    const { page, ...graphic } = graphicOf(step.graphic, list, surveys);
    const scale = scaleOf(step.size, graphic.size);
    const laid: Laid = {
      ...graphic,
      step: step.id,
      placing: step.placing,
      scale: [scale, scale],
      opacity: step.opacity,
      ...(step.behind ? { behind: step.behind } : {}),
    };
    // A stamp that is an area of a page may stand on that page too.
    const own = 'page' in step.graphic && step.graphic.area ? undefined : page;
    return layOn(list, step.pages, laid, { page: own, takeOut: step.takeOut });
  },
});

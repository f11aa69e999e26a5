import * as z from 'zod';
import { PURPOSES, type Laid, type Purpose } from '../../model/laid';
import { overprints } from '../../numbers/placeLaid';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { stepBase } from './base';
import { graphicOf, graphicSchema, layOn, fileOf } from './graphic';

const overlayStep = z.object({
  ...stepBase,
  kind: z.literal('overlay'),
  pages: selectionSchema,
  graphic: graphicSchema,
  register: z.object({
    x: z.enum(['left', 'centre', 'right', 'outer', 'inner']),
    y: z.enum(['head', 'centre', 'foot']),
  }),
  /** 1 is its real size. */
  scale: z.number().min(0.01).max(100),
  purpose: z.enum(PURPOSES),
  /** The layer's name. */
  layer: z.string().trim().min(1).max(60),
  overprint: z.literal(true).optional(),
  takeOut: z.literal(true).optional(),
});

/**
 * Lays a page over others at a fixed scale, its trim registered on theirs at a corner, an edge or the middle, as a layer of
 * its own; inks stay as they are. With `takeOut` the page leaves the list.
 */
export const overlay = defineStep(overlayStep)({
  kind: 'overlay',
  on: 'numbers',
  key: 'Z',
  button: true,
  fresh: ({ chosen = 'last' }) => ({ ...DIE_LINE, graphic: { page: chosen } }),
  sources: ({ graphic }) => fileOf(graphic),
  apply(list, step, { surveys }) {
    const { page, ...graphic } = graphicOf(step.graphic, list, surveys);
    const laid: Laid = {
      ...graphic,
      step: step.id,
      placing: { box: 'trim', ...step.register, dx: 0, dy: 0, turn: 0 },
      scale: [step.scale, step.scale],
      layer: { name: step.layer, purpose: step.purpose },
      ...(step.overprint ? { overprint: step.overprint } : {}),
    };
    return layOn(list, step.pages, laid, { page, takeOut: step.takeOut });
  },
});

/** What layers are called in files, where nobody names them otherwise: those who cut look for it. */
const PLAIN_LAYER: Record<Purpose, string> = {
  printing: 'Printing',
  cutting: 'Cutting',
  creasing: 'Creasing',
  perforating: 'Perforating',
};

/** An overlay for something else; a layer that was not named by hand is named by what it is for. */
export function withPurpose(
  step: z.infer<typeof overlayStep>,
  purpose: Purpose,
): z.infer<typeof overlayStep> {
  const { overprint: _, ...rest } = step;
  const isPlain = step.layer === PLAIN_LAYER[step.purpose];
  return {
    ...rest,
    purpose,
    ...(overprints(purpose) ? { overprint: true } : {}),
    ...(isPlain ? { layer: PLAIN_LAYER[purpose] } : {}),
  };
}

/** The commonest overlay, but for its id: the die line that came as the last page, on all others and out of the list. */
export const DIE_LINE = {
  kind: 'overlay',
  pages: 'all',
  graphic: { page: 'last' },
  register: { x: 'centre', y: 'centre' },
  scale: 1,
  purpose: 'cutting',
  layer: PLAIN_LAYER.cutting,
  overprint: true,
  takeOut: true,
} as const satisfies Omit<z.infer<typeof overlayStep>, 'id'>;

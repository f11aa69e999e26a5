import * as z from 'zod';
import { PRESS_TURNS } from '../machines';
import { plannedOf } from '../parts';
import { outputBase } from '../split';
import { pressPlaces } from '../standIns';
import { defineOutput } from './outputKind';
import { lastOf } from '../../entries';

/** Bounds of the resolution at which the press stand-in shows what it printed, in pixels an inch. */
export const PRESS_PPI = { least: 18, plain: 72, most: 300 } as const;

/** The sheets as the press stand-in prints them. */
export const press = defineOutput(
  z.object({
    ...outputBase,
    kind: z.literal('press'),
    /** As the sheets were planned, if missing. */
    turn: z.enum(PRESS_TURNS).optional(),
    ppi: z.number().int().min(PRESS_PPI.least).max(PRESS_PPI.most),
  }),
)({
  kind: 'press',
  counts: 'sides',
  single: true,
  sent: true,
  extension: () => 'png',
  possible: ({ plan }) => plan !== undefined,
  fresh: () => ({ kind: 'press', ppi: PRESS_PPI.plain }),
  parts(work, output) {
    const places = pressPlaces(plannedOf(work), output);
    const width = String(lastOf(places).sheet).length;
    return places.map(({ sheet, side }, n) => ({
      name: `${String(sheet).padStart(width, '0')} ${side}`,
      pages: [n],
      from: sheet,
      to: sheet,
    }));
  },
  sheetSized: () => true,
});

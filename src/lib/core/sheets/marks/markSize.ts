import { mm } from '../../measure/unit';

/** How large marks may be, from the least to the most, in points: by what can be printed and what a margin holds. */
export const MARK_LIMITS = { length: [mm(1), mm(30)], offset: [0, mm(30)], weight: [0.05, 4] } as const;
/** Printer's marks: each line's length and weight, and its least distance from the trim (it also keeps clear of the bleed). By practice. */
export const MARK_LENGTH = mm(5);
export const MARK_OFFSET = mm(3);
export const MARK_WEIGHT = 0.25;

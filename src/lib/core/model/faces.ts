/** The faces that text is set in; the last has letters of many scripts. */
export const FACES = ['Source Sans 3', 'Source Serif 4', 'DejaVu Sans'] as const;
export type Face = (typeof FACES)[number];
export const WEIGHTS = ['regular', 'strong'] as const;
export type Weight = (typeof WEIGHTS)[number];

/** How text is set: `size` in points. */
export interface Setting {
  face: Face;
  weight: Weight;
  size: number;
}

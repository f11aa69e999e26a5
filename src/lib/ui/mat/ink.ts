import { mixOf, type Colour } from '../../core/surface/colour';

/** A colour as a screen shows it, by plain arithmetic on its process mix. */
export function screenColor(ink: Colour): string {
  const [c, m, y, k] = mixOf(ink);
  const light = (share: number) => Math.round(255 * (1 - share) * (1 - k));
  return `rgb(${light(c)} ${light(m)} ${light(y)})`;
}

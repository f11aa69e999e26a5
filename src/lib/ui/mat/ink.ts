import { PROCESS } from '../../core/numbers/jobInks';
import { mixOf, type Colour } from '../../core/ink/colour';

/** A colour as a screen shows it, by plain arithmetic on its process mix, without the inks that are hidden. */
export function screenColor(ink: Colour, hidden: readonly string[] = []): string {
  const gone = ink.as === 'spot' && hidden.includes(ink.name);
  const mix = mixOf(ink);
  const seen = (n: 0 | 1 | 2 | 3): number =>
    gone || (ink.as !== 'spot' && hidden.includes(PROCESS[n])) ? 0 : mix[n];
  const [c, m, y, k] = [seen(0), seen(1), seen(2), seen(3)];
  const light = (share: number) => Math.round(255 * (1 - share) * (1 - k));
  return `rgb(${light(c)} ${light(m)} ${light(y)})`;
}

/** Whether nothing is left of a colour once some inks are hidden, so that what is printed in it does not show. */
export const isHidden = (ink: Colour, hidden: readonly string[]): boolean =>
  hidden.length > 0 &&
  screenColor(ink, hidden) === 'rgb(255 255 255)' &&
  screenColor(ink) !== 'rgb(255 255 255)';

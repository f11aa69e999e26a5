import type { Format } from '../core/docket/format';
import { formatLength } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { saySize } from './sizes';
import { sayEdges } from './pages';

/** What a format sets, in words. */
export function sayFormat({ trim, bleed, margins }: Format, unit: Unit): string {
  const parts = [
    trim && saySize(trim, unit),
    bleed && `bleed ${sayEdges(bleed, unit)}`,
    margins &&
      `margins ${sayEdges(margins, unit)}${margins.columns > 1 ? `, ${margins.columns} columns ${formatLength(margins.gap, unit)} apart` : ''}`,
  ];
  return parts.filter(Boolean).join(' · ') || 'sets nothing yet';
}

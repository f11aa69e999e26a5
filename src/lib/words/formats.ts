import { t } from './language';
import type { Format } from '../core/docket/format';
import { formatLength } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { saySize } from './sizes';
import { sayEdges } from './pages';

/** What a format sets, in words. */
export function sayFormat({ trim, bleed, margins }: Format, unit: Unit): string {
  const parts = [
    trim && saySize(trim, unit),
    bleed && t`bleed ${sayEdges(bleed, unit)}`,
    margins &&
      t`margins ${sayEdges(margins, unit)}${margins.columns > 1 ? t`, ${margins.columns} columns ${formatLength(margins.gap, unit)} apart` : ''}`,
  ];
  return parts.filter(Boolean).join(' · ') || t`sets nothing yet`;
}

import { t } from './language';
import type { Size } from '../core/measure/box';
import { formatSize } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { nameSize } from '../core/paper/sizes';

/** A size with its name where it has one: `A5, 148 × 210 mm`. */
export function saySize(size: Size, unit: Unit): string {
  const known = nameSize(size);
  return `${known ? `${known.name}${known.landscape ? t` landscape` : ''}, ` : ''}${formatSize(size.width, size.height, unit)}`;
}

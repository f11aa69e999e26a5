import { spoken, t } from '../language';
import { formatLength, formatSize } from '../../core/measure/formatLength';
import { templateOf } from '../../core/sheets/template';
import type { OutputWords } from './outputWords';

export const template: OutputWords<'template'> = spoken({
  name: 'Blank template',
  said: 'For a designer: trim, bleed, safe area and folds of both sides.',
  make: 'Make template PDF',
  inName: () => 'template',
  amount({ docket, list }, unit) {
    const [side] =
      docket.scheme.kind === 'leaflet' ? (templateOf(list, docket.scheme, docket.safe) ?? []) : [];
    if (!side) return '';
    const { trim, folds } = side;
    const at = folds.map((fold) => formatLength(fold.at - trim.x0, unit)).join(', ');
    return t`${formatSize(trim.x1 - trim.x0, trim.y1 - trim.y0, unit)} · folds at ${at}`;
  },
});

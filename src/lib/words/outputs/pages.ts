import { spoken, t } from '../language';
import { sizeGroups } from '../../core/pages/sizes';
import { plural } from '../plural';
import { saySize } from '../sizes';
import type { OutputWords } from './outputWords';

export const pages: OutputWords<'pages'> = spoken({
  name: 'Reading-order PDF',
  said: 'For proofs and screens: one page after the other, with boxes, labels and title; links and layers stay.',
  make: 'Make reading-order PDF',
  inName: () => 'pages',
  says: ({ pages, crop, searchable }) => [
    ...(pages === undefined
      ? []
      : [typeof pages === 'string' ? t`pages ${pages}` : t`${pages.ids.length} pages selected`]),
    crop === 'trim' ? t`shown at the trim` : t`shown with bleed`,
    ...(searchable ? [t`words on scans can be found`] : []),
  ],
  amount({ list }, unit) {
    const [most, ...others] = sizeGroups(list.pages.map(({ trim }) => ({ trim })));
    const count = list.pages.length + (list.panels?.length ?? 0);
    const odd = others.reduce((sum, { indexes }) => sum + indexes.length, 0);
    return [plural(count, 'page'), most && saySize(most.size, unit), odd && t`${odd} of other sizes`]
      .filter(Boolean)
      .join(' · ');
  },
});

import { spoken, t } from '../language';
import { sayPages, sayPlace } from '../pages';
import { saySize } from '../sizes';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const copy: StepWords<'copy'> = spoken({
  name: 'Copy',
  group: 'order',
  does: 'copy',
  say: ({ pages, piece, size, where }, { unit, before }) => ({
    ...(size ? { act: t`Another size` } : {}),
    what: t`of ${sayPages(pages, before)}`,
    detail: listed(piece && `“${piece.name}”`, size && saySize(size, unit), sayPlace(where, before)),
  }),
});

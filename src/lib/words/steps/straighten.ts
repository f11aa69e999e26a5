import { spoken, t } from '../language';
import { sayPages } from '../pages';
import { listed, type StepWords } from './stepWords';

export const straighten: StepWords<'straighten'> = spoken({
  name: 'Straighten',
  group: 'shape',
  title: 'Set scans straight',
  does: 'set scans straight',
  hint: 'Each scan is turned back about its middle; its dots stay as they were scanned.',
  say: ({ pages, by, toPaper, alike }, { before }) => ({
    what: sayPages(pages, before),
    detail: listed(
      by === undefined ? t`as measured` : t`turned back ${by}°`,
      toPaper && t`to the edge of the paper`,
      toPaper && alike && t`all of one size`,
    ),
  }),
});

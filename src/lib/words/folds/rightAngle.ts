import type { FoldWords } from './foldWords';

export const rightAngle: FoldWords = {
  name: 'right-angle fold',
  fields: { pages: { label: 'Pages', options: {} } },
};

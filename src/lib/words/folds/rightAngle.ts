import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const rightAngle: FoldWords = spoken({
  name: 'right-angle fold',
  fields: { pages: { label: 'Pages', options: {} } },
});

import { spoken } from '../language';
import type { FoldWords } from './foldWords';

export const map: FoldWords = spoken({
  name: 'map fold',
  fields: { columns: 'Panels across', rows: 'Panels down' },
});

import { mapCsv, sheetMap } from '../../core/sheets/map';
import { writeText } from '../text';
import type { OutputMaker } from './outputMaker';

export const map: OutputMaker<'map'> = {
  async write({ plan }, { as }, parts, job) {
    const text =
      as === 'csv' ? mapCsv(plan!) : `${JSON.stringify({ unit: 'mm', cells: sheetMap(plan!) }, null, 2)}\n`;
    return writeText(text, parts, job);
  },
};

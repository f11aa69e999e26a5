import { mapCsv, mapJson } from '../../core/sheets/map';
import { writeText } from '../text';
import type { OutputMaker } from './outputMaker';

export const map: OutputMaker<'map'> = {
  async write({ plan }, { as }, parts, job) {
    const text = as === 'csv' ? mapCsv(plan!) : mapJson(plan!);
    return writeText(text, parts, job);
  },
};

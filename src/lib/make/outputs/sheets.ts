import { writePdfFiles } from '../pdfFiles';
import type { OutputMaker } from './outputMaker';

export const sheets: OutputMaker<'sheets'> = { write: writePdfFiles };

import { writePdfFiles } from '../pdfFiles';
import type { OutputMaker } from './outputMaker';

export const template: OutputMaker<'template'> = { write: writePdfFiles };

import { writePdfFiles } from '../pdfFiles';
import type { OutputMaker } from './outputMaker';

export const spreads: OutputMaker<'spreads'> = { write: writePdfFiles };

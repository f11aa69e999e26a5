import { writePdfFiles } from '../pdfFiles';
import type { OutputMaker } from './outputMaker';

export const pages: OutputMaker<'pages'> = { write: writePdfFiles };

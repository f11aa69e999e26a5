import { PDFDict, PDFDocument, PDFXRefStreamParser } from '@cantoo/pdf-lib';
import { completeFields } from './fields';
import { documentOf } from './fileObjects';
import { pagesOf } from './pageTree';
import { PdfError } from '../objects/pdfError';
import { ENCRYPTED, RawFile } from '../raw/rawFile';
import { RawUnfit } from '../raw/scan';
import { tidyPdf } from './tidy';

/** The header must stand in the first 1,024 bytes, as readers have always allowed (ISO 32000-1, annex H.3, note 13). */
const HEADER_WITHIN = 1024;

/** A PDF as it can be read: its own bytes, or the same document written plainly where those are not fit to be read as they lie. */
export interface Readable {
  bytes: Uint8Array;
  /** Its own were encrypted, and opened without a password. */
  decrypted: boolean;
  /** Its own were damaged: what could be found was put together anew. */
  rebuilt: boolean;
}

const known = new WeakMap<Uint8Array, Promise<Readable>>();

/** Makes a PDF readable, once. Throws PdfError. */
export function readablePdf(bytes: Uint8Array): Promise<Readable> {
  const made = known.get(bytes) ?? makeReadable(bytes);
  known.set(bytes, made);
  return made;
}

async function makeReadable(bytes: Uint8Array): Promise<Readable> {
  if (!bytes.length) throw new PdfError('empty-file');
  if (!startsAsPdf(bytes)) throw new PdfError('not-a-pdf');
  const unfit = whyUnfit(bytes);
  const readable =
    unfit === undefined ? { bytes, decrypted: false, rebuilt: false } : await tidied(bytes, unfit);
  return { ...readable, bytes: await withFields(readable.bytes) };
}

/** The same file with appearances for form fields that lack one. */
async function withFields(bytes: Uint8Array): Promise<Uint8Array> {
  if (!rawFileOf(bytes).catalog().has('AcroForm')) return bytes;
  const document = parse(bytes);
  if (!(await completeFields(document))) return bytes;
  const made = await document.save({ useObjectStreams: false, updateFieldAppearances: false });
  known.set(made, Promise.resolve({ bytes: made, decrypted: false, rebuilt: false }));
  return made;
}

async function tidied(bytes: Uint8Array, why: string): Promise<Readable> {
  const made = await tidyPdf(bytes).catch(async (error: unknown) => {
    throw (await reasonOf(bytes)) ?? error;
  });
  const still = whyUnfit(made);
  if (still !== undefined && still !== MISCOUNTED)
    throw (await reasonOf(bytes)) ?? new PdfError('damaged', { reason: why });
  known.set(made, Promise.resolve({ bytes: made, decrypted: false, rebuilt: false }));
  return { bytes: made, decrypted: why === ENCRYPTED, rebuilt: why !== ENCRYPTED };
}

/** What is wrong with the pages of a file that is too damaged to be put together, where that can be told. */
async function reasonOf(bytes: Uint8Array): Promise<PdfError | undefined> {
  try {
    pagesOf(await PDFDocument.load(bytes, { updateMetadata: false }));
    return undefined;
  } catch (error) {
    return error instanceof PdfError ? error : undefined;
  }
}

const MISCOUNTED = 'page count';
/** Why a file cannot be read as it lies; undefined if it can. */
function whyUnfit(bytes: Uint8Array): string | undefined {
  try {
    const file = rawFileOf(bytes);
    file.reached();
    // Readers go by the count; where it is wrong, some find fewer pages or none.
    return file.leaves().length === file.pageCount() ? undefined : MISCOUNTED;
  } catch (error) {
    if (error instanceof RawUnfit) return error.message;
    if (error instanceof RangeError) return 'too deep';
    throw error;
  }
}

/** Opens a PDF; one encrypted with an owner password only is decrypted. Throws PdfError. */
export async function loadPdf(given: Uint8Array): Promise<PDFDocument> {
  const { bytes } = await readablePdf(given);
  return parse(bytes);
}

function parse(bytes: Uint8Array): PDFDocument {
  const document = documentOf(rawFileOf(bytes));
  // The library takes whatever the trailer names.
  if (!((document.catalog as unknown) instanceof PDFDict)) throw new PdfError('damaged');
  return document;
}

/** True when the bytes begin as a PDF does. */
export const startsAsPdf = (bytes: Uint8Array): boolean =>
  Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, HEADER_WITHIN)).includes('%PDF-');

/** Files as they lie, by their bytes, each read once. Throws RawUnfit. */
const files = new WeakMap<Uint8Array, RawFile>();
export function rawFileOf(bytes: Uint8Array): RawFile {
  const file = files.get(bytes) ?? new RawFile(bytes);
  files.set(bytes, file);
  return file;
}

// The library reads cross-reference streams entry by entry and then uses none of them: a damaged one says that it has billions.
(PDFXRefStreamParser.prototype as unknown as { parseEntries: () => [] }).parseEntries = () => [];

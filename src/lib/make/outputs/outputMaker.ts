import type { WorkedOut } from '../../core/checks';
import type { OnDoing } from '../../core/handover/doing';
import type { OutputKind, OutputOf } from '../../core/handover/outputs';
import type { Proved } from '../../core/finish/proof';
import type { Part } from '../../core/handover/parts';
import type { WriteContext } from '../../pdf/write/sheetsPdf';
import type { MadeFile } from '../made';

/** What the files are made of, and where they go. */
export interface HandOverJob extends Pick<WriteContext, 'surveys' | 'read'> {
  onProgress?: OnDoing | undefined;
  folder: string;
  at: Date;
  /** Why it goes out though findings say stop. */
  despite?: string | undefined;
  /** What proof there is of the job as it stands, for the ticket. */
  proved?: Proved | undefined;
}

/** A file as it was written in the folder of its job. */
export interface Written {
  file: string;
  part: Part;
  /** What else is told of it. */
  facts?: Pick<MadeFile, 'size' | 'side' | 'upsideDown' | 'cut' | 'proof'>;
}

/** How the files of one kind of output are written. */
export interface OutputMaker<Kind extends OutputKind> {
  /** Writes a file for each part, more where the output is split by size. Throws HandOverError, PdfError. */
  write(
    work: WorkedOut,
    output: OutputOf<Kind>,
    parts: readonly Part[],
    job: HandOverJob,
  ): Promise<Written[]>;
}

import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { workOut } from '../../lib/core/checks';
import { canBeProved } from '../../lib/core/finish/intended';
import { momentOf } from '../../lib/core/numbers/day';
import { proveSheets } from '../../lib/make/prove';
import { PdfError } from '../../lib/pdf/objects/pdfError';
import { sayProof } from '../../lib/words/proof';
import { sayTrouble } from '../../lib/words/troubles';
import { Failure, type Call } from '../call';
import { given, readDocket } from '../files';
import { sourcesFor } from '../handOverDocket';
import { progress } from '../report';

/** Puts sheets through press and finishing line, and says what is wrong with the pages that come out. */
export async function prove({ files: [docketFile, sheetsFile, ...files], io, json }: Call): Promise<void> {
  const docket = await readDocket(docketFile!);
  const { surveys, read } = await sourcesFor(docket, await given(files));
  const work = workOut(docket, surveys);
  const { list, plan } = work;
  if (!plan || !canBeProved(docket.scheme))
    throw new Failure(
      'This docket puts its pages on no sheets that are folded or cut, so there is nothing to prove. Choose another scheme on Sheets.',
    );
  const folder = await mkdtemp(join(tmpdir(), 'folder-proof-'));
  try {
    const job = {
      surveys,
      read,
      folder,
      at: momentOf(process.env.SOURCE_DATE_EPOCH),
      onProgress: progress('proof', io),
    };
    const proof = await proveSheets(work, await readFile(sheetsFile!), job);
    const said = sayProof(proof, { list, plan, scheme: docket.scheme }, docket.unit);
    if (json) io.out(`${JSON.stringify({ ...said, proof }, null, 2)}\n`);
    else io.out(`${[said.says, ...said.wrong.map(({ says }) => says)].join('\n')}\n`);
    if (!said.holds) throw new Failure(said.says);
  } catch (error) {
    if (error instanceof PdfError) throw new Failure(sayTrouble(error));
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

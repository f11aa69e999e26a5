import { Failure, sayFault, type Call } from '../call';
import { read, sha256, surveyOf } from '../files';

/** Prints the facts of each file as JSON. */
export async function survey({ files, io }: Call): Promise<void> {
  const surveys: object[] = [];
  let failed = 0;
  for (const file of files)
    try {
      surveys.push({ file, sha256: sha256(await read(file)), ...(await surveyOf(file, true)) });
    } catch (error) {
      if (files.length === 1) throw error;
      const said = error instanceof Failure ? error.message : `${file}: ${sayFault(error)}`;
      io.err(`${said}\n`);
      failed++;
    }
  io.out(`${JSON.stringify(files.length === 1 ? surveys[0] : surveys, null, 2)}\n`);
  if (failed) throw new Failure(`${failed} of ${files.length} files could not be surveyed.`);
}

import type { Call } from '../call';
import { given, readDocket } from '../files';
import { handOverDocket } from '../handOverDocket';
import { report } from '../report';

/** Writes the blank template of a folded leaflet. */
export async function template({ files: [docketFile, ...files], ...call }: Call): Promise<void> {
  const docket = await readDocket(docketFile!);
  report(
    [await handOverDocket({ ...docket, outputs: [{ kind: 'template' }] }, await given(files), call)],
    call,
  );
}

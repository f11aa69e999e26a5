import { Failure, type Call } from '../call';
import { given, readDocket } from '../files';
import { handOverDocket } from '../handOverDocket';
import { report } from '../report';

/** Carries a docket out and writes its outputs. */
export async function make({ files: [docketFile, ...files], despite, ...call }: Call): Promise<void> {
  const docket = await readDocket(docketFile!);
  const made = await handOverDocket(docket, await given(files), { ...call, despite });
  report([made], call);
  if (made.stops && !despite.trim())
    throw new Failure(
      `${made.stops === 1 ? 'A finding says' : `${made.stops} findings say`} stop, so what was written is not to go out. Mend the job, or say with --despite why it goes out all the same.`,
    );
}

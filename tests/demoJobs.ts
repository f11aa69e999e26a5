import { createHash } from 'node:crypto';
import { demoDockets, SOURCES } from '../demo/jobs';
import { sourcesNamed, type Docket } from '../src/lib/core/docket/docket';
import type { Survey } from '../src/lib/core/model/survey';
import { surveyPdf } from '../src/lib/pdf/read/survey';

/** A job of the demo, with the surveys and the bytes of the sources that it uses. */
export interface DemoJob {
  docket: Docket;
  surveys: Record<string, Survey>;
  read: (source: string) => Promise<Uint8Array>;
}

/** The jobs of the demo that go on sheets; their sources are not measured. */
export async function demoJobs(): Promise<DemoJob[]> {
  const given = new Map<string, { bytes: Uint8Array; survey: Survey }>();
  const hashes: Record<string, string> = {};
  for (const { name, draw } of SOURCES) {
    const bytes = await draw();
    const hash = createHash('sha256').update(bytes).digest('hex');
    hashes[name] = hash;
    given.set(hash, { bytes, survey: await surveyPdf(bytes) });
  }
  return demoDockets(hashes)
    .filter(({ scheme }) => scheme.kind !== 'none')
    .map((docket) => ({
      docket,
      surveys: Object.fromEntries(
        sourcesNamed(docket).map(({ source }) => [source, given.get(source)!.survey]),
      ),
      read: (source) => Promise.resolve(given.get(source)!.bytes),
    }));
}

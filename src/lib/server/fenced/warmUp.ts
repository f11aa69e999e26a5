import { workOut } from '../../core/checks';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import type { Step } from '../../core/docket/steps';
import { disagreements } from '../../core/handover/agree';
import { askedOf, type Output } from '../../core/handover/outputs';
import type { Survey } from '../../core/model/survey';
import { sampleFile, sampleFiles } from '../../pdf/read/sampleFiles';
import { surveyPdf } from '../../pdf/read/survey';
import { readWritten } from '../../pdf/read/written';
import { writePlan, writeWork, type PdfOutput } from '../../pdf/write/writeOutput';
import { ticketPlan } from '../../words/ticket';
import { namesOf, partsAsked } from '../../make/handOver';
import { asItComesIn, BLEED, FOLIOS, ROW, SINGLE, SOURCE, TAKE_IN } from './samples';
import { entryAt, firstOf, lastOf } from '../../core/entries';

const SINGLE_STEPS: Step[][] = [[TAKE_IN], [TAKE_IN, FOLIOS]];
const ROW_STEPS: Step[][] = [[TAKE_IN], [TAKE_IN, BLEED], [TAKE_IN, BLEED, FOLIOS]];
const ROW_OUTPUTS: Output[] = [
  { kind: 'sheets' },
  { kind: 'pages', crop: 'bleed' },
  { kind: 'pages', crop: 'trim' },
];
/** Rounds that make a ticket too. */
const TICKET_EVERY = 3;

/**
 * Makes the sheets and the pages of made-up files again and again, with and without lines put on them, and throws them
 * away: a process that stands by has then compiled what a real output runs through, and does not compile it while somebody
 * waits.
 */
export async function* warmUp(): AsyncGenerator<void, void> {
  for (const { pages, bytes, rounds, outputs } of SINGLE) {
    const sample = await sampleOf(await sampleFile({ pages, bytes }));
    yield* goThrough([sample], rounds, SINGLE_STEPS, () => outputs);
  }
}

/** The same for a process that goes on with many outputs in a row, of files from many programs. */
export async function* warmUpRow(): AsyncGenerator<void, void> {
  const samples = await Promise.all((await sampleFiles(ROW.pages)).map(sampleOf));
  yield* goThrough(samples, ROW.rounds, ROW_STEPS, (round) =>
    round % TICKET_EVERY ? ROW_OUTPUTS : [...ROW_OUTPUTS, { kind: 'ticket' }],
  );
}

async function* goThrough(
  samples: readonly Sample[],
  rounds: number,
  dockets: readonly Step[][],
  outputsOf: (round: number) => readonly Output[],
): AsyncGenerator<void, void> {
  for (let round = 0; round < rounds; round++)
    for (const steps of dockets)
      for (const output of outputsOf(round)) {
        await make(entryAt(samples, round % samples.length), steps, output);
        yield;
      }
}

/** Reads again, again and again, what was made of made-up files, and holds it against what was asked. */
export async function* warmUpChecking(): AsyncGenerator<void, void> {
  const made: { bytes: Uint8Array; sample: Sample; output: Output }[] = [];
  for (const file of await sampleFiles(ROW.pages))
    for (const output of ROW_OUTPUTS) {
      const [sample, chunks]: [Sample, Uint8Array[]] = [await sampleOf(file), []];
      await make(sample, lastOf(ROW_STEPS), output, (chunk) => void chunks.push(Buffer.from(chunk)));
      made.push({ bytes: Buffer.concat(chunks), sample, output });
      yield;
    }
  for (let round = 0; round < CHECKS; round++) {
    const { bytes, sample, output } = entryAt(made, round % made.length);
    const { work } = workedOut(sample, lastOf(ROW_STEPS));
    const asked = askedOf(work, output)!(firstOf(partsAsked(work, output)));
    disagreements(asked, await readWritten(bytes, asked));
    yield;
  }
}
/** After so many rounds hardly more gets compiled. */
const CHECKS = 168;

interface Sample {
  bytes: Uint8Array;
  survey: Survey;
}
const sampleOf = async (bytes: Uint8Array): Promise<Sample> => ({ bytes, survey: await surveyPdf(bytes) });

function workedOut({ survey }: Sample, steps: Step[]) {
  const docket: Docket = { ...emptyDocket('Warm-up'), steps };
  const task = asItComesIn({ docket, surveys: { [SOURCE]: survey } });
  return { task, work: workOut(task.docket, task.surveys) };
}

async function make(
  sample: Sample,
  steps: Step[],
  output: Output,
  sink: (chunk: Uint8Array) => void = () => undefined,
): Promise<void> {
  const { task, work } = workedOut(sample, steps);
  const at = new Date(0);
  namesOf(work, output, partsAsked(work, output), at);
  const context = {
    surveys: task.surveys,
    read: () => Promise.resolve(sample.bytes),
    sink,
    at,
    onProgress: () => undefined,
  };
  await (output.kind === 'ticket'
    ? writePlan(work, output, ticketPlan(work, at, undefined), context)
    : writeWork(work, output as PdfOutput, context));
}

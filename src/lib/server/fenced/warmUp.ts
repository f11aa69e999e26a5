import { workOut } from '../../core/checks';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import type { Step } from '../../core/docket/steps';
import type { Output } from '../../core/handover/output';
import type { Survey } from '../../core/pages/survey';
import { surveyPdf } from '../../pdf/survey';
import { writePlan, writeWork, type PdfOutput } from '../../pdf/writeOutput';
import { ticketPlan } from '../../words/ticket';
import { namesOf, partsAsked } from './handOver';
import { asItComesIn, BLEED, FOLIOS, sampleFile, SAMPLES, SOURCE, TAKE_IN } from './samples';

const STEPS: Step[][] = [[TAKE_IN], [TAKE_IN, BLEED], [TAKE_IN, BLEED, FOLIOS]];
const SHEETS: PdfOutput = { kind: 'sheets' };
const OUTPUTS: Output[] = [SHEETS, { kind: 'pages', crop: 'bleed' }, { kind: 'pages', crop: 'trim' }];
/** Rounds that make a ticket too. */
const TICKET_EVERY = 3;

/**
 * Makes the sheets, the pages and the ticket of made-up files again and again and throws them away: a process that stands by
 * has then compiled what a real output runs through, and does not compile it while somebody waits.
 */
export async function* warmUp(): AsyncGenerator<void, void> {
  const usual = await usualSamples();
  for (let round = 0; round < SAMPLES.usual.rounds; round++) {
    const sample = usual[round % usual.length]!;
    const outputs: Output[] = round % TICKET_EVERY ? OUTPUTS : [...OUTPUTS, { kind: 'ticket' }];
    for (const steps of STEPS) for (const output of outputs) yield make(sample, steps, output);
  }
  const large = await sampleOf(SAMPLES.large);
  for (let round = 0; round < SAMPLES.large.rounds; round++)
    for (const steps of STEPS) yield make(large, steps, SHEETS);
}

/** Files as outputs are: what is checked after writing is like them. */
export async function madeSamples(): Promise<Uint8Array[]> {
  const [sample] = await usualSamples();
  const made: Uint8Array[] = [];
  for (const output of OUTPUTS) {
    const chunks: Uint8Array[] = [];
    await make(sample!, STEPS.at(-1)!, output, (chunk) => void chunks.push(chunk));
    made.push(Buffer.concat(chunks));
  }
  return made;
}

interface Sample {
  bytes: Uint8Array;
  survey: Survey;
}
async function sampleOf(kind: Parameters<typeof sampleFile>[0]): Promise<Sample> {
  const bytes = await sampleFile(kind);
  return { bytes, survey: await surveyPdf(bytes) };
}
const usualSamples = async () => [
  await sampleOf(SAMPLES.usual),
  await sampleOf({ ...SAMPLES.usual, packed: true }),
];

async function make(
  { bytes, survey }: Sample,
  steps: Step[],
  output: Output,
  sink: (chunk: Uint8Array) => void = () => undefined,
): Promise<void> {
  const docket: Docket = { ...emptyDocket('Warm-up'), steps };
  const task = asItComesIn({ docket, surveys: { [SOURCE]: survey } });
  const work = workOut(task.docket, task.surveys);
  const at = new Date(0);
  namesOf(work, output, partsAsked(work, output), at);
  const context = {
    surveys: task.surveys,
    read: () => Promise.resolve(bytes),
    sink,
    at,
    onProgress: () => undefined,
  };
  await (output.kind === 'ticket'
    ? writePlan(work, output, ticketPlan(work, at, undefined), context)
    : writeWork(work, output as PdfOutput, context));
}

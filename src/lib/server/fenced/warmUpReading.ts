import { workOut } from '../../core/checks';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import { askedOf, disagreements } from '../../core/handover/agree';
import { countSides } from '../../core/sheets/plan';
import { surveyPdf } from '../../pdf/survey';
import { asItComesIn, sampleFile, SAMPLES, SOURCE, TAKE_IN } from './samples';

/**
 * Surveys a made-up file again and again and holds it against what could have been asked: a process that stands by to read
 * files has then compiled what a real one runs through.
 */
export async function* warmUpReading(): AsyncGenerator<void, void> {
  const [{ pages, rounds }] = SAMPLES;
  const bytes = await sampleFile(SAMPLES[0]);
  const docket: Docket = { ...emptyDocket('Warm-up'), steps: [TAKE_IN] };
  for (let round = 0; round < rounds; round++) {
    const survey = asItComesIn(await surveyPdf(bytes));
    const work = workOut(asItComesIn(docket), { [SOURCE]: survey });
    const every = (count: number) => ({ pages: Array.from({ length: count }, (_, n) => n) });
    disagreements(askedOf(work, { kind: 'pages', crop: 'bleed' })!(every(pages)), survey);
    disagreements(askedOf(work, { kind: 'sheets' })!(every(countSides(work.plan!))), survey);
    yield;
  }
}

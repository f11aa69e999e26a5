import { workOut } from '../../core/checks';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import { askedOf } from '../../core/handover/outputs';
import { disagreements } from '../../core/handover/agree';
import { countSides } from '../../core/sheets/plan';
import { sampleFiles } from '../../pdf/read/sampleFiles';
import type { Shown } from '../../core/model/draw';
import { shownBy } from '../../pdf/read/shown';
import { surveyPdf, type SeenPage } from '../../pdf/read/survey';
import { asItComesIn, ROW, SOURCE, TAKE_IN } from './samples';
import { entryAt } from '../../core/entries';

/**
 * Surveys made-up files, and those of `more`, again and again and holds them against what could have been asked: a process
 * that stands by to read files has then compiled what a real one runs through.
 */
export async function* warmUpReading(more?: () => Promise<Uint8Array[]>): AsyncGenerator<void, void> {
  const files: Uint8Array[] = [...(await sampleFiles(ROW.pages))];
  yield;
  files.push(...((await more?.()) ?? []));
  const docket: Docket = { ...emptyDocket('Warm-up'), steps: [TAKE_IN] };
  const every = (count: number) => ({ pages: Array.from({ length: count }, (_, n) => n) });
  for (let round = 0; round < files.length * ROW.rounds; round++) {
    const shown: Shown[] = [];
    const onPage = ({ page, sums }: SeenPage) => void shown.push(shownBy(page, [], sums));
    const survey = asItComesIn(await surveyPdf(entryAt(files, round % files.length), { onPage }));
    const work = workOut(asItComesIn(docket), { [SOURCE]: survey });
    disagreements(
      askedOf(work, { kind: 'pages', crop: 'bleed' })!(every(survey.pages.length)),
      survey,
      shown,
    );
    disagreements(askedOf(work, { kind: 'sheets' })!(every(countSides(work.plan!))), survey, shown);
    yield;
  }
}

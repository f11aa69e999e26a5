import type { Purpose } from '../model/laid';
import { overprints } from '../numbers/placeLaid';
import { inksOf } from '../numbers/jobInks';
import { facesOf } from '../pages/page';
import type { Check, CheckKind, FindingOf } from './finding';

/** What this family finds. */
type Found =
  | { code: 'spots-alike'; names: readonly string[] }
  | { code: 'rgb-content' }
  | { code: 'knocks-out'; purpose: Purpose };
type Mends = 'one-ink' | 'overprint';
type Finding = FindingOf<Found, Mends>;

/** A name as far as a reader tells it from others: without capitals, blanks and hyphens. */
const heard = (name: string): string => name.toLowerCase().replace(/[\s_-]+/g, '');

/** Spots that are one ink under two spellings, and colours that have no plate. */
const checkInks: Check<Found, Mends> = ({ list, surveys, docket }) => {
  const inks = inksOf(list, surveys, docket);
  const spots = inks.filter(({ kind }) => kind === 'spot');
  const findings: Finding[] = [];
  for (const said of new Set(spots.map(({ name }) => heard(name)))) {
    const group = spots.filter(({ name }) => heard(name) === said);
    if (group.length < 2) continue;
    const [most, ...rest] = [...group].sort((a, b) => b.pages.length - a.pages.length);
    findings.push({
      code: 'spots-alike',
      names: group.map(({ name }) => name),
      level: 'stop',
      stage: 'numbers',
      pages: rest.flatMap(({ pages }) => pages),
      mend: {
        code: 'one-ink',
        steps: rest.map(({ name }) => ({ kind: 'ink', from: name, to: most!.name })),
        data: { name: most!.name },
      },
    });
  }
  const rgb = inks.find(({ kind, name }) => kind === 'process' && name === 'RGB');
  if (rgb) findings.push({ code: 'rgb-content', level: 'note', stage: 'numbers', pages: rgb.pages });
  return findings;
};

/** A cutting ink that knocks out what lies under it leaves a white line where the knife is a hair off. */
const checkOverprint: Check<Found, Mends> = ({ list, docket }) =>
  docket.steps.flatMap((step): Finding[] => {
    if (step.off || step.kind !== 'overlay' || !overprints(step.purpose) || step.overprint) return [];
    const on = facesOf(list).filter(({ laid }) => laid?.some((each) => each.step === step.id));
    if (!on.length) return [];
    return [
      {
        code: 'knocks-out',
        purpose: step.purpose,
        level: 'look',
        stage: 'numbers',
        pages: on.map(({ id }) => id),
        step: step.id,
        mend: { code: 'overprint', change: [{ ...step, overprint: true }] },
      },
    ];
  });

/** The family of these findings. */
export const inks: CheckKind<'inks', Found, Mends> = {
  kind: 'inks',
  check: (state) => [...checkInks(state), ...checkOverprint(state)],
};

import { coverPages } from '../pages/coverParts';
import { facesOf } from '../pages/page';
import { addressesOf } from '../pages/panels';
import { flatPieces } from '../sheets/flat';
import type { Check, CheckKind, FindingOf } from './finding';
import { entryAt } from '../entries';

/** What this family finds. */
type Found =
  | { code: 'face-lost'; why: 'fold-out' | 'one-side' | 'cover' | 'place'; faces: readonly string[] }
  | { code: 'face-uneven'; faces: readonly { name: string; there: number; wanted: number }[] };
type Mends = 'both-sides' | 'loose-pages';
type Finding = FindingOf<Found, Mends>;

/**
 * The rule above all: every page, every face of a fold-out and every part of a cover lies on as many cells as it is to, or is
 * named here with the reason.
 */
const checkFaces: Check<Found, Mends> = ({ list, plan }) => {
  if (!plan) return [];
  const addresses = addressesOf(list);
  // Ganged pieces lie there as often as they are wanted, all else once.
  const each = new Map<string, number>();
  if (plan.gang)
    flatPieces(list).forEach(({ front, back, panels }, n) => {
      const shown = [front, back, ...panels.flatMap((panel) => [panel.front, panel.back])];
      for (const face of shown) if (face?.page) each.set(face.page.id, entryAt(plan.gang!.each, n));
    });
  const faces = facesOf(list).map((page, index) => ({
    id: page.id,
    name: addresses.get(page.id) ?? `page ${index + 1}`,
    there: plan.faces.get(page.id) ?? 0,
    wanted: each.get(page.id) ?? 1,
    why: page.panel
      ? ('fold-out' as const)
      : plan.work === 'single-side'
        ? ('one-side' as const)
        : ('place' as const),
  }));
  const cover = coverPages(list).map(({ part, page }) => ({
    id: page.id,
    name: part.replace('-', ' '),
    there: plan.cover?.plan.faces.get(page.id) ?? 0,
    wanted: 1,
    why: 'cover' as const,
  }));
  const lost = [...faces, ...cover].filter(({ there }) => there === 0);
  const uneven = [...faces, ...cover].filter(({ there, wanted: count }) => there > 0 && there !== count);
  const findings: Finding[] = [];
  for (const why of ['fold-out', 'one-side', 'place', 'cover'] as const) {
    const of = lost.filter((face) => face.why === why);
    if (of.length)
      findings.push({
        code: 'face-lost',
        why,
        faces: of.map(({ name }) => name),
        level: 'stop',
        stage: 'sheets',
        pages: of.map(({ id }) => id),
        ...(why === 'one-side' ? oneSideMends : {}),
      });
  }
  if (uneven.length)
    findings.push({
      code: 'face-uneven',
      faces: uneven.map(({ name, there, wanted: count }) => ({ name, there, wanted: count })),
      level: 'stop',
      stage: 'sheets',
      pages: uneven.map(({ id }) => id),
    });
  return findings;
};

const oneSideMends: Pick<Finding, 'mend' | 'otherMend'> = {
  mend: { code: 'both-sides', scheme: { work: 'sheetwise' } },
  otherMend: { code: 'loose-pages', book: { facing: false } },
};

/** The family of these findings. */
export const faces: CheckKind<'faces', Found, Mends> = { kind: 'faces', check: checkFaces };

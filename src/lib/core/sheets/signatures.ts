import type { Box } from '../measure/box';
import { mm } from '../measure/unit';
import { commonestSize } from '../pages/sizes';
import type { PageList, Spine } from '../model/page';
import type { SignaturePages } from '../fold/patterns';
import { signatureLayout } from '../fold/signatureLayout';
import type { Forme } from './forme';
import { planForms } from './press';
import { NO_JOB, type SheetPlan } from './plan';
import type { Signatures } from './settings/signatures';
import { foldOutForm } from './leafStrip';
import { creeping, leafPairOf, sheetFolder } from './signature';
import { leavesApart, leavesOf, padded, pagesThatFill, signatureSizes } from './stitched';
import { entryAt, firstOf, foundIn } from '../entries';

/**
 * Plans a book of gathered signatures, to be glued or sewn. What is left for the last one makes smaller signatures, or is
 * filled up with blanks. A leaf with a fold-out is no part of a folded sheet: it is a strip of its own, tipped in at its
 * place. Undefined for an empty list.
 */
export function planSignatures(list: PageList, scheme: Signatures, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const { spine } = list.book;
  const pages = padded(list, pagesThatFill(scheme, list), scheme.pad, leavesApart(list));
  const leaves = leavesOf(pages, list, cell);
  const bound = leaves.filter((parts) => parts.length === 1);
  const creep = creeping(scheme, job.safe);
  const sizes = signatureSizes(2 * bound.length, scheme.signature);
  const gap = 2 * scheme.roughing;
  const bar = scheme.collating ? barWidth(gap) : 0;
  const folders = new Map<SignaturePages, ReturnType<typeof sheetFolder>>();
  const folderFor = (size: SignaturePages) => {
    const known =
      folders.get(size) ?? sheetFolder({ pages: size, spine, cell, gap, cutOff: scheme.cutOff, kept: bar });
    folders.set(size, known);
    return known;
  };
  let first = 0;
  const formes = sizes.map((size, number): Forme => {
    const from = first;
    first += size / 2;
    const forme = folderFor(size)(
      (page) => ({
        segments: entryAt(bound, from + Math.floor((page - 1) / 2)),
        ...creep.of(leafPairOf(page, size)),
      }),
      `signature ${number + 1}`,
    );
    if (!bar) return forme;
    return {
      ...forme,
      bars: [{ face: 'front', box: collatingBar(forme, size, spine, { gap, width: bar, number }) }],
    };
  });
  const tippedIn = leaves
    .filter((parts) => parts.length > 1)
    .map((parts): Forme => {
      const { position } = firstOf(parts).front;
      const name = `leaf ${position}–${position + 1} (tipped in${position > 1 ? ` after page ${position - 1}` : ''})`;
      return foldOutForm(parts, spine, name);
    });
  return planForms(
    {
      formes: [...formes, ...tippedIn],
      pages: leaves.flat().flatMap(({ front, back }) => [front, back]),
      cell,
      blanksAdded: pages.length - list.pages.length,
      job,
      together: true,
      ...(sizes.length ? creep.plan(Math.max(...sizes) / 4) : {}),
    },
    scheme,
  );
}

/** By practice: bars are this long, begin this far from the head, and each is a step below the one before; bleed keeps a little of the spine. */
const BAR = { length: mm(8), from: mm(12), step: mm(10), width: mm(4), least: mm(1), beside: mm(1) };

/** How wide a bar is in the middle of a spine; 0 if there is no room for one. */
export function barWidth(gap: number): number {
  const width = Math.min(BAR.width, gap - 2 * BAR.beside);
  return width < BAR.least ? 0 : width;
}

/** A bar on the outside of the spine, lower by a step with each signature and up again from the foot. */
function collatingBar(
  forme: Forme,
  pages: SignaturePages,
  spine: Spine,
  { gap, width, number }: { gap: number; width: number; number: number },
): Box {
  const one = foundIn(signatureLayout(pages, spine), ({ page }) => page === 1);
  const first = Math.min(
    ...forme.slots.flatMap(({ front, back }) =>
      [front, back].map((face) => face?.planned.position ?? Infinity),
    ),
  );
  const { box } = foundIn(forme.slots, (slot) => slot[one.face]?.planned.position === first);
  const extent = spine === 'head' ? box.x1 - box.x0 : box.y1 - box.y0;
  const steps = Math.max(1, Math.floor((extent - BAR.from - BAR.length) / BAR.step) + 1);
  const down = BAR.from + (number % steps) * BAR.step;
  if (spine === 'head') {
    const y = box.y1 + gap / 2;
    return { x0: box.x1 - down - BAR.length, x1: box.x1 - down, y0: y - width / 2, y1: y + width / 2 };
  }
  const x = spine === 'left' ? box.x0 - gap / 2 : box.x1 + gap / 2;
  return { x0: x - width / 2, x1: x + width / 2, y0: box.y1 - down - BAR.length, y1: box.y1 - down };
}

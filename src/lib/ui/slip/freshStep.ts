import { A4_SHAPE } from '../../core/docket/steps/blank';
import type { Step } from '../../core/docket/steps';
import { mm } from '../../core/measure/unit';
import { DIE_LINE } from '../../core/docket/steps/overlay';
import { sizeLike } from '../../core/docket/steps/trim';
import { likelyParts } from '../../core/pages/cover';
import { FOLD_IN } from '../../core/pages/panels';
import { commonestSize, oddOnes, piecesOf } from '../../core/pages/sizes';
import { seriesOf } from '../../core/numbers/series';
import type { PageList } from '../../core/pages/page';
import type { Selection } from '../../core/pages/selection';
import { PLAIN_LINES } from '../../core/numbers/lines';
import { spotsOf } from './spots';
import { newStepId, type Bench } from '../bench.svelte';

const CENTRE = { x: 'centre', y: 'centre' } as const;

/** A step as its form begins: for the pages picked, else for all or for the likeliest. `before` is the list that it meets. */
export function freshStep(kind: Step['kind'], bench: Bench, before: PageList): Step {
  const id = newStepId();
  const picked = bench.pickedSelection;
  const first = before.pages[bench.pickedIndexes[0] ?? 0];
  const size = first?.trim ?? commonestSize(before.pages) ?? A4_SHAPE;
  const pages = picked ?? 'all';
  switch (kind) {
    case 'take-in':
      throw new Error('files are taken in where they are dropped');
    case 'blank':
      return {
        id,
        kind,
        count: before.pages.length ? 1 : 4,
        where: picked ? { at: 'after', pages: picked } : { at: 'end' },
        ...(before.pages.length ? {} : { shape: A4_SHAPE }),
      };
    case 'copy': {
      const from = picked ?? 'last';
      return { id, kind, pages: from, where: { at: 'after', pages: from } };
    }
    case 'remove':
      return { id, kind, pages: picked ?? 'last' };
    case 'move':
      return { id, kind, pages: picked ?? 'last', where: { at: 'end' } };
    case 'trim':
      return { id, kind, pages, width: size.width, height: size.height, content: 'hold', fixed: CENTRE };
    case 'bleed':
      return { id, kind, pages, head: mm(3), foot: mm(3), spine: mm(3), fore: mm(3) };
    case 'crop':
      return { id, kind, pages, cut: { by: 'edge', head: 0, foot: 0, spine: 0, fore: 0 } };
    case 'uncrop': {
      const cropped = before.pages.filter((page) => page.whole && (!picked || bench.picked.has(page.id)));
      return { id, kind, pages: picked ?? { ids: cropped.map((page) => page.id) } };
    }
    case 'turn':
      return { id, kind, pages, by: 90 };
    case 'margins': {
      const { margins = { head: mm(12), foot: mm(15), spine: mm(15), fore: mm(12) }, columns } = first ?? {};
      return { id, kind, pages, ...margins, columns: columns?.count ?? 1, gap: columns?.gap ?? mm(5) };
    }
    case 'format':
      return { id, kind, pages, format: bench.docket.formats[0]?.id ?? '-', content: 'hold', fixed: CENTRE };
    case 'panel':
      return { id, kind, pages: picked ?? 'last', count: 1, allowance: FOLD_IN, folds: 'back' };
    case 'give-back': {
      const hung = bench.pickedIndexes.some((index) => index >= before.pages.length);
      return { id, kind, pages: picked && hung ? picked : 'panels', where: { at: 'end' } };
    }
    case 'keep': {
      const together = !bench.pickedIndexes.some((index) => before.pages[index]?.kept);
      return { id, kind, pages: picked ?? '2-3', together };
    }
    case 'cover': {
      const indexes = bench.pickedIndexes.filter((index) => index < before.pages.length);
      const chosen = indexes.length ? indexes : [before.pages.length - 1];
      const parts = likelyParts(
        chosen.map((index) => before.pages[index]!),
        before,
      );
      return { id, kind, pages: picked ?? 'last', parts };
    }
    case 'split':
      return { id, kind, pages, columns: 2, rows: 1, gutter: 0 };
    case 'join':
      return { id, kind, pages, columns: 2, rows: 1, gap: 0 };
    case 'reading-order':
      return { id, kind, pages, arrangement: { by: 'stitched', scans: 'sheets' }, gutter: 0 };
    case 'numbers':
      return { id, kind, series: seriesOf(before) };
    case 'folio':
      return { ...lines(id, pages, before, bench), kind, edge: 'foot', across: 'outer', text: '{page}' };
    case 'running':
      return {
        ...lines(id, pages, before, bench),
        kind,
        texts: [{ edge: 'head', across: 'outer', text: '{title}' }],
      };
    case 'set': {
      const count = { start: 1, by: 1, digits: 3 };
      return {
        ...lines(id, pages, before, bench),
        ...count,
        kind,
        edge: 'foot',
        across: 'right',
        text: '{number}',
      };
    }
    case 'stamp':
      return {
        id,
        kind,
        pages: 'all',
        graphic: { page: picked ?? 'last' },
        size: { by: 'width', width: mm(30) },
        placing: { box: 'trim', x: 'outer', y: 'foot', dx: mm(10), dy: mm(10), turn: 0 },
        opacity: 1,
      };
    case 'overlay':
      return { ...DIE_LINE, id, graphic: { page: picked ?? 'last' } };
    case 'ink': {
      const [from = '-'] = spotsOf(bench);
      return { id, kind, from, to: from };
    }
    case 'piece':
      return { id, kind, pages, name: first?.piece?.name ?? 'Piece', quantity: first?.piece?.quantity ?? 1 };
  }
}

/** Lines as they begin: well inside the trim. */
const lines = (id: string, pages: Selection, before: PageList, bench: Bench) => ({
  ...PLAIN_LINES,
  id,
  pages,
  x: Math.max(bench.docket.safe, before.pages[0]?.margins?.fore ?? mm(10)),
  y: mm(8),
});

/** The step that gives the odd pages of a piece the size of the one picked page, else the commonest; undefined where all are alike. */
export function evenSizes(bench: Bench): Extract<Step, { kind: 'trim' }> | undefined {
  const { pages } = bench.base.list;
  const chosen = bench.pickedIndexes.length === 1 ? pages[bench.pickedIndexes[0]!] : undefined;
  const piece = piecesOf(pages).find((those) => !chosen || those.includes(chosen));
  const odd = piece && oddOnes(piece, chosen?.trim);
  return odd && { id: newStepId(), ...sizeLike(odd.pages, odd.like) };
}

/** The step that makes the first picked page once more, as a piece of another size. */
export function anotherSize(bench: Bench): Extract<Step, { kind: 'copy' }> {
  const page = bench.base.list.pages[bench.pickedIndexes[0] ?? 0]!;
  const where = { at: 'after' as const, pages: { ids: [page.id] } };
  const name = `${page.piece?.name ?? 'Piece'} 2`;
  return {
    id: newStepId(),
    kind: 'copy',
    pages: { ids: [page.id] },
    where,
    size: { ...page.trim, content: 'fit', fixed: CENTRE },
    piece: { name, quantity: page.piece?.quantity ?? 1 },
  };
}

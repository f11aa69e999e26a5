import { t, translated } from './language';
import { entryAt, keysOf } from '../core/entries';
import { intendedOf, type Intended } from '../core/finish/intended';
import type { ToFinish } from '../core/finish/toFinish';
import {
  holds,
  type Edge,
  type NamedEdge,
  type NamedWrong,
  type PageVerdict,
  type Proved,
  type Proof,
  type Verdict,
} from '../core/finish/proof';
import { formatLength } from '../core/measure/formatLength';
import type { Sides } from '../core/measure/box';
import { mm, type Unit } from '../core/measure/unit';
import { capital } from './capital';
import { plural } from './plural';

/** What a proof comes to, in a sentence, and what is wrong, a sentence for each page. */
export interface SaidProof {
  holds: boolean;
  says: string;
  wrong: NamedWrong[];
}

/** A proof in words. */
export function sayProof(proof: Proof, job: ToFinish, unit: Unit): SaidProof {
  const wrong = proof.pages.filter(({ verdict }) => verdict.is !== 'same');
  const known = new Map<number, readonly Intended[]>();
  const intended = (product: number): readonly Intended[] => {
    const all = known.get(product) ?? intendedOf(job, product);
    known.set(product, all);
    return all;
  };
  const namesOf = (product: number) => intended(product).map(({ name }) => pageName(name));
  const copies = new Set(proof.pages.map(({ product, copy }) => `${product} ${copy}`)).size;
  const pieces = copies > 1 ? t` of ${plural(copies, 'piece')}` : '';
  return {
    holds: holds(proof),
    says: holds(proof)
      ? t`The proof holds: all ${plural(proof.pages.length, 'page')}${pieces} come out as intended, compared at ${proof.ppi} ppi.`
      : t`The proof fails: ${wrong.length ? t`${wrong.length} of ${plural(proof.pages.length, 'page')}${pieces} ${wrong.length === 1 ? t`is` : t`are`} not as intended` : t`see below`}.`,
    wrong: [
      ...wrong.map((each): NamedWrong => {
        const { product, page, verdict, sheet, face } = each;
        const met = verdict.is === 'other' ? [verdict.page] : [];
        return {
          says: sayPage(each, namesOf(product), unit, copies > 1),
          pages: [page, ...met].flatMap((n) => intended(product)[n]?.page?.id ?? []),
          ...(sheet === undefined ? {} : { sheet }),
          ...(face ? { face } : {}),
        };
      }),
      ...proof.joined.map(({ leaves: [a, b] }) => ({
        says: t`Leaves ${a + 1} and ${b + 1} do not open: they are joined where nothing is cut off.`,
        pages: [],
      })),
      ...proof.cutOff.map(({ leaf }) => ({
        says: t`What folds out of leaf ${leaf + 1} is cut off: its fold lies where the knife goes.`,
        pages: [],
      })),
      ...(proof.sides.given === proof.sides.planned
        ? []
        : [
            {
              says: t`The file has ${plural(proof.sides.given, 'side')}, and ${proof.sides.planned} are printed: it is not that of these sheets, or is not all of them.`,
              pages: [],
            },
          ]),
    ],
  };
}

/** Positions are pages; parts of a cover have names of their own. */
export const pageName = (name: string): string => (/^\d/.test(name) ? t`page ${name}` : name);

function sayPage(
  { product, copy, page, sheet, face, verdict }: PageVerdict,
  names: readonly string[],
  unit: Unit,
  isOneOfMany: boolean,
): string {
  const name = names[page] ?? t`page ${page + 1}`;
  const which = isOneOfMany ? t` of piece ${product}${copy > 1 ? t`, copy ${copy}` : ''}` : '';
  const where = sheet === undefined ? '' : t` (sheet ${sheet}, ${face ?? t`front`})`;
  return `${capital(name)}${which}${where}: ${sayVerdict(verdict, names, unit)}.`;
}

/** What was found of a page, without a full stop; `names` are those of all pages intended. */
export function sayVerdict(verdict: Verdict, names: readonly string[], unit: Unit): string {
  const length = (points: number) => sayMeasured(points, unit);
  const atEdges = (by: Sides) =>
    keysOf(by)
      .filter((edge) => by[edge] > 0.1)
      .map((edge) => t`${length(by[edge])} at the ${translated(edge)}`)
      .join(', ');
  switch (verdict.is) {
    case 'same':
      return t`as intended`;
    case 'shifted':
      return `${[
        Math.abs(verdict.by.x) > TENTH / 2 &&
          t`${length(Math.abs(verdict.by.x))} too far to the ${verdict.by.x > 0 ? t`right` : t`left`}`,
        Math.abs(verdict.by.y) > TENTH / 2 &&
          t`${length(Math.abs(verdict.by.y))} too ${verdict.by.y > 0 ? t`high` : t`low`}`,
      ]
        .filter(Boolean)
        .join(', ')}`;
    case 'turned':
      return verdict.turn === 180 ? t`upside down` : t`turned by ${verdict.turn}°`;
    case 'mirrored':
      return t`seen as in a mirror`;
    case 'other':
      return t`${entryAt(names, verdict.page)} is met in its place${verdict.turn ? t`, upside down` : ''}`;
    case 'missing':
      return t`white paper`;
    case 'cut':
      return t`cut into: ${atEdges(verdict.by)}`;
    case 'white':
      return t`white paper beside it: ${atEdges(verdict.by)}`;
    case 'different':
      return t`something else is met there`;
    case 'absent':
      return t`the finished piece has no such page`;
  }
}

/** A length that was measured, to the tenth of a millimetre that it can be relied on. */
export const sayMeasured = (points: number, unit: Unit): string =>
  formatLength(Math.round(points / TENTH) * TENTH, unit);
const TENTH = mm(0.1);

/** How much error an edge stands, and what happens then. */
export function sayEdge({ edge, white, cut }: Edge, name: string, unit: Unit): string {
  const stands = [
    white !== undefined && t`${sayMeasured(white, unit)} until white paper shows`,
    cut !== undefined && t`${sayMeasured(cut, unit)} until something on it is cut`,
  ].filter(Boolean);
  return `${capital(name)}, ${edge}: ${stands.join(', ')}`;
}

/** The weakest edges of a proof by the names of their pages. */
export function namedEdges(edges: readonly Edge[], job: ToFinish, most: number): NamedEdge[] {
  return edges.slice(0, most).map(({ product, page, edge, white, cut }) => {
    const met = intendedOf(job, product)[page];
    return {
      name: pageName(met?.name ?? `${page + 1}`),
      pages: met?.page ? [met.page.id] : [],
      edge,
      ...(white === undefined ? {} : { white }),
      ...(cut === undefined ? {} : { cut }),
    };
  });
}

/** By what a job was proved, when, and as which revision. */
export const sayProved = ({ outcome, revision, at }: Proved): string =>
  t`${capital(sayOutcome(outcome))}. Folded by Folder’s finishing line from the bytes of the sheets${revision === undefined ? '' : t`, revision ${revision}`}, ${at.slice(0, 16).replace('T', ' ')} UTC.`;

/** How a job stands by its proof, in a sentence. */
export const sayStanding = ({ holds: isRight, pages, wrong, weak }: Proved['outcome']): string =>
  [
    isRight
      ? t`Proved: all ${plural(pages, 'page')} come out right`
      : wrong
        ? t`Proof: ${wrong} of ${plural(pages, 'page')} ${wrong === 1 ? t`comes` : t`come`} out wrong`
        : t`Proof: what comes out is not whole`,
    weak && `${plural(weak, 'weak edge')}`,
  ]
    .filter(Boolean)
    .join(', ');

/** What a proof came to, in short. */
export const sayOutcome = ({ holds: isRight, pages, wrong, weak }: Proved['outcome']): string =>
  [
    isRight
      ? t`holds: ${plural(pages, 'page')} as intended`
      : wrong
        ? t`fails: ${wrong} of ${plural(pages, 'page')} not as intended`
        : t`fails`,
    weak && `${plural(weak, 'weak edge')}`,
  ]
    .filter(Boolean)
    .join(' · ');

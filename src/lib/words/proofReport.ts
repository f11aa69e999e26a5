import { t } from './language';
import type { WorkedOut } from '../core/checks';
import { drawBars } from '../core/finish/drawings';
import { intendedOf } from '../core/finish/intended';
import { standsOf, type Edge, type Proof } from '../core/finish/proof';
import { layTicket, type TicketBlock } from '../core/finish/ticket';
import { formatLength } from '../core/measure/formatLength';
import { dayOf } from '../core/numbers/day';
import { sayDate } from '../core/numbers/finish';
import type { SheetPlan } from '../core/sheets/plan';
import { plural } from './plural';
import { pageName, sayEdge, sayMeasured, sayProof } from './proof';

/** Edges that are drawn: the weakest. */
const MOST_BARS = 24;
/** Edges that are named in lines. */
const MOST_NAMED = 60;

/** The report of a proof: whether it holds, which pages are wrong and how, and how much error the edges stand. */
export function proofPlan(proof: Proof, work: WorkedOut, error: number, at: Date): SheetPlan {
  const { docket, list, plan } = work;
  const job = { list, plan: plan!, scheme: docket.scheme };
  const said = sayProof(proof, job, docket.unit);
  const { edges = [] } = proof;
  const weak = edges.filter((edge) => standsOf(edge) < error);
  const blocks: TicketBlock[] = [
    {
      heading: said.says,
      lines: [
        t`Printed, folded, bound and trimmed by a simulated press and finishing line from the bytes of the sheet PDF and the finishing plan alone.`,
        t`Paper, grain and ink are not proved by it: see the findings.`,
      ],
    },
    ...(said.wrong.length
      ? [{ heading: t`Not as intended`, lines: said.wrong.map(({ says }) => says) }]
      : []),
    ...(edges.length ? [edgesBlock(weak, edges, job, docket.unit, error)] : []),
  ];
  return layTicket({
    title: docket.title,
    under: (place, page, of) => t`${place} · ${sayDate(dayOf(at))} · page ${page} of ${of}`,
    pages: [{ place: t`Proof`, blocks }],
  });
}

function edgesBlock(
  weak: readonly Edge[],
  edges: readonly Edge[],
  job: Parameters<typeof intendedOf>[0],
  unit: WorkedOut['docket']['unit'],
  error: number,
): TicketBlock {
  const names = new Map<number, string[]>();
  const nameOf = ({ product, page }: Edge): string => {
    const known = names.get(product) ?? intendedOf(job, product).map(({ name }) => pageName(name));
    names.set(product, known);
    return known[page] ?? '';
  };
  const named = weak.slice(0, MOST_NAMED).map((edge) => sayEdge(edge, nameOf(edge), unit));
  const more = weak.length - named.length;
  return {
    heading: weak.length
      ? t`${plural(weak.length, 'edge')} ${weak.length === 1 ? t`stands` : t`stand`} less than the ${formatLength(error, unit)} that knives err by`
      : t`Every edge stands the ${formatLength(error, unit)} that knives err by`,
    lines: [...named, ...(more > 0 ? [t`and ${more} more`] : [])],
    drawings: [
      drawBars(
        edges.slice(0, MOST_BARS).map((edge) => ({
          name: `${nameOf(edge)}, ${edge.edge}`,
          length: standsOf(edge),
          said: sayMeasured(standsOf(edge), unit),
        })),
        error,
        t`the weakest edges: how far a knife may err; the line is what it errs by`,
      ),
    ],
  };
}

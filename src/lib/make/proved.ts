import type { WorkedOut } from '../core/checks';
import { holds, standsOf, type Outcome, type PageVerdict, type Proof } from '../core/finish/proof';
import type { Gray } from '../raster/gray';
import { namedEdges, sayProof } from '../words/proof';
import type { HandOverJob } from './outputs/outputMaker';
import { proveSheets } from './prove';
import { entryAt } from '../core/entries';

/** What is wrong that is told besides the report, edges among it; wrong pages that are shown in pictures. */
const [MOST_NAMED, MOST_EDGES, MOST_PICTURED] = [30, 16, 8];

/**
 * Proves sheets of a job from their bytes, and what that comes to, with pictures of the first wrong pages. With `error`, what
 * knives are taken to err by, the edges are measured too.
 */
export async function proved(
  work: WorkedOut,
  sheets: Uint8Array,
  job: HandOverJob,
  error?: number,
): Promise<{ proof: Proof; outcome: Outcome }> {
  const shown: { verdict: PageVerdict; met: Gray; meant: Gray }[] = [];
  const proof = await proveSheets(work, sheets, job, {
    withEdges: error !== undefined,
    onWrong: (verdict, pictures) => {
      if (shown.length < MOST_PICTURED) shown.push({ verdict, ...pictures });
    },
  });
  const { list, plan, docket } = work;
  const finished = { list, plan: plan!, scheme: docket.scheme };
  const pictures = new Map<PageVerdict, string>();
  for (const { verdict, met, meant } of shown) pictures.set(verdict, await sideBySide(meant, met));
  // Sentences for wrong pages come first, in the order of the verdicts.
  const wrong = proof.pages.filter(({ verdict }) => verdict.is !== 'same');
  const named = sayProof(proof, finished, docket.unit)
    .wrong.slice(0, MOST_NAMED)
    .map((each, n) => {
      const verdict = wrong[n];
      const picture = verdict && pictures.get(verdict);
      return picture ? { ...each, picture } : each;
    });
  const edges = proof.edges ?? [];
  const weak = error === undefined ? 0 : edges.filter((edge) => standsOf(edge) < error).length;
  return {
    proof,
    outcome: {
      holds: holds(proof),
      pages: proof.pages.length,
      wrong: wrong.length,
      weak,
      named,
      ...(error === undefined ? {} : { weakest: { error, edges: namedEdges(edges, finished, MOST_EDGES) } }),
    },
  };
}

/** Between pictures, in dots. */
const GAP = 6;
const BETWEEN = [207, 199, 179] as const;
/** What differs is printed in this colour over what is the same, paled. */
const DIFFERENT = [181, 69, 44] as const;
/** Small pictures blur what differs: this much less of white is enough. */
const DIFFERS = 28;

/** What was intended, what was met, and where they differ, side by side: a PNG as a data URL. */
async function sideBySide(meant: Gray, met: Gray): Promise<string> {
  const { default: sharp } = await import('sharp');
  const { width, height } = meant;
  const wide = 3 * width + 2 * GAP;
  const dots = new Uint8Array(wide * height * 3).fill(255);
  const put = (x: number, y: number, [r, g, b]: readonly [number, number, number]) =>
    dots.set([r, g, b], (y * wide + x) * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < GAP; x++) for (const n of [1, 2]) put(n * width + (n - 1) * GAP + x, y, BETWEEN);
    for (let x = 0; x < width; x++) {
      const [a, b] = [entryAt(meant.light, y * width + x), entryAt(met.light, y * width + x)];
      const pale = 200 + Math.round((a * 55) / 255);
      put(x, y, [a, a, a]);
      put(width + GAP + x, y, [b, b, b]);
      put(2 * (width + GAP) + x, y, Math.abs(a - b) > DIFFERS ? DIFFERENT : [pale, pale, pale]);
    }
  }
  const png = await sharp(dots, { raw: { width: wide, height, channels: 3 } })
    .png({ palette: true, colours: 64, dither: 0 })
    .toBuffer();
  return `data:image/png;base64,${png.toString('base64')}`;
}

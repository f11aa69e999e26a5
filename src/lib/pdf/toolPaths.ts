import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFRawStream,
  PDFString,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { chordsOf, type CutPath, type Point } from '../core/handover/cutting';
import type { CutBy } from '../core/handover/machines';
import { applyToPoint, compose, IDENTITY, type Matrix, matrixOf } from '../core/measure/matrix';
import type { Survey } from '../core/model/survey';
import { operationsOf } from './content';
import { decodeStream, pageContent } from './decodeStream';
import { textOfName } from './libraryObjects';
import { loadPdf } from './load';
import { entryAt, firstOf } from '../core/entries';

/** Forms in forms are followed this deep. */
const DEEPEST = 12;

/**
 * The paths of each page that are drawn in an ink or on a layer, as a tool reads them: in points from the lower left corner
 * of the page as it is seen. Lines and areas count alike, by their outlines; clips, text and pictures do not. Throws PdfError.
 */
export async function toolPaths(bytes: Uint8Array, by: CutBy, survey: Survey): Promise<CutPath[][]> {
  const document = await loadPdf(bytes);
  return document.getPages().map(({ node }, n) => {
    const reader = new PathReader(by);
    reader.read(pageContent(node), node.Resources(), entryAt(survey.pages, n).toUpright, 0);
    return reader.found;
  });
}

/** What of the graphics state (ISO 32000-1, 8.4) says where a path lies and what it is drawn in. */
interface State {
  matrix: Matrix;
  line: Paint;
  area: Paint;
}
/** What lines, or areas, are drawn in. */
interface Paint {
  /** Which component of the colour space is the ink that is read; undefined where none is. */
  component?: number | undefined;
  /** Whether it prints. */
  inked: boolean;
}
const OTHER_INK: Paint = { inked: false };

/** The colour operators by what they set (8.6.8): lines in capitals. */
const PLAIN_COLOURS = new Set(['G', 'RG', 'K', 'g', 'rg', 'k']);
const STROKES = new Set(['S', 's', 'B', 'B*', 'b', 'b*']);
const FILLS = new Set(['f', 'F', 'f*', 'B', 'B*', 'b', 'b*']);
const CLOSES = new Set(['s', 'b', 'b*']);

class PathReader {
  readonly found: CutPath[] = [];
  /** Marked content that is open, and whether each is the layer. */
  private readonly marked: boolean[] = [];
  private state: State = { matrix: IDENTITY, line: OTHER_INK, area: OTHER_INK };

  constructor(private readonly by: CutBy) {}

  /** Reads content in the present state, moved by `matrix`; what it changes of the state ends with it. */
  read(content: Uint8Array, resources: PDFDict | undefined, matrix: Matrix, depth: number): void {
    const outside = this.state;
    this.state = { ...outside, matrix: compose(matrix, outside.matrix) };
    const kept: State[] = [];
    let paths: { points: Point[]; closed: boolean }[] = [];
    const paint = (what: 'line' | 'area', paint: Paint) =>
      void (this.state = { ...this.state, [what]: paint });
    const at = (x: number, y: number): Point => {
      const point = applyToPoint(this.state.matrix, x, y);
      return [point.x, point.y];
    };
    const open = () => paths.at(-1);
    const begin = (point: Point) => void paths.push({ points: [point], closed: false });
    /** The path that goes on: after one was closed, from where it began. */
    const going = () => {
      const last = open();
      if (last?.closed) begin(firstOf(last.points));
      return open();
    };
    for (const { operator, operands } of operationsOf(Buffer.from(content).toString('latin1'))) {
      const n = operands.map(Number);
      const what = operator === operator.toLowerCase() ? 'area' : 'line';
      if (STROKES.has(operator) || FILLS.has(operator)) {
        if (CLOSES.has(operator) && open()) open()!.closed = true;
        const drawn =
          this.by.what === 'layer' ||
          (STROKES.has(operator) && this.state.line.inked) ||
          (FILLS.has(operator) && this.state.area.inked);
        if (drawn && this.onLayer())
          for (const { points, closed } of paths)
            if (points.length > 1) this.found.push({ points, closed: closed || !STROKES.has(operator) });
        paths = [];
        continue;
      }
      if (PLAIN_COLOURS.has(operator)) {
        paint(what, OTHER_INK);
        continue;
      }
      switch (operator) {
        case 'q':
          kept.push(this.state);
          break;
        case 'Q':
          this.state = kept.pop() ?? this.state;
          break;
        case 'cm':
          this.state = { ...this.state, matrix: compose(matrixOf(n), this.state.matrix) };
          break;
        case 'CS':
        case 'cs': {
          const component = this.componentOf(lookIn(resources, 'ColorSpace', operands[0]));
          // A spot is set to its full tint with its space (8.6.6.4).
          paint(what, { component, inked: component !== undefined });
          break;
        }
        case 'SC':
        case 'SCN':
        case 'sc':
        case 'scn': {
          const { component } = this.state[what];
          paint(what, { component, inked: component !== undefined && (n[component] ?? 0) > 0 });
          break;
        }
        case 'm':
          begin(at(firstOf(n), entryAt(n, 1)));
          break;
        case 'l':
          going()?.points.push(at(firstOf(n), entryAt(n, 1)));
          break;
        case 'c':
        case 'v':
        case 'y': {
          const path = going();
          const from = path?.points.at(-1);
          if (!path || !from) break;
          const ends = n.length >= 6 ? [0, 2, 4] : [0, 2];
          const [a, b, c] = ends.map((k) => at(entryAt(n, k), entryAt(n, k + 1))) as [Point, Point, Point?];
          if (operator === 'c') path.points.push(...chordsOf(from, a, b, c!));
          else path.points.push(...chordsOf(from, operator === 'v' ? from : a, operator === 'v' ? a : b, b));
          break;
        }
        case 'h':
          if (open()) open()!.closed = true;
          break;
        case 're': {
          const [x, y, width, height] = n as [number, number, number, number];
          paths.push({
            points: [at(x, y), at(x + width, y), at(x + width, y + height), at(x, y + height)],
            closed: true,
          });
          break;
        }
        case 'n':
          paths = [];
          break;
        case 'BMC':
          this.marked.push(false);
          break;
        case 'BDC':
          this.marked.push(
            operands[0] === '/OC' && this.isLayer(lookIn(resources, 'Properties', operands[1])),
          );
          break;
        case 'EMC':
          this.marked.pop();
          break;
        case 'Do':
          this.form(lookIn(resources, 'XObject', operands[0]), resources, depth);
      }
    }
    this.state = outside;
  }

  private form(found: PDFObject | undefined, resources: PDFDict | undefined, depth: number): void {
    if (!(found instanceof PDFRawStream) || depth >= DEEPEST) return;
    const { dict } = found;
    if (dict.lookup(PDFName.of('Subtype')) !== PDFName.of('Form')) return;
    const matrix = dict.lookup(PDFName.of('Matrix'));
    const own = dict.lookup(PDFName.of('Resources'));
    const open = this.marked.length;
    this.marked.push(this.isLayer(dict.lookup(PDFName.of('OC'))));
    this.read(
      decodeStream(found),
      own instanceof PDFDict ? own : resources,
      matrix instanceof PDFArray ? matrixOf(matrix.asArray().map((_, n) => numberAt(matrix, n))) : IDENTITY,
      depth + 1,
    );
    // What the form left open ends with it.
    this.marked.length = open;
  }

  private readonly onLayer = (): boolean => this.by.what === 'ink' || this.marked.includes(true);

  /** Whether an optional content group is the layer, or a membership has it (8.11). */
  private isLayer(found: PDFObject | undefined): boolean {
    if (this.by.what !== 'layer' || !(found instanceof PDFDict)) return false;
    const name = found.lookup(PDFName.of('Name'));
    if (name instanceof PDFString || name instanceof PDFHexString) return name.decodeText() === this.by.name;
    const groups = found.lookup(PDFName.of('OCGs'));
    if (groups instanceof PDFArray) return groups.asArray().some((_, n) => this.isLayer(groups.lookup(n)));
    return (
      groups instanceof PDFDict && groups !== found && groups.has(PDFName.of('Name')) && this.isLayer(groups)
    );
  }

  /** Which component of a colour space is the ink: of a Separation its only one, of DeviceN that of its name. */
  private componentOf(space: PDFObject | undefined): number | undefined {
    if (this.by.what !== 'ink' || !(space instanceof PDFArray)) return undefined;
    const family = space.lookup(0);
    const named = space.lookup(1);
    const names =
      family === PDFName.of('Separation')
        ? [named]
        : family === PDFName.of('DeviceN') && named instanceof PDFArray
          ? named.asArray()
          : [];
    const found = names.findIndex((name) => name instanceof PDFName && textOfName(name) === this.by.name);
    return found < 0 ? undefined : found;
  }
}

const numberAt = (array: PDFArray, n: number): number => Number(String(array.lookup(n)));

/** A named resource of a kind. */
function lookIn(
  resources: PDFDict | undefined,
  kind: string,
  name: string | undefined,
): PDFObject | undefined {
  const all = resources?.lookup(PDFName.of(kind));
  return all instanceof PDFDict && name?.startsWith('/') ? all.lookup(PDFName.of(name.slice(1))) : undefined;
}

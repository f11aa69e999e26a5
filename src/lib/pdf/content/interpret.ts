import { PDFArray, PDFDict, PDFName, PDFRawStream, type PDFObject } from '@cantoo/pdf-lib';
import { compose, IDENTITY, type Matrix, matrixOf } from '../../core/measure/matrix';
import { decodeStream } from '../objects/decodeStream';
import { operationsOf, type Operation } from './operations';
import { PATH_OPERATORS, PathBuilder, type Subpath } from './paths';

/** Forms in forms are followed this deep. */
const DEEPEST = 12;

/** Device spaces by the operators that set a colour in them (ISO 32000-1, 8.6.8). */
export const DEVICE_OPERATORS: ReadonlyMap<string, 'DeviceCMYK' | 'DeviceGray' | 'DeviceRGB'> = new Map([
  ['k', 'DeviceCMYK'],
  ['K', 'DeviceCMYK'],
  ['g', 'DeviceGray'],
  ['G', 'DeviceGray'],
  ['rg', 'DeviceRGB'],
  ['RG', 'DeviceRGB'],
]);

/** How operators paint the current path (8.5.3). */
const PAINTS: ReadonlyMap<string, Painting & { closes: boolean }> = new Map([
  ['S', { strokes: true, fills: false, closes: false }],
  ['s', { strokes: true, fills: false, closes: true }],
  ['f', { strokes: false, fills: true, closes: false }],
  ['F', { strokes: false, fills: true, closes: false }],
  ['f*', { strokes: false, fills: true, closes: false }],
  ['B', { strokes: true, fills: true, closes: false }],
  ['B*', { strokes: true, fills: true, closes: false }],
  ['b', { strokes: true, fills: true, closes: true }],
  ['b*', { strokes: true, fills: true, closes: true }],
]);

/** What lines, or areas, are drawn in (8.6). */
export interface Paint {
  /** The name of the colour space: that of a device space, or as the resources have it. */
  name: string;
  /** The colour space that the resources have under the name. */
  space?: PDFObject | undefined;
  /** The components as they were set; undefined if only the space was, which sets its own (8.6.5, 8.6.6). */
  components?: readonly number[];
}
/** The part of the graphics state that is followed (8.4). */
export interface State {
  matrix: Matrix;
  line: Paint;
  area: Paint;
}
const BEGINS: Paint = { name: 'DeviceGray', components: [0] };

/** How paths are painted (8.5.3). */
export interface Painting {
  strokes: boolean;
  fills: boolean;
}

/** What is told of content while it is read, in its order. */
export interface Visitor {
  /** A colour was set, by this operation; `state` has it already. What is returned stands in its place. */
  colour?(what: 'line' | 'area', operation: Operation, state: State): string | undefined;
  /** Paths were painted, within marked content with these properties (14.6, 8.11.3); their points are in the first space. */
  paint?(
    paths: readonly Subpath[],
    how: Painting,
    state: State,
    marked: readonly (PDFObject | undefined)[],
  ): void;
}

/** Where content is read: its resources, which say what names mean, and the matrix from its space to the one it is read in. */
export interface Setting {
  resources?: PDFDict | undefined;
  matrix?: Matrix;
}

/**
 * Reads the operations of a content stream and tells a visitor of them; where the visitor hears of paths, forms are read at
 * their place, too. Returns the content as the visitor rewrote it, as Latin-1 text.
 */
export function interpret(
  content: Uint8Array,
  visitor: Visitor,
  { resources, matrix = IDENTITY }: Setting = {},
): string {
  return new Interpreter(visitor).read(content, resources, matrix, 0);
}

/** Content that is being read, at one depth of forms in forms. */
interface Reading {
  resources: PDFDict | undefined;
  depth: number;
  /** States that were saved and not yet restored. */
  saved: State[];
  paths: PathBuilder;
}

/** Carries out an operation; a string stands in its place in what is written. */
type Act = (operation: Operation, reading: Reading) => string | undefined | void;
type Acts = [operator: string, act: Act][];

class Interpreter {
  private state: State = { matrix: IDENTITY, line: BEGINS, area: BEGINS };
  private readonly marked: (PDFObject | undefined)[] = [];
  private readonly acts: ReadonlyMap<string, Act>;

  constructor(private readonly visitor: Visitor) {
    this.acts = new Map<string, Act>([
      ['q', (_, { saved }) => void saved.push(this.state)],
      ['Q', (_, { saved }) => void (this.state = saved.pop() ?? this.state)],
      ['cm', ({ operands }) => this.move(operands)],
      ...(visitor.colour || visitor.paint ? this.colourActs() : []),
      ...(visitor.paint ? this.pathActs() : []),
    ]);
  }

  /** Reads content in the present state, moved by `matrix`; what it changes of the state ends with it. */
  read(content: Uint8Array, resources: PDFDict | undefined, matrix: Matrix, depth: number): string {
    const text = Buffer.from(content).toString('latin1');
    const outside = this.state;
    this.state = { ...outside, matrix: compose(matrix, outside.matrix) };
    const reading: Reading = { resources, depth, saved: [], paths: new PathBuilder() };
    const written: string[] = [];
    let upTo = 0;
    for (const operation of operationsOf(text)) {
      const other = this.acts.get(operation.operator)?.(operation, reading);
      if (typeof other !== 'string') continue;
      written.push(text.slice(upTo, operation.from), other);
      upTo = operation.to;
    }
    this.state = outside;
    return upTo ? written.join('') + text.slice(upTo) : text;
  }

  private colourActs(): Acts {
    const setter =
      (what: 'line' | 'area', paintOf: (operands: readonly string[], reading: Reading) => Paint): Act =>
      (operation, reading) => {
        this.state = { ...this.state, [what]: paintOf(operation.operands, reading) };
        return this.visitor.colour?.(what, operation, this.state);
      };
    const bothOf = (name: string, paintOf: (what: 'line' | 'area') => Parameters<typeof setter>[1]): Acts => [
      [name.toUpperCase(), setter('line', paintOf('line'))],
      [name.toLowerCase(), setter('area', paintOf('area'))],
    ];
    const components = (operands: readonly string[]) => ({ components: operands.map(Number) });
    return [
      ...['k', 'g', 'rg'].flatMap((operator) =>
        bothOf(operator, () => (operands) => ({
          name: DEVICE_OPERATORS.get(operator) ?? '',
          ...components(operands),
        })),
      ),
      ...bothOf('cs', () => ([name = ''], { resources }) => ({
        name: name.slice(1),
        space: lookIn(resources, 'ColorSpace', name),
      })),
      ...['sc', 'scn'].flatMap((operator) =>
        bothOf(operator, (what) => (operands) => ({ ...this.state[what], ...components(operands) })),
      ),
    ];
  }

  private pathActs(): Acts {
    return [
      ...PATH_OPERATORS.map((operator): Acts[number] => [
        operator,
        (operation, { paths }) => paths.add(operation, this.state.matrix),
      ]),
      ...[...PAINTS].map(([operator, { closes, ...how }]): Acts[number] => [
        operator,
        (_, { paths }) => {
          if (closes) paths.close();
          this.visitor.paint?.(paths.take(), how, this.state, this.marked);
        },
      ]),
      ['BMC', () => void this.marked.push(undefined)],
      ['BDC', ({ operands }, { resources }) => void this.marked.push(propertiesOf(operands, resources))],
      ['EMC', () => void this.marked.pop()],
      [
        'Do',
        ({ operands }, { resources, depth }) =>
          this.form(lookIn(resources, 'XObject', operands[0]), resources, depth),
      ],
    ];
  }

  private move(operands: readonly string[]): void {
    if (operands.length < 6) return;
    this.state = { ...this.state, matrix: compose(matrixOf(operands.map(Number)), this.state.matrix) };
  }

  private form(found: PDFObject | undefined, resources: PDFDict | undefined, depth: number): void {
    if (!(found instanceof PDFRawStream) || depth >= DEEPEST) return;
    const { dict } = found;
    if (dict.lookup(PDFName.of('Subtype')) !== PDFName.of('Form')) return;
    const matrix = dict.lookup(PDFName.of('Matrix'));
    const own = dict.lookup(PDFName.of('Resources'));
    const open = this.marked.length;
    this.marked.push(dict.lookup(PDFName.of('OC')));
    this.read(decodeStream(found), own instanceof PDFDict ? own : resources, matrixIn(matrix), depth + 1);
    // What the form left open ends with it.
    this.marked.length = open;
  }
}

/** A form's matrix; what is none does not move it. */
function matrixIn(array: PDFObject | undefined): Matrix {
  if (!(array instanceof PDFArray)) return IDENTITY;
  const numbers = array.asArray().map((_, n) => Number(String(array.lookup(n))));
  return numbers.length >= 6 && numbers.every(Number.isFinite) ? matrixOf(numbers) : IDENTITY;
}

/** The properties of marked content that is of an optional content group, by their name in the resources. */
const propertiesOf = (
  [tag, name]: readonly string[],
  resources: PDFDict | undefined,
): PDFObject | undefined => (tag === '/OC' ? lookIn(resources, 'Properties', name) : undefined);

/** A named resource of a kind. */
function lookIn(
  resources: PDFDict | undefined,
  kind: string,
  name: string | undefined,
): PDFObject | undefined {
  const all = resources?.lookup(PDFName.of(kind));
  return all instanceof PDFDict && name?.startsWith('/') ? all.lookup(PDFName.of(name.slice(1))) : undefined;
}

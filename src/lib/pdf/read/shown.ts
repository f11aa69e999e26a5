import { PDFDict, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { intersect, type Box } from '../../core/measure/box';
import { applyToBox, compose, IDENTITY, matrixOf, type Matrix } from '../../core/measure/matrix';
import type { Draw, Shown } from '../../core/model/written';
import { operationsOf, type Operation } from '../content/operations';
import { decoded, streamsOf } from '../objects/decodeStream';
import { textOf } from '../raw/scan';
import type { ContentSums } from './contentSum';
import { resourcesOf, type SourcePage } from './pageTree';

/** Forms in forms are followed this deep. */
const DEEPEST = 4;

/** So many streams at most are put before a page's own: what is laid behind, what parts it from the rest, and what moves it. */
const MOST_BEFORE = 4;
const NO_RUN = { length: 0, content: 0 };

/** The part of the graphics state that is followed (ISO 32000-1, 8.4). */
interface State {
  matrix: Matrix;
  clip?: Box | undefined;
}

/**
 * What of `asked` a page draws, in its own user space: content that is among it, be it a form or streams of the page itself; any
 * form where some of what is asked cannot be told from other content. Other forms are looked into, and lines of text counted in
 * all that is not `asked`. `sums` tells content apart.
 */
export function shownBy(
  page: SourcePage,
  asked: readonly { content: number | null }[],
  sums: ContentSums,
): Shown {
  const known = new Set(asked.map(({ content }) => content));
  const reading = new Reading((content) => known.has(content) || known.has(null), sums);
  const resources = resourcesOf(page);
  const parts = streamsOf(page.dict);
  for (let n = 0; n < parts.length;) {
    const { length, content } = n > MOST_BEFORE ? NO_RUN : runOf(parts.slice(n), resources, known, sums);
    if (length) reading.meet(content);
    else reading.read(parts[n]!, resources, 0);
    n += length || 1;
  }
  const { draws, texts } = reading;
  return { draws, texts };
}

/** How many of some streams, from the first, are content that is known, and which. */
function runOf(
  parts: readonly PDFRawStream[],
  resources: PDFDict | undefined,
  known: ReadonlySet<number | null>,
  sums: ContentSums,
): { length: number; content: number } {
  let length = 0;
  for (const content of sums.growing(parts, resources)) {
    length++;
    if (known.has(content)) return { length, content };
  }
  return NO_RUN;
}

/** Content that is being read, one stream after another. */
class Reading {
  readonly draws: Draw[] = [];
  texts = 0;
  private state: State = { matrix: IDENTITY };
  private readonly saved: State[] = [];
  private path: Box | undefined;

  constructor(
    private readonly isAsked: (content: number) => boolean,
    private readonly sums: ContentSums,
  ) {}

  /** Known content is drawn in the present state. */
  meet(content: number): void {
    this.draws.push({ content, ...this.state });
  }

  read(stream: PDFRawStream, resources: PDFDict | undefined, depth: number): void {
    const { bytes } = decoded(stream);
    for (const operation of operationsOf(textOf(bytes, [0, bytes.length])))
      this.act(operation, resources, depth);
  }

  private act({ operator, operands }: Operation, resources: PDFDict | undefined, depth: number): void {
    const { state } = this;
    if (operator === 'q') this.saved.push(state);
    else if (operator === 'Q') this.state = this.saved.pop() ?? state;
    else if (operator === 'cm')
      this.state = { ...state, matrix: compose(matrixOf(operands.map(Number)), state.matrix) };
    else if (operator === 're') this.path = boxOf(operands.map(Number));
    else if (operator === 'W' && this.path) {
      const clip = applyToBox(state.matrix, this.path);
      this.state = { ...state, clip: state.clip ? intersect(state.clip, clip) : clip };
    } else if (operator === 'Tj') this.texts++;
    else if (operator === 'Do') this.draw(operands[0]?.slice(1) ?? '', resources, depth);
  }

  private draw(name: string, resources: PDFDict | undefined, depth: number): void {
    const forms = resources?.lookup(PDFName.of('XObject'));
    const form = forms instanceof PDFDict ? forms.lookup(PDFName.of(name)) : undefined;
    if (!(form instanceof PDFRawStream) || form.dict.get(PDFName.of('Subtype')) !== PDFName.of('Form'))
      return;
    const own = form.dict.lookup(PDFName.of('Resources'));
    const within = own instanceof PDFDict ? own : resources;
    const content = this.sums.of([form], within);
    if (content !== null && this.isAsked(content)) {
      this.meet(content);
      return;
    }
    if (depth >= DEEPEST) return;
    const outside = this.state;
    this.read(form, within, depth + 1);
    this.state = outside;
  }
}

const boxOf = ([x = 0, y = 0, width = 0, height = 0]: readonly number[]): Box => ({
  x0: x,
  y0: y,
  x1: x + width,
  y1: y + height,
});

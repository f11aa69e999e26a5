import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import {
  cmyk,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  type Color,
  type PDFFont,
  type PDFPage,
} from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { mm } from '../core/measure/unit';
import { keysOf, recordOf, entryOf } from '../core/entries';

/** Colours of the demo, as process inks from 0 to 1. */
export const INK = {
  black: cmyk(0, 0, 0, 1),
  grey: cmyk(0, 0, 0, 0.55),
  pale: cmyk(0.12, 0.02, 0.14, 0.04),
  sand: cmyk(0.05, 0.1, 0.25, 0.02),
  mist: cmyk(0.16, 0.08, 0.02, 0.05),
  rust: cmyk(0.1, 0.75, 0.8, 0.15),
  cream: cmyk(0.02, 0.04, 0.18, 0),
};
/** The house colour, a spot ink, with the process mix that stands for it on a screen. */
export const HOUSE = { name: 'Larkmoor Green', mix: [0.85, 0.35, 0.6, 0.45] };
/** What the cutter follows; it is not printed. */
export const DIE = { name: 'Die line', mix: [0, 1, 0, 0] };

const require = createRequire(import.meta.url);
const font = (file: string) => readFileSync(require.resolve(`@fontsource/${file}`));
const FACES = {
  plain: 'archivo/files/archivo-latin-400-normal.woff',
  strong: 'archivo/files/archivo-latin-700-normal.woff',
  narrow: 'archivo-narrow/files/archivo-narrow-latin-400-normal.woff',
  figures: 'ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff',
};
export type Face = keyof typeof FACES;

/** A PDF being drawn, measured in millimetres from the trim's upper left corner, as a designer would. */
export class Paper {
  private constructor(
    readonly document: PDFDocument,
    private readonly faces: Record<Face, PDFFont>,
  ) {}

  static async create(title: string): Promise<Paper> {
    const document = await PDFDocument.create({ updateMetadata: false });
    document.setTitle(title);
    document.setProducer('Folder demo');
    document.setCreationDate(new Date('2026-01-05T09:00:00Z'));
    document.registerFontkit(fontkit as never);
    const embedded = (face: Face) =>
      document.embedFont(font(FACES[face]), { subset: true, customName: `Demo-${face}` });
    const fonts = new Map<Face, PDFFont>();
    for (const face of keysOf(FACES)) fonts.set(face, await embedded(face));
    return new Paper(
      document,
      recordOf(keysOf(FACES), (face) => entryOf(fonts, face)),
    );
  }

  /** Adds a page of a trim size, with bleed all round where given. */
  page(width: number, height: number, bleed = 0): Drawing {
    const page = this.document.addPage([mm(width + 2 * bleed), mm(height + 2 * bleed)]);
    if (bleed) {
      page.setBleedBox(0, 0, mm(width + 2 * bleed), mm(height + 2 * bleed));
      page.setTrimBox(mm(bleed), mm(bleed), mm(width), mm(height));
    }
    return new Drawing(page, this.faces, width, height, bleed);
  }

  /** Labels every page: a style and start, or a plain text. */
  label(entry: { style: 'D' | 'r'; start?: number } | { text: string }): void {
    this.labels([{ from: 0, ...entry }]);
  }

  /** Labels runs of pages, each from its first page (from 0). */
  labels(
    runs: readonly ({ from: number } & ({ style: 'D' | 'r'; start?: number } | { text: string }))[],
  ): void {
    const { context, catalog } = this.document;
    const nums = runs.flatMap((run) => [
      run.from,
      'text' in run
        ? { P: PDFHexString.fromText(run.text) }
        : { S: PDFName.of(run.style), St: run.start ?? 1 },
    ]);
    catalog.set(PDFName.of('PageLabels'), context.obj({ Nums: nums }));
  }

  save(): Promise<Uint8Array> {
    return this.document.save({
      useObjectStreams: true,
      addDefaultPage: false,
      updateFieldAppearances: false,
    });
  }
}

/** One page being drawn. */
export class Drawing {
  constructor(
    private readonly page: PDFPage,
    private readonly faces: Record<Face, PDFFont>,
    readonly width: number,
    readonly height: number,
    private readonly bleed: number,
  ) {}

  private x = (x: number) => mm(x + this.bleed);
  private y = (y: number) => mm(this.height + this.bleed - y);

  /** Text on a base line; size in points. */
  text(
    text: string,
    x: number,
    y: number,
    size: number,
    face: Face = 'plain',
    color: Color = INK.black,
    align: 'left' | 'right' | 'centre' = 'left',
  ): void {
    const width = align === 'left' ? 0 : this.faces[face].widthOfTextAtSize(text, size);
    const shift = align === 'centre' ? width / 2 : width;
    this.page.drawText(text, { x: this.x(x) - shift, y: this.y(y), size, font: this.faces[face], color });
  }

  box(x: number, y: number, width: number, height: number, color: Color): void {
    this.page.drawRectangle({
      x: this.x(x),
      y: this.y(y + height),
      width: mm(width),
      height: mm(height),
      color,
    });
  }

  line(x0: number, y0: number, x1: number, y1: number, thickness = 0.5, color: Color = INK.black): void {
    this.page.drawLine({
      start: { x: this.x(x0), y: this.y(y0) },
      end: { x: this.x(x1), y: this.y(y1) },
      thickness,
      color,
    });
  }

  /** A path in SVG's language, in millimetres. */
  path(d: string, options: { stroke?: Color; fill?: Color; thickness?: number }): void {
    const { stroke, fill, thickness = 0.3 } = options;
    this.page.drawSvgPath(d, {
      x: this.x(0),
      y: this.y(0),
      scale: mm(1),
      ...(stroke ? { borderColor: stroke, borderWidth: thickness } : {}),
      ...(fill ? { color: fill } : {}),
    });
  }

  dot(x: number, y: number, radius: number, fill: Color, stroke: Color = INK.black): void {
    this.page.drawCircle({
      x: this.x(x),
      y: this.y(y),
      size: mm(radius),
      color: fill,
      borderColor: stroke,
      borderWidth: 1,
    });
  }

  /** A box in the house ink at a tint from 0 to 1: a Separation colour, so it prints on a plate of its own. */
  houseBox(x: number, y: number, width: number, height: number, tint = 1): void {
    this.inSpot('House', HOUSE, [
      ['scn', tint],
      ['re', this.x(x), this.y(y + height), mm(width), mm(height)],
      ['f'],
    ]);
  }

  /** The die line: a box with round corners that stays inside the page by `inset`, and a round hole, as lines in an ink of their own. */
  dieLine(inset: number, radius: number, hole: { x: number; y: number; radius: number }): void {
    this.inSpot('Die', DIE, [
      ['SCN', 1],
      ['w', 0.5],
      ...rounded(
        this.x(inset),
        this.y(this.height - inset),
        mm(this.width - 2 * inset),
        mm(this.height - 2 * inset),
        mm(radius),
      ),
      ...rounded(
        this.x(hole.x - hole.radius),
        this.y(hole.y + hole.radius),
        mm(2 * hole.radius),
        mm(2 * hole.radius),
        mm(hole.radius),
      ),
      ['S'],
    ]);
  }

  /** Operators with a spot ink as the colour space of fills and lines. */
  private inSpot(
    name: string,
    ink: typeof HOUSE,
    operators: readonly (readonly [string, ...number[]])[],
  ): void {
    const { context } = this.page.doc;
    const mix = { FunctionType: 2, Domain: [0, 1], C0: [0, 0, 0, 0], C1: ink.mix, N: 1 };
    const space = context.obj(
      ['Separation', ink.name, 'DeviceCMYK', mix].map((entry) =>
        typeof entry === 'string' ? PDFName.of(entry) : entry,
      ) as never,
    );
    this.page.node.normalizedEntries();
    const resources = this.page.node.Resources()!;
    const spaces = resources.lookupMaybe(PDFName.of('ColorSpace'), PDFDict) ?? PDFDict.withContext(context);
    spaces.set(PDFName.of(name), space);
    resources.set(PDFName.of('ColorSpace'), spaces);
    const operator = (op: string, ...args: (string | number)[]) =>
      PDFOperator.of(op as PDFOperatorNames, args.map(String) as never);
    this.page.pushOperators(
      operator('q'),
      operator('cs', `/${name}`),
      operator('CS', `/${name}`),
      ...operators.map(([op, ...numbers]) => operator(op, ...numbers)),
      operator('Q'),
    );
  }
}

/** How far the handles of a curve reach that stands for a quarter circle of radius 1. */
const QUARTER = 0.5523;

/** A box with round corners as path operators; x and y are its lower left corner. */
function rounded(x: number, y: number, width: number, height: number, r: number): [string, ...number[]][] {
  const h = r * (1 - QUARTER);
  const [x1, y1] = [x + width, y + height];
  return [
    ['m', x + r, y],
    ['l', x1 - r, y],
    ['c', x1 - h, y, x1, y + h, x1, y + r],
    ['l', x1, y1 - r],
    ['c', x1, y1 - h, x1 - h, y1, x1 - r, y1],
    ['l', x + r, y1],
    ['c', x + h, y1, x, y1 - h, x, y1 - r],
    ['l', x, y + r],
    ['c', x, y + h, x + h, y, x + r, y],
    ['h'],
  ];
}

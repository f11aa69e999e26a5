import type { CutBy, Output, OutputKind, PressTurn, Split } from '../core/handover/output';

/** What each kind of output is called, and what it is for. */
export const OUTPUT_NAME: Record<OutputKind, string> = {
  sheets: 'Sheet PDF',
  pages: 'Reading-order PDF',
  spreads: 'Spreads PDF',
  template: 'Blank template',
  map: 'Sheet map',
  previews: 'Previews',
  docket: 'Docket',
  ticket: 'Job ticket',
  press: 'Press stand-in',
  cutter: 'Cutter stand-in',
};
export const OUTPUT_SAID: Record<OutputKind, string> = {
  sheets:
    'For the press: each page one side of a sheet, front and back in turn, marks on layers of their own.',
  pages:
    'For proofs and screens: one page after the other, with boxes, labels and title; links and layers stay.',
  spreads: 'For a proof: facing pages side by side, as a reader meets them, at their trim.',
  template: 'For a designer: trim, bleed, safe area and folds of both sides.',
  map: 'Where every page lies on every sheet, as a table for other programs.',
  previews: 'Small pictures (PNG) to send ahead or to show.',
  docket:
    'The steps of this job as JSON: kept with the files, the command line makes the same outputs from it.',
  ticket:
    'One A4 page that goes with the work: sizes, paper, sheets, folds, cuts, findings, and both sides of sheet 1.',
  press:
    'A small simulated press prints the sheets on both sides and shows each as it comes out, its back turned as the press turns.',
  cutter:
    'A small simulated cutter reads the ink or the layer it is to follow and draws its path, with the length and the pieces.',
};
/** What the button says that makes it. */
export const OUTPUT_MAKE: Record<OutputKind, string> = {
  sheets: 'Make sheet PDF',
  pages: 'Make reading-order PDF',
  spreads: 'Make spreads PDF',
  template: 'Make template PDF',
  map: 'Make sheet map',
  previews: 'Make previews',
  docket: 'Make docket',
  ticket: 'Make job ticket',
  press: 'Send to press',
  cutter: 'Send to cutter',
};

/** How a press turns sheets for their backs. */
export const TURN_SAID: Record<PressTurn, string> = {
  'short-edge': 'turned on the short edge',
  'long-edge': 'turned on the long edge',
  'one-side': 'one side only',
};

/** What comes of it where a press does not print as the sheets were planned. */
export const PRESS_MISTAKE = {
  'one-side':
    'Printed on one side, every back comes out on a sheet of its own: the leaves stay white behind, and nothing folds or cuts into the work.',
  'other-edge': 'Turned about the other edge, every back comes out upside down behind its front.',
} as const;

/** What a cutter follows: `layer Cutting`. */
export const sayCutBy = ({ what, name }: CutBy): string => `${what} ${name}`;

export type SplitBy = Split['by'];
/** The ways to split a kind of output, as they are offered. */
export const SPLITS: Partial<Record<OutputKind, readonly SplitBy[]>> = {
  pages: ['every', 'bookmarks', 'series', 'pieces', 'places', 'faces', 'size'],
  sheets: ['every', 'faces', 'size'],
  spreads: ['every', 'size'],
};
export const splitName = (by: SplitBy, kind: OutputKind): string =>
  ({
    every: `every so many ${kind === 'sheets' ? 'sides' : kind === 'spreads' ? 'spreads' : 'pages'}`,
    bookmarks: 'at bookmarks',
    series: 'at number series',
    pieces: 'by piece',
    places: 'at pages of my own',
    faces: kind === 'sheets' ? 'fronts and backs apart' : 'odd and even pages apart',
    size: 'by largest file',
  })[by];

/** What stands on the output's line besides its kind: what of it goes out, and how it is split. */
export function sayOutput(output: Output): string[] {
  const said: string[] = [];
  if (output.kind === 'pages') {
    if (output.pages !== undefined)
      said.push(
        typeof output.pages === 'string'
          ? `pages ${output.pages}`
          : `${output.pages.ids.length} pages selected`,
      );
    said.push(output.crop === 'trim' ? 'shown at the trim' : 'shown with bleed');
  }
  if (output.kind === 'previews') said.push(`${output.of}, ${output.ppi} pixels an inch`);
  if (output.kind === 'press')
    said.push(
      output.turn ? TURN_SAID[output.turn] : 'turned as the sheets were planned',
      `${output.ppi} pixels an inch`,
    );
  if (output.kind === 'cutter')
    said.push(output.of, output.by ? sayCutBy(output.by) : 'what is drawn for cutting');
  if (output.kind === 'map') said.push(output.as.toUpperCase());
  if ('split' in output && output.split) {
    const { split } = output;
    const name = splitName(split.by, output.kind);
    said.push(
      `split ${split.by === 'every' ? name.replace('so many', String(split.count)) : split.by === 'size' ? `${name}, ${split.mb} MB` : name}`,
    );
  }
  return said;
}

/** How many bytes, as files are listed. */
export const sayBytes = (count: number): string =>
  count < 1e6 ? `${Math.ceil(count / 1000)} kB` : `${(count / 1e6).toFixed(1)} MB`;

/** The pages that a part has: `pages 11–20`. */
export function sayPart(
  { from, to, pages }: { from?: number; to?: number; pages?: number },
  kind: OutputKind,
): string {
  if (from === undefined || to === undefined || pages === undefined || !SPLITS[kind]) return '';
  const unit = kind === 'sheets' ? 'sheet' : kind === 'spreads' ? 'spread' : 'page';
  const counted = kind === 'sheets' ? `${pages} side${pages === 1 ? '' : 's'}, ` : '';
  return `${counted}${from === to ? `${unit} ${from}` : `${unit}s ${from}–${to}`}`;
}

import { sayFold, sayStrips } from './finishing';
import type { Output } from '../core/handover/outputs';
import { sayAgo } from './ago';
import { sayAsked, sayChoice } from './asked';
import { archiveNamed } from './fileName';
import { sayWrongNumber } from './numberField';
import { sayBytes, sayOutput, sayPart } from './outputs';
import { describe, expect, test } from 'vitest';
import type { Finding } from '../core/checks';
import { SelectionError, type SelectionErrorCode } from '../core/select/selection';
import { StepProblem } from '../core/docket/stepKind';
import type { Step } from '../core/docket/steps';
import { DIE_LINE } from '../core/docket/steps/overlay';
import { mm } from '../core/measure/unit';
import { PLAIN_LINES } from '../core/model/lines';
import { replay } from '../core/docket/replay';
import { A5, docketOf, hashOf, plainSurvey, takeInStep } from '../../../tests/makers';
import { saySelectionError } from './selections';
import { sayStepProblem } from './stepProblems';
import { sayTrouble, SENTENCES } from './troubles';
import { sayFinding, sayMend } from './checks';
import { saySize } from './sizes';
import { sayPageLength } from './lengths';
import { sayStep } from './steps';

const list = replay(docketOf([takeInStep('a')]), { [hashOf('a')]: plainSurvey(6) }).list;

describe('every trouble has a sentence that says what, why and what to do', () => {
  test.each(Object.keys(SENTENCES))('%s', (code) => {
    const sentence = sayTrouble({
      code,
      data: { reason: 'so.', page: 3, most: 5, seconds: 60, mb: 512, name: 'moor.pdf', what: 'label' },
    });
    expect(sentence).not.toContain('not foreseen');
    expect(sentence.split(/[.:] /).length).toBeGreaterThan(1);
  });

  test('one that nobody foresaw says so, and that the job is unharmed', () => {
    expect(sayTrouble({ code: 'strange', data: { reason: 'x' } })).toContain(
      '(strange: x). Try again; the job itself is unharmed',
    );
  });
});

test.each<[SelectionErrorCode, string]>([
  ['empty', 'Say which pages'],
  ['unexpected', '“9x” cannot be read here'],
  ['no-such-page', 'There is no page 9x: the job has pages 1 to 6'],
  ['backwards', 'runs backwards'],
  ['no-such-label', 'No page is labelled 9x'],
  ['no-such-size', 'no size known by name'],
  ['no-such-format', 'No page has a format named “9x”'],
  ['no-such-piece', 'No page belongs to a piece named “9x”'],
  ['no-such-panel', 'No panel hangs at 9x'],
  ['pages-gone', 'no longer in the job'],
  ['none-match', 'No page answers'],
])('selection %s', (code, words) =>
  expect(saySelectionError(new SelectionError(code, '9x', 0, '9x', 6))).toContain(words),
);

test('steps that do not apply say why', () => {
  expect(sayStepProblem(new StepProblem('source-missing', { name: 'a.pdf' }))).toBe(
    'The file “a.pdf” is not here. Take it in again.',
  );
  expect(sayStepProblem(new StepProblem('into-itself', { position: 3 }))).toContain(
    'Page 3 is one of the pages to be moved',
  );
});

test.each<[Step, string]>([
  [takeInStep('a', 'start'), 'Take in|a.pdf|at the start'],
  [{ ...takeInStep('a'), take: '2-3' } as Step, 'Take in|a.pdf|its pages 2-3 · at the end'],
  [{ id: 'x', kind: 'blank', count: 2, where: { at: 'after', pages: '4' } }, 'Blank|2 pages|after page 4'],
  [{ id: 'x', kind: 'remove', pages: { ids: [list.pages[1]!.id, list.pages[2]!.id] } }, 'Remove|pages 2, 3|'],
  [{ id: 'x', kind: 'remove', pages: { ids: ['gone'] } }, 'Remove|pages that are gone|'],
  [{ id: 'x', kind: 'move', pages: 'last', where: { at: 'start' } }, 'Move|the last page|at the start'],
  [
    { id: 'x', kind: 'trim', pages: 'all', ...A5, content: 'fit', fixed: { x: 'spine', y: 'head' } },
    'Size|all pages|A5, 148 × 210 mm · content fitted',
  ],
  [
    { id: 'x', kind: 'bleed', pages: 'all', head: mm(3), foot: mm(3), spine: mm(3), fore: mm(3) },
    'Bleed|all pages|3 mm all round',
  ],
  [
    { id: 'x', kind: 'bleed', pages: 'odd', head: mm(3), foot: mm(2), spine: 0, fore: mm(1.5) },
    'Bleed|odd pages|head 3, foot 2, spine 0, fore edge 1.5 mm',
  ],
  [
    {
      id: 'x',
      kind: 'crop',
      cut: { by: 'ink', padding: mm(2), each: false, mirrored: true },
      pages: '2',
    },
    'Crop|page 2|to the ink, 2 mm round it, one for all',
  ],
  [
    { id: 'x', kind: 'turn', pages: '3', by: 270, unless: 'landscape' },
    'Turn|page 3|90° to the left, where not landscape',
  ],
  [{ id: 'x', kind: 'piece', pages: '1', name: 'Pass', quantity: 120 }, 'Piece|page 1|“Pass” · 120 wanted'],
  [{ id: 'x', kind: 'copy', pages: '1', where: { at: 'end' } }, 'Copy|of page 1|at the end'],
  [
    {
      id: 'x',
      kind: 'panel',
      pages: '1',
      count: 2,
      show: '5-6',
      width: mm(146),
      allowance: mm(2),
      folds: 'back',
    },
    'Fold-out|on page 1|2 panels · 146 mm wide · shows pages 5-6 · folds over its back',
  ],
  [{ id: 'x', kind: 'give-back', pages: 'panels', where: { at: 'end' } }, 'Give back|all panels|at the end'],
  [{ id: 'x', kind: 'keep', pages: '4-5', together: true }, 'Keep together|pages 4-5|'],
  [
    { id: 'x', kind: 'cover', pages: '1, last', parts: ['front', 'back'] },
    'Cover|made of pages 1, last|front, back',
  ],
  [
    { id: 'x', kind: 'split', pages: '2', columns: 2, rows: 1, at: mm(100), gutter: -mm(3) },
    'Split|page 2|2 across, 1 down, cut at 100 mm, 3 mm shown twice',
  ],
  [
    { id: 'x', kind: 'join', pages: 'all', columns: 2, rows: 2, gap: mm(5) },
    'Join|all pages|2 across, 2 down, 5 mm apart',
  ],
  [
    {
      id: 'x',
      kind: 'reading-order',
      pages: 'all',
      arrangement: { by: 'stitched', scans: 'fronts-backs' },
      gutter: 0,
    },
    'Reading order|of all pages|stitched sheets, fronts, then backs',
  ],
  [
    {
      id: 'x',
      kind: 'numbers',
      series: [
        { from: '1-2', style: 'none' },
        { from: '3', style: 'r', start: 1 },
        { from: '5', style: 'D' },
      ],
    },
    'Number series|none from page 1-2|then i from page 3, then on in 1 2 3 from page 5',
  ],
  [
    {
      ...PLAIN_LINES,
      id: 'x',
      kind: 'set',
      pages: 'all',
      x: 9,
      y: 9,
      edge: 'foot',
      across: 'right',
      text: '{number}',
      start: 7,
      by: 1,
      digits: 3,
      away: ['p'],
    },
    'Numbered set|all pages|from 007 · foot, right · not on 1 page',
  ],
  [
    {
      ...PLAIN_LINES,
      id: 'x',
      kind: 'running',
      pages: 'odd',
      x: 9,
      y: 9,
      texts: [
        { edge: 'head', across: 'outer', text: '{title}' },
        { edge: 'foot', across: 'centre', text: 'Moor' },
      ],
    },
    'Running lines|odd pages|{title}, head, outer edge · Moor, foot, centre',
  ],
  [
    { ...DIE_LINE, id: 'x' },
    'Overlay|the last page on all pages|cutting, at 100 % · overprints · taken out of the list',
  ],
  [{ id: 'x', kind: 'ink', from: 'Moor', to: 'moor' }, 'Ink|“Moor”|printed as “moor”'],
])('a step in words: %#', (step, words) => {
  const { act, what, detail } = sayStep(step, 'mm', list);
  expect(`${act}|${what}|${detail}`).toBe(words);
});

describe('findings', () => {
  const place = { level: 'stop', stage: 'pages', pages: ['p'] } as const;
  test.each<[Finding, string, string]>([
    [
      { ...place, code: 'mixed-sizes', commonest: A5, sizes: 2 },
      'One size is not like the rest',
      '1 page is not A5, 148 × 210 mm',
    ],
    [
      { ...place, code: 'bleed-short', wanted: mm(3), there: 0 },
      'The art does not reach the bleed',
      '3 mm asked for, 0 mm there',
    ],
    [
      { ...place, code: 'pairs-apart', name: 'inner.pdf', side: 'right' },
      'The pairs have come apart',
      'Page 1 of inner.pdf was made to lie on the right',
    ],
    [
      { ...place, code: 'blanks-wanted', count: 1, total: 7, by: 4, pad: 'end' },
      '1 blank fills the last sheet',
      '7 pages do not divide by 4',
    ],
    [
      { ...place, code: 'blanks-wanted', count: 2, total: 6, by: 4, pad: 'before-last' },
      '2 blanks fill the last sheet',
      'which stays the back cover',
    ],
    [
      { ...place, code: 'sheet-too-small', sheet: A5, needed: { width: 864, height: 612 } },
      'The sheet is too small',
      '304.8 × 215.9 mm',
    ],
    [
      { ...place, code: 'over-safe-area', safe: mm(3), nearest: mm(1) },
      'Too near to the trim',
      '1 page has text or art 1 mm from the trim; 3 mm are safe',
    ],
    [
      { ...place, code: 'low-resolution', ppi: 143.6 },
      'An image too coarse for its size',
      '144 pixels an inch at the size it is printed',
    ],
    [
      { ...place, code: 'over-safe-area', safe: mm(3), nearest: -1, part: 'front' },
      'Too near to the trim',
      'The cover’s front has text or art over the trim',
    ],
    [
      { ...place, code: 'first-page-side', side: 'left' },
      'The first page lies on the right',
      'with its spine at the right begins on the left',
    ],
    [
      { ...place, code: 'leaf-two-sizes', front: A5, back: { width: 100, height: 100 } },
      'A leaf with two sizes',
      'One piece of paper has one size',
    ],
    [
      { ...place, code: 'panel-too-wide', width: A5.width, over: A5.width },
      'A panel too wide to fold in',
      'As wide as what it folds into, it buckles',
    ],
    [
      { ...place, code: 'fold-at-trim', width: A5.width, book: A5.width },
      'The knife would open the fold-out',
      'By practice it stays 3 to 6 mm inside',
    ],
    [
      { ...place, code: 'panels-meet', together: mm(300), space: mm(296) },
      'Two panels would meet',
      '300 mm of the 296 mm between',
    ],
    [{ ...place, code: 'panel-one-face', given: 1 }, 'A panel wants two pages', '1 page was given'],
    [
      { ...place, code: 'kept-pair-split', pairs: 2, first: 4, lost: false },
      '2 kept pairs have come apart',
      'the first at page 4',
    ],
    [
      { ...place, code: 'sheet-missing', numbers: [3, 4, 13, 14] },
      'Scans are missing',
      'pages 3, 4, 13, 14 are not there',
    ],
    [
      { ...place, code: 'lines-near-trim', safe: mm(3), nearest: -mm(2) },
      'A line runs over the trim',
      'it comes to 2 mm beyond the trim; 3 mm are safe',
    ],
    [
      { ...place, code: 'lines-in-spine', safe: mm(3), nearest: mm(1) },
      'A line runs into the spine',
      '1 mm from the spine',
    ],
    [
      { ...place, code: 'glyph-missing', chars: ['ж'], face: 'Source Sans 3' },
      'Letters that the face does not have',
      'Source Sans 3 has no “ж”',
    ],
    [
      { ...place, code: 'spots-alike', names: ['Moor', 'moor'] },
      'One ink under two names',
      '“Moor” and “moor” differ only in spelling',
    ],
    [
      { ...place, code: 'overlay-larger', overlay: { width: 864, height: 612 }, page: A5 },
      'The overlay is larger than the page',
      'It is 304.8 × 215.9 mm, the page 148 × 210 mm',
    ],
    [
      { ...place, code: 'knocks-out', purpose: 'cutting' },
      'The cutting line knocks out the art',
      'a white line shows',
    ],
  ])('%#', (finding, title, text) => {
    const said = sayFinding(finding, 'mm');
    expect(said.title).toBe(title);
    expect(said.text).toContain(text);
  });

  test('mends say what they would do; sizes carry their names; lengths that no page can have are refused', () => {
    expect(sayMend({ code: 'blank-inside-covers', data: { count: 2 } })).toBe('Blank inside each cover');
    expect(sayMend({ code: 'larger-sheet', data: { name: 'SRA3' } })).toBe('Use SRA3');
    expect(sayMend({ code: 'fill-with-blanks', data: { count: 3, place: 'end' } })).toBe(
      '3 blanks at the end',
    );
    expect(saySize({ width: A5.height, height: A5.width }, 'mm')).toBe('A5 landscape, 210 × 148 mm');
    expect(saySize({ width: 585, height: 585 }, 'in')).toBe('8 1/8 × 8 1/8 in');
    expect(
      [sayPageLength(0), sayPageLength(14_401), sayPageLength(14_400)].map((words) => words === undefined),
    ).toEqual([false, false, true]);
  });
});

test.each<[Output, string[]]>([
  [{ kind: 'pages', crop: 'trim' }, ['shown at the trim']],
  [
    { kind: 'pages', crop: 'bleed', pages: 'odd', split: { by: 'every', count: 10 } },
    ['pages odd', 'shown with bleed', 'split every 10 pages'],
  ],
  [{ kind: 'sheets', split: { by: 'size', mb: 2.5 } }, ['split by largest file, 2.5 MB']],
  [{ kind: 'sheets', split: { by: 'faces' } }, ['split fronts and backs apart']],
  [{ kind: 'previews', of: 'sheets', ppi: 96 }, ['sheets, 96 pixels an inch']],
  [{ kind: 'map', as: 'csv' }, ['CSV']],
  [{ kind: 'ticket' }, []],
])('what stands beside the output %j', (output, said) => expect(sayOutput(output)).toEqual(said));

test.each<[Parameters<typeof sayPart>, string]>([
  [[{ from: 11, to: 20, pages: 10 }, 'pages'], 'pages 11–20'],
  [[{ from: 3, to: 3, pages: 1 }, 'pages'], 'page 3'],
  [[{ from: 1, to: 4, pages: 8 }, 'sheets'], '8 sides, sheets 1–4'],
  [[{}, 'ticket'], ''],
  // 2-3 and the last of eight; every other page.
  [[{ from: 2, to: 8, pages: 3 }, 'pages'], '3 of pages 2–8'],
  [[{ from: 1, to: 127, pages: 64 }, 'pages'], '64 of pages 1–127'],
])('the part %j', (given, said) => expect(sayPart(...given)).toBe(said));

test.each([
  ['just now', 20_000],
  ['5 minutes ago', 5 * 60_000 + 2000],
  ['1 hour ago', 62 * 60_000],
  ['yesterday', 26 * 3_600_000],
  ['3 weeks ago', 21 * 86_400_000],
])('how long ago: %s', (said, ms) => expect(sayAgo(0, ms)).toBe(said));

test('files are told in kilobytes and megabytes of tens, never as none', () => {
  expect([1, 999, 1001, 2_345_678].map(sayBytes)).toEqual(['1 kB', '1 kB', '2 kB', '2.3 MB']);
});

test.each([
  ['sheet width', ['scheme', 'stock', 'width']],
  ['pieces wanted', ['scheme', 'run', 'pieces']],
  ['turns on its', ['scheme', 'turn']],
  ['Previews: ppi', ['outputs', 1, 'ppi']],
  ['text 2 edge', ['texts', 1, 'edge']],
  ['ink yellow', ['ink', 'y']],
  ['from head or foot', ['y']],
])('a value that a recipe may ask for is called “%s”', (said, path) =>
  expect(sayAsked(path, { outputs: [{ kind: 'sheets' }, { kind: 'previews', of: 'pages', ppi: 72 }] })).toBe(
    said,
  ),
);

test.each([
  ['gang all', ['scheme', 'arrange'], 'gang'],
  ['one side only', ['scheme', 'work'], 'single-side'],
  ['closed gatefold', ['scheme', 'pattern', 'fold'], 'closed-gate'],
  ['short edge', ['scheme', 'turn'], 'short-edge'],
])('what it may be is called “%s”', (said, path, word) => expect(sayChoice(path, word)).toBe(said));

test('cuts and folds are told as an operator is: strips by their names, the part that moves', () => {
  expect([[''], ['2'], ['1', '2', '3', '5'], ['2.1', '2.2']].map(sayStrips)).toEqual([
    'the sheet',
    'strip 2',
    'strips 1-3, 5',
    'strips 2.1, 2.2',
  ]);
  const fold = {
    number: 2,
    axis: 'horizontal',
    at: mm(99),
    piece: { width: 0, height: 0 },
    layers: 3,
    there: 3,
  } as const;
  expect(sayFold({ ...fold, moves: 'head', goes: 'over' }, 'mm')).toBe(
    'level, 99 mm from the foot: upper part over, 3 layers',
  );
  expect(sayFold({ ...fold, moves: 'head', goes: 'over', layers: 1 }, 'mm')).toContain('over, 1 of 3 layers');
});

test.each([
  ['1,000', '“1,000” can be read in two ways: type 1.000 or 1000.'],
  ['abc', 'A whole number of pages from 1 to 40.'],
  ['', 'A whole number of pages from 1 to 40.'],
  ['2.5', 'A whole number of pages from 1 to 40.'],
  ['41', 'A whole number of pages from 1 to 40.'],
  ['−3', 'A whole number of pages from 1 to 40.'],
  ['12', undefined],
])('a field for a count of pages that holds “%s” says so', (text, said) => {
  const limits = { least: 1, most: 40, whole: true, of: 'pages', optional: false };
  expect(sayWrongNumber(text, limits)).toBe(said);
  if (!text) expect(sayWrongNumber(text, { ...limits, optional: true })).toBeUndefined();
});

test('an archive is called by what the names of its files have in common, where these follow a pattern', () => {
  const spec = { kind: 'pages', crop: 'trim', name: '{job} {from}' } as Output;
  const files = ['Moor guide 001-010.pdf', 'Moor guide 011-020.pdf'].map((name) => ({ name }));
  expect(archiveNamed(spec, 'Moor guide pages.zip', files)).toBe('Moor guide.zip');
  expect(archiveNamed({ ...spec, name: undefined }, 'Moor guide pages.zip', files)).toBe(
    'Moor guide pages.zip',
  );
  expect(archiveNamed(spec, 'plain.zip', [{ name: '1.pdf' }, { name: '2.pdf' }])).toBe('plain.zip');
});

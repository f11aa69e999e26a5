import type {
  CoverFace,
  CutOperation,
  CutPiece,
  FoldOperation,
  Operation,
} from '../src/lib/core/finish/operations';
import { mm } from '../src/lib/core/measure/unit';
import type { Spine } from '../src/lib/core/model/page';
import type { WorkStyle } from '../src/lib/core/sheets/pressTerms';

/*
 * A job ticket as somebody reads it who knows nothing but what it says: text in millimetres becomes operations again. What it does
 * not say it does not know; a sentence that it cannot read stops it.
 */

const NUMBER = String.raw`(\d+(?:\.\d+)?)`;
const SIZE = `${NUMBER} × ${NUMBER} mm`;
const sizeOf = (width: string | undefined, height: string | undefined) => ({
  width: mm(Number(width)),
  height: mm(Number(height)),
});
const found = (text: string, pattern: RegExp): RegExpExecArray => {
  const match = pattern.exec(text);
  if (!match) throw new Error(`${String(pattern)} is not said in: ${text.slice(0, 400)}`);
  return match;
};

/** `1-4, 6` as numbers. */
const numbersIn = (said: string): number[] =>
  said.split(/,\s*/).flatMap((run) => {
    const [from, to = from] = run.split('-').map(Number) as [number, number?];
    return Array.from({ length: to - from + 1 }, (_, n) => from + n);
  });
const RUNS = String.raw`(\d+(?:-\d+)?(?:, \d+(?:-\d+)?)*)`;
const sheetsIn = (text: string): number[] => numbersIn(found(text, new RegExp(`sheets? ${RUNS}`))[1]!);

const STRIPS = String.raw`(the sheet|strips? [\d., -]*\d)`;
function stripsIn(said: string): string[] {
  if (said === 'the sheet') return [''];
  const names = said.replace(/^strips? /, '');
  return names.includes('.') ? names.split(', ') : numbersIn(names).map(String);
}
const SPINE: Record<string, Spine> = {
  'at the left': 'left',
  'at the right': 'right',
  'at the head': 'head',
};
const spineIn = (text: string): Spine => SPINE[found(text, /at the (left|right|head)/)[0]]!;
const TURNS = { 'a quarter clockwise': 90, 'a half': 180, 'a quarter anticlockwise': 270 } as const;
const turnIn = (text: string): 0 | 90 | 180 | 270 => {
  const said = /turned by (a quarter clockwise|a half|a quarter anticlockwise)/.exec(text)?.[1];
  return said ? TURNS[said as keyof typeof TURNS] : 0;
};

const READ: [begins: RegExp, read: (text: string, spine: Spine | undefined) => Operation][] = [
  [/^Print/, readPrint],
  [/^Cut sheets?/, readCut],
  [/^Fold/, readFold],
  [
    /^(Nest|Gather)/,
    (text) => {
      const order = /^(?:Nest|Gather) sheets? ([\d, ]+):/.exec(text);
      const inside = new Map(
        [...text.matchAll(new RegExp(`The trim of sheets? ${RUNS} lies ${NUMBER} mm inside`, 'g'))].flatMap(
          ([, those, far]) => numbersIn(those!).map((sheet) => [sheet, mm(Number(far))] as const),
        ),
      );
      const sheets = (order ? order[1]!.split(', ') : []).map((sheet) => ({
        sheet: Number(sheet),
        inside: inside.get(Number(sheet))!,
      }));
      return {
        kind: text.startsWith('Nest') ? 'nest' : 'gather',
        spine: spineIn(text),
        sheets,
      };
    },
  ],
  [
    /^Tip in/,
    (text, spine = 'left') => {
      const [, sheet, after] = found(text, /sheet (\d+) (?:after leaf (\d+)|before the first leaf)/);
      const [, from, inside] = found(
        text,
        new RegExp(`spine edge ${NUMBER} mm from .* trim ${NUMBER} mm inside`),
      );
      return {
        kind: 'tip-in',
        spine,
        sheet: Number(sheet),
        after: Number(after ?? 0),
        from: mm(Number(from)),
        inside: mm(Number(inside)),
      };
    },
  ],
  [
    /^(Wire-stitch|Take|Sew)/,
    (text) => ({
      kind: 'bind',
      how: text.startsWith('Wire') ? 'stitch' : text.startsWith('Sew') ? 'sew' : 'glue',
      spine: spineIn(text),
      roughing: mm(Number(new RegExp(`Take ${NUMBER} mm off the spine`).exec(text)?.[1] ?? 0)),
    }),
  ],
  [/^Cover/, readCover],
  [
    /^Trim/,
    (text, spine = 'left') => {
      const [, width, height] = found(text, new RegExp(`Trim to ${SIZE}`));
      const size = sizeOf(width, height);
      const [, along] = found(text, new RegExp(`1\\. fore edge, ${NUMBER} mm from the spine`));
      const [, off] = found(text, new RegExp(`2\\. (?:head|left edge), ${NUMBER} mm off`));
      const [, across] = found(text, new RegExp(`3\\. (?:foot|right edge), ${NUMBER} mm from`));
      const knives = spine === 'head' ? sizeOf(across, along) : sizeOf(along, across);
      if (knives.width !== size.width || knives.height !== size.height)
        throw new Error('the knives give another size');
      return { kind: 'trim', spine, size, inside: mm(Number(off)) };
    },
  ],
  [/^Lay/, readStack],
];

/** The operations that a ticket tells, in the order of their numbers. Throws an Error if it says what cannot be understood. */
export function readTicket(text: string): Operation[] {
  const heading = /^(\d+)\. (?=Print|Cut|Fold|Nest|Gather|Tip|Wire|Take|Sew|Cover|Trim|Lay)/gm;
  const starts = [...text.matchAll(heading)];
  const told = starts
    .map((match, n) => ({
      number: Number(match[1]),
      says: text
        .slice(match.index + match[0].length, starts[n + 1]?.index)
        .split(/^Sheet \d/m)[0]!
        .replace(/\s+/g, ' '),
    }))
    .sort((a, b) => a.number - b.number);
  let spine: Spine | undefined;
  return told.map(({ number, says }, n) => {
    if (number !== n + 1) throw new Error(`instruction ${n + 1} is missing`);
    const read = READ.find(([begins]) => begins.test(says));
    if (!read) throw new Error(`cannot read: ${says}`);
    const operation = read[1](says, spine);
    if ('spine' in operation && operation.kind !== 'tip-in') spine = operation.spine;
    return operation;
  });
}

function readPrint(text: string): Operation {
  const [, width, height] = found(text, new RegExp(`Paper ${SIZE}`));
  const isBoth = text.includes('on both sides');
  const [, work] = isBoth
    ? found(text, /(sheetwise|work-and-turn|work-and-tumble), turned over/)
    : ['', 'single-side'];
  const [, turned] = isBoth
    ? found(text, /turned over from (side to side|head to foot)/)
    : ['', 'side to side'];
  const run = /(\d+) \+ (\d+) overs = (\d+) of each sheet/.exec(text);
  const thick = new RegExp(`${NUMBER} mm thick`).exec(text)?.[1];
  const grammage = new RegExp(`${NUMBER} g/m²`).exec(text)?.[1];
  return {
    kind: 'print',
    sheets: sheetsIn(text),
    paper: {
      ...sizeOf(width, height),
      ...(grammage ? { grammage: Number(grammage) } : {}),
      ...(thick ? { caliper: mm(Number(thick)) } : {}),
    },
    sides: isBoth ? 2 : 1,
    work: work as WorkStyle,
    turns: turned === 'side to side' ? 'vertical' : 'horizontal',
    ...(run ? { each: { net: Number(run[1]), overs: Number(run[2]), total: Number(run[3]) } } : {}),
  };
}

function readCut(text: string): Operation {
  const line = new RegExp(
    `cut (\\d+)(?:–\\d+)?: ${STRIPS}, ${SIZE}, from the (left|foot): ([\\d.() ·]+) mm( and what is left)?`,
    'g',
  );
  const cuts = [...text.matchAll(line)].flatMap(([, first, strips, width, height, from, places, left]) => {
    const all = places!.split(' · ');
    return all.map((place, n): CutOperation => ({
      number: Number(first) + n,
      axis: from === 'left' ? 'vertical' : 'horizontal',
      at: mm(Number(place.replace(/[()]/g, ''))),
      paper: sizeOf(width, height),
      strips: stripsIn(strips!),
      off: place.startsWith('(') ? 'waste' : 'piece',
      ...(n === all.length - 1 ? { rest: left ? 'piece' : 'waste' } : {}),
    }));
  });
  const laid = new RegExp(`\\d+ pieces?, ${STRIPS}: ${SIZE} on pile (\\d+)((?:, [a-z ]+)*)`, 'g');
  const pieces = [...text.matchAll(laid)].flatMap(([, strips, width, height, pile, how]) =>
    stripsIn(strips!).map((strip): CutPiece => ({
      strip,
      size: sizeOf(width, height),
      pile: Number(pile),
      turn: turnIn(how!),
      ...(how!.includes('turned over') ? { over: true } : {}),
    })),
  );
  return { kind: 'cut', sheets: sheetsIn(text), cuts, pieces };
}

const PART = { left: 'left', right: 'right', upper: 'head', lower: 'foot' } as const;
function readFold(text: string): Operation {
  const [, what, width, height] = found(text, new RegExp(`^Fold (.+?), ${SIZE}`));
  const fold = new RegExp(
    `\\d+\\.(\\d+) (upright|level), ${NUMBER} mm from the (?:left|foot): (left|right|upper|lower) part (over|under)(?:, (\\d+)(?: of (\\d+))? layers)?`,
    'g',
  );
  const folds = [...text.matchAll(fold)].map(
    ([, number, where, at, part, goes, layers = 1, there]): FoldOperation => ({
      number: Number(number),
      axis: where === 'upright' ? 'vertical' : 'horizontal',
      at: mm(Number(at)),
      piece: { width: 0, height: 0 },
      moves: PART[part as keyof typeof PART],
      goes: goes as 'over',
      layers: Number(layers),
      there: Number(there ?? layers),
    }),
  );
  const [, w, h] = found(text, new RegExp(`Folded it is ${SIZE}`));
  const pile = /pile (\d+) of/.exec(what!)?.[1];
  return {
    kind: 'fold',
    sheets: sheetsIn(what!),
    ...(pile ? { pile: Number(pile) } : {}),
    size: sizeOf(width, height),
    folds,
    turn: turnIn(text),
    closed: sizeOf(w, h),
  };
}

function readCover(text: string): Operation {
  const [, sheet] = found(text, /crease sheet (\d+)/);
  const [, from, creases] = found(text, /Creases from the (left|foot): ([\d. ·]+) mm/);
  const places = creases!.split(' · ').map((at) => mm(Number(at)));
  const names = 'back flap|front flap|back|spine|front';
  const parts = [...text.matchAll(new RegExp(`(${names}) ${NUMBER}(?= (?:·|mm))`, 'g'))].map(
    ([, name, length]) => ({
      part: name!.replace(' ', '-') as CoverFace,
      length: mm(Number(length)),
    }),
  );
  const [, inside] = found(text, new RegExp(`trim lies ${NUMBER} mm inside`));
  const spine: Spine =
    from === 'foot'
      ? 'head'
      : parts.findIndex(({ part }) => part === 'front') > parts.findIndex(({ part }) => part === 'back')
        ? 'left'
        : 'right';
  return {
    kind: 'cover',
    sheet: Number(sheet),
    spine,
    parts,
    creases: places,
    before: places[0]! - parts[0]!.length,
    inside: mm(Number(inside)),
  };
}

function readStack(text: string): Operation {
  const sheets = sheetsIn(text);
  if (text.startsWith('Lay alike'))
    return {
      kind: 'stack',
      sheets,
      by: 'alike',
      piles: [...text.matchAll(/pile (\d+)(?:, [^:]+)?: (\d+) pieces? from each sheet/g)].map(
        ([, pile, many]) => ({
          pile: Number(pile),
          pieces: Number(many),
        }),
      ),
    };
  return {
    kind: 'stack',
    sheets,
    by: text.includes('sheet after sheet') ? 'sheets' : 'strips',
    piles: [...text.matchAll(new RegExp(`from the top: ${STRIPS}; (\\d+) pieces?`, 'g'))].map(
      ([, strips, many]) => ({
        pile: 1,
        strips: stripsIn(strips!),
        pieces: Number(many),
      }),
    ),
  };
}

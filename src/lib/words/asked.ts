import { spoken, t } from './language';
import type { Path } from '../core/docket/askable';
import type { Recipe } from '../core/docket/recipe';
import { outputWords } from './outputs';
import { FOLD_NAMES } from './folds';
import { ARRANGE_NAME, WORK_STYLE_NAME } from './press';

/** What the forms call what these keys hold; nothing if their words would repeat what stands around them. */
const WORD: Record<string, string> = spoken({
  scheme: '',
  pattern: '',
  run: '',
  fore: 'fore edge',
  x: 'from the side',
  y: 'from head or foot',
  dx: 'in from the side',
  dy: 'in from head or foot',
  x0: 'left',
  y0: 'foot',
  x1: 'right',
  y1: 'head',
  from: 'measured from',
  stock: 'sheet',
  caliper: 'thickness of a leaf',
  grain: 'grain along the',
  pieces: 'pieces wanted',
  work: 'printed',
  lay: 'the work lies',
  between: 'between copies',
  pad: 'blanks that fill the last sheet',
  last: 'what is left for the last one',
  roughing: 'off the spine',
  cutOff: 'off the other edges',
  added: 'boards, glue',
  fold: 'folded as',
  arrange: 'the sheet carries',
  goes: 'filled',
  start: 'filled from',
  slug: 'slug line',
  crop: 'a viewer shows',
  texts: 'text',
  first: 'first page',
  where: 'place',
  safe: 'safe margin',
  c: 'cyan',
  m: 'magenta',
  k: 'black',
});

/** What a value of a recipe is called where it can be asked for: `sheet width`, `text 2 edge`. */
export function sayAsked(path: Path, recipe?: Pick<Recipe, 'outputs'>): string {
  const outputs = path[0] === 'outputs' ? recipe?.outputs : undefined;
  const output = outputs?.[Number(path[1])];
  const rest = output ? path.slice(2) : path;
  const ink = path.includes('ink') || path.includes('mix');
  const words = rest.map((key) => {
    if (typeof key === 'number') return String(key + 1);
    if (ink && key === 'y') return t`yellow`;
    if (key === 'turn' && path[0] === 'scheme') return t`turns on its`;
    return WORD[key] ?? key.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  });
  return [output ? `${outputWords(output.kind).name}:` : '', ...words].filter(Boolean).join(' ');
}

const CHOICES: Record<string, Record<string, string>> = {
  arrange: ARRANGE_NAME,
  fold: FOLD_NAMES,
  work: WORK_STYLE_NAME,
};

/** What one of the words is called from which a value is chosen: `short edge`, `gang all`. */
export const sayChoice = (path: Path, word: string): string =>
  CHOICES[String(path.at(-1))]?.[word] ?? word.replaceAll('-', ' ');

import type { Path } from '../core/docket/askable';
import type { Recipe } from '../core/docket/recipe';
import { OUTPUT_NAME } from './outputs';

/** Keys that say less than they mean, or whose words would repeat what stands around them. */
const WORD: Record<string, string> = {
  scheme: '',
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
  stock: 'paper',
  caliper: 'thickness',
  run: '',
  pieces: 'pieces wanted',
  overs: 'sheets more (%)',
  texts: 'text',
  first: 'first page',
  where: 'place',
  safe: 'safe margin',
  c: 'cyan',
  m: 'magenta',
  k: 'black',
};

/** What a value of a recipe is called where it can be asked for: `paper width`, `text 2 edge`. */
export function sayAsked(path: Path, recipe?: Pick<Recipe, 'outputs'>): string {
  const outputs = path[0] === 'outputs' ? recipe?.outputs : undefined;
  const output = outputs?.[Number(path[1])];
  const rest = output ? path.slice(2) : path;
  const ink = path.includes('ink') || path.includes('mix');
  const words = rest.map((key) => {
    if (typeof key === 'number') return String(key + 1);
    if (ink && key === 'y') return 'yellow';
    if (key === 'turn' && path[0] === 'scheme') return 'edge it turns on';
    return WORD[key] ?? key.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  });
  return [output ? `${OUTPUT_NAME[output.kind]}:` : '', ...words].filter(Boolean).join(' ');
}

import type * as z from 'zod';
import { mm } from '../measure/unit';

/** What is wrong with something that was read, and where in it; `words` has the sentence. */
export interface Amiss {
  /** The way to it: names of fields, numbers of entries from 0. Empty for the whole. */
  at: (string | number)[];
  why:
    'least' | 'most' | 'one-of' | 'missing' | 'type' | 'unknown' | 'number' | 'words' | 'nowhere' | 'other';
  /** What it is to be: a bound, what there is to choose from, a type, names that are not known. */
  than?: string;
}

/** The longest way, and the longest `than`, that is told. */
const [DEEPEST, LONGEST] = [8, 200];

/** How to read something of which `amissOf` is to tell: an issue has what was there, so that nothing is told from something wrong. */
export const REPORTED = { reportInput: true } as const;

/** What the validator found, without its words; lengths are in points, and told in millimetres. */
export function amissOf(issue: z.core.$ZodIssue, isLength = false): Amiss {
  const figure = (value: number | bigint) =>
    isLength ? `${Math.round((Number(value) / mm(1)) * 100) / 100} mm` : String(value);
  const at = issue.path
    .slice(0, DEEPEST)
    .map((each) => (typeof each === 'number' ? each : String(each).slice(0, LONGEST)));
  const tell = (why: Amiss['why'], than?: string): Amiss => ({
    at,
    why,
    ...(than === undefined ? {} : { than: than.slice(0, LONGEST) }),
  });
  if (issue.code === 'too_small') return tell('least', figure(issue.minimum));
  if (issue.code === 'too_big') return tell('most', figure(issue.maximum));
  if (issue.code === 'invalid_value') return tell('one-of', issue.values.map(String).join(', '));
  if (issue.code === 'invalid_type')
    return issue.input === undefined ? tell('missing') : tell('type', issue.expected);
  if (issue.code === 'unrecognized_keys') return tell('unknown', issue.keys.join(', '));
  return tell('other');
}

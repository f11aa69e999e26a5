import type { LabelStyle } from '../model/series';
import { entryAt } from '../entries';
/** A run of page labels: from page `from` (from 0), counting from `start`. */
export interface LabelRun {
  from: number;
  style?: LabelStyle;
  prefix: string;
  start: number;
}

/** The label of each of `count` pages (ISO 32000-1, 12.4.2). `runs` ascend by `from`; pages before the first have none. */
export function expandLabels(runs: readonly LabelRun[], count: number): (string | undefined)[] {
  const labels: (string | undefined)[] = new Array(count).fill(undefined);
  runs.forEach((run, i) => {
    const end = Math.min(count, runs[i + 1]?.from ?? count);
    for (let page = Math.max(0, run.from); page < end; page++)
      labels[page] = run.prefix + (run.style ? formatNumber(run.start + page - run.from, run.style) : '');
  });
  return labels;
}

/** The fewest runs, read from the front, that give exactly these labels back. */
export function labelRuns(labels: readonly string[]): LabelRun[] {
  const runs: LabelRun[] = [];
  labels.forEach((label, page) => {
    const open = runs.at(-1);
    const next =
      open &&
      (open.style ? open.prefix + formatNumber(open.start + page - open.from, open.style) : open.prefix);
    if (next !== label) runs.push({ from: page, ...splitLabel(label) });
  });
  return runs;
}

/** A label as typed: its style, prefix and number. A single letter counts in letters, but for i, v and x. */
export function readLabel(label: string): Omit<LabelRun, 'from'> {
  const letter =
    /^[A-Za-z]$/.test(label.at(-1) ?? '') && !/^[A-Za-z]$/.test(label.at(-2) ?? '')
      ? label.at(-1)
      : undefined;
  if (!letter || /[ivx]/i.test(letter)) return splitLabel(label);
  const style = letter === letter.toLowerCase() ? 'a' : 'A';
  return { prefix: label.slice(0, -1), style, start: letter.toLowerCase().charCodeAt(0) - 96 };
}

function splitLabel(label: string): Omit<LabelRun, 'from'> {
  let at = label.length;
  while (at > 0 && /^\d$/.test(entryAt(label, at - 1))) at--;
  const [prefix, digits] = [label.slice(0, at), label.slice(at)];
  if (digits && !digits.startsWith('0') && digits.length < 10)
    return { prefix, style: 'D', start: Number(digits) };
  for (const style of ['r', 'R'] as const) {
    const value = parseRoman(style === 'r' ? label.toUpperCase() : label);
    if (value && formatNumber(value, style) === label) return { prefix: '', style, start: value };
  }
  return { prefix: label, start: 1 };
}

const ROMAN: readonly [number, string][] = [
  [1000, 'M'],
  [900, 'CM'],
  [500, 'D'],
  [400, 'CD'],
  [100, 'C'],
  [90, 'XC'],
  [50, 'L'],
  [40, 'XL'],
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
];

/** Writes a number from 1 in a style. Letters repeat after 26: a…z, aa…zz (table 159). */
export function formatNumber(value: number, style: LabelStyle): string {
  if (style === 'D') return String(value);
  if (style === 'a' || style === 'A') {
    const letter = String.fromCharCode((style === 'a' ? 97 : 65) + ((value - 1) % 26));
    return letter.repeat(Math.ceil(value / 26));
  }
  let rest = value;
  let text = '';
  for (const [worth, sign] of ROMAN) for (; rest >= worth; rest -= worth) text += sign;
  return style === 'r' ? text.toLowerCase() : text;
}

function parseRoman(text: string): number {
  let rest = text;
  let value = 0;
  for (const [worth, sign] of ROMAN)
    for (; rest.startsWith(sign); rest = rest.slice(sign.length)) value += worth;
  return rest ? 0 : value;
}

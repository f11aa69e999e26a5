import { readFileSync } from 'node:fs';
import { parse, type AST } from 'svelte/compiler';
import { afterEach, describe, expect, test } from 'vitest';
import { allKeys, sentencesIn, sourcesOf } from '../../../tests/saidWords';
import { formatLength } from '../core/measure/formatLength';
import { parseLength } from '../core/measure/parseLength';
import { parseNumber } from '../core/measure/parseNumber';
import { mm } from '../core/measure/unit';
import { inEnglish, speak, spoken, t } from './language';
import de from './languages/de.json';
import { plural } from './plural';
import { sayTrouble } from './troubles';

const inGerman = () => speak(() => ({ language: 'de', catalogue: de }));
afterEach(() => speak(() => ({ language: 'en' })));

describe('German', () => {
  test('has words for all that can be said, and none for what is said no more', async () => {
    await Promise.all(
      Object.values(import.meta.glob(['./**/*.ts', '!./**/*.test.ts'])).map((load) => load()),
    );
    const keys = allKeys('.');
    expect(keys.size).toBeGreaterThan(2000);
    expect([...keys].filter((key) => !(key in de))).toEqual([]);
    expect(Object.keys(de).filter((key) => !keys.has(key))).toEqual([]);
  });

  test('puts into a sentence what the English one has, and says none of it twice', () => {
    const holes = (text: string) => (text.match(/\{\d+\}/g) ?? []).sort();
    const wrong = Object.entries(de).filter(([key, words]) => holes(words).join() !== holes(key).join());
    expect(wrong).toEqual([]);
  });

  test('is spoken at once, in sentences, records and counts, with a comma before decimals', () => {
    const record = spoken({ word: 'Sheets', deep: { word: 'Pages' }, group: 'order' });
    const { word, deep } = record;
    inGerman();
    expect([word, deep.word, record.word, record.deep.word, record.group]).toEqual([
      'Sheets',
      'Seiten',
      'Bogen',
      'Seiten',
      'order',
    ]);
    expect([t`page ${3}`, plural(2, 'page'), plural(1, 'page')]).toEqual(['Seite 3', '2 Seiten', '1 Seite']);
    expect(sayTrouble({ code: 'empty-file' })).toMatch(/^Diese Datei ist leer/);
    expect(formatLength(mm(148.5), 'mm')).toBe('148,5 mm');
    expect(inEnglish(() => [t`page ${3}`, formatLength(mm(148.5), 'mm')])).toEqual(['page 3', '148.5 mm']);
  });

  test('reads decimals as it writes them, and asks where a point may stand before thousands', () => {
    const read = () => ['148,167', '148.167', '1.000', '12,5'].map((text) => parseNumber(text));
    expect(read()).toEqual(['thousands', 148.167, 1, 12.5]);
    inGerman();
    expect(read()).toEqual([148.167, 'thousands', 'thousands', 12.5]);
    for (const length of [0.001, 148.167, 1234.5]) {
      const text = formatLength(mm(length), 'mm');
      expect(parseLength(text, 'mm'), text).toBeCloseTo(mm(length), 6);
    }
  });
});

test('sentences are found in sources, within one another too', () => {
  const source =
    "a = t`one ${b ? t`two ${c}` : `three`} four`; plural(n, 'leaf', 'leaves'); plural(f(x), \"no\")";
  expect(new Set(sentencesIn(source))).toEqual(new Set(['one {0} four', 'two {0}', 'leaf', 'leaves']));
});

/** Text that stands in markup as it is, and attributes that are read out or shown. */
function bareWords(file: string): string[] {
  const found: string[] = [];
  const SHOWN = /^(title|aria-label|placeholder|label|alt)$/;
  const isWord = (text: string) => /\p{L}{2}/u.test(text.replace(/&\w+;/g, ''));
  const walk = (node: AST.SvelteNode | undefined | null, within = ''): void => {
    if (!node || typeof node !== 'object') return;
    if (node.type === 'Text' && isWord(node.data) && !/^(kbd|code|style|option)$/.test(within))
      found.push(node.data.trim());
    if ('attributes' in node)
      for (const each of node.attributes)
        if (each.type === 'Attribute' && SHOWN.test(each.name) && Array.isArray(each.value))
          for (const part of each.value) if (part.type === 'Text' && isWord(part.data)) found.push(part.data);
    for (const key of [
      'fragment',
      'consequent',
      'alternate',
      'body',
      'fallback',
      'pending',
      'then',
      'catch',
    ] as const)
      if (key in node)
        walk(
          (node as unknown as Record<string, AST.SvelteNode>)[key],
          'name' in node ? String(node.name) : within,
        );
    if ('nodes' in node) for (const child of node.nodes) walk(child, within);
  };
  walk(parse(readFileSync(file, 'utf8'), { modern: true }).fragment);
  return found.map((text) => `${file}: ${text}`);
}

test('no words stand in markup but those that a language has', () => {
  expect(
    sourcesOf('.')
      .filter((file) => file.endsWith('.svelte'))
      .flatMap(bareWords),
  ).toEqual([]);
});

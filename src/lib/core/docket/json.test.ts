import { expect, test } from 'vitest';
import { readPattern } from '../numbers/pattern';
import { readLabel } from '../pages/pageLabels';
import { resolveSelection } from '../select/selection';
import { parseJson } from './json';
import { MOST_JSON_BYTES, MOST_JSON_DEPTH } from './limits';

const of = (text: string) => parseJson(Buffer.from(text));
const nested = (depth: number) => '['.repeat(depth) + ']'.repeat(depth);

test.each([
  ['a cut-off text', '{"a": ', 'not-json'],
  ['no text', '', 'not-json'],
  ['as deep as may be', nested(MOST_JSON_DEPTH), undefined],
  ['deeper', nested(MOST_JSON_DEPTH + 1), 'json-too-deep'],
  ['brackets in a text', JSON.stringify('['.repeat(500) + '\\"'), undefined],
  ['ten million brackets', nested(5_000_000), 'json-too-large'],
  ['too deep and not too large', nested(MOST_JSON_BYTES / 4), 'json-too-deep'],
  ['U+0000', '{"title": "a\\u0000b"}', 'text-unfit'],
  ['U+0000 in a name', '{"a\\u0000": 1}', 'text-unfit'],
  ['half a pair', '["\\ud800"]', 'text-unfit'],
  ['a whole pair', '["\\ud83d\\ude00"]', undefined],
])('%s', (_, text, code) => {
  if (code) expect(() => of(text)).toThrow(code);
  else expect(of(text)).toBeDefined();
});

test('bytes that are no text are refused', () => {
  expect(() => parseJson(new Uint8Array([0x22, 0xff, 0x22]))).toThrow('not-json');
});

/** Each of these took time that grew with the cube or square of its length; now a million signs are no more than a look. */
test.each<[string, (much: string) => unknown, string | undefined]>([
  ['an open token', (much) => readPattern(`{${much}`), 'open-brace'],
  ['an unknown token', (much) => readPattern(`{${much}x}`), 'unknown-token'],
  [
    'a name',
    (much) =>
      resolveSelection(`size:${much}`, { pages: [], book: { first: 'right', spine: 'left', facing: true } }),
    'unexpected',
  ],
  ['a label', (much) => readLabel(`${'1'.repeat(much.length)}x`), undefined],
])('%s that is very long is read at once', (_, read, code) => {
  const much = ' '.repeat(1_000_000);
  const met = () => {
    try {
      read(much);
      return undefined;
    } catch (error) {
      return (error as { code: string }).code;
    }
  };
  expect(met()).toBe(code);
});

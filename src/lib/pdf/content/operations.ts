/** An operator of a content stream with its operands, and the span of characters that they take. */
export class Operation {
  constructor(
    private readonly text: string,
    /** Where each operand begins and ends. */
    private readonly spans: readonly number[],
    readonly operator: string,
    readonly from: number,
    readonly to: number,
  ) {}

  /** Most operations are only counted or passed over, so operands are cut out of the text when they are asked for. */
  get operands(): string[] {
    const operands: string[] = [];
    for (let n = 0; n < this.spans.length; n += 2)
      operands.push(this.text.slice(this.spans[n], this.spans[n + 1]));
    return operands;
  }
}

/** What a character is (ISO 32000-1, 7.2.2, tables 1 and 2). */
const [REGULAR, SPACE, DELIMITER] = [0, 1, 2];
const CLASS = new Uint8Array(256);
for (const code of [0, 9, 10, 12, 13, 32]) CLASS[code] = SPACE;
for (const sign of '()<>[]{}/%') CLASS[sign.charCodeAt(0)] = DELIMITER;

const [ROUND, LESS, GREATER, SLASH, PERCENT, BACKSLASH, ROUND_END] = [
  0x28, 0x3c, 0x3e, 0x2f, 0x25, 0x5c, 0x29,
];
const [LINE_FEED, RETURN] = [10, 13];
const WORDS = new Set(['true', 'false', 'null']);
/** What a number begins with: `+`, `-`, `.` and digits, but not `,` and `/`. */
const beginsNumber = (code: number): boolean =>
  code >= 0x2b && code <= 0x39 && code !== 0x2c && code !== SLASH;

/** The operations of a content stream (ISO 32000-1, 7.8.2), read as Latin-1 text; the data of inline images is passed over. */
export function* operationsOf(text: string): Generator<Operation> {
  let at = 0;
  let spans: number[] = [];
  while (at < text.length) {
    const code = text.charCodeAt(at);
    if (CLASS[code] === SPACE) {
      at++;
      continue;
    }
    if (code === PERCENT) {
      at = lineEnd(text, at);
      continue;
    }
    const from = at;
    at = tokenEnd(text, at, code);
    if (CLASS[code] !== REGULAR || beginsNumber(code) || isWord(text, from, at)) spans.push(from, at);
    else {
      const operator = text.slice(from, at);
      yield new Operation(text, spans, operator, spans[0] ?? from, at);
      if (operator === 'ID') at = imageEnd(text, at);
      spans = [];
    }
  }
}

const isWord = (text: string, from: number, to: number): boolean =>
  to - from >= 4 && to - from <= 5 && WORDS.has(text.slice(from, to));

/** Where the token that begins with a character ends. */
function tokenEnd(text: string, at: number, code: number): number {
  if (code === ROUND) return stringEnd(text, at);
  if (code === LESS)
    return text.charCodeAt(at + 1) === LESS ? at + 2 : text.indexOf('>', at) + 1 || text.length;
  if (code === GREATER) return text.charCodeAt(at + 1) === GREATER ? at + 2 : at + 1;
  if (code !== SLASH && CLASS[code] === DELIMITER) return at + 1;
  do at++;
  while (at < text.length && CLASS[text.charCodeAt(at)] === REGULAR);
  return at;
}

function lineEnd(text: string, at: number): number {
  while (at < text.length && text.charCodeAt(at) !== LINE_FEED && text.charCodeAt(at) !== RETURN) at++;
  return at;
}

/** Where a string in round brackets ends; brackets nest in it unless they are escaped (7.3.4.2). */
function stringEnd(text: string, at: number): number {
  let depth = 0;
  for (; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === BACKSLASH) at++;
    else if (code === ROUND) depth++;
    else if (code === ROUND_END && --depth === 0) return at + 1;
  }
  return text.length;
}

/** The end of an inline image's data: `EI` between white space (8.9.7). */
function imageEnd(text: string, at: number): number {
  const end = /[\0\t\n\f\r ]EI(?=[\0\t\n\f\r ]|$)/g;
  end.lastIndex = at;
  const found = end.exec(text);
  return found ? found.index + 1 : text.length;
}

/** An operand or operator of a content stream, as the span of characters that it takes. */
export interface Operation {
  operator: string;
  operands: string[];
  from: number;
  to: number;
}

const SPACE = /[\0\t\n\f\r ]+|%[^\r\n]*/y;
const PLAIN = /[^\0\t\n\f\r ()<>[\]{}/%]+/y;
const NAME = /\/[^\0\t\n\f\r ()<>[\]{}/%]*/y;
const HEX = /<[0-9A-Fa-f\0\t\n\f\r ]*>/y;
const MARK = /<<|>>|[[\]{}<>)]/y;
const NUMBER = /^[-+.\d]/;
const WORDS = new Set(['true', 'false', 'null']);

/** The operations of a content stream (ISO 32000-1, 7.8.2), read as Latin-1 text; the data of inline images is passed over. */
export function* operationsOf(text: string): Generator<Operation> {
  let at = 0;
  let from = 0;
  let operands: string[] = [];
  const take = (pattern: RegExp): string | undefined => {
    pattern.lastIndex = at;
    const found = pattern.exec(text)?.[0];
    if (found) at += found.length;
    return found;
  };
  while (at < text.length) {
    if (take(SPACE)) {
      if (!operands.length) from = at;
      continue;
    }
    if (!operands.length) from = at;
    if (text[at] === '(') operands.push(takeString());
    else {
      const token = take(NAME) ?? take(HEX) ?? take(MARK) ?? take(PLAIN);
      if (token === undefined) return;
      if (/^[^/<[\]{}>)]/.test(token) && !NUMBER.test(token) && !WORDS.has(token)) {
        yield { operator: token, operands, from, to: at };
        if (token === 'ID') passImage();
        operands = [];
      } else operands.push(token);
    }
  }

  function takeString(): string {
    const start = at;
    let depth = 0;
    for (; at < text.length; at++) {
      if (text[at] === '\\') at++;
      else if (text[at] === '(') depth++;
      else if (text[at] === ')' && --depth === 0) {
        at++;
        break;
      }
    }
    return text.slice(start, at);
  }

  /** To the end of an inline image's data: `EI` between white space (8.9.7). */
  function passImage(): void {
    const end = /[\0\t\n\f\r ]EI(?=[\0\t\n\f\r ]|$)/g;
    end.lastIndex = at;
    const found = end.exec(text);
    at = found ? found.index + 1 : text.length;
  }
}

/** The content with some operations written otherwise; `rewrite` returns what stands in place of one, or undefined to leave it. */
export function rewriteContent(text: string, rewrite: (operation: Operation) => string | undefined): string {
  const parts: string[] = [];
  let kept = 0;
  for (const operation of operationsOf(text)) {
    const other = rewrite(operation);
    if (other === undefined) continue;
    parts.push(text.slice(kept, operation.from), other);
    kept = operation.to;
  }
  return kept ? parts.join('') + text.slice(kept) : text;
}

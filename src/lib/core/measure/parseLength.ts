import { POINTS_PER, type Unit } from './unit';
import { entryAt, firstOf } from '../entries';
import { thousandsIn } from './decimalSign';

export type LengthErrorCode =
  | 'empty'
  | 'unexpected'
  | 'unknown-unit'
  | 'area'
  | 'divide-by-zero'
  | 'not-finite'
  | 'thousands'
  | 'two-signs'
  | 'pixels';

/** Why a typed length was refused: `at` is the index in the text where reading stopped, `seen` what stood there. */
export class LengthError extends Error {
  constructor(
    readonly code: LengthErrorCode,
    readonly text: string,
    readonly at: number,
    readonly seen = text.slice(at, at + 8),
  ) {
    super(`${code} at ${at} in "${text}"`);
  }
}

/** A number on the way: `isLength` tells points from a bare number that has no unit yet. */
interface Quantity {
  value: number;
  isLength: boolean;
}

const UNIT_WORDS: Record<string, number> = {
  mm: POINTS_PER.mm,
  cm: POINTS_PER.cm,
  in: POINTS_PER.in,
  '"': POINTS_PER.in,
  '″': POINTS_PER.in,
  pt: 1,
  p: 12,
  pica: 12,
  picas: 12,
};

/**
 * Reads a typed length and returns points. Knows units (`mm cm in " pt p pica`), picas and points (`12p6`),
 * comma or point decimals, mixed numbers (`3 5/8 in`), brackets and `+ - * /`. A bare number takes `unit`.
 * `px` is a length at stated pixels an inch: `1080px@300`, or where a screen's are given as `ppi`. A unit after a fraction covers the whole fraction: `1/8in` is an eighth of an inch.
 * Throws LengthError.
 */
export function parseLength(text: string, unit: Unit, ppi?: number): number {
  const reader = new Reader(
    text.replace(/[−–]/g, '-').replace(/[×·]/g, '*').replace(/÷/g, '/'),
    POINTS_PER[unit],
    ppi ? 72 / ppi : undefined,
  );
  return reader.read();
}

class Reader {
  private at = 0;
  constructor(
    private readonly text: string,
    private readonly unitPoints: number,
    private readonly pixelPoints: number | undefined,
  ) {}

  read(): number {
    if (!this.text.trim()) throw this.error('empty');
    const points = this.points(this.sum());
    this.space();
    if (this.at < this.text.length) throw this.error('unexpected');
    if (!Number.isFinite(points)) throw this.error('not-finite');
    return points;
  }

  private sum(): Quantity {
    let left = this.product();
    for (let sign = this.take('+-'); sign; sign = this.take('+-')) {
      this.noSign();
      const right = this.product();
      const both =
        left.isLength === right.isLength
          ? [left.value, right.value]
          : [this.points(left), this.points(right)];
      left = {
        value: sign === '+' ? firstOf(both) + entryAt(both, 1) : firstOf(both) - entryAt(both, 1),
        isLength: left.isLength || right.isLength,
      };
    }
    return left;
  }

  private product(): Quantity {
    let left = this.factor();
    for (let sign = this.take('*/'); sign; sign = this.take('*/')) {
      const start = this.at;
      const right = this.factor();
      if (sign === '*') {
        if (left.isLength && right.isLength) throw this.error('area', start);
        left = { value: left.value * right.value, isLength: left.isLength || right.isLength };
      } else {
        if (right.value === 0) throw this.error('divide-by-zero', start);
        left = divide(left, right, this.lastUnit);
      }
    }
    return left;
  }

  /** Points in the unit read last, so that `1/8in` can give its unit to the whole fraction. */
  private lastUnit = 1;

  private factor(): Quantity {
    if (this.take('-')) {
      this.noSign();
      const inner = this.factor();
      return { ...inner, value: -inner.value };
    }
    if (this.take('(')) {
      const inner = this.sum();
      if (!this.take(')')) throw this.error('unexpected');
      return this.withUnit(inner);
    }
    return this.withUnit({ value: this.number(), isLength: false });
  }

  /** Two signs in a row are rather a slip of the finger than a sum. */
  private noSign(): void {
    this.space();
    if ('+-'.includes(this.text[this.at] ?? ' ')) throw this.error('two-signs');
  }

  private number(): number {
    this.space();
    const asked = thousandsIn(this.text.slice(this.at));
    if (asked) throw this.error('thousands', this.at, asked);
    const match = /^(\d+(?:[.,]\d*)?|[.,]\d+)(?:[ \u00a0]+(\d+)\s*\/\s*(\d+))?/.exec(
      this.text.slice(this.at),
    );
    if (!match) throw this.error(this.at < this.text.length ? 'unexpected' : 'empty');
    this.at += match[0].length;
    const whole = Number(entryAt(match, 1).replace(',', '.'));
    if (!match[3]) return whole;
    if (Number(match[3]) === 0) throw this.error('divide-by-zero', this.at - match[3].length);
    return whole + Number(match[2]) / Number(match[3]);
  }

  private withUnit(quantity: Quantity): Quantity {
    this.space();
    const word = /^(?:[a-zA-Zµ]+|["″])/.exec(this.text.slice(this.at))?.[0];
    if (!word) return quantity;
    const points = word.toLowerCase() === 'px' ? this.pixel(word) : UNIT_WORDS[word.toLowerCase()];
    if (points === undefined) throw this.error('unknown-unit', this.at, word);
    if (quantity.isLength) throw this.error('area');
    this.at += word.length;
    this.lastUnit = points;
    let value = quantity.value * points;
    const extra = points === 12 ? /^\d+(?:[.,]\d+)?/.exec(this.text.slice(this.at))?.[0] : undefined;
    if (extra) {
      this.at += extra.length;
      value += Number(extra.replace(',', '.'));
    }
    return { value, isLength: true };
  }

  /** Points of a pixel: at what stands behind it, `px@300`, else at what screens are said to have. */
  private pixel(word: string): number {
    const stated = /^\s*@\s*(\d+(?:[.,]\d+)?)/.exec(this.text.slice(this.at + word.length));
    const ppi = Number(stated?.[1]?.replace(',', '.') ?? NaN);
    if (stated && !(ppi > 0)) throw this.error('divide-by-zero');
    const points = stated ? 72 / ppi : this.pixelPoints;
    if (points === undefined) throw this.error('pixels', this.at, word);
    this.at += stated?.[0].length ?? 0;
    return points;
  }

  private points(quantity: Quantity): number {
    return quantity.isLength ? quantity.value : quantity.value * this.unitPoints;
  }

  private take(signs: string): string | undefined {
    this.space();
    const next = this.text[this.at];
    if (next === undefined || !signs.includes(next)) return undefined;
    this.at++;
    return next;
  }

  private space(): void {
    while (/\s/.test(this.text[this.at] ?? '')) this.at++;
  }

  private error(code: LengthErrorCode, at = this.at, seen?: string): LengthError {
    return new LengthError(code, this.text, at, seen);
  }
}

/** A bare number divided by a length can only mean a fraction of that unit: `1/8in`. */
function divide(left: Quantity, right: Quantity, unitPoints: number): Quantity {
  if (!left.isLength && right.isLength)
    return { value: (left.value / (right.value / unitPoints)) * unitPoints, isLength: true };
  return { value: left.value / right.value, isLength: left.isLength && !right.isLength };
}

/** Reads several lengths joined by `+` or `;`, as panels stand side by side; points. Throws LengthError. */
export const parseLengths = (text: string, unit: Unit): number[] =>
  text.split(/[+;]/).map((part) => parseLength(part, unit));

import { figure } from './numbers';

/** A text string of a PDF, to be told from a name (ISO 32000-1, 7.9.2.2). */
export class PdfText {
  constructor(readonly value: string) {}

  /** As a PDF writes it: plain letters in brackets, all else as UTF-16 in hexadecimal. */
  get syntax(): string {
    return /^[ -~]*$/.test(this.value) && !/[()\\]/.test(this.value) ? `(${this.value})` : `<${this.hex}>`;
  }
  get hex(): string {
    return `FEFF${Buffer.from(this.value, 'utf16le').swap16().toString('hex').toUpperCase()}`;
  }
}

/** What a writer's objects are made of: names as text, strings, numbers, arrays, dictionaries, and what it refers to other objects by. */
export type Plain<Ref> =
  string | number | boolean | PdfText | Ref | readonly Plain<Ref>[] | { readonly [key: string]: Plain<Ref> };
export type Dictionary<Ref> = { readonly [key: string]: Plain<Ref> };

/** Whether a value is an array; TypeScript does not tell arrays that cannot be changed from dictionaries. */
export const isList = <Ref>(value: Plain<Ref>): value is readonly Plain<Ref>[] => Array.isArray(value);

/** Adds an object, or a stream with its packed bytes, to what is being written. */
export type AddObject<Ref> = (dictionary: Dictionary<Ref>, stream?: Uint8Array) => Ref;

/** A name with the characters that a PDF does not write plainly as #xx (7.3.5). */
export const nameSyntax = (name: string): string =>
  [...Buffer.from(name)]
    .map((byte) => {
      const char = String.fromCharCode(byte);
      return byte > 32 && byte < 127 && !'#()<>[]{}/%'.includes(char)
        ? char
        : `#${byte.toString(16).padStart(2, '0').toUpperCase()}`;
    })
    .join('');

/** An object of a file that is written object by object, by its number. */
export class Numbered {
  constructor(readonly number: number) {}
}

/** A value as a file has it. */
export function toSyntax(value: Plain<Numbered>): string {
  if (value instanceof Numbered) return `${value.number} 0 R`;
  if (value instanceof PdfText) return value.syntax;
  if (typeof value === 'string') return `/${nameSyntax(value)}`;
  if (typeof value === 'number') return figure(value);
  if (typeof value === 'boolean') return String(value);
  if (isList(value)) return `[${value.map(toSyntax).join(' ')}]`;
  const entries = Object.entries(value);
  return `<< ${entries.map(([key, each]) => `/${nameSyntax(key)} ${toSyntax(each)}`).join(' ')} >>`;
}

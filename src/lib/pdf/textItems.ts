import { compose, translate } from '../core/measure/matrix';
import type { TextItem } from '../core/surface/surface';
import { embedFace, PdfText, type Dictionary, type Embedded, type Plain } from './fonts';
import { concat, figure } from './numbers';

/** The operators that show a text in the face that is named `/T` among the page's fonts, in black process ink. */
export function showText<Ref>({ text, size, align, matrix }: TextItem, face: Embedded<Ref>): string {
  const shift = { left: 0, centre: 0.5, right: 1 }[align] * face.width(text) * size;
  const at = compose(translate(-shift, 0), matrix);
  return `q 0 0 0 1 k ${concat(at)} BT /T ${figure(size)} Tf ${face.code(text)} Tj ET Q`;
}

/** Embeds the face of texts in a file that is written object by object; `write` gives each its number. */
export const embedInFile = (
  texts: readonly string[],
  write: (dictionary: string, stream?: Uint8Array) => number,
): Embedded<Numbered> =>
  embedFace<Numbered>(
    'Source Sans 3',
    texts,
    (dictionary, stream) => new Numbered(write(toSyntax(dictionary), stream)),
  );

/** An object by its number. */
export class Numbered {
  constructor(readonly number: number) {}
}

function toSyntax(value: Plain<Numbered>): string {
  if (value instanceof Numbered) return `${value.number} 0 R`;
  if (value instanceof PdfText) return `(${value.value})`;
  if (typeof value === 'string') return `/${value}`;
  if (typeof value === 'number') return figure(value);
  if (Array.isArray(value)) return `[${value.map(toSyntax).join(' ')}]`;
  const entries = Object.entries(value as Dictionary<Numbered>);
  return `<< ${entries.map(([key, each]) => `/${key} ${toSyntax(each)}`).join(' ')} >>`;
}

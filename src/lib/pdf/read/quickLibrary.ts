import { PDFName, PDFNumber, PDFObjectParser, PDFRef } from '@cantoo/pdf-lib';
import { readReference } from '../raw/scan';

/*
 * The PDF library makes each name anew to see whether it has it, and a new object of each number, with its digits. A file of
 * thousands of pages says the same few again and again: here they are made once. What comes out is the same.
 */

/** What is made of a key, made once; no more than so many are kept, since files can hold endlessly many. */
function once<Key, Value>(make: (key: Key) => Value): (key: Key) => Value {
  const known = new Map<Key, Value>();
  return (key) => {
    const found = known.get(key);
    if (found) return found;
    if (known.size >= MOST_KNOWN) known.clear();
    const made = make(key);
    known.set(key, made);
    return made;
  };
}
const MOST_KNOWN = 4096;

/** References of generation 0 by their numbers: the library finds each by its text, which it makes anew. */
const references = new Map<number, PDFRef>();
const referenceOf = PDFRef.of;
PDFRef.of = (number, generation = 0) => {
  if (generation) return referenceOf(number, generation);
  const known = references.get(number) ?? referenceOf(number, 0);
  references.set(number, known);
  return known;
};

PDFName.of = once(PDFName.of);
PDFNumber.of = once(PDFNumber.of);

/** Where a name ends: at white space and delimiters (ISO 32000-1, 7.2.2). */
const ENDS_NAME = new Uint8Array(256);
for (const char of '\0\t\n\f\r ()<>[]{}/%') ENDS_NAME[char.charCodeAt(0)] = 1;

/** A name as it is written, to the library's: #xx stands for a character (7.3.5). */
const named = once((written: string) =>
  PDFName.of(
    written.replace(/#([0-9A-Fa-f]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
  ),
);

interface Parser {
  bytes: {
    bytes: Uint8Array;
    assertNext: (byte: number) => void;
    offset: () => number;
    moveTo: (at: number) => void;
  };
}
const SLASH = 0x2f;
const parser = PDFObjectParser.prototype as unknown as {
  parseName: (this: Parser) => PDFName;
  parseNumberOrRef: (this: Parser) => PDFNumber | PDFRef;
};
parser.parseName = function () {
  const { bytes } = this.bytes;
  this.bytes.assertNext(SLASH);
  const from = this.bytes.offset();
  let to = from;
  while (to < bytes.length && !ENDS_NAME[bytes[to]!]) to++;
  this.bytes.moveTo(to);
  return named(Buffer.prototype.latin1Slice.call(bytes, from, to));
};

// The library reads each digit by several calls and makes texts of the numbers: a list of thousands of pages is all references.
const { parseNumberOrRef } = parser;
parser.parseNumberOrRef = function () {
  const reference = readReference(this.bytes.bytes, this.bytes.offset());
  if (!reference) return parseNumberOrRef.call(this);
  this.bytes.moveTo(reference.end);
  return PDFRef.of(reference.number, reference.generation);
};

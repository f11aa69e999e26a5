import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRawStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { PROCESS } from '../../core/numbers/jobInks';
import { interpret } from '../content/interpret';
import { decodeStream, pageContent } from '../objects/decodeStream';
import { textOfName } from '../objects/libraryObjects';
import { loadPdf } from '../read/load';

/** Colour spaces of a device and the plates that their components print on. */
const DEVICE: Record<string, readonly string[]> = {
  DeviceCMYK: PROCESS,
  CMYK: PROCESS,
  DeviceGray: ['Black'],
  G: ['Black'],
  DeviceRGB: ['RGB', 'RGB', 'RGB'],
  RGB: ['RGB', 'RGB', 'RGB'],
};
const FULL: Record<string, string> = { CMYK: 'DeviceCMYK', G: 'DeviceGray', RGB: 'DeviceRGB' };
const OF_COMPONENTS: Record<number, string> = { 1: 'DeviceGray', 3: 'DeviceRGB', 4: 'DeviceCMYK' };
/** Whether more of a component is lighter. */
const isLight = (device: string): boolean => device !== 'DeviceCMYK' && device !== 'CMYK';
const DEEPEST = 32;

/**
 * A copy of a PDF, for viewing, in which some inks print nothing: the tint of spots is taken to none, process components and
 * RGB colours to white. Nothing else is changed, and the file itself is not. Throws PdfError.
 */
export async function hideInks(bytes: Uint8Array, hidden: ReadonlySet<string>): Promise<Uint8Array> {
  const document = await loadPdf(bytes);
  const veil = new Veil(document.context, hidden);
  for (const [ref, object] of document.context.enumerateIndirectObjects()) {
    veil.walk(object, 0);
    if (object instanceof PDFRawStream && isContent(object))
      document.context.assign(ref, veil.content(object));
  }
  for (const page of document.getPages()) {
    const found = page.node.lookup(PDFName.of('Contents'));
    if (found instanceof PDFRawStream)
      page.node.set(PDFName.of('Contents'), document.context.register(veil.content(found)));
    else if (found instanceof PDFArray)
      page.node.set(
        PDFName.of('Contents'),
        document.context.register(veil.rewritten(pageContent(page.node))),
      );
  }
  return document.save({ useObjectStreams: false, updateFieldAppearances: false });
}

/** Forms and tiling patterns hold content besides the pages. */
const isContent = ({ dict }: PDFRawStream): boolean =>
  dict.lookup(PDFName.of('Subtype')) === PDFName.of('Form') || dict.has(PDFName.of('PaintType'));

class Veil {
  private readonly walked = new Set<PDFObject>();
  constructor(
    private readonly context: PDFContext,
    private readonly hidden: ReadonlySet<string>,
  ) {}

  /** Changes every colour space in an object, and the names of device spaces where a space is named. */
  walk(object: PDFObject | undefined, depth: number): void {
    if (!object || depth > DEEPEST || this.walked.has(object)) return;
    if (object instanceof PDFRawStream) return this.walk(object.dict, depth);
    if (!(object instanceof PDFDict || object instanceof PDFArray)) return;
    this.walked.add(object);
    if (object instanceof PDFArray) {
      this.space(object);
      for (const part of object.asArray()) this.walk(part, depth + 1);
      return;
    }
    for (const [key, value] of object.entries()) {
      // The named spaces of resources, and the space of an image or a shading; not that of a group, in which it only blends.
      if (key === PDFName.of('ColorSpace')) {
        if (value instanceof PDFName) object.set(key, this.device(value));
        else if (value instanceof PDFDict)
          for (const [name, space] of value.entries())
            if (space instanceof PDFName) value.set(name, this.device(space));
      }
      this.walk(object.get(key), depth + 1);
    }
  }

  /** A form's or pattern's content with its colours changed; its dictionary stays. */
  content(stream: PDFRawStream): PDFRawStream {
    const veiled = this.rewritten(decodeStream(stream));
    const dict = stream.dict.clone(this.context);
    for (const key of ['Filter', 'DecodeParms']) dict.delete(PDFName.of(key));
    for (const [key, value] of veiled.dict.entries()) dict.set(key, value);
    return PDFRawStream.of(dict, veiled.getContents());
  }

  rewritten(content: Uint8Array): PDFRawStream {
    const bytes = interpret(content, {
      colour: (what, { operator, operands }, state) => {
        const { name, components } = state[what];
        return components && DEVICE[name]
          ? `${this.veiled(operands, name).join(' ')} ${operator}`
          : undefined;
      },
    });
    return this.context.flateStream(Buffer.from(bytes, 'latin1'));
  }

  /** The components of a device colour, those on hidden plates without tint. */
  private veiled(operands: readonly string[], device: string): string[] {
    const none = isLight(device) ? '1' : '0';
    return operands.map((operand, n) => (this.hidden.has(DEVICE[device]![n] ?? '') ? none : operand));
  }

  /** What stands for a device space by name: itself, or one with a tint transform that leaves out what is hidden. */
  private device(name: PDFName): PDFObject {
    const known = name.decodeText();
    const plates = DEVICE[known];
    if (!plates?.some((plate) => this.hidden.has(plate))) return name;
    const space = this.context.obj([]);
    this.asTinted(space, FULL[known] ?? known);
    return space;
  }

  private asTinted(space: PDFArray, device: string): void {
    const plates = DEVICE[device]!;
    while (space.size()) space.remove(0);
    const names = plates.map((plate, n) => PDFName.of(plates.indexOf(plate) === n ? plate : `${plate}${n}`));
    space.push(PDFName.of('DeviceN'));
    space.push(this.context.obj(names));
    space.push(PDFName.of(device));
    space.push(this.transform(plates.length, plates, isLight(device) ? 1 : 0));
  }

  /** A tint transform that passes its inputs on, but for those that are hidden, which become `none`. */
  private transform(count: number, plates: readonly string[], none: number): PDFObject {
    const code = plates
      .map((plate, n) => (this.hidden.has(plate) ? without(count - 1 - n, none) : ''))
      .join(' ');
    return this.context.register(
      this.context.stream(`{ ${code} }`, {
        FunctionType: 4,
        Domain: plates.flatMap(() => [0, 1]),
        Range: plates.flatMap(() => [0, 1]),
      }),
    );
  }

  private space(space: PDFArray): void {
    const first = space.get(0);
    const family = first instanceof PDFName ? first.decodeText() : '';
    if (family === 'Indexed' || family === 'I') {
      const base = space.get(1);
      if (base instanceof PDFName) space.set(1, this.device(base));
    } else if (family === 'ICCBased') {
      const profile = space.lookup(1);
      const n = profile instanceof PDFRawStream ? profile.dict.lookup(PDFName.of('N')) : undefined;
      const device = n instanceof PDFNumber ? OF_COMPONENTS[n.asNumber()] : undefined;
      if (device && DEVICE[device]!.some((plate) => this.hidden.has(plate))) this.asTinted(space, device);
    } else if (family === 'Separation') {
      const name = space.lookup(1);
      if (name instanceof PDFName && this.hidden.has(textOfName(name))) this.empty(space, 1);
    } else if (family === 'DeviceN') this.deviceN(space);
  }

  private deviceN(space: PDFArray): void {
    const names = space.lookup(1);
    if (!(names instanceof PDFArray)) return;
    const plates = names.asArray().map((name) => (name instanceof PDFName ? textOfName(name) : ''));
    const away = plates.map((plate) => this.hidden.has(plate));
    if (!away.some(Boolean)) return;
    if (away.every(Boolean)) return this.empty(space, plates.length);
    const transform = space.lookup(3);
    if (!(transform instanceof PDFRawStream)) return;
    const type = transform.dict.lookup(PDFName.of('FunctionType'));
    if (type instanceof PDFNumber && type.asNumber() === 4) {
      const inner = Buffer.from(decodeStream(transform)).toString('latin1').trim().replace(/^\{/, '');
      const code = away.map((gone, n) => (gone ? without(plates.length - 1 - n, 0) : '')).join(' ');
      const dict = transform.dict.clone(this.context);
      for (const key of ['Filter', 'DecodeParms', 'Length']) dict.delete(PDFName.of(key));
      const veiled = this.context.stream(`{ ${code} ${inner}`);
      for (const [key, value] of dict.entries()) veiled.dict.set(key, value);
      space.set(3, this.context.register(veiled));
    } else if (type instanceof PDFNumber && type.asNumber() === 0) {
      const dict = transform.dict.clone(this.context);
      const size = dict.lookup(PDFName.of('Size'), PDFArray).asArray();
      const encode = size.flatMap((of, n) =>
        away[n] ? [0, 0] : [0, (of instanceof PDFNumber ? of.asNumber() : 1) - 1],
      );
      dict.set(PDFName.of('Encode'), this.context.obj(encode));
      space.set(3, this.context.register(PDFRawStream.of(dict, transform.getContents())));
    }
  }

  /** Gives a space of spots a tint transform that is white whatever the tint. */
  private empty(space: PDFArray, inputs: number): void {
    const white = whiteOf(space.lookup(2), this.context);
    space.set(
      3,
      inputs === 1
        ? this.context.obj({ FunctionType: 2, Domain: [0, 1], C0: white, C1: white, N: 1 })
        : this.context.register(
            this.context.stream(`{ ${'pop '.repeat(inputs)}${white.join(' ')} }`, {
              FunctionType: 4,
              Domain: Array.from({ length: inputs }, () => [0, 1]).flat(),
              Range: white.flatMap((value) => [Math.min(0, value), Math.max(1, value)]),
            }),
          ),
    );
  }
}

/** PostScript that puts `none` in place of the value so many below the top of the stack. */
const without = (below: number, none: number): string =>
  below ? `${below + 1} -1 roll pop ${none} ${below + 1} 1 roll` : `pop ${none}`;

/** White in an alternate space. */
function whiteOf(space: PDFObject | undefined, context: PDFContext): number[] {
  const family = space instanceof PDFArray ? space.lookup(0) : space;
  const name = family instanceof PDFName ? family.decodeText() : '';
  if (name === 'Lab') return [100, 0, 0];
  if (name === 'ICCBased' && space instanceof PDFArray) {
    const profile = context.lookup(space.get(1));
    const n = profile instanceof PDFRawStream ? profile.dict.lookup(PDFName.of('N')) : undefined;
    return whiteOf(
      PDFName.of(OF_COMPONENTS[n instanceof PDFNumber ? n.asNumber() : 4] ?? 'DeviceCMYK'),
      context,
    );
  }
  if (name === 'DeviceGray' || name === 'CalGray') return [1];
  return name === 'DeviceRGB' || name === 'CalRGB' ? [1, 1, 1] : [0, 0, 0, 0];
}

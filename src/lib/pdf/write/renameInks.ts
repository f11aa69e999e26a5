import { PDFArray, PDFDict, PDFName, PDFStream, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { inkName } from '../../core/numbers/jobInks';
import type { InkChange } from '../../core/model/page';
import { textOfName } from '../objects/libraryObjects';
import { objectsNaming } from '../read/fileObjects';
import { nameSyntax } from '../objects/objects';

const DEEPEST = 32;

/** Gives spot inks their other names in every Separation and DeviceN space of a document (ISO 32000-1, 8.6.6.4 and 8.6.6.5). */
export function renameInks(context: PDFContext, changes: readonly InkChange[]): void {
  const walked = new Set<PDFObject>();
  const renamed = (name: PDFName) => {
    const [was, is] = [textOfName(name), inkName(textOfName(name), changes)];
    return is === was ? name : PDFName.of(nameSyntax(is));
  };
  const walk = (object: PDFObject | undefined, depth: number): void => {
    if (!object || depth > DEEPEST || walked.has(object)) return;
    if (object instanceof PDFStream) return walk(object.dict, depth);
    if (object instanceof PDFDict) {
      walked.add(object);
      for (const [, value] of object.entries()) walk(value, depth + 1);
    }
    if (!(object instanceof PDFArray)) return;
    walked.add(object);
    const [family, named] = [object.size() > 2 && object.get(0), object.size() > 2 && object.lookup(1)];
    if (family === PDFName.of('Separation') && named instanceof PDFName) object.set(1, renamed(named));
    if (family === PDFName.of('DeviceN') && named instanceof PDFArray)
      named.asArray().forEach((name, n) => name instanceof PDFName && named.set(n, renamed(name)));
    for (const part of object.asArray()) walk(part, depth + 1);
  };
  for (const [, object] of objectsNaming(context, ['Separation', 'DeviceN'])) walk(object, 0);
}

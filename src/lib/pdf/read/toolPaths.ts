import { PDFArray, PDFDict, PDFHexString, PDFName, PDFString, type PDFObject } from '@cantoo/pdf-lib';
import { entryAt } from '../../core/entries';
import type { CutPath } from '../../core/handover/cutting';
import type { CutBy } from '../../core/handover/machines';
import type { Survey } from '../../core/model/survey';
import { interpret, type Paint, type Visitor } from '../content/interpret';
import { pageContent } from '../objects/decodeStream';
import { textOfName } from '../objects/libraryObjects';
import { loadPdf } from './load';

/**
 * The paths of each page that are drawn in an ink or on a layer, as a tool reads them: in points from the lower left corner
 * of the page as it is seen. Lines and areas count alike, by their outlines; clips, text and pictures do not. Throws PdfError.
 */
export async function toolPaths(bytes: Uint8Array, by: CutBy, survey: Survey): Promise<CutPath[][]> {
  const document = await loadPdf(bytes);
  return document.getPages().map(({ node }, n) => {
    const found: CutPath[] = [];
    interpret(pageContent(node), collector(by, found), {
      resources: node.Resources(),
      matrix: entryAt(survey.pages, n).toUpright,
    });
    return found;
  });
}

/** Gathers what is painted in the ink or on the layer. */
function collector(by: CutBy, found: CutPath[]): Visitor {
  const isOf = (paint: Paint): boolean => by.what === 'ink' && isInked(paint, by.name);
  return {
    paint(paths, { strokes, fills }, { line, area }, marked) {
      const isRead =
        by.what === 'layer'
          ? marked.some((group) => isLayer(group, by.name))
          : (strokes && isOf(line)) || (fills && isOf(area));
      if (!isRead) return;
      for (const { points, closed } of paths)
        if (points.length > 1) found.push({ points, closed: closed || !strokes });
    },
  };
}

/** Whether a paint prints some of an ink. A space that was named alone sets its inks to their full tint (8.6.6.4, 8.6.6.5). */
function isInked({ space, components }: Paint, ink: string): boolean {
  const component = componentOf(space, ink);
  if (component === undefined) return false;
  return !components || (components[component] ?? 0) > 0;
}

/** Which component of a colour space is an ink: of a Separation its only one, of DeviceN that of its name. */
function componentOf(space: PDFObject | undefined, ink: string): number | undefined {
  if (!(space instanceof PDFArray)) return undefined;
  const family = space.lookup(0);
  const named = space.lookup(1);
  const names =
    family === PDFName.of('Separation')
      ? [named]
      : family === PDFName.of('DeviceN') && named instanceof PDFArray
        ? named.asArray()
        : [];
  const found = names.findIndex((name) => name instanceof PDFName && textOfName(name) === ink);
  return found < 0 ? undefined : found;
}

/** Whether an optional content group is the layer, or a membership has it (8.11). */
function isLayer(found: PDFObject | undefined, layer: string): boolean {
  if (!(found instanceof PDFDict)) return false;
  const name = found.lookup(PDFName.of('Name'));
  if (name instanceof PDFString || name instanceof PDFHexString) return name.decodeText() === layer;
  const groups = found.lookup(PDFName.of('OCGs'));
  if (groups instanceof PDFArray) return groups.asArray().some((_, n) => isLayer(groups.lookup(n), layer));
  return (
    groups instanceof PDFDict && groups !== found && groups.has(PDFName.of('Name')) && isLayer(groups, layer)
  );
}

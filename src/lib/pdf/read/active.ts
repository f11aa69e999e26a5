import { PDFArray, PDFDict, PDFName, PDFStream, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { nameUnder, objectsNaming } from './fileObjects';
import { ACTIVE_KINDS, type ActiveKind } from '../../core/model/survey';

const key = PDFName.of;
const NAME = {
  A: key('A'),
  AA: key('AA'),
  AF: key('AF'),
  Annots: key('Annots'),
  EF: key('EF'),
  F: key('F'),
  Fields: key('Fields'),
  K: key('K'),
  Next: key('Next'),
  P: key('P'),
  S: key('S'),
  UF: key('UF'),
  XFA: key('XFA'),
} as const;

/** What actions do (ISO 32000-1, table 198), where it is more than leading a reader to a page or an address. */
const ACTIONS: Readonly<Record<string, ActiveKind>> = {
  JavaScript: 'javascript',
  Launch: 'launch',
  GoToR: 'other-file',
  GoToE: 'other-file',
  ImportData: 'form-action',
  SubmitForm: 'form-action',
  ResetForm: 'form-action',
  Hide: 'form-action',
  Sound: 'media',
  Movie: 'media',
  Rendition: 'media',
  GoTo3DView: 'media',
  RichMediaExecute: 'media',
  SetOCGState: 'layer-action',
  Trans: 'layer-action',
  Thread: 'other-file',
};
/** Actions that stay: to a page of the file, to an address, and to the next or last page. */
const PASSIVE: ReadonlySet<string> = new Set(['GoTo', 'URI', 'Named']);

/** Annotations that carry a file or something that plays (12.5.6). */
const CARRIERS: Readonly<Record<string, ActiveKind>> = {
  FileAttachment: 'embedded-file',
  Sound: 'media',
  Movie: 'media',
  Screen: 'media',
  '3D': 'media',
  RichMedia: 'media',
};

/** Entries of the catalog and of its name dictionary (7.7.2, 7.7.4). Elsewhere such a name may stand for a font or a picture. */
const OF_CATALOG: Readonly<Record<string, ActiveKind>> = {
  OpenAction: 'open-action',
  Collection: 'embedded-file',
  NeedsRendering: 'xfa',
};
const OF_NAMES: Readonly<Record<string, ActiveKind>> = {
  JavaScript: 'javascript',
  EmbeddedFiles: 'embedded-file',
  Renditions: 'media',
  AlternatePresentations: 'media',
};

/** Where none of these names stands in an object, nothing in it is active by itself. */
const WORDS = ['EF', 'AF', 'XFA', 'AA', ...Object.keys(ACTIONS), ...Object.keys(CARRIERS)];

/** Whether an object may be an action, an annotation, a list of them or a type that is read from another object. */
function isMeantElsewhere(object: PDFObject, context: PDFContext): boolean {
  if (object instanceof PDFName) return true;
  const isMeant = (each: PDFObject) => kindOf(each) !== undefined || carried(each, context) !== undefined;
  return object instanceof PDFArray ? object.asArray().some(isMeant) : isMeant(object);
}

/**
 * What a file can do besides being looked at: scripts, programs to be started, files inside, forms that draw themselves. Print
 * needs none of it, and PDF/X allows none (ISO 15930-7; from memory). `remove` takes it out, wherever it is reached from; links to
 * pages and addresses stay.
 */
export function activeContent(context: PDFContext, remove: boolean): ActiveKind[] {
  const found = new Set<ActiveKind>();
  /** Emptied at the end: until then they are what others are known by. */
  const actions: PDFDict[] = [];
  const near = objectsNaming(context, WORDS);
  const all = near.some(([, object]) => isMeantElsewhere(object, context))
    ? context.enumerateIndirectObjects()
    : near;
  for (const [, object] of all) look(object, found, remove, actions);
  const catalog = context.lookup(context.trailerInfo.Root);
  if (catalog instanceof PDFDict) {
    dropEntries(catalog, OF_CATALOG, found, remove);
    const names = catalog.lookup(key('Names'));
    if (names instanceof PDFDict) dropEntries(names, OF_NAMES, found, remove);
  }
  for (const action of actions) for (const name of action.keys()) action.delete(name);
  return ACTIVE_KINDS.filter((kind) => found.has(kind));
}

function dropEntries(
  dict: PDFDict,
  entries: Readonly<Record<string, ActiveKind>>,
  found: Set<ActiveKind>,
  remove: boolean,
): void {
  for (const [name, kind] of Object.entries(entries)) {
    if (!dict.has(key(name))) continue;
    found.add(kind);
    if (remove) dict.delete(key(name));
  }
}

/** Looks through one object and all that lies in it directly. */
function look(object: PDFObject, found: Set<ActiveKind>, remove: boolean, actions: PDFDict[]): void {
  const waiting: PDFObject[] = [object];
  for (let value = waiting.pop(); value; value = waiting.pop()) {
    if (value instanceof PDFStream) value = value.dict;
    if (value instanceof PDFArray) {
      for (const each of value.asArray()) if (isNest(each)) waiting.push(each);
    } else if (value instanceof PDFDict) {
      lookAtDict(value, found, remove, actions);
      for (const each of value.values()) if (isNest(each)) waiting.push(each);
    }
  }
}

const isNest = (value: PDFObject): boolean => value instanceof PDFDict || value instanceof PDFArray;

function lookAtDict(dict: PDFDict, found: Set<ActiveKind>, remove: boolean, actions: PDFDict[]): void {
  const drop = (name: PDFName, kind: ActiveKind) => {
    found.add(kind);
    if (remove) dict.delete(name);
  };
  if (dict.has(NAME.EF) && (dict.has(NAME.F) || dict.has(NAME.UF))) drop(NAME.EF, 'embedded-file');
  if (dict.lookup(NAME.AF) instanceof PDFArray) drop(NAME.AF, 'embedded-file');
  if (dict.has(NAME.XFA) && dict.has(NAME.Fields)) drop(NAME.XFA, 'xfa');
  const triggers = dict.lookup(NAME.AA);
  if (
    triggers instanceof PDFDict &&
    triggers.keys().length &&
    triggers.keys().every((on) => isAction(triggers.lookup(on)))
  ) {
    for (const on of triggers.keys()) found.add(kindOf(triggers.lookup(on)) ?? 'open-action');
    if (remove) dict.delete(NAME.AA);
  }
  for (const name of [NAME.A, NAME.Next]) {
    const value = dict.lookup(name);
    const kinds = (
      value instanceof PDFArray ? value.asArray().map((each) => dict.context.lookup(each)) : [value]
    )
      .map(kindOf)
      .filter((kind) => kind !== undefined);
    for (const kind of kinds) drop(name, kind);
  }
  // An action that was registered by itself, and is reached in a way that is not foreseen here.
  // An element of the structure tree has a type of its own choosing there (14.7.2).
  const own = dict.has(NAME.P) || dict.has(NAME.K) ? undefined : kindOf(dict);
  if (own) {
    found.add(own);
    if (remove) actions.push(dict);
  }
  const annotations = dict.lookup(NAME.Annots);
  if (annotations instanceof PDFArray)
    for (let n = annotations.size() - 1; n >= 0; n--) {
      const kind = carried(annotations.get(n), dict.context);
      if (!kind) continue;
      found.add(kind);
      if (remove) annotations.remove(n);
    }
}

/** What an annotation carries. */
const carried = (annotation: PDFObject | undefined, context: PDFContext): ActiveKind | undefined =>
  CARRIERS[nameUnder(context, annotation, 'Subtype') ?? ''];

const isAction = (value: PDFObject | undefined): boolean =>
  value instanceof PDFDict && value.lookup(NAME.S) instanceof PDFName;

/** What an action does; undefined for what is no action, or one that may stay. */
function kindOf(value: PDFObject | undefined): ActiveKind | undefined {
  if (!(value instanceof PDFDict)) return undefined;
  const type = value.lookup(NAME.S);
  if (!(type instanceof PDFName)) return undefined;
  const name = type.decodeText();
  return PASSIVE.has(name) ? undefined : ACTIONS[name];
}

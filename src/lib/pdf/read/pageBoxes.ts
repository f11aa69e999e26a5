import { PDFArray, PDFName, PDFNumber, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';
import { box, heightOf, intersect, widthOf, type Box } from '../../core/measure/box';
import { MOST_POINTS } from '../../core/measure/lengthSchema';
import { applyToBox, compose, scale, turnMatrix, turnOf } from '../../core/measure/matrix';
import type { SurveyPage } from '../../core/model/survey';
import type { SourcePage } from './pageTree';
import { PdfError } from '../objects/pdfError';

const KINDS = ['media', 'crop', 'bleed', 'trim', 'art'] as const;
type Kind = (typeof KINDS)[number];
const KEY: Record<Kind, string> = {
  media: 'MediaBox',
  crop: 'CropBox',
  bleed: 'BleedBox',
  trim: 'TrimBox',
  art: 'ArtBox',
};

/** Coordinates beyond this lose places that matter in the numbers that readers use (ISO 32000-1, annex C.2: reals of five places). */
const MOST_COORDINATE = 1_000_000;
const roundedMetres = (points: number): number => Number(((points / 72) * 0.0254).toPrecision(3));

/**
 * The boxes of page `number` (from 1) as seen: corners in any order, indirect numbers, inheritance, `/Rotate` and
 * `UserUnit` resolved; crop, bleed, trim and art cut to the media (ISO 32000-1, 14.11.2.1). A box with nothing inside
 * the media counts as not given. Throws PdfError if the MediaBox is missing, has no area, or
 * is larger than PDF readers promise to take (annex C.2).
 */
export function readBoxes(page: SourcePage, number: number, context: PDFContext): SurveyPage {
  const read = (kind: Kind): Box | undefined => {
    const key = KEY[kind];
    const value =
      page.dict.get(PDFName.of(key)) ??
      (key === 'MediaBox' || key === 'CropBox' ? page.inherited[key] : undefined);
    return readBox(value, context);
  };
  const media = read('media');
  if (!media || !(widthOf(media) > 0) || !(heightOf(media) > 0))
    throw new PdfError('bad-page-box', { page: number });
  const userUnitGiven = numberOf(page.dict.get(PDFName.of('UserUnit')), context) ?? 1;
  const userUnit = userUnitGiven > 0 && Number.isFinite(userUnitGiven) ? userUnitGiven : 1;
  const longest = Math.max(widthOf(media), heightOf(media)) * userUnit;
  if (Math.max(...Object.values(media).map(Math.abs)) > MOST_COORDINATE || longest > MOST_POINTS)
    throw new PdfError('page-too-large', { page: number, metres: roundedMetres(longest) });
  const raw: Partial<Record<Kind, Box>> = { media };
  for (const kind of KINDS.slice(1)) {
    const own = read(kind);
    const cut = own && intersect(media, own);
    if (cut && widthOf(cut) > 0 && heightOf(cut) > 0) raw[kind] = cut;
  }
  const rotate =
    turnOf(numberOf(page.dict.get(PDFName.of('Rotate')) ?? page.inherited.Rotate, context) ?? 0) ?? 0;
  const toUpright = compose(turnMatrix(media, rotate), scale(userUnit));
  const crop = raw.crop ?? media;
  const all: Record<Kind, Box> = {
    media,
    crop,
    bleed: raw.bleed ?? crop,
    trim: raw.trim ?? crop,
    art: raw.art ?? crop,
  };
  const seen = (kind: Kind) => applyToBox(toUpright, all[kind]);
  return {
    boxes: {
      media: seen('media'),
      crop: seen('crop'),
      bleed: seen('bleed'),
      trim: seen('trim'),
      art: seen('art'),
    },
    given: KINDS.filter((kind) => raw[kind]),
    rotate,
    userUnit,
    toUpright,
  };
}

function readBox(value: PDFObject | undefined, context: PDFContext): Box | undefined {
  const array = context.lookup(value);
  if (!(array instanceof PDFArray) || array.size() < 4) return undefined;
  const [a, b, c, d] = [0, 1, 2, 3].map((i) => numberOf(array.get(i), context));
  if (a === undefined || b === undefined || c === undefined || d === undefined) return undefined;
  return box(a, b, c, d);
}

const numberOf = (value: PDFObject | undefined, context: PDFContext): number | undefined => {
  const found = context.lookup(value);
  const number = found instanceof PDFNumber ? found.asNumber() : undefined;
  return number !== undefined && Number.isFinite(number) ? number : undefined;
};

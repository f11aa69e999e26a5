import { PDFDict, PDFName, PDFRawStream, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import { applyToBox, compose, invert, type Matrix } from '../../core/measure/matrix';
import type { SurveyPage } from '../../core/model/survey';
import type { ArtItem } from '../../core/model/surface';
import { pageContent, streamsOf } from '../objects/decodeStream';
import { boxNumbers, clipTo, concat } from '../objects/numbers';
import { withOwnPatterns } from './patterns';

/** A page's content once more, as a Form XObject in its user space (ISO 32000-1, 8.10); one stream stays packed as it is. As a `group` it fades as a whole. */
export function contentAsForm(dict: PDFDict, survey: SurveyPage, context: PDFContext, group = false): PDFRef {
  const streams = streamsOf(dict);
  const [only] = streams;
  const form =
    only && streams.length === 1
      ? PDFRawStream.of(only.dict.clone(context), only.getContents())
      : context.flateStream(pageContent(dict));
  const set = (key: string, value: Parameters<PDFDict['set']>[1] | undefined) =>
    value && form.dict.set(PDFName.of(key), value);
  set('Type', PDFName.of('XObject'));
  set('Subtype', PDFName.of('Form'));
  set('BBox', context.obj(boxNumbers(applyToBox(invert(survey.toUpright), survey.boxes.media))));
  set('Resources', dict.get(PDFName.of('Resources')) ?? context.obj({}));
  set('Group', dict.get(PDFName.of('Group')) ?? (group ? context.obj({ S: 'Transparency' }) : undefined));
  return context.register(form);
}

/** Gives a page a form under a name of its own, and returns that: resources may be shared with other pages, so this page gets its own. */
export function nameForm(dict: PDFDict, form: PDFRef, context: PDFContext): string {
  const resources =
    context.lookupMaybe(dict.get(PDFName.of('Resources')), PDFDict)?.clone(context) ?? context.obj({});
  const forms =
    context.lookupMaybe(resources.get(PDFName.of('XObject')), PDFDict)?.clone(context) ?? context.obj({});
  let name = 'Placed';
  while (forms.has(PDFName.of(name))) name += '1';
  forms.set(PDFName.of(name), form);
  resources.set(PDFName.of('XObject'), forms);
  dict.set(PDFName.of('Resources'), resources);
  return name;
}

/**
 * Content that draws a form of a page's own content where items say, for a page whose `toPage` leads from its user space to
 * page space. Vector stays vector; as an artifact it only repeats what is there (14.8.2.2.2).
 */
export function drawReflections(
  dict: PDFDict,
  form: PDFRef,
  items: readonly ArtItem[],
  toPage: Matrix,
  survey: SurveyPage,
  context: PDFContext,
): PDFRef {
  const toRaw = invert(toPage);
  let plain: string | undefined;
  const lines = items.map(({ matrix, clip }) => {
    const own = withOwnPatterns(form, context);
    const name = own ? nameForm(dict, own, context) : (plain ??= nameForm(dict, form, context));
    const seen = compose(compose(survey.toUpright, matrix), toRaw);
    return `q ${clipTo(applyToBox(toRaw, clip))} ${concat(seen)} /${name} Do Q`;
  });
  return context.register(context.flateStream(`/Artifact BMC\n${lines.join('\n')}\nEMC\n`));
}

import { t } from '../language';
/** Sentences: what is wrong, why it matters, what to do. */
export const files = {
  'empty-file': () =>
    t`This file is empty: it has no bytes. Ask for it again; it was probably cut off on the way.`,
  'not-a-pdf': () =>
    t`This is neither a PDF, a drawing in SVG, nor a JPEG, PNG or TIFF picture, nor a ZIP of these: it does not begin as one. Ask for one of these, or check that the right file was chosen.`,
  'picture-damaged': () =>
    t`This picture is damaged: it cannot be read to its end. Ask for it again, or scan the page anew.`,
  'picture-too-large': (data: { most: string | number }) =>
    t`This picture has more than ${data.most} million dots, more than print needs. Have it made smaller, and take that in.`,
  'set-damaged': () =>
    t`This ZIP is damaged: it cannot be read to its end. Have it packed again, or take its pictures in one by one.`,
  'set-empty': () => t`There are no pictures in this ZIP. Check that the right file was chosen.`,
  'set-of-others': (data: { name: string | number }) =>
    t`“${data.name}” in this ZIP is no JPEG, PNG or TIFF picture, so it is not known what its pages are to be. Unpack it, and take its files in by themselves.`,
  'set-too-large': (data: { most: string | number }) =>
    t`The pictures in this ZIP have more than ${data.most} MB together, the most that can be taken in. Split it into several.`,
  'svg-damaged': () =>
    t`This drawing (SVG) is damaged, or states no size. Have it saved anew with a width and height, or as PDF.`,
  'svg-not-lines': (data: { element: string | number }) =>
    t`This drawing (SVG) holds <${data.element}>, which would not come out as it was drawn. Turn its text into outlines and its copies into shapes, or have it saved as PDF.`,
  'needs-password': () =>
    t`This PDF opens only with a password, and was not opened: type it, or ask the sender for a copy without one.`,
  'needs-key': () =>
    t`This PDF is locked for certain people, with their keys (a certificate), so its pages cannot be read. Ask the sender for a copy that is not locked.`,
  damaged: () =>
    t`This PDF is damaged: its parts cannot be found. Ask for it again, or have the sender save it anew.`,
  'no-pages': () => t`This PDF has no pages in it. Check that the right file was sent.`,
  'page-unreadable': (data: { page: string | number }) =>
    t`Page ${data.page} of this PDF cannot be read, so the file is probably cut short. Ask for it again.`,
  'bad-page-box': (data: { page: string | number }) =>
    t`Page ${data.page} has no usable size (its MediaBox is missing or empty). Have the sender save the PDF anew.`,
  'page-too-large': (data: { page: string | number; metres: string | number }) =>
    t`Page ${data.page} is ${data.metres} m long, more than a PDF page can be (200 inches, 5.08 m), so no press could be given it. Have the sender save the PDF at the size it is to be printed.`,
  'too-many-pages': (data: { most: string | number }) =>
    t`This file has more than ${data.most} pages, more than can be taken in at once. Split it and take in the parts.`,
  'unpacks-too-large': () =>
    t`A part of this PDF unpacks to more than 256 MB, which no page needs. It was left alone; ask for a plain PDF.`,
  'too-large': (data: { most: string | number }) =>
    t`This file is larger than ${data.most} MB, the most that can be taken in. Split it, or reduce its images.`,
  'too-slow': (data: { seconds: string | number }) =>
    t`Reading this took longer than ${data.seconds} s and was stopped. The file may be damaged; have the sender save it anew.`,
  'too-much-memory': (data: { mb: string | number }) =>
    t`Reading this took more than ${data.mb} MB of memory and was stopped. Split the file, or have it saved anew.`,
  'upload-cut-off': () =>
    t`The file did not arrive whole: the connection was cut. Nothing was stored; drop it again.`,
  'source-changed': () => t`A source file is not the one that was surveyed. Take it in again.`,
  'source-missing': (data: { name: string | number }) =>
    t`The file “${data.name}” was not given. Give every file that the docket takes in.`,
  'no-such-source': () => t`This file is no longer there: no job uses it any more. Take it in again.`,
  'no-such-page': () => t`This file is no longer there: no job uses it any more. Take it in again.`,
  'no-such-upload': () =>
    t`This upload is no longer there: it was taken in already, or lay unfinished for more than a day. Drop the file again.`,
  'nothing-to-clean': () =>
    t`Nothing in this file could be cleaned: its pages are no scans, or scans of four inks or of black and white alone. They stay as they are.`,
  'measure-cancelled': () =>
    t`Reading its pages was cancelled. Numbers, paper edges and what is drawn on them stay unknown until it is tried again.`,
  'not-measuring': () => t`The pages of this job are not being read any more: there is nothing to cancel.`,
  'not-again': () =>
    t`This cannot be tried again: it did not fail, or its file was not kept. Drop the file anew.`,
};

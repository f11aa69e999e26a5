import { t } from '../language';
import type { CheckWords } from './checkWords';

export const files: CheckWords<'files'> = {
  found: {
    'page-broken': (finding, { pages }) => ({
      title: t`${pages} of “${finding.name}” cannot be drawn`,
      text: t`Some of what belongs there is missing in the file or damaged, so it would come out white or in part. Ask for the file again, or put another page there.`,
    }),
    'file-rebuilt': (finding) => ({
      title: t`“${finding.name}” was damaged`,
      text: t`What could be found in it was put together anew. Look at every page before anything is printed, or ask for the file again.`,
    }),
    'resolution-unstated': (finding) => ({
      title: t`“${finding.name}” states no resolution`,
      text: t`How large its picture is on paper is a guess, of 300 pixels an inch: all sizes may come out wrong. Open its Take in step, and set the pixels an inch that it was scanned or made at.`,
    }),
    'annotations-print': (finding, { pages }) => ({
      title: t`${pages} of “${finding.name}” ${finding.pages.length === 1 ? t`has` : t`have`} notes or form fields that print`,
      text: t`What was filled in, stamped or written on top is printed with the page, on sheets and on copies too.`,
    }),
    'annotations-screen': (finding, { pages }) => ({
      title: t`${pages} of “${finding.name}” ${finding.pages.length === 1 ? t`has` : t`have`} notes that only show on screens`,
      text: t`They are marked as not to be printed, so they are left out on sheets, copies and pictures.`,
    }),
  },
  mends: {},
};

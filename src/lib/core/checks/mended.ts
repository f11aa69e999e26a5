import type { Docket } from '../docket/docket';
import type { Mend } from './index';

/** The docket as a mend would make it; `newId` gives each step that it adds an id. */
export const mended = (docket: Docket, mend: Mend, newId: () => string): Docket => ({
  ...docket,
  steps: [
    ...docket.steps.map((step) => mend.change?.find(({ id }) => id === step.id) ?? step),
    ...(mend.steps ?? []).map((draft) => ({ ...draft, id: newId() })),
  ],
  scheme: Object.assign({}, docket.scheme, mend.scheme),
  book: { ...docket.book, ...mend.book },
});

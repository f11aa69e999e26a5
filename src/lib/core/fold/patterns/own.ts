import { ownPatternSchema } from '../ownPattern';
import { defineFold } from './foldKind';

/** The preparer's own folds, drawn on the sheet. They begin as the fold that is there, with its panels. */
export const own = defineFold(ownPatternSchema)({
  kind: 'own',
  fresh: ({ columns, rows, folds }) => ({
    fold: 'own',
    name: 'own',
    columns: [...columns],
    rows: [...rows],
    folds: [...folds],
  }),
  pattern: (choice) => choice,
});

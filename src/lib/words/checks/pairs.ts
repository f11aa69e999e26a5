import { t } from '../language';
import { opposite } from '../../core/pages/page';
import { WHERE } from '../book';
import type { CheckWords } from './checkWords';

export const pairs: CheckWords<'pairs'> = {
  found: {
    'pairs-apart': (finding) => ({
      title: t`The pairs have come apart`,
      text: t`Page 1 of ${finding.name || t`the interior`} was made to lie ${WHERE[finding.side]} and now lies ${WHERE[opposite(finding.side)]}, so facing pages no longer face. A cover put in front does this; a blank inside each cover mends it.`,
    }),
  },
  mends: {
    'blank-inside-covers': (data) => (data.count === 2 ? t`Blank inside each cover` : t`Blank before it`),
    'make-cover': () => t`Make it a cover, printed apart`,
  },
};

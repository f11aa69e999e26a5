import { spoken, t } from '../language';
import type { ActiveKind } from '../../core/model/survey';
import { listed } from '../listed';
import type { CheckWords } from './checkWords';

const ACTIVE_WORD: Record<ActiveKind, string> = spoken({
  javascript: 'scripts',
  launch: 'commands that start other programs',
  'open-action': 'things to be done when it is opened',
  'embedded-file': 'other files inside it',
  xfa: 'a form that draws itself (XFA)',
  'form-action': 'buttons that send or change a form',
  media: 'sound, film or 3D',
  'other-file': 'links into other files',
  'layer-action': 'buttons that switch layers',
});

export const active: CheckWords<'active'> = {
  found: {
    'active-content': (finding) => ({
      title: t`“${finding.name}” can do more than be looked at`,
      text: t`It holds ${listed(finding.kinds.map((kind) => ACTIVE_WORD[kind]))}. None of it prints, and print shops refuse it: it is left out of everything that goes out. The file itself stays as it is.`,
    }),
  },
  mends: {},
};

import { t, translated } from '../language';
import type { CheckWords } from './checkWords';

export const inks: CheckWords<'inks'> = {
  found: {
    'spots-alike': (finding) => ({
      title: t`One ink under two names`,
      text: t`${finding.names.map((name) => `“${name}”`).join(' and ')} differ only in spelling, and each makes a plate of its own. Print them with one ink, if they are one.`,
    }),
    'rgb-content': (finding, { pages }) => ({
      title: t`Colours of a screen`,
      text: t`${pages} ${finding.pages.length === 1 ? t`has` : t`have`} RGB colours, which have no plates: the press converts them, and they may come out duller. For exact colour ask for process or spot inks.`,
    }),
    'knocks-out': (finding) => ({
      title: t`The ${translated(finding.purpose)} line knocks out the art`,
      text: t`It does not overprint, so the art under it is left white. Where the knife is a hair off, a white line shows.`,
    }),
  },
  mends: {
    'one-ink': (data) => t`Print them all with “${data.name}”`,
    overprint: () => t`Let it overprint`,
  },
};

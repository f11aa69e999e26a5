import type { CheckWords } from './checkWords';

export const inks: CheckWords<'inks'> = {
  found: {
    'spots-alike': (finding) => ({
      title: 'One ink under two names',
      text: `${finding.names.map((name) => `“${name}”`).join(' and ')} differ only in spelling, and each makes a plate of its own. Print them with one ink, if they are one.`,
    }),
    'rgb-content': (finding, { pages }) => ({
      title: 'Colours of a screen',
      text: `${pages} ${finding.pages.length === 1 ? 'has' : 'have'} RGB colours, which have no plates: the press converts them, and they may come out duller. For exact colour ask for process or spot inks.`,
    }),
    'knocks-out': (finding) => ({
      title: `The ${finding.purpose} line knocks out the art`,
      text: 'It does not overprint, so the art under it is left white. Where the knife is a hair off, a white line shows.',
    }),
  },
  mends: {
    'one-ink': (data) => `Print them all with “${data.name}”`,
    overprint: () => 'Let it overprint',
  },
};

import { emptyDocket, type Docket } from '../../lib/core/docket/docket';
import type { Step } from '../../lib/core/docket/steps';
import { outputSchema } from '../../lib/core/handover/outputs';
import { Failure, HELP, type Call } from '../call';
import { given } from '../files';
import { handOverDocket } from '../handOverDocket';
import { report } from '../report';
import { entryAt } from '../../lib/core/entries';

/** Writes the pages of a file as several. */
export async function split({ files: [file], by, name, ...call }: Call): Promise<void> {
  const [source] = await given([file!]);
  const step: Step = {
    id: 't',
    kind: 'take-in',
    source: source!.hash,
    name: source!.name,
    where: { at: 'end' },
  };
  const output = outputSchema.safeParse({
    kind: 'pages',
    crop: 'bleed',
    split: readSplit(by),
    name: name || '{source} {part}',
  });
  if (!output.success)
    throw new Failure(`“${by}” is no way to split. ${entryAt(HELP.split('\n'), 6).trim()}`);
  const docket: Docket = {
    ...emptyDocket(source!.name.slice(0, 200)),
    steps: [step],
    scheme: { kind: 'none' },
    outputs: [output.data],
  };
  report([{ source: file!, ...(await handOverDocket(docket, [source!], call)) }], call);
}

/** What stands after `--by`, as a split has it. */
function readSplit(said: string): unknown {
  const [by, value] = said.split(/=(.*)/s) as [string, string | undefined];
  switch (by) {
    case 'every':
      return { by, count: Number(value) };
    case 'bookmarks':
      return { by, level: value === undefined ? 0 : Number(value) - 1 };
    case 'places':
      return { by, at: value };
    case 'size':
      return { by, mb: Number(value) };
    case 'faces':
      return { by, ...(value === 'reverse' ? { reverse: true } : {}) };
    default:
      return { by };
  }
}

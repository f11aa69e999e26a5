import type { Docket } from '../core/docket/docket';
import { fileNames, padded, safeName, type NameValues } from '../core/handover/names';
import { outputKind, type Output } from '../core/handover/outputs';
import type { Cuttable, Part } from '../core/handover/parts';
import { formatSize } from '../core/measure/formatLength';
import { nameSize } from '../core/paper/sizes';
import { facesOf } from '../core/pages/page';
import { commonestSize } from '../core/pages/sizes';
import { outputWords } from './outputs';
import { schemeWords } from './schemes';
import { inEnglish } from './language';
import { entryAt } from '../core/entries';

/** How an output's files are named if nothing else was typed. */
export function plainPattern(output: Output): string {
  const split = 'split' in output ? output.split : undefined;
  const parts = split || outputKind(output.kind).single ? '{part}' : '';
  return ['{job}', outputWords(output.kind).inName(output), parts].filter(Boolean).join(' ');
}

/** The names of an output's files, on a day (ISO 8601). Throws PatternError if the pattern cannot be read. */
export function partNames(
  work: Cuttable & { docket: Docket },
  output: Output,
  parts: readonly Part[],
  date: string,
): string[] {
  const { docket, list } = work;
  const faces = facesOf(list);
  const source = docket.steps.find((step) => step.kind === 'take-in' && !step.off);
  const [from, to, part] = [
    padded(parts.map((each) => String(each.from))),
    padded(parts.map((each) => String(each.to))),
    padded(parts.map((each) => each.name)),
  ];
  const sizeOf = ({ pages }: Part): string => {
    const size = outputKind(output.kind).sheetSized?.(output)
      ? work.plan?.sheet
      : commonestSize(output.kind === 'pages' ? pages.map((index) => entryAt(faces, index)) : list.pages);
    if (!size) return '';
    return (
      nameSize(size)?.name ?? inEnglish(() => formatSize(size.width, size.height, 'mm')).replace(/\s/g, '')
    );
  };
  const values = parts.map((each, n): NameValues => ({
    job: docket.title,
    source: source?.name ? source.name.replace(/\.[^.]+$/, '') : '',
    part: entryAt(part, n),
    from: entryAt(from, n),
    to: entryAt(to, n),
    size: sizeOf(each),
    scheme: inEnglish(() => schemeWords(docket.scheme.kind).name.toLowerCase()),
    date,
  }));
  return fileNames(
    output.name?.trim() ? output.name : plainPattern(output),
    values,
    outputKind(output.kind).extension(output),
  );
}

/** The name of the archive that holds several files of an output. */
export const archiveName = ({ title }: Pick<Docket, 'title'>, output: Output): string =>
  `${safeName([title, outputWords(output.kind).inName(output)].filter(Boolean).join(' '))}.zip`;

/** The same once its files are named: where they follow a pattern of their own, by what their names have in common. */
export function archiveNamed(output: Output, plain: string, files: readonly { name: string }[]): string {
  const [first, ...others] = files.map(({ name }) => name.replace(/\.[^.]+$/, ''));
  if (!output.name?.trim() || first === undefined || !others.length) return plain;
  let common = first;
  for (const name of others) while (!name.startsWith(common)) common = common.slice(0, -1);
  const bare = common.replace(/[\d\s._(–-]+$/, '');
  return bare ? `${bare}.zip` : plain;
}

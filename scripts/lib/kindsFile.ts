import { dirname } from 'node:path';
import { CHECKS } from '../../src/lib/core/checks';
import { FOLDS } from '../../src/lib/core/fold/patterns';
import { MARKS } from '../../src/lib/core/sheets/marks';
import { SCHEMES } from '../../src/lib/core/sheets/schemes';
import { OUTPUTS } from '../../src/lib/core/handover/outputs';
import { STEP_KINDS } from '../../src/lib/core/docket/steps';

/** A room's files for the kinds of one family, and the list of them that is written. */
export interface Family {
  kinds: readonly { kind: string }[];
  /** The list. The files of the kinds lie beside it, named after them. */
  file: string;
  /** What is imported for the type of the list, and that type. */
  imports: string[];
  type: string;
  /** Forms: kinds without a file of their own are `'plain'`. */
  forms?: true;
  /** What the list is called, where not WORDS or FIELDS. */
  list?: string;
}

const words = (folder: string, kinds: Family['kinds'], imports: string[], type: string): Family => ({
  kinds,
  file: `src/lib/words/${folder}/kinds.ts`,
  imports,
  type,
});

export const FAMILIES: readonly Family[] = [
  words(
    'steps',
    STEP_KINDS,
    ["import type { Step } from '../../core/docket/steps';", "import type { StepWords } from './stepWords';"],
    "{ [Kind in Step['kind']]: StepWords<Kind> }",
  ),
  {
    kinds: STEP_KINDS,
    file: 'src/lib/ui/slip/steps/kinds.ts',
    imports: [
      "import type { Step } from '../../../core/docket/steps';",
      "import type { StepFields } from '../fields';",
    ],
    type: "{ [Kind in Step['kind']]: StepFields<Kind> | 'plain' }",
    forms: true,
  },
  words(
    'schemes',
    SCHEMES,
    [
      "import type { Scheme } from '../../core/sheets/schemes';",
      "import type { SchemeWords } from './schemeWords';",
    ],
    "Record<Scheme['kind'], SchemeWords>",
  ),
  {
    kinds: SCHEMES,
    file: 'src/lib/ui/slip/schemes/kinds.ts',
    imports: [
      "import type { Scheme } from '../../../core/sheets/schemes';",
      "import type { SchemeFields } from '../schemeDraft.svelte';",
    ],
    type: "{ [Kind in Scheme['kind']]: SchemeFields<Kind> | 'plain' }",
    forms: true,
  },
  words(
    'outputs',
    OUTPUTS,
    [
      "import type { OutputKind } from '../../core/handover/outputs';",
      "import type { OutputWords } from './outputWords';",
    ],
    '{ [Kind in OutputKind]: OutputWords<Kind> }',
  ),
  {
    kinds: OUTPUTS,
    file: 'src/lib/make/outputs/kinds.ts',
    list: 'MAKERS',
    imports: [
      "import type { OutputKind } from '../../core/handover/outputs';",
      "import type { OutputMaker } from './outputMaker';",
    ],
    type: '{ [Kind in OutputKind]: OutputMaker<Kind> }',
  },
  {
    kinds: OUTPUTS,
    file: 'src/lib/ui/slip/outputs/kinds.ts',
    imports: [
      "import type { OutputKind } from '../../../core/handover/outputs';",
      "import type { OutputFields } from './outputFields';",
    ],
    type: "{ [Kind in OutputKind]: OutputFields<Kind> | 'plain' }",
    forms: true,
  },
  words(
    'marks',
    MARKS,
    [
      "import type { MarkName } from '../../core/sheets/marks';",
      "import type { MarkWords } from './markWords';",
    ],
    'Record<MarkName, MarkWords>',
  ),
  words(
    'folds',
    FOLDS,
    [
      "import type { FoldName } from '../../core/fold/patterns';",
      "import type { FoldWords } from './foldWords';",
    ],
    'Record<FoldName, FoldWords>',
  ),
  words(
    'checks',
    CHECKS,
    ["import type { CHECKS } from '../../core/checks';", "import type { CheckWords } from './checkWords';"],
    "{ [Kind in (typeof CHECKS)[number]['kind']]: CheckWords<Kind> }",
  ),
];

const camel = (kind: string): string => kind.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
const pascal = (kind: string): string => camel(kind).replace(/^\w/, (letter) => letter.toUpperCase());

/** The list of a family as it is written; `exists` says whether a file is there. */
export function kindsFile(
  { kinds, file, imports, type, forms, list }: Family,
  exists: (path: string) => boolean,
): string {
  const rows = kinds.map(({ kind }) => {
    const name = forms ? `${pascal(kind)}Fields` : camel(kind);
    const from = forms ? `${name}.svelte` : name;
    const own = !forms || exists(`${dirname(file)}/${from}`);
    const key = /^\w+$/.test(kind) ? kind : `'${kind}'`;
    return {
      imported: own ? `import ${forms ? name : `{ ${name} }`} from './${from}';` : '',
      row: own && key === name ? `  ${key},` : `  ${key}: ${own ? name : "'plain'"},`,
    };
  });
  return [
    '// Written by “npm run kinds”: the files of each kind in this room.',
    ...imports,
    ...rows.flatMap(({ imported }) => imported || []),
    '',
    `export const ${list ?? (forms ? 'FIELDS' : 'WORDS')}: ${type} = {`,
    ...rows.map(({ row }) => row),
    '};',
    '',
  ].join('\n');
}

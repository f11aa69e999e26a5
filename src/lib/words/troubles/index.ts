import { t } from '../language';
import { files } from './files';
import { jobs } from './jobs';
import { outputs } from './outputs';
import { people } from './people';
import { recipes } from './recipes';
import { server } from './server';
import { ofAnyKind } from '../../core/kinds';

/** The sentence of every trouble by its code. */
export const SENTENCES = { ...files, ...outputs, ...recipes, ...jobs, ...server, ...people };
/** What can go wrong with a file, an output, a recipe, a job, or the server. */
export type TroubleCode = keyof typeof SENTENCES;
/** What must be known to say a trouble. */
export type TroubleData<Code extends TroubleCode> = Parameters<(typeof SENTENCES)[Code]>[0];

/** What went wrong, as a code and its data. It crosses the wire and is kept, so it may be of another Folder. */
export type Trouble =
  | {
      [Code in TroubleCode]: TroubleData<Code> extends object
        ? { code: Code; data: TroubleData<Code> }
        : { code: Code; data?: never };
    }[TroubleCode]
  | { code: 'unforeseen'; data?: { reason: string } };

/** The trouble that an error tells of: its class has the code's data as one record. */
export const troubleFrom = ({ code, data }: { code: TroubleCode; data?: object }): Trouble =>
  ({ code, data }) as Trouble;

const isTroubleCode = (code: string): code is TroubleCode => Object.hasOwn(SENTENCES, code);

/** The sentence for a file that could not be taken in, or work that failed: what, why, what to do. */
export function sayTrouble({ code, data = {} }: { code: string; data?: object | undefined }): string {
  if (isTroubleCode(code)) return ofAnyKind<(data: object) => string>(SENTENCES[code])(data);
  const said = [code === 'unforeseen' ? '' : code, 'reason' in data ? String(data.reason) : '']
    .filter(Boolean)
    .join(': ');
  return t`The work stopped for a reason that was not foreseen${said && ` (${said})`}. Try again; the job itself is unharmed.`;
}

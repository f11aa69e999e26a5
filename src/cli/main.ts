import { Failure, HELP, readCall, sayFault, type Call, type Command, type Io } from './call';
import { make } from './commands/make';
import { prove } from './commands/prove';
import { recipe } from './commands/recipe';
import { split } from './commands/split';
import { survey } from './commands/survey';
import { template } from './commands/template';
import { watch } from './commands/watch';

const COMMANDS: Record<Command, (call: Call) => Promise<void>> = {
  survey,
  make,
  recipe,
  split,
  watch,
  template,
  prove,
};

/** Carries a call out and returns the exit status: 0 done, 1 the work failed, 2 the call was wrong. */
export async function main(args: string[], io: Io): Promise<0 | 1 | 2> {
  const call = readCall(args, io);
  if (!call) {
    io.err(`${HELP}\n`);
    return 2;
  }
  if (call.command === 'help') {
    io.out(`${HELP}\n`);
    return 0;
  }
  try {
    await COMMANDS[call.command](call);
    return 0;
  } catch (error) {
    io.err(`${error instanceof Failure ? error.message : sayFault(error)}\n`);
    return 1;
  }
}

import { parseArgs } from 'node:util';
import { firstOf } from '../lib/core/entries';

export const HELP = `folder survey FILE…                                  prints the facts of each file as JSON
folder make DOCKET.json FILE… --out FOLDER           carries the docket out and writes its outputs
       [--despite REASON]                            they are to go out although a finding says stop: exit status 0
folder recipe RECIPE.json FILE… --out FOLDER         works each file by the recipe and writes what it hands over
       [--set name=value]…                           says what the recipe asks for; lengths with their unit: off="12 mm"
       [--with FILE]…                                a file that its steps use: a stamp, an overlay
folder split FILE --by HOW --out FOLDER              writes the pages of a file as several
       HOW: every=10, bookmarks, bookmarks=2, places=1,9,21, faces, faces=reverse, size=5 (MB)
       [--name PATTERN]                              with {source}, {part}, {from}, {to}, {size}, {date}
folder prove DOCKET.json SHEETS.pdf FILE…            folds, binds and trims the sheets of a docket, and compares every page
       with the one intended; exit status 1 if one is not as it should be
folder watch FOLDER --recipe RECIPE.json [--once]    works what is put there; results in done, what cannot be worked in failed
folder template DOCKET.json [FILE…] --out FOLDER     writes the blank template of a folded leaflet
       --json                                        says what was written as JSON

Exit status: 0 done; 1 the work failed, or a finding says stop: a sentence says why, and what was written is not to go out;
2 the call was wrong.`;

/** Where a command says what it did. */
export interface Io {
  out(text: string): void;
  err(text: string): void;
  /** Somebody sits before it, and wants to see how far the work is. */
  isWatched: boolean;
}

/** The work failed for a reason worth a sentence. */
export class Failure extends Error {}

/** A fault of the program itself, in one line. */
export const sayFault = (error: unknown): string =>
  `Folder met a fault of its own: ${firstOf(String(error).split('\n')).slice(0, 300)}. Nothing more was written.`;

export type Command = 'survey' | 'make' | 'recipe' | 'split' | 'watch' | 'template' | 'prove';

/** A call as it was typed. */
export interface Call {
  io: Io;
  command: Command;
  /** What stands after the command. */
  files: string[];
  out: string;
  recipe: string;
  by: string;
  name: string;
  set: string[];
  json: boolean;
  once: boolean;
  /** Why outputs go out although a finding says stop. */
  despite: string;
  /** Files that the steps of a recipe use. */
  with: string[];
}

/** What each command needs besides files: how many of those at least, and which options. */
const NEEDS: Record<Command, { files: number; options: readonly string[]; may?: readonly string[] }> = {
  survey: { files: 1, options: [] },
  make: { files: 1, options: ['out'], may: ['json', 'despite'] },
  recipe: { files: 2, options: ['out'], may: ['set', 'with', 'json'] },
  split: { files: 1, options: ['out', 'by'], may: ['name', 'json'] },
  watch: { files: 1, options: ['recipe'], may: ['set', 'with', 'once', 'json'] },
  prove: { files: 2, options: [], may: ['json'] },
  template: { files: 1, options: ['out'], may: ['json'] },
};

/** Reads a call; undefined if it is none. */
export function readCall(args: string[], io: Io): Call | { command: 'help' } | undefined {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        out: { type: 'string' },
        recipe: { type: 'string' },
        by: { type: 'string' },
        name: { type: 'string' },
        set: { type: 'string', multiple: true },
        with: { type: 'string', multiple: true },
        despite: { type: 'string' },
        json: { type: 'boolean' },
        once: { type: 'boolean' },
        help: { type: 'boolean', short: 'h' },
      },
    });
    const [command, ...files] = positionals;
    if (values.help || command === 'help') return { command: 'help' };
    if (!command || !Object.hasOwn(NEEDS, command)) return undefined;
    const { files: least, options, may = [] } = NEEDS[command as Command];
    const given = Object.keys(values);
    if (files.length < least || options.some((option) => !given.includes(option))) return undefined;
    if (given.some((option) => !options.includes(option) && !may.includes(option))) return undefined;
    const { out = '', recipe = '', by = '', name = '', set = [], json = false, once = false } = values;
    const { despite = '', with: more = [] } = values;
    return {
      io,
      command: command as Command,
      files,
      out,
      recipe,
      by,
      name,
      set,
      json,
      once,
      despite,
      with: more,
    };
  } catch {
    return undefined;
  }
}

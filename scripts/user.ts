// npm run user -- add NAME | password NAME | list | remove NAME: who may sign in.
import { createInterface } from 'node:readline';
import { closeDb } from '../src/lib/server/db';
import { migrate } from '../src/lib/server/migrate';
import { addPerson, listPeople, removePerson } from '../src/lib/server/people';
import { Problem } from '../src/lib/server/problem';
import { sayTrouble } from '../src/lib/words/troubles';
import { useOwnDatabase } from './ownDatabase';

const USAGE =
  'Say what to do: npm run user -- add NAME, password NAME, list, or remove NAME. The password is asked for.';

/** Asks for a password, without showing it; from a pipe it is the first line. */
async function askPassword(): Promise<string> {
  const { stdin, stdout } = process;
  if (!stdin.isTTY) {
    for await (const line of createInterface({ input: stdin })) return line;
    return '';
  }
  stdout.write('Password: ');
  stdin.setRawMode(true);
  let typed = '';
  for await (const part of stdin.setEncoding('utf8'))
    for (const key of String(part)) {
      if (key === '\r' || key === '\n' || key === '\u0004') {
        stdin.setRawMode(false).pause();
        stdout.write('\n');
        return typed;
      }
      if (key === '\u0003') process.exit(130);
      typed = key === '\u007f' || key === '\b' ? [...typed].slice(0, -1).join('') : typed + key;
    }
  return typed;
}

async function main([what, ...words]: string[]): Promise<number> {
  const name = words.join(' ').trim();
  if (what === 'list') {
    for (const { name: each, createdAt, signedIn } of await listPeople())
      console.log(`${each}\tsince ${createdAt.slice(0, 10)}${signedIn ? '\tsigned in' : ''}`);
    return 0;
  }
  if (!name || !['add', 'password', 'remove'].includes(what ?? '')) {
    console.error(USAGE);
    return 2;
  }
  const known = (await listPeople()).some((each) => each.name.toLowerCase() === name.toLowerCase());
  if (what === 'add' ? known : !known) {
    console.error(
      known
        ? `${name} has an account already. A new password: npm run user -- password ${name}`
        : `Nobody is called ${name}. Who there is: npm run user -- list`,
    );
    return 1;
  }
  if (what === 'remove') {
    await removePerson(name);
    console.log(`${name} can no longer sign in, and is signed out everywhere.`);
    return 0;
  }
  const added = await addPerson(name, await askPassword());
  console.log(
    what === 'add'
      ? `${added} can sign in now.`
      : `${added} has a new password, and is signed out everywhere.`,
  );
  return 0;
}

const stop = await useOwnDatabase();
try {
  await migrate();
  process.exitCode = await main(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof Problem)) throw error;
  console.error(sayTrouble(error.trouble));
  process.exitCode = 1;
} finally {
  await closeDb();
  stop();
}

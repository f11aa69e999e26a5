// Answers yes where people must sign in and nobody can: asked by the start command.
import { closeDb } from '../src/lib/server/db';
import { listPeople } from '../src/lib/server/people';
import { mustSignIn } from '../src/lib/server/signedIn';

const { HOST = '127.0.0.1', ORIGIN } = process.env;
console.log(
  mustSignIn({ HOST, ...(ORIGIN ? { ORIGIN } : {}) }) && !(await listPeople()).length ? 'yes' : 'no',
);
await closeDb();

// npm run faults: what went wrong lately that nobody foresaw, newest first. Another number than 20 can be given.
import { closeDb } from '../src/lib/server/db';
import { listFaults } from '../src/lib/server/faults';
import { useOwnDatabase } from './ownDatabase';

const stop = await useOwnDatabase();
const faults = await listFaults(Number(process.argv[2] ?? 20));
for (const { at, part, what, reason, stack } of faults.reverse())
  console.log(`${at}  ${part}: ${what}\n  ${reason}\n${stack.replace(/^/gm, '    ')}\n`);
if (!faults.length) console.log('No faults are known.');
await closeDb();
stop();

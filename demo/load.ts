import { createHash } from 'node:crypto';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { measureSource } from '../src/lib/raster/measureSource';
import { storeBlob } from '../src/lib/server/blobs';
import { closeDb, db, transaction } from '../src/lib/server/db';
import { addDropFolder } from '../src/lib/server/dropFolders';
import { createJob } from '../src/lib/server/jobs';
import { migrate, NewerDatabase } from '../src/lib/server/migrate';
import { Problem } from '../src/lib/server/problem';
import { saveRecipe } from '../src/lib/server/recipes';
import { addSource } from '../src/lib/server/sources';
import { drawDemoSources } from './draw';
import { demoDockets, SCANS_RECIPE } from './jobs';
import { firstOf } from '../src/lib/core/entries';

/** Draws the demo's sources, stores them and opens its jobs. */
export async function loadDemo(): Promise<void> {
  const hashes: Record<string, string> = {};
  for (const { name, bytes } of await drawDemoSources()) {
    hashes[name] = createHash('sha256').update(bytes).digest('hex');
    const survey = await measureSource(bytes, await surveyPdf(bytes));
    await transaction(async (client) => {
      const blob = await storeBlob(
        client,
        (async function* () {
          yield bytes;
        })(),
      );
      await addSource(client, blob.sha256, blob.id, survey);
    });
  }
  // The last one made heads the list.
  for (const docket of demoDockets(hashes)) await createJob(docket);
  await saveRecipe(SCANS_RECIPE);
  await addDropFolder({ name: 'booklet-scans', recipe: SCANS_RECIPE.name }).catch((error: unknown) => {
    // The directory may not be ours to write in; the recipe is there all the same.
    if (!(error instanceof Problem)) throw error;
  });
}

if (process.argv[1] === import.meta.filename) {
  try {
    await migrate();
  } catch (error) {
    if (!(error instanceof NewerDatabase)) throw error;
    console.error(error.message);
    process.exit(3);
  }
  const { rows } = await db().query<{ empty: boolean }>('select not exists (select from job) as empty');
  const wanted =
    process.argv.includes('--always') || (firstOf(rows).empty && !process.argv.includes('--never'));
  if (wanted) await loadDemo();
  await closeDb();
}

import { mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { freeIn, Growing, PLACES, WHY } from '../../lib/make/dropPlace';
import { Failure, type Call } from '../call';
import { given, readRecipeFile, valuesOf } from '../files';
import { report } from '../report';
import { workFile } from './recipe';

const LOOK_EVERY_MS = 300;

/** Works what is put in a folder, one file after the other, until it is stopped; with `--once`, what is there. */
export async function watch({
  files: [folder],
  recipe: recipeFile,
  set,
  once,
  json,
  io,
  with: more,
}: Call): Promise<void> {
  const recipe = await readRecipeFile(recipeFile);
  const values = valuesOf(recipe, set);
  const places = { done: join(folder!, PLACES.done), failed: join(folder!, PLACES.failed) };
  try {
    for (const place of Object.values(places)) await mkdir(place, { recursive: true });
  } catch {
    throw new Failure(`${folder} cannot be written. Check its name and that you may write there.`);
  }
  const growing = new Growing();
  const files = async () =>
    (await readdir(folder!, { withFileTypes: true }))
      .filter((entry) => entry.isFile() && !entry.name.startsWith('.'))
      .map(({ name }) => name);
  for (;;) {
    const here = await files();
    for (const name of here) {
      const path = join(folder!, name);
      if (!growing.isQuiet(path, await stat(path))) continue;
      const stem = await freeIn(Object.values(places), name.replace(/\.[^.]+$/, '') || name);
      try {
        const out = join(places.done, stem);
        const result = await workFile(recipe, values, await given([path, ...more]), { out, io });
        await rename(path, join(out, name));
        report([{ source: path, ...result }], { json, io });
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        await rm(join(places.done, stem), { recursive: true, force: true });
        await mkdir(join(places.failed, stem));
        await rename(path, join(places.failed, stem, name));
        await writeFile(join(places.failed, stem, WHY), `${name}\n\n${error.message}\n`);
        io.err(`${name}: ${error.message}\n`);
      }
    }
    if (once && !(await files()).length) return;
    await new Promise((soon) => setTimeout(soon, LOOK_EVERY_MS));
  }
}

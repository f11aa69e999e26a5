import { docketOfFile, RecipeError, type Recipe, type RecipeValues } from '../../lib/core/docket/recipe';
import { sayTrouble } from '../../lib/words/troubles';
import { Failure, type Call, type Io } from '../call';
import { given, readRecipeFile, valuesOf, type GivenFile } from '../files';
import { handOverDocket } from '../handOverDocket';
import { report } from '../report';

/** Works each file by a recipe. */
export async function recipe({
  files: [recipeFile, ...files],
  set,
  with: more,
  ...call
}: Call): Promise<void> {
  const steps = await readRecipeFile(recipeFile!);
  const values = valuesOf(steps, set);
  const used = await given(more);
  const results = [];
  for (const file of await given(files))
    results.push({ source: file.file, ...(await workFile(steps, values, [file, ...used], call)) });
  report(results, call);
}

/** Works the first of the files by a recipe, whose steps may use the others. */
export function workFile(
  recipe: Recipe,
  values: RecipeValues,
  files: readonly GivenFile[],
  { out, io }: { out: string; io: Io },
) {
  try {
    const [file] = files;
    const docket = docketOfFile({ source: file!.hash, name: file!.name }, recipe, values);
    return handOverDocket(docket, files, { out, io, strict: true });
  } catch (error) {
    if (error instanceof RecipeError) throw new Failure(sayTrouble({ code: error.code, data: error.data }));
    throw error;
  }
}

import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Docket } from '../lib/core/docket/docket';
import { DocketError, readDocket as readDocketOf } from '../lib/core/docket/readDocket';
import { readRecipe, RecipeError, type Recipe, type RecipeValues } from '../lib/core/docket/recipe';
import { LengthError, parseLength } from '../lib/core/measure/parseLength';
import type { Picture, Survey } from '../lib/core/model/survey';
import { asPdf } from '../lib/make/asPdf';
import { PdfError } from '../lib/pdf/objects/pdfError';
import { surveyPdf } from '../lib/pdf/read/survey';
import { measureSource } from '../lib/raster/measureSource';
import { PictureError } from '../lib/raster/picture';
import { sayTrouble } from '../lib/words/troubles';
import { Failure } from './call';

/** A file that was named in a call, by its SHA-256. */
export interface GivenFile {
  name: string;
  file: string;
  hash: string;
}
/** The files that were named. */
export const given = (files: readonly string[]): Promise<GivenFile[]> =>
  Promise.all(files.map(async (file) => ({ name: basename(file), file, hash: sha256(await read(file)) })));

/** The recipe in a file. Throws Failure. */
export async function readRecipeFile(file: string): Promise<Recipe> {
  try {
    return readRecipe(JSON.parse((await read(file)).toString('utf8')));
  } catch (error) {
    if (error instanceof RecipeError)
      throw new Failure(`${file}: ${sayTrouble({ code: error.code, data: error.data })}`);
    if (error instanceof SyntaxError)
      throw new Failure(
        `${file}: ${sayTrouble({ code: 'recipe-invalid', data: { reason: 'it is not JSON' } })}`,
      );
    throw error;
  }
}

/** What was said with `--set`, as the recipe wants it. */
export function valuesOf({ asks }: Recipe, said: readonly string[]): RecipeValues {
  return Object.fromEntries(
    said.map((each): [string, string | number] => {
      const [, name = '', text = ''] = /^([^=]*)=(.*)$/s.exec(each) ?? [];
      const ask = asks.find((one) => one.name === name);
      if (!ask) throw new Failure(sayTrouble({ code: 'value-unknown', data: { name: name || each } }));
      const wrong = (reason: string) =>
        new Failure(sayTrouble({ code: 'value-wrong', data: { name, label: ask.label, reason } }));
      if (ask.kind === 'length')
        try {
          return [name, parseLength(text, 'mm')];
        } catch (error) {
          if (error instanceof LengthError) throw wrong(`“${text}” is no length`);
          throw error;
        }
      if (ask.kind !== 'number') return [name, text];
      if (!text.trim() || !Number.isFinite(Number(text))) throw wrong(`“${text}” is no number`);
      return [name, Number(text)];
    }),
  );
}

/** The survey of a file, measured where the docket needs to know what is drawn. */
export async function surveyOf(file: string, measured: boolean): Promise<Survey> {
  const { bytes, picture } = await readPdf(file);
  try {
    const survey = { ...(await surveyPdf(bytes)), ...(picture ? { picture } : {}) };
    return measured ? await measureSource(bytes, survey) : survey;
  } catch (error) {
    if (error instanceof PdfError) throw new Failure(`${file}: ${sayTrouble(error)}`);
    throw error;
  }
}

/** The PDF in a file, or made of the picture or drawing in it. */
export async function readPdf(file: string): Promise<{ bytes: Uint8Array; picture?: Picture }> {
  const bytes = await read(file);
  try {
    const { pdf, ...made } = await asPdf(bytes);
    return { bytes: pdf, ...made };
  } catch (error) {
    if (error instanceof PictureError || error instanceof PdfError)
      throw new Failure(`${file}: ${sayTrouble(error)}`);
    throw error;
  }
}

/** The docket in a file. Throws Failure. */
export async function readDocket(file: string): Promise<Docket> {
  let json: unknown;
  try {
    json = JSON.parse((await read(file)).toString('utf8'));
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure(
      `${file}: ${sayTrouble({ code: 'docket-invalid', data: { reason: 'it is not JSON' } })}`,
    );
  }
  try {
    return readDocketOf(json);
  } catch (error) {
    if (error instanceof DocketError) throw new Failure(`${file}: ${sayTrouble(error)}`);
    throw error;
  }
}

/** The bytes of a file. Throws Failure. */
export async function read(file: string): Promise<Buffer> {
  try {
    return await readFile(file);
  } catch {
    throw new Failure(`${file} cannot be opened. Check its name and that you may read it.`);
  }
}

/** SHA-256 in hex. */
export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

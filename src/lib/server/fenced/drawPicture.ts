import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { heightOf, widthOf } from '../../core/measure/box';
import type { SurveyPage } from '../../core/model/survey';
import { mediaBoxOf } from '../../raster/mediaBox';
import { sharedRenderer } from '../../raster/nodeRenderer';
import { runFenced } from './protocol';

/** Draws page `index` of the PDF at `file` as a PNG whose longer side has `pixels`. */
export interface PictureTask {
  file: string;
  index: number;
  page: SurveyPage;
  pixels: number;
  out: string;
}

await runFenced<PictureTask>(async ({ file, index, page, pixels, out }) => {
  const bytes = await readFile(file);
  const pdf = (await sharedRenderer(bytes.length)).open(bytes);
  const [width, height] = [widthOf(page.boxes.media), heightOf(page.boxes.media)];
  const scale = pixels / Math.max(width, height);
  const raster = pdf.render(
    index,
    mediaBoxOf(page),
    Math.max(1, Math.round(width * scale)),
    Math.max(1, Math.round(height * scale)),
  );
  pdf.close();
  await sharp(raster.rgba, { raw: { width: raster.width, height: raster.height, channels: 4 } })
    .png()
    .toFile(out);
});

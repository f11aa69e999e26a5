import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import sharp from 'sharp';
import { heightOf, widthOf } from '../../core/measure/box';
import type { SurveyPage } from '../../core/pages/survey';
import { mediaBoxOf } from '../../raster/mediaBox';
import { Renderer } from '../../raster/pdfium';
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
  const wasm = await readFile(createRequire(import.meta.url).resolve('@embedpdf/pdfium/pdfium.wasm'));
  const renderer = await Renderer.start(new Uint8Array(wasm).buffer);
  const [width, height] = [widthOf(page.boxes.media), heightOf(page.boxes.media)];
  const scale = pixels / Math.max(width, height);
  const raster = renderer
    .open(await readFile(file))
    .render(
      index,
      mediaBoxOf(page),
      Math.max(1, Math.round(width * scale)),
      Math.max(1, Math.round(height * scale)),
    );
  await sharp(raster.rgba, { raw: { width: raster.width, height: raster.height, channels: 4 } })
    .png()
    .toFile(out);
});

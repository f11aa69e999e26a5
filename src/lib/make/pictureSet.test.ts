import { downloadZip } from 'client-zip';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { surveyPdf } from '../pdf/read/survey';
import { asPdf } from './asPdf';

const picture = (width: number) =>
  sharp({ create: { width, height: 60, channels: 3, background: '#fff' } })
    .jpeg()
    .toBuffer();
const zip = async (files: Record<string, Buffer>): Promise<Buffer> =>
  Buffer.from(
    await downloadZip(Object.entries(files).map(([name, input]) => ({ name, input }))).arrayBuffer(),
  );
const refused = (bytes: Buffer) =>
  asPdf(bytes).then(
    () => 'taken',
    ({ code }: { code: string }) => code,
  );

test('a ZIP of pictures is one PDF, in the order in which they were scanned', async () => {
  const bytes = await zip({
    'set/s10.jpg': await picture(100),
    'set/s2.jpg': await picture(200),
    '__MACOSX/._s2.jpg': Buffer.from('aside'),
    'set/s1.jpg': await picture(300),
  });
  const { pdf } = await asPdf(bytes);
  const { pages } = await surveyPdf(pdf);
  // 300 dots an inch where a picture states nothing, or what it states.
  const [first, second, third] = pages.map(({ boxes }) => boxes.media.x1 - boxes.media.x0);
  expect(first! / third!).toBeCloseTo(3, 1);
  expect(second! / third!).toBeCloseTo(2, 1);
});

test('a ZIP with anything else, with nothing, cut off, or that says it is larger than it may be is refused', async () => {
  const jpeg = await picture(80);
  expect(await refused(await zip({ 'a.jpg': jpeg, 'b.pdf': Buffer.from('%PDF-1.7') }))).toBe('set-of-others');
  expect(await refused(await zip({ 'a.jpg': Buffer.from('no picture') }))).toBe('set-of-others');
  expect(await refused(await zip({ '.hidden': jpeg }))).toBe('set-empty');
  const whole = await zip({ 'a.jpg': jpeg, 'b.jpg': jpeg });
  expect(await refused(whole.subarray(0, whole.length - 40))).toBe('set-damaged');
  const boast = Buffer.from(whole);
  const entry = boast.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
  boast.writeUInt32LE(0xf0000000, entry + 24);
  expect(['set-too-large', 'set-damaged']).toContain(await refused(boast));
});

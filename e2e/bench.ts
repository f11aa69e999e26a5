import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';

/** What a preparer does on the bench, in a test's words. */
export const step = (page: Page, number: number) =>
  page
    .getByRole('complementary', { name: 'Docket' })
    .locator('li')
    .nth(number - 1);
export const tile = (page: Page, position: number) =>
  page.getByRole('option', { name: new RegExp(`^Page ${position},`) });
export const go = (page: Page, stage: 'Take in' | 'Pages' | 'Sheets' | 'Hand over') =>
  page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
export const saved = (page: Page) => expect(page.locator('.job')).toContainText('saved');

export async function newJob(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await page
    .getByRole('button', { name: /New job|Start the first job/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Drop PDFs or scans here' })).toBeVisible();
}

export interface SentFile {
  name: string;
  buffer: Buffer;
}
export const pdf = (name: string, bytes: Uint8Array): SentFile & { mimeType: string } => ({
  name,
  buffer: Buffer.from(bytes),
  mimeType: 'application/pdf',
});

export async function takeIn(page: Page, ...files: SentFile[]): Promise<void> {
  await page
    .locator('.slip input[type=file]')
    .setInputFiles(files.map((file) => ({ mimeType: 'application/pdf', ...file })));
}

/** Makes an output and returns the bytes of what is downloaded. */
export async function makeOutput(page: Page, button: string): Promise<Buffer> {
  const parcel = page.getByRole('article').filter({ has: page.getByRole('button', { name: button }) });
  await parcel.getByRole('button', { name: button }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 60_000 }),
    parcel.locator('a.file').first().click({ timeout: 60_000 }),
  ]);
  return readFileSync(await download.path());
}

/** Dots of the first picture drawn in the mat that are neither white nor nearly so: proof that art was rendered. */
export const drawnPictures = (page: Page) => page.locator('image[data-drawn]').count();

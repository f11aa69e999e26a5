import { expect, type Locator, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { keep, tool } from '../tests/outside';

/** What a preparer does on the bench, in a test's words. */
export const step = (page: Page, number: number) =>
  page
    .getByRole('complementary', { name: 'Docket' })
    .locator('li')
    .nth(number - 1);
export const tile = (page: Page, position: number) =>
  page.getByRole('option', { name: new RegExp(`^Page ${position},`) });
export const go = (page: Page, stage: 'Take in' | 'Pages' | 'Numbers' | 'Sheets' | 'Dummy' | 'Hand over') =>
  page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
/** Where an element lies, in CSS pixels of the page; waits until it is drawn, as it is not for a moment while the mat is drawn anew. */
export async function boxOf(of: Locator): Promise<{ x: number; y: number; width: number; height: number }> {
  let box: Awaited<ReturnType<Locator['boundingBox']>> = null;
  await expect.poll(async () => (box = await of.boundingBox())).not.toBeNull();
  return box!;
}
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

/** Makes an output, saying why where findings say stop, and returns the bytes of what is downloaded: of this order, not of one made before it. */
export async function makeOutput(page: Page, button: string): Promise<Buffer> {
  const make = page.getByRole('button', { name: button });
  await expect(make).toBeVisible();
  const why = page.getByLabel('Goes out all the same');
  if (await why.isVisible()) await why.fill('The test wants it.');
  const [ordered] = await Promise.all([
    page.waitForResponse(
      (answer) => answer.request().method() === 'POST' && answer.url().endsWith('/outputs'),
    ),
    make.click(),
  ]);
  const { id } = (await ordered.json()) as { id: string };
  const made = page.locator(`a.file[href*="${id}"]`);
  // It says how far it is; what reads the words of two dozen pages takes more than a minute beside another browser.
  await expect(made).toBeVisible({ timeout: 300_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), made.click()]);
  return readFileSync(await download.path());
}

/** Dots of the first picture drawn in the mat that are neither white nor nearly so: proof that art was rendered. */
export const drawnPictures = (page: Page) => page.locator('image[data-drawn]').count();

export const slip = (page: Page) => page.locator('.slip');
export const field = (page: Page, name: string) => slip(page).getByLabel(name, { exact: true });
export const put = async (page: Page) => {
  await page.getByRole('button', { name: /^Apply$|Change step/ }).click();
  await saved(page);
};
export const pick = async (page: Page, text: string) => {
  await page.getByLabel('selected').fill(text);
  await page.getByRole('listbox', { name: 'Pages' }).focus();
};
/** Opens the form of each button of a stage in turn, hands it over with the button's words, and cancels it. */
export async function eachForm(
  page: Page,
  look: (name: string) => Promise<void>,
  words = { do: 'Do', cancel: 'Cancel' },
): Promise<void> {
  const acts = slip(page).getByRole('region', { name: words.do }).getByRole('button');
  await expect(acts.first()).toBeVisible();
  for (let n = 0; n < (await acts.count()); n++) {
    if (await acts.nth(n).isDisabled()) continue;
    const name = (await acts.nth(n).textContent())!;
    await acts.nth(n).click();
    const cancel = slip(page).getByRole('button', { name: words.cancel, exact: true });
    await expect(cancel).toBeVisible();
    await look(name);
    await cancel.click();
  }
}
/** A new job with one file, on Pages. */
export async function jobOf(page: Page, url: string, bytes: Uint8Array): Promise<void> {
  await newJob(page, url);
  await takeIn(page, pdf('work.pdf', bytes));
  await expect(step(page, 1)).toContainText('work.pdf');
  await go(page, 'Pages');
  await expect(tile(page, 1)).toBeVisible();
}
/** The reading-order PDF of the job as it stands. */
export async function written(page: Page, button = 'Make reading-order PDF'): Promise<string> {
  await go(page, 'Hand over');
  const path = keep(await makeOutput(page, button));
  tool('qpdf', '--check', path);
  return path;
}

/** Watches one of the things `selector` finds while pages load: each way it is seen, or hidden, and where. */
export async function placesOf(page: Page, selector: string, nth: number): Promise<() => Promise<string[]>> {
  await page.addInitScript(
    ([found, n]) => {
      const seen = new Set<string>();
      Object.assign(window, { seen });
      new MutationObserver(() => {
        const one = document.querySelectorAll(found).item(n);
        if (!one || document.readyState === 'loading') return;
        const { x, y } = one.getBoundingClientRect();
        // A font that comes late moves a line by a pixel, whatever the page does.
        if (document.fonts.status === 'loading') return;
        seen.add(`${one.checkVisibility({ visibilityProperty: true })} ${x} ${y}`);
      }).observe(document, { subtree: true, childList: true, attributes: true });
    },
    [selector, nth] as const,
  );
  return () => page.evaluate(() => [...(window as unknown as { seen: Set<string> }).seen]);
}

/** Scripts come late, so that what is done before a page comes to life is done then. */
export const slowScripts = (page: Page): Promise<unknown> =>
  page.route('**/*.js', async (route) => {
    await new Promise((later) => setTimeout(later, 500));
    await route.continue();
  });

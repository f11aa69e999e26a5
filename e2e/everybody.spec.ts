import { expect, test, type Page } from '@playwright/test';
import { SCHEMES } from '../src/lib/core/sheets/schemes';
import { expectOpenToAll } from './axe';
import { expectWhole, SIZES } from './cutOff';
import { eachForm, field, go, pick, saved, slip } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start({ demo: true });
});
test.afterAll(() => folder.kill('SIGTERM'));

test('no view and no open form keeps anybody out (axe-core)', async ({ page }) => {
  test.setTimeout(300_000);
  for (const path of ['/', '/recipes', '/work', '/sign-in', '/none']) {
    await page.goto(folder.url + path);
    await expectOpenToAll(page, path);
  }
  await page.goto(folder.url);
  await page
    .getByRole('link', { name: /^Open .*[Hh]andbook/ })
    .first()
    .click();
  for (const stage of ['Take in', 'Pages', 'Numbers', 'Sheets', 'Dummy', 'Hand over'] as const) {
    await go(page, stage);
    await expect(
      page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }),
    ).toHaveAttribute('aria-current', 'page');
    await page.waitForTimeout(1000);
    await expectOpenToAll(page, stage);
    if (stage !== 'Pages' && stage !== 'Numbers') continue;
    if (stage === 'Pages') await pick(page, '4-5');
    await eachForm(page, (name) => expectOpenToAll(page, `${stage}: ${name}`));
  }
  await page.getByRole('button', { name: 'Settings' }).first().click();
  await expectOpenToAll(page, 'settings of an output');
  await page.keyboard.press('?');
  await expectOpenToAll(page, 'keys');
});

/** Opens all that is folded in the slip. */
async function unfold(page: Page): Promise<void> {
  for (const closed of await slip(page).locator('details:not([open]) > summary').all())
    if (await closed.isVisible()) await closed.click();
}

test('nothing is cut off in any view and open form, at three sizes of window', async ({ page }) => {
  test.setTimeout(600_000);
  for (const path of ['/', '/recipes', '/work', '/sign-in', '/none', '/guide/pages']) {
    await page.goto(folder.url + path);
    await expectWhole(page, path);
  }
  await page.goto(folder.url);
  await page
    .getByRole('link', { name: /^Open .*timetable/ })
    .first()
    .click();
  for (const stage of ['Take in', 'Pages', 'Numbers', 'Sheets', 'Dummy', 'Hand over'] as const) {
    await go(page, stage);
    await expect(slip(page).getByRole('heading', { level: 1 })).toBeVisible();
    await expectWhole(page, stage);
    if (stage === 'Pages' || stage === 'Numbers') {
      await pick(page, '2-3');
      await eachForm(page, async (name) => {
        await unfold(page);
        await expectWhole(page, `${stage}: ${name}`);
      });
    }
    if (stage !== 'Sheets') continue;
    for (const { kind } of SCHEMES) {
      await field(page, 'The pages become').selectOption(kind);
      await saved(page);
      await unfold(page);
      await expectWhole(page, `Sheets: ${kind}`);
    }
  }
  for (const settings of await page.getByRole('button', { name: 'Settings' }).all()) {
    await settings.click();
    await expectWhole(page, 'settings of an output');
    await settings.click();
  }
  await page.keyboard.press('?');
  await expectWhole(page, 'keys');
});

test('in German: the browser is answered in its language, and nothing is cut off', async ({ browser }) => {
  test.setTimeout(300_000);
  const context = await browser.newContext({ locale: 'de-DE', viewport: SIZES[0]! });
  const page = await context.newPage();
  const whole = (what: string) => expectWhole(page, what, SIZES.slice(0, 1));
  await page.goto(folder.url);
  await expect(page.getByRole('button', { name: 'Neuer Auftrag' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await whole('Aufträge');
  await page
    .getByRole('link', { name: /Öffnen .*timetable/ })
    .first()
    .click();
  for (const stage of ['Aufnehmen', 'Seiten', 'Nummern', 'Bogen', 'Muster', 'Übergabe']) {
    await page.getByRole('navigation', { name: 'Arbeitsgänge' }).getByRole('link', { name: stage }).click();
    await expect(slip(page).getByRole('heading', { level: 1 })).toHaveText(stage);
    await whole(stage);
    if (stage !== 'Seiten' && stage !== 'Nummern') continue;
    await page.getByLabel('gewählt').fill('2-3');
    await page.getByRole('listbox').first().focus();
    await eachForm(
      page,
      async (name) => {
        await unfold(page);
        await whole(`${stage}: ${name}`);
      },
      { do: 'Tun', cancel: 'Abbrechen' },
    );
  }
  // A length is written and read with a comma; the choice of a language lasts.
  await page.getByRole('navigation', { name: 'Arbeitsgänge' }).getByRole('link', { name: 'Seiten' }).click();
  await page.getByLabel('gewählt').fill('1');
  await page.getByRole('listbox').first().focus();
  await page.keyboard.press('s');
  await slip(page).getByLabel('Breite', { exact: true }).fill('148,25');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Laufzettel' })).toContainText('148,25 × 210 mm');
  await page.goto(folder.url);
  await page.getByLabel('Sprache').selectOption('English');
  await expect(page.getByRole('button', { name: 'New job' })).toBeVisible();
  await context.close();
});

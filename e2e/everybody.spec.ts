import { expect, test, type Page } from '@playwright/test';
import { tool } from '../tests/outside';
import { SCHEMES } from '../src/lib/core/sheets/schemes';
import { expectOpenToAll } from './axe';
import { expectWhole, SIZES } from './cutOff';
import { boxOf, eachForm, field, go, pick, saved, slip, tile } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start({ demo: true });
});
test.afterAll(() => folder.kill('SIGTERM'));

test('no view and no open form keeps anybody out (axe-core)', async ({ page }) => {
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

test('every stage can be loaded anew', async ({ page }) => {
  await page.goto(folder.url);
  for (const job of await page.getByRole('link', { name: /^Open / }).all())
    for (const stage of ['take-in', 'pages', 'numbers', 'sheets', 'dummy', 'hand-over']) {
      const path = `${await job.getAttribute('href')}/${stage}`;
      expect([path, (await page.request.get(folder.url + path)).status()]).toEqual([path, 200]);
    }
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
  // What goes with the work is written in it, too.
  await page
    .getByRole('navigation', { name: 'Arbeitsgänge' })
    .getByRole('link', { name: 'Übergabe' })
    .click();
  await page.getByRole('button', { name: 'Auftragszettel', exact: true }).click();
  await page.getByLabel('Geht trotzdem hinaus').fill('Nur ein Versuch.');
  await page.getByRole('button', { name: 'Auftragszettel machen' }).click();
  const made = page
    .getByRole('article')
    .filter({ hasText: 'Auftragszettel machen' })
    .locator('a.file')
    .first();
  await expect(made).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), made.click()]);
  const ticket = tool('pdftotext', '-layout', await download.path(), '-');
  expect(ticket).toMatch(/Auftragszettel · .*· Seite 1 von/);
  expect(ticket).toContain('Trotzdem übergeben');
  await page.goto(folder.url);
  await page.getByLabel('Sprache').selectOption('English');
  await expect(page.getByRole('button', { name: 'New job' })).toBeVisible();
  await context.close();
});

test('by touch: one finger moves the mat, two zoom, a long press opens the menu', async ({ browser }) => {
  const context = await browser.newContext({ hasTouch: true, viewport: SIZES[1]! });
  const page = await context.newPage();
  const hand = await context.newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...touchPoints: { x: number; y: number }[]) =>
    hand.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: touchPoints.map((at, id) => ({ ...at, id })),
    });
  await page.goto(folder.url);
  await page
    .getByRole('link', { name: /^Open .*timetable/ })
    .first()
    .click();
  await go(page, 'Pages');
  await expect(tile(page, 1)).toBeVisible();
  const mat = await boxOf(page.getByRole('listbox', { name: 'Pages' }));
  const percent = async () => parseInt((await page.getByTitle('Real size').textContent())!);
  const before = { zoom: await percent(), page: await boxOf(tile(page, 1)) };
  // An empty place, at the foot of the mat.
  const at = { x: mat.x + mat.width - 60, y: mat.y + mat.height - 40 };
  await touch('touchStart', at);
  await touch('touchMove', { x: at.x - 40, y: at.y - 60 });
  await touch('touchEnd');
  await expect.poll(async () => Math.round((await boxOf(tile(page, 1))).y - before.page.y)).toBe(-60);
  const [left, right] = [
    { x: mat.x + mat.width / 2 - 50, y: at.y },
    { x: mat.x + mat.width / 2 + 50, y: at.y },
  ];
  await touch('touchStart', left, right);
  await touch('touchMove', { ...left, x: left.x - 50 }, { ...right, x: right.x + 50 });
  await touch('touchEnd');
  await expect.poll(percent).toBeGreaterThan(1.7 * before.zoom);
  await page.getByRole('listbox', { name: 'Pages' }).focus();
  await page.keyboard.press('0');
  const first = await boxOf(tile(page, 2));
  const middle = { x: first.x + first.width / 2, y: first.y + first.height / 2 };
  await touch('touchStart', middle);
  await expect(page.getByRole('menu', { name: 'With the pages selected' })).toBeVisible();
  await touch('touchEnd');
  await context.close();
});

import { expect, test } from '@playwright/test';
import { expectOpenToAll } from './axe';
import { eachForm, go, pick } from './bench';
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

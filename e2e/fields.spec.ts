import { expect, test, type Page } from '@playwright/test';
import { STEP_KINDS } from '../src/lib/core/docket/steps';
import { SCHEMES } from '../src/lib/core/sheets/schemes';
import { markedPdf } from '../tests/outside';
import { eachForm, field, go, jobOf, pick, saved, slip } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

/** What slips of the finger type. */
const TYPED = ['0', '-1', '', 'abc', '1/0', '1e9', '999999', '0.0001', '1,000', '--5'];
/** No number, or two: a field refuses them, and says so. */
const REFUSED = ['abc', '1/0', '1,000', '--5', '1e9'];

interface Tried {
  field: string;
  typed: string;
  said: string;
  ms: number;
  mb: number;
}

/** Types each value in every field for a number that the slip shows, and gives it back what it held. */
const tryAll = (page: Page): Promise<Tried[]> =>
  page.evaluate(async (values) => {
    const slipOf = document.querySelector('.slip')!;
    const fields = () =>
      [
        ...slipOf.querySelectorAll<HTMLInputElement>('.figure input, input[inputmode], input[type=number]'),
      ].filter((each) => each.offsetParent && !each.disabled);
    const setter = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
    const enter = async (n: number, text: string) => {
      const field = fields()[n]!;
      field.focus();
      const from = performance.now();
      setter.call(field, text);
      field.dispatchEvent(new Event('input', { bubbles: true }));
      await new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn)));
      await new Promise((later) => setTimeout(later, 30));
      return performance.now() - from - 30;
    };
    const tried: Tried[] = [];
    for (let n = 0; n < fields().length; n++) {
      const held = fields()[n]!.value;
      const name = fields()[n]!.labels?.[0]?.textContent ?? fields()[n]!.ariaLabel ?? '';
      for (const typed of values) {
        if (!fields()[n]) break;
        const ms = await enter(n, typed);
        const said = [...slipOf.querySelectorAll('[role=alert]')].map((each) => each.textContent).join(' ');
        const { memory } = performance as unknown as { memory: { usedJSHeapSize: number } };
        tried.push({ field: name.trim(), typed, said, ms, mb: memory.usedJSHeapSize / 1e6 });
      }
      if (fields()[n]) await enter(n, held);
    }
    return tried;
  }, TYPED);

/** Every value is told to be wrong or is bounded, and nothing stops or fills the tab. */
function judge(form: string, tried: readonly Tried[]): void {
  for (const { field, typed, said, ms, mb } of tried) {
    const which = `${form}, ${field}: “${typed}”`;
    if (REFUSED.includes(typed)) expect.soft(said, which).not.toBe('');
    // Work that grows with what is typed takes many times as long, whatever the machine.
    expect.soft(ms, `${which}, ms`).toBeLessThan(3000);
    expect.soft(mb, `${which}, MB`).toBeLessThan(300);
  }
}

const openAll = async (page: Page) => {
  for (const closed of await slip(page).locator('details:not([open]) > summary').all())
    if (await closed.isVisible()) await closed.click();
};

test.beforeEach(async ({ page }) => jobOf(page, folder.url, await markedPdf(8)));

for (const stage of ['pages', 'numbers'] as const)
  test(`every number field of every form on the stage ${stage} says what is wrong with what is typed, and never stops the tab`, async ({
    page,
  }) => {
    const kinds = STEP_KINDS.filter(({ on, button }) => on === stage && button);
    if (stage === 'pages') await pick(page, '2-3');
    else await go(page, 'Numbers');
    let [forms, fields] = [0, 0];
    await eachForm(page, async (name) => {
      await openAll(page);
      const tried = await tryAll(page);
      forms++;
      fields += tried.length / TYPED.length;
      judge(name, tried);
    });
    // All but those that can do nothing to these pages.
    expect(forms).toBeGreaterThanOrEqual(kinds.length - 2);
    expect(fields).toBeGreaterThan(20);
  });

test('every number field of every scheme does', async ({ page }) => {
  await go(page, 'Sheets');
  let fields = 0;
  for (const { kind } of SCHEMES) {
    await field(page, 'The pages become').selectOption(kind);
    await saved(page);
    await openAll(page);
    const tried = await tryAll(page);
    fields += tried.length / TYPED.length;
    judge(kind, tried);
  }
  expect(fields).toBeGreaterThan(60);
});

test('the fields of outputs do', async ({ page }) => {
  await go(page, 'Hand over');
  const settings = page.getByRole('button', { name: 'Settings' });
  await expect(settings.first()).toBeVisible();
  let fields = 0;
  for (let n = 0; n < (await settings.count()); n++) {
    await settings.nth(n).click();
    const split = slip(page).getByLabel('Split', { exact: true });
    const ways = (await split.isVisible())
      ? await split
          .locator('option')
          .evaluateAll((all) => all.map((each) => (each as HTMLOptionElement).value))
      : [''];
    for (const way of ways) {
      if (way) await split.selectOption(way);
      const tried = await tryAll(page);
      fields += tried.length / TYPED.length;
      judge(`output ${n + 1} ${way}`, tried);
    }
    await settings.nth(n).click();
  }
  expect(fields).toBeGreaterThanOrEqual(3);
});

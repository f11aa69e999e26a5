import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

/** axe-core, which knows what is amiss in a page by the rules of WCAG 2.2 (W3C) and ARIA. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  id: string;
  impact: string | null;
  nodes: { target: unknown; html: string; failureSummary?: string }[];
}

/** Nothing on the page keeps anybody from using it who sees, hears or moves otherwise, as far as a program can tell. */
export async function expectOpenToAll(page: Page, what: string): Promise<void> {
  await page.evaluate(AXE);
  const violations = await page.evaluate(async () => {
    const { axe } = window as unknown as { axe: { run(): Promise<{ violations: Violation[] }> } };
    const { violations } = await axe.run();
    // The words on a page of the job are what it shows, not what it is called.
    return violations.flatMap((violation) => {
      const nodes = violation.nodes.filter(
        ({ html }) => violation.id !== 'label-content-name-mismatch' || !html.includes('data-pick'),
      );
      return nodes.length ? [{ ...violation, nodes }] : [];
    });
  });
  const said = violations.map(
    ({ id, impact, nodes }) =>
      `${id} (${impact}) × ${nodes.length}: ${nodes[0]!.html.slice(0, 160)} ${nodes[0]!.failureSummary?.slice(0, 200) ?? ''}`,
  );
  expect.soft(said, what).toEqual([]);
}

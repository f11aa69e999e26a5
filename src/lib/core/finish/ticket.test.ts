import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { workOut } from '../checks';
import { contains, sizeBox } from '../measure/box';
import { mm } from '../measure/unit';
import { textWidth } from '../numbers/faceMetrics';
import type { Sheet } from '../sheets/plan';
import { layTicket, wrap, type Ticket, type TicketPage } from './ticket';

const ticket = (lines: readonly string[], shows: TicketPage['shows'] = []): Ticket => ({
  title: 'Season timetable',
  under: (place, page, of) => `Job ticket · ${place} · page ${page} of ${of}`,
  pages: [{ place: 'The job', blocks: [{ heading: 'Findings', lines }], shows }],
});
const texts = (sheet: Sheet) => sheet.front.marks!.flatMap((item) => (item.kind === 'text' ? [item] : []));

describe('a job ticket', () => {
  test('lines are as wide as their column at most, and no letter is lost', () => {
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[A-Za-zäöü0-9,.×-]{1,40}$/), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 60, max: 300 }),
        (words, width) => {
          const lines = wrap(words.join(' '), 'regular', 9, width);
          expect(lines.join('').replaceAll(' ', '')).toBe(words.join(''));
          for (const line of lines)
            expect(
              textWidth(line, { face: 'Source Sans 3', weight: 'regular', size: 9 }),
            ).toBeLessThanOrEqual(width);
        },
      ),
    );
  });

  test('goes on on as many A4 pages as it needs: every line once, in order, within the paper', () => {
    const { sheets } = layTicket(ticket(Array.from({ length: 200 }, (_, n) => `Finding ${n + 1}`)));
    expect(sheets.length).toBeGreaterThan(2);
    const said = sheets.map(texts);
    sheets.forEach(({ size }) => expect(size).toEqual({ width: mm(210), height: mm(297) }));
    said.forEach((all, n) => {
      expect(all[1]!.text).toBe(`Job ticket · The job · page ${n + 1} of ${sheets.length}`);
      for (const { matrix } of all) expect(matrix[5]).toBeGreaterThanOrEqual(mm(14));
    });
    const findings = said.flat().filter(({ text }) => /^Finding \d+$/.test(text));
    expect(findings.map(({ text }) => text)).toEqual(
      Array.from({ length: 200 }, (_, n) => `Finding ${n + 1}`),
    );
  });

  test('shows both sides of a sheet within the paper, side by side', () => {
    const { plan } = workOut(docketOf([takeInStep('a')]), { [hashOf('a')]: plainSurvey(8) });
    const sides = { front: 'Sheet 1, front', back: 'Sheet 1, back' };
    const made = layTicket(ticket([], [{ plan: plan!, index: 0, sides }]));
    const { cells } = made.sheets[0]!.front;
    expect(cells.map(({ position }) => position)).toEqual([8, 1, 2, 7]);
    const paper = sizeBox(made.sheets[0]!.size);
    for (const { trim } of cells) expect(contains(paper, trim, 0)).toBe(true);
    const [eight, one, two] = cells.map(({ trim }) => trim);
    expect(eight!.x1).toBeCloseTo(one!.x0, 6);
    expect(two!.x0).toBeGreaterThan(one!.x1);
  });
});

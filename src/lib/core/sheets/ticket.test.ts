import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { workOut } from '../checks';
import { contains, sizeBox } from '../measure/box';
import { mm } from '../measure/unit';
import { textWidth } from '../numbers/faceMetrics';
import { layTicket, wrap, type Ticket } from './ticket';

const ticket = (lines: readonly string[]): Ticket => ({
  title: 'Season timetable',
  under: 'Job ticket',
  parts: [{ heading: 'Findings', lines }],
  more: (count) => `and ${count} more`,
  sides: { front: 'Sheet 1, front', back: 'Sheet 1, back' },
});
const texts = (plan: ReturnType<typeof layTicket>) =>
  plan.sheets[0]!.front.marks!.flatMap((item) => (item.kind === 'text' ? [item] : []));

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

  test('is one A4 side; what has no room on it is counted', () => {
    const plan = layTicket(ticket(Array.from({ length: 200 }, (_, n) => `Finding ${n + 1}`)), undefined);
    expect(plan.sheets).toHaveLength(1);
    expect(plan.sheets[0]!.size).toEqual({ width: mm(210), height: mm(297) });
    const said = texts(plan);
    const last = said.filter(({ text }) => /^Finding \d+$/.test(text)).length;
    expect(last).toBeGreaterThan(20);
    expect(said.at(-1)!.text).toBe(`and ${200 - last} more`);
    for (const { matrix } of said) expect(matrix[5]).toBeGreaterThanOrEqual(mm(14));
  });

  test('shows both sides of the first sheet within the paper, as they lie to each other', () => {
    const { plan } = workOut(docketOf([takeInStep('a')]), { [hashOf('a')]: plainSurvey(8) });
    const made = layTicket(ticket([]), plan);
    const { cells } = made.sheets[0]!.front;
    expect(cells.map(({ position }) => position)).toEqual([8, 1, 2, 7]);
    const paper = sizeBox(made.sheets[0]!.size);
    for (const { trim } of cells) expect(contains(paper, trim, 0)).toBe(true);
    const [eight, one, two] = cells.map(({ trim }) => trim);
    expect(eight!.x1).toBeCloseTo(one!.x0, 6);
    expect(two!.y1).toBeLessThan(one!.y0);
  });
});

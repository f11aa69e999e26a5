import { claim, lastTrouble, MOST_TRIES, giveBack, tend, tryLater } from '../claims';
import type { Claim, Progress, WorkKind } from '../claims';
import { isAway } from '../away';
import { onceThere } from '../db';
import { reportFault } from '../faults';
import { troubleOf } from '../trouble';
import type { Trouble } from '../../words/troubles';

/** How the pieces of one kind are worked. */
export interface Worked {
  kind: WorkKind;
  /**
   * Does the piece and writes what came of it under the claim. Throws Lost if the claim holds no more; an error that
   * carries a trouble ends the piece, every other one leads to another try.
   */
  carryOut(claim: Claim, now: Progress, signal: AbortSignal): Promise<void>;
  /** Ends the piece badly. `kept`: what it needs stays, so that it can be tried again. */
  fail(claim: Claim, trouble: Trouble, kept: boolean): Promise<unknown>;
}

/** The piece is this worker's no more: it was cancelled, or given to another one. */
export class Lost extends Error {}

const TEND_EVERY_MS = 500;
/** Troubles that say nothing about the piece itself: another try may well end better. */
const CHANCE: ReadonlySet<string> = new Set(['stopped-early', 'unforeseen', 'database-away']);
/** Troubles that go away when somebody makes room, or says the password: what the piece needs is kept. */
const MENDABLE: ReadonlySet<string> = new Set(['disk-full', 'needs-password']);

interface Held {
  claim: Claim;
  now: Progress;
  controller: AbortController;
  ended: Promise<void>;
}
/** The pieces that this process works at. */
const holding = new Set<Held>();
let stopping = false;

/** Claims a piece and works at it; nothing happens where it does not wait any more. */
export async function workOn(worked: Worked, id: string): Promise<void> {
  const mine = await claim(worked.kind, id);
  if (mine) await workAt(worked, mine);
}

/** Works at a claimed piece until it has ended, was given back, or was lost. */
export async function workAt(worked: Worked, mine: Claim): Promise<void> {
  const controller = new AbortController();
  const held: Held = { claim: mine, now: { done: 0, total: 0 }, controller, ended: Promise.resolve() };
  const beat = setInterval(() => void tell(held), TEND_EVERY_MS);
  held.ended = attempt(worked, held).finally(() => {
    clearInterval(beat);
    holding.delete(held);
  });
  holding.add(held);
  await held.ended;
}

/** Says that a piece is still being worked at. While the database is away nothing is said: the token decides afterwards. */
async function tell({ claim: mine, now, controller }: Held): Promise<void> {
  const known = await tend(mine, now).catch(() => true);
  if (!known) controller.abort();
}

/** Says of everything that this process holds that it is still being worked at: after it was stopped for a while, before anybody judges it silent. */
export async function tellAll(): Promise<void> {
  await Promise.all([...holding].map(tell));
}

/** Interrupts everything that this process works at and gives it back. */
export async function letGoOfAll(): Promise<void> {
  stopping = true;
  for (const { controller } of holding) controller.abort();
  await Promise.allSettled([...holding].map(({ ended }) => ended));
}

async function attempt(worked: Worked, { claim: mine, now, controller }: Held): Promise<void> {
  try {
    if (mine.tries > MOST_TRIES) {
      // Its worker died each time, so that nobody could end it.
      const trouble = (await lastTrouble(mine)) ?? { code: 'worker-died', data: { tries: MOST_TRIES } };
      await worked.fail(mine, trouble, true);
    } else {
      await worked.carryOut(mine, now, controller.signal);
    }
  } catch (error) {
    await settle(worked, mine, error, controller.signal.aborted);
  }
}

async function settle(worked: Worked, mine: Claim, error: unknown, aborted: boolean): Promise<void> {
  if (error instanceof Lost || (aborted && !stopping)) return;
  if (stopping) return giveBack(mine);
  if (isAway(error))
    return onceThere(
      () => giveBack(mine),
      () => !stopping,
    );
  let trouble = troubleOf(error);
  if (!trouble || CHANCE.has(trouble.code))
    await reportFault(`${worked.kind} ${mine.id}, try ${mine.tries}`, error);
  trouble ??= { code: 'unforeseen', data: { reason: String(error).slice(0, 300) } };
  if (!CHANCE.has(trouble.code)) await worked.fail(mine, trouble, MENDABLE.has(trouble.code));
  else if (mine.tries >= MOST_TRIES) await worked.fail(mine, trouble, true);
  else await tryLater(mine, trouble);
}

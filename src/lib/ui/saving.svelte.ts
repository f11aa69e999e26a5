import { t } from '../words/language';
import type { Docket } from '../core/docket/docket';
import { mergeDockets } from '../core/docket/mergeDockets';
import { readDocket } from '../core/docket/readDocket';
import { sayTrouble } from '../words/troubles';
import type { JobState } from '../wire/told';
import { api, isNoAnswer, Refused } from './api';
import { firstOf } from '../core/entries';

/** The server is asked again this long after it did not answer. */
const RETRY_MS = 1000;
const KEY = 'folder-unsent-';

type Change = { docket: Docket } | { walk: 'undo' | 'redo' };

/** What is kept in the browser of a change that never reached the server. */
interface Kept {
  base: { revision: number; docket: Docket };
  docket: Docket;
}

/** What a job's changes are told to. */
export interface SavingOf {
  id: string;
  /** Puts a job in place as the server has it. */
  take: (job: JobState) => void | Promise<void>;
  /** How it stands on the server, read anew. */
  reload: () => Promise<void>;
  say: (notice: string) => void;
}

/**
 * Sends the changes of a job to the server, one after the other, and keeps them while it is away: a change is saved when the
 * server has said so, and not before.
 */
export class Saving {
  /** The server, or its database, does not answer just now. */
  away = $state(false);
  /** The session has ended: somebody has to sign in again. */
  signedOut = $state(false);
  /** How many changes the server has not said yes to. */
  unsent = $state(0);

  private waiting: Change[] = [];
  private sending: Promise<void> | undefined;
  private closed = false;

  constructor(
    private readonly job: SavingOf,
    /** The job as the server last told it. */
    private known: Pick<JobState, 'revision' | 'docket'>,
  ) {}

  /** Nobody answered, or not to somebody who is signed out. */
  isAway(error: unknown): void {
    this.away = true;
    this.signedOut = error instanceof Refused && error.status === 401;
  }

  isBack(): void {
    this.away = this.signedOut = false;
  }

  /** The job as it was read from the server otherwise. */
  knows(job: JobState): void {
    this.known = job;
  }

  /** Sends a change, after those that wait. */
  send(change: Change): void {
    this.waiting.push(change);
    this.count();
    this.sending ??= this.sendAll().finally(() => (this.sending = undefined));
  }

  /** Resolves once nothing waits any more. */
  async settled(): Promise<void> {
    await this.sending;
  }

  /** Changes that an earlier window of this browser could not send. Reading them deletes them. */
  leftOver(): Kept | undefined {
    try {
      const text = localStorage.getItem(KEY + this.job.id);
      localStorage.removeItem(KEY + this.job.id);
      if (!text) return undefined;
      const { base, docket }: Kept = JSON.parse(text);
      return {
        base: { revision: base.revision, docket: readDocket(base.docket) },
        docket: readDocket(docket),
      };
    } catch {
      return undefined;
    }
  }

  /** Stores unsent changes in the browser, so that closing the window loses nothing. */
  keep(): void {
    const last = this.waiting.findLast((change) => 'docket' in change);
    try {
      if (!last || !('docket' in last)) localStorage.removeItem(KEY + this.job.id);
      else {
        const { revision, docket } = this.known;
        localStorage.setItem(
          KEY + this.job.id,
          JSON.stringify({ base: { revision, docket }, docket: last.docket } satisfies Kept),
        );
      }
    } catch {
      // The browser keeps nothing: the window does, as long as it is open.
    }
  }

  close(): void {
    this.keep();
    this.closed = true;
  }

  private count(): void {
    this.unsent = this.waiting.length;
  }

  private async sendAll(): Promise<void> {
    /** An answer got lost: what it was about may have been done. */
    let unsure = false;
    while (this.waiting.length && !this.closed) {
      const change = firstOf(this.waiting);
      try {
        const { id } = this.job;
        const { revision } = this.known;
        const job =
          'docket' in change
            ? await api.save(id, revision, change.docket)
            : await api.walk(id, revision, change.walk);
        await this.done(job);
        unsure = false;
      } catch (error) {
        if (isNoAnswer(error)) {
          unsure = true;
          this.isAway(error);
          this.keep();
          await new Promise((soon) => setTimeout(soon, RETRY_MS));
        } else if (error instanceof Refused && error.status === 409 && error.job) {
          await this.overtaken(change, error.job, unsure);
          unsure = false;
        } else {
          this.drop();
          await this.job.reload().catch(() => undefined);
          this.job.say(
            error instanceof Refused
              ? t`Not saved. ${sayTrouble(error.trouble)}`
              : t`Not saved, for a reason that nobody foresaw. What you see is how the job stands on the server.`,
          );
        }
      }
    }
  }

  private async done(job: JobState): Promise<void> {
    this.isBack();
    this.known = job;
    this.waiting.shift();
    this.count();
    // Later changes are still unsent, so the bench must keep showing them.
    if (!this.waiting.length) {
      this.keep();
      await this.job.take(job);
    }
  }

  /** Either somebody else changed the job first, or this change was saved and only the answer got lost. */
  private async overtaken(change: Change, theirs: JobState, unsure: boolean): Promise<void> {
    if (unsure && 'docket' in change && isSame(change.docket, theirs.docket)) return this.done(theirs);
    const last = this.waiting.findLast((each) => 'docket' in each);
    const merged =
      last && 'docket' in last
        ? mergeDockets(this.known.docket, readDocket(last.docket), theirs.docket)
        : undefined;
    this.drop();
    this.known = theirs;
    if (merged) {
      this.waiting = [{ docket: merged }];
      this.count();
      this.job.say(t`This job was changed in another window meanwhile. Both changes are on the docket.`);
      return;
    }
    await this.job.take(theirs);
    this.job.say(
      t`This job was changed in another window, at the same place, so your last change was not put on the docket. What you see is how it stands now.`,
    );
  }

  private drop(): void {
    this.waiting = [];
    this.count();
    this.keep();
  }
}

/** Whether two dockets are the same once they are saved. */
const isSame = (a: Docket, b: Docket): boolean =>
  JSON.stringify(readDocket(a)) === JSON.stringify(readDocket(b));

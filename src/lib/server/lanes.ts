import { entryOf } from '../core/entries';

/** Runs work in lanes: one piece after the other within a lane, different lanes at the same time. */
export class Lanes<Name extends string> {
  private readonly last = new Map<Name, Promise<unknown>>();

  constructor(names: readonly Name[]) {
    for (const name of names) this.last.set(name, Promise.resolve());
  }

  /** Runs `work` after everything queued before it in its lane has ended, whether it succeeded or failed. */
  run<T>(name: Name, work: () => Promise<T>): Promise<T> {
    const turn = entryOf(this.last, name).then(work);
    this.last.set(
      name,
      turn.catch(() => undefined),
    );
    return turn;
  }
}

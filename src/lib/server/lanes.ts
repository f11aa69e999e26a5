import { entryOf } from '../core/entries';

/** Work that runs one piece after the other in each lane, and beside that of other lanes. */
export class Lanes<Name extends string> {
  private readonly last = new Map<Name, Promise<unknown>>();

  constructor(names: readonly Name[]) {
    for (const name of names) this.last.set(name, Promise.resolve());
  }

  /** Runs `work` once what came before it in its lane has ended, however that ended. */
  run<T>(name: Name, work: () => Promise<T>): Promise<T> {
    const turn = entryOf(this.last, name).then(work);
    this.last.set(
      name,
      turn.catch(() => undefined),
    );
    return turn;
  }
}

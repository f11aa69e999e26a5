import { AsyncLocalStorage } from 'node:async_hooks';

const acting = new AsyncLocalStorage<string | null>();

/** Does `work` in the name of a person; null where nobody signs in. */
export const actAs = <T>(person: string | null, work: () => T): T => acting.run(person, work);

/** Who does what is being done now; null where nobody signed in. */
export const actor = (): string | null => acting.getStore() ?? null;

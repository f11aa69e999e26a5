import { AsyncLocalStorage } from 'node:async_hooks';

const acting = new AsyncLocalStorage<string | null>();

/** Runs `work` as a person; null on installations without sign-in. */
export const actAs = <T>(person: string | null, work: () => T): T => acting.run(person, work);

/** The person on whose behalf the current work runs; null on installations without sign-in. */
export const actor = (): string | null => acting.getStore() ?? null;

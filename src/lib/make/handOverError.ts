import type { Trouble } from '../words/troubles';

/** An output could not be made for a reason worth a sentence. */
export class HandOverError extends Error {
  constructor(readonly trouble: Trouble) {
    super(trouble.code);
  }
}

import type { Trouble } from '../../words/errors';

/** An output could not be made for a reason worth a sentence. */
export class HandOverError extends Error implements Trouble {
  readonly code: string;
  readonly data: NonNullable<Trouble['data']>;
  constructor({ code, data = {} }: Trouble) {
    super(code);
    [this.code, this.data] = [code, data];
  }
}

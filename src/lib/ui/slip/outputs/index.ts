import type { OutputKind } from '../../../core/handover/outputs';
import { FIELDS } from './kinds';
import type { OutputFields } from './outputFields';
import PlainFields from './PlainFields.svelte';

/** The fields of a kind of output besides its split and its name. */
export const outputFields = (kind: OutputKind): OutputFields<OutputKind> => {
  const fields = FIELDS[kind];
  return fields === 'plain' ? PlainFields : (fields as unknown as OutputFields<OutputKind>);
};

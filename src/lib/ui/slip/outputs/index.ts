import type { OutputKind } from '../../../core/handover/outputs';
import { FIELDS } from './kinds';
import type { OutputFields } from './outputFields';
import PlainFields from './PlainFields.svelte';
import { ofAnyKind } from '../../../core/kinds';

/** The fields of a kind of output besides its split and its name. */
export const outputFields = (kind: OutputKind): OutputFields<OutputKind> => {
  const fields = FIELDS[kind];
  return fields === 'plain' ? PlainFields : ofAnyKind(fields);
};

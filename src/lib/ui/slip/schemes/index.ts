import type { Scheme } from '../../../core/sheets/schemes';
import type { SchemeFields } from '../schemeDraft.svelte';
import { FIELDS } from './kinds';
import PlainFields from './PlainFields.svelte';
import { ofAnyKind } from '../../../core/kinds';

/** The fields of a kind of scheme besides sheet, press and marks. */
export const schemeFields = (kind: Scheme['kind']): SchemeFields<Scheme['kind']> => {
  const fields = FIELDS[kind];
  return fields === 'plain' ? PlainFields : ofAnyKind(fields);
};

import type { Step } from '../../../core/docket/steps';
import type { StepFields } from '../fields';
import { FIELDS } from './kinds';
import PlainFields from './PlainFields.svelte';
import { ofAnyKind } from '../../../core/kinds';

/** The fields of a kind of step besides its pages: written by hand where they need a picture, else drawn from schema and words. */
export const stepFields = (kind: Step['kind']): StepFields<Step['kind']> => {
  const fields = FIELDS[kind];
  return fields === 'plain' ? PlainFields : ofAnyKind(fields);
};

import type { Component } from 'svelte';
import type { StepOf, Step } from '../../core/docket/steps';
import type { PageList } from '../../core/model/page';
import type { Bench } from '../bench.svelte';

/** What the fields of every kind of step are given; `wrong` says that a field holds what cannot be used. */
export interface FieldsProps<Kind extends Step['kind']> {
  bench: Bench;
  step: StepOf<Kind>;
  /** The list that the step meets. */
  before: PageList;
  onchange: (step: StepOf<Kind>, wrong?: boolean) => void;
}

export type StepFields<Kind extends Step['kind']> = Component<FieldsProps<Kind>>;

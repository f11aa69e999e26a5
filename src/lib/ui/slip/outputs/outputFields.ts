import type { Component } from 'svelte';
import type { OutputKind, OutputOf } from '../../../core/handover/outputs';
import type { Bench } from '../../bench.svelte';

/** What the fields of every kind of output are given; `wrong` says that a field holds what cannot be used. */
export interface OutputFieldsProps<Kind extends OutputKind> {
  bench: Bench;
  output: OutputOf<Kind>;
  onchange: (change: Partial<OutputOf<Kind>>, wrong?: boolean) => void;
}
export type OutputFields<Kind extends OutputKind> = Component<OutputFieldsProps<Kind>>;

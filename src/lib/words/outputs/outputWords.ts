import type { WorkedOut } from '../../core/checks';
import type { OutputKind, OutputOf } from '../../core/handover/outputs';
import type { Unit } from '../../core/measure/unit';
import type { FieldWords } from '../fieldWords';

/** The words for one kind of output. */
export interface OutputWords<Kind extends OutputKind> {
  /** What it is called. */
  name: string;
  /** What it is for. */
  said: string;
  /** What the button says that makes it. */
  make: string;
  /** What it is called in the names of its files. */
  inName(output: OutputOf<Kind>): string;
  /** How it is set up, besides its kind and its split. */
  says?(output: OutputOf<Kind>): string[];
  /** What it comes to. */
  amount?(work: WorkedOut, unit: Unit): string;
  /** What the fields are called that are drawn from the schema. */
  fields?: Record<string, FieldWords>;
}

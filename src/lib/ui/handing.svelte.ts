import { freshOutput, outputKey, type Output, type OutputKind } from '../core/handover/outputs';
import type { WorkedOut } from '../core/checks';
import type { Docket } from '../core/docket/docket';
import { newStepId } from './newStepId';

/** What handing over needs of the job: its docket, what is worked out from it, and how to change it. */
interface Holder {
  readonly docket: Docket;
  readonly base: WorkedOut;
  put(docket: Docket): void;
}

/** What is being set up on Hand over. */
export class Handing {
  /** The output whose settings are open. */
  chosen = $state<string | undefined>();
  /** Its settings as they are typed, and as they were then: put away by whatever changes them elsewhere. */
  typed = $state.raw<{ output: Output; over: string } | undefined>();
  /** Why it goes out though findings say stop. */
  despite = $state('');

  constructor(private readonly bench: Holder) {}

  /** Adds an output, and opens its settings. */
  add(kind: OutputKind): void {
    const { docket } = this.bench;
    const output = freshOutput(kind, newStepId(), this.bench.base);
    this.bench.put({ ...docket, outputs: [...docket.outputs, output] });
    this.chosen = outputKey(output);
  }

  change(output: Output): void {
    const { docket } = this.bench;
    const key = outputKey(output);
    this.bench.put({
      ...docket,
      outputs: docket.outputs.map((each) => (outputKey(each) === key ? output : each)),
    });
  }

  remove(key: string): void {
    const { docket } = this.bench;
    this.bench.put({ ...docket, outputs: docket.outputs.filter((each) => outputKey(each) !== key) });
    if (this.chosen === key) this.chosen = undefined;
  }
}

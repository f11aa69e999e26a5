import { freshOutput, outputKey, type Output, type OutputKind } from '../core/handover/outputs';
import { newStepId, type Bench } from './bench.svelte';

/** What is being set up on Hand over. */
export class Handing {
  /** The output whose settings are open. */
  chosen = $state<string | undefined>();
  /** Why it goes out though findings say stop. */
  despite = $state('');

  constructor(private readonly bench: Bench) {}

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

  takeOut(key: string): void {
    const { docket } = this.bench;
    this.bench.put({ ...docket, outputs: docket.outputs.filter((each) => outputKey(each) !== key) });
    if (this.chosen === key) this.chosen = undefined;
  }
}

import { outputKey, PRESS_PPI, PREVIEW_PPI, type Output, type OutputKind } from '../core/handover/output';
import { cutsOf } from '../core/handover/standIns';
import { newStepId, type Bench } from './bench.svelte';

/** What a new output of a kind begins with. */
const FRESH: { [Kind in OutputKind]: Extract<Output, { kind: Kind }> } = {
  sheets: { kind: 'sheets' },
  pages: { kind: 'pages', crop: 'trim' },
  spreads: { kind: 'spreads' },
  template: { kind: 'template' },
  map: { kind: 'map', as: 'csv' },
  previews: { kind: 'previews', of: 'pages', ppi: PREVIEW_PPI.plain },
  docket: { kind: 'docket' },
  ticket: { kind: 'ticket' },
  press: { kind: 'press', ppi: PRESS_PPI.plain },
  cutter: { kind: 'cutter', of: 'pages' },
};

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
    const fresh: Output = { ...FRESH[kind], id: newStepId() };
    const output: Output =
      fresh.kind === 'cutter' && !cutsOf(this.bench.base, 'pages').length
        ? { ...fresh, of: 'sheets' }
        : fresh;
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

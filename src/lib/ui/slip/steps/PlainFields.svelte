<script lang="ts">
  import { stepKind, type Step } from '../../../core/docket/steps';
  import { stepWords } from '../../../words/steps';
  import PlainForm from '../PlainForm.svelte';
  import type { FieldsProps } from '../fields';

  /** The fields of a step whose kind has no form of its own. */
  let { bench, step, before, onchange }: FieldsProps<Step['kind']> = $props();
  let bad = $state.raw<ReadonlySet<string>>(new Set());
  function set(name: string, value: unknown, wrong: boolean): void {
    bad = new Set([...bad].filter((each) => each !== name).concat(wrong ? [name] : []));
    onchange(Object.assign({}, step, wrong ? {} : { [name]: value }), bad.size > 0);
  }
</script>

<PlainForm
  schema={stepKind(step.kind).schema}
  words={stepWords(step.kind).fields ?? {}}
  value={step as unknown as Record<string, unknown>}
  unit={bench.unit}
  list={before}
  onchange={set}
/>

<script lang="ts">
  import { outputKind, type OutputKind } from '../../../core/handover/outputs';
  import { outputWords } from '../../../words/outputs';
  import PlainForm from '../PlainForm.svelte';
  import type { OutputFieldsProps } from './outputFields';

  interface Props extends OutputFieldsProps<OutputKind> {
    /** Fields that are asked for elsewhere. */
    apart?: readonly string[];
  }
  /** The fields of an output whose kind has no form of its own, or the rest of one. */
  let { bench, output, onchange, apart = [] }: Props = $props();
</script>

<PlainForm
  schema={outputKind(output.kind).schema}
  words={outputWords(output.kind).fields ?? {}}
  value={output as unknown as Record<string, unknown>}
  apart={['name', 'split', ...apart]}
  unit={bench.unit}
  list={bench.base.list}
  onchange={(name, value, wrong) => onchange(wrong ? {} : { [name]: value }, wrong)}
/>

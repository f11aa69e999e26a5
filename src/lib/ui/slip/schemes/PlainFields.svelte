<script lang="ts">
  import { pressFields } from '../../../core/sheets/scheme';
  import { schemeKind, type Scheme } from '../../../core/sheets/schemes';
  import { schemeWords } from '../../../words/schemes';
  import PlainForm from '../PlainForm.svelte';
  import type { SchemeFieldsProps } from '../schemeDraft.svelte';

  /** The fields of a scheme whose kind has no form of its own; sheet, press and marks have theirs. */
  let { bench, draft }: SchemeFieldsProps<Scheme['kind']> = $props();
  const kind = $derived(draft.value.kind);
</script>

<PlainForm
  schema={schemeKind(kind).schema}
  words={schemeWords(kind).fields ?? {}}
  value={draft.value as unknown as Record<string, unknown>}
  apart={Object.keys(pressFields)}
  unit={bench.unit}
  list={bench.shown.list}
  onchange={(name, value, wrong) => draft.take(wrong ? undefined : { [name]: value }, (change) => change)}
/>

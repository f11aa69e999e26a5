<script lang="ts">
  import type { Signatures, Stitched } from '../../../core/sheets/schemes';
  import SignatureFields from '../SignatureFields.svelte';
  import type { SchemeDraft, SchemeFieldsProps } from '../schemeDraft.svelte';

  let { bench, draft, plan }: SchemeFieldsProps<'stitched'> = $props();
</script>

<SignatureFields
  draft={draft as unknown as SchemeDraft<Stitched | Signatures>}
  {plan}
  safe={bench.docket.safe}
  panels={!!bench.shown.list.panels?.length}
/>

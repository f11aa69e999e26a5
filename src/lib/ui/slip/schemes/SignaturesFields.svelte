<script lang="ts">
  import type { Signatures, Stitched } from '../../../core/sheets/schemes';
  import CoverFields from '../CoverFields.svelte';
  import SignatureFields from '../SignatureFields.svelte';
  import type { SchemeDraft, SchemeFieldsProps } from '../schemeDraft.svelte';

  let { bench, draft, plan }: SchemeFieldsProps<'signatures'> = $props();
</script>

<SignatureFields draft={draft as unknown as SchemeDraft<Stitched | Signatures>} {plan} safe={bench.docket.safe} panels={false} />
<CoverFields {bench} {draft} {plan} list={bench.shown.list} />

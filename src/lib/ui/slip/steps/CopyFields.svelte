<script lang="ts">
  import { pickedOf } from '../../../core/select/selection';
  import NewFormatField from '../NewFormatField.svelte';
  import PieceFields from '../PieceFields.svelte';
  import PlaceField from '../PlaceField.svelte';
  import SizeFields from '../SizeFields.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'copy'> = $props();
  const first = $derived(before.pages[pickedOf(step.pages, before)[0] ?? -1]);
  let wrong = $state({ size: false, piece: false });
  function set(field: keyof typeof wrong, change: Partial<typeof step>, bad: boolean): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, wrong.size || wrong.piece);
  }
</script>

{#if step.size}
  <SizeFields {bench} value={step.size} from={first?.trim} onchange={(size, bad) => set('size', { size }, bad)} />
{/if}
{#if step.piece}
  <PieceFields value={step.piece} onchange={(piece, bad) => set('piece', { piece }, bad)} />
{/if}
<PlaceField value={step.where} list={before} beside={bench.selected.selection ?? 'last'} onchange={(where) => onchange({ ...step, where })} />
{#if !step.size}
  <NewFormatField value={step.format} formats={bench.docket.formats} onchange={(format) => onchange({ ...step, format: format || undefined })} />
{/if}

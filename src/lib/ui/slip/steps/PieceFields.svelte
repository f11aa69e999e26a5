<script lang="ts">
  import { t } from '../../../words/language';
  import PieceFields from '../PieceFields.svelte';
  import type { FieldsProps } from '../fields';

  let { step, onchange }: FieldsProps<'piece'> = $props();
</script>

<PieceFields value={step} onchange={(piece, wrong) => onchange({ ...step, ...piece }, wrong)} />
<p class="quiet small">
  {t`Pages of different pieces may have different sizes. Select them again with`} <code>{`piece:${step.name.toLowerCase()}`}</code>.
</p>

<style>
  code {
    font-family: var(--mono);
  }
</style>

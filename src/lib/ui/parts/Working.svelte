<script lang="ts">
  import { t } from '../../words/language';
  import type { Snippet } from 'svelte';
  import Folded from './Folded.svelte';
  let { title = t`Working`, children }: { title?: string; children: Snippet } = $props();
</script>

<Folded {title} open>{@render children()}</Folded>

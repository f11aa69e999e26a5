<script lang="ts">
  import type { Snippet } from 'svelte';
  import Folded from './Folded.svelte';
  let { title = 'Working', children }: { title?: string; children: Snippet } = $props();
</script>

<Folded {title} open>{@render children()}</Folded>

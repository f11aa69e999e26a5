<script lang="ts">
  import type { Snippet } from 'svelte';
  let { children }: { children: Snippet } = $props();
</script>

<p class="caption">{@render children()}</p>

<style>
  .caption {
    position: absolute;
    right: 12px;
    bottom: 10px;
    padding: 3px 10px;
    background: var(--card);
    font-size: 12.5px;
  }
</style>

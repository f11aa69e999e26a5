<script lang="ts">
  import type { Snippet } from 'svelte';
  let { title = 'Working', children }: { title?: string; children: Snippet } = $props();
</script>

<details open>
  <summary>{title}</summary>
  {@render children()}
</details>

<style>
  details {
    padding: 9px 12px;
    background: var(--card-2);
    font-size: 12.5px;
    clip-path: polygon(0 0, calc(100% - 12px) 0, 100% 12px, 100% 100%, 0 100%);
  }
  summary {
    font-weight: 600;
    cursor: pointer;
    list-style: none;
  }
</style>

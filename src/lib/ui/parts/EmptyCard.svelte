<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What stands on an empty mat: what it is for, and the one thing to do next. */
  let { title, text, children }: { title: string; text: string; children: Snippet } = $props();
</script>

<div class="empty">
  <h2>{title}</h2>
  <p>{text}</p>
  <div>{@render children()}</div>
</div>

<style>
  .empty {
    position: absolute;
    left: 50%;
    top: 38%;
    translate: -50% -50%;
    display: grid;
    gap: 12px;
    width: 370px;
    padding: 24px 28px;
    background: var(--card);
    clip-path: var(--corner);
  }
  h2 {
    font-size: 20px;
  }
  div div {
    display: flex;
    gap: 8px;
  }
</style>

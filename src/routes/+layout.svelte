<script lang="ts">
  import '$lib/ui/base.css';
  import Keys from '$lib/ui/parts/Keys.svelte';
  import { isTyped } from '$lib/ui/isTyped';
  import { keysShown } from '$lib/ui/keysShown.svelte';

  let { children } = $props();

  function onkeydown(event: KeyboardEvent): void {
    if (event.key !== '?' || isTyped(event.target)) return;
    event.preventDefault();
    keysShown.on = !keysShown.on;
  }
</script>

<svelte:window {onkeydown} />

{@render children()}
{#if keysShown.on}<Keys onclose={() => (keysShown.on = false)} />{/if}

<script lang="ts">
  import '$lib/ui/base.css';
  let { children } = $props();
</script>

{@render children()}

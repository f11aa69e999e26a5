<script lang="ts">
  import type { Bench } from '../bench.svelte';

  let { bench, quiet = false }: { bench: Bench; quiet?: boolean } = $props();
</script>

<label class="btn" class:q={quiet}
  >Choose files<input
    type="file"
    accept="application/pdf,.pdf,image/jpeg,image/png,image/tiff,.jpg,.jpeg,.png,.tif,.tiff"
    multiple
    onchange={(event) => void bench.takeIn([...(event.currentTarget.files ?? [])])}
  /></label
>

<style>
  label {
    position: relative;
    justify-self: start;
  }
  label:focus-within {
    outline: 2px solid var(--ink);
  }
  input {
    position: absolute;
    inset: 0;
    width: 100%;
    opacity: 0;
  }
</style>

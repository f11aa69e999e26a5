<script lang="ts">
  import type { Bench } from '../bench.svelte';
  import Overview from '../slip/Overview.svelte';
  import SchemeForm from '../slip/SchemeForm.svelte';
  import StepForm from '../slip/StepForm.svelte';

  let { bench }: { bench: Bench } = $props();
</script>

{#if bench.form}
  {#key bench.form}<StepForm {bench} form={bench.form} />{/key}
{:else}
  <Overview {bench} stages={['sheets']} title="Stitched booklet">
    <SchemeForm {bench} />
  </Overview>
{/if}

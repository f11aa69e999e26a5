<script lang="ts">
  import { DEFAULT_SCHEME, type Scheme } from '../../core/sheets/scheme';
  import type { Bench } from '../bench.svelte';
  import Choice from '../parts/Choice.svelte';
  import Overview from '../slip/Overview.svelte';
  import SchemeForm from '../slip/SchemeForm.svelte';
  import StepForm from '../slip/StepForm.svelte';

  let { bench }: { bench: Bench } = $props();
  const choose = (kind: Scheme['kind']) => bench.put({ ...bench.docket, scheme: kind === 'none' ? { kind } : DEFAULT_SCHEME });
</script>

{#if bench.form}
  {#key bench.form}<StepForm {bench} form={bench.form} />{/key}
{:else}
  <Overview {bench} stages={['sheets']} title="Sheets">
    <Choice
      label="The pages become"
      options={[
        ['stitched', 'a stitched booklet'],
        ['none', 'separate pages'],
      ]}
      value={bench.docket.scheme.kind}
      onchange={choose}
    />
    {#if bench.docket.scheme.kind === 'stitched'}
      <SchemeForm {bench} stitched={bench.docket.scheme} />
    {:else}
      <p class="quiet">Each page goes out by itself, at its own size: pieces of stationery, or files for a screen.</p>
    {/if}
  </Overview>
{/if}

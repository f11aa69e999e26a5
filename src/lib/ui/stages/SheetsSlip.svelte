<script lang="ts">
  import { PLAIN_SCHEMES, type Press, type Scheme } from '../../core/sheets/scheme';
  import { SCHEME_NAME, SCHEME_SAID } from '../../words/schemes';
  import type { Bench } from '../bench.svelte';
  import Overview from '../slip/Overview.svelte';
  import SchemeForm from '../slip/SchemeForm.svelte';
  import StepForm from '../slip/StepForm.svelte';

  let { bench }: { bench: Bench } = $props();
  const scheme = $derived(bench.docket.scheme);
  const KINDS = Object.keys(SCHEME_NAME) as Scheme['kind'][];
  /** Another kind of scheme on the same paper, with the same marks. */
  function choose(kind: Scheme['kind']): void {
    const fresh: Scheme = PLAIN_SCHEMES[kind];
    const shared: Partial<Press> = 'stock' in scheme && 'stock' in fresh ? { stock: scheme.stock, turn: scheme.turn } : {};
    const marks = 'marks' in scheme && 'marks' in fresh ? { marks: scheme.marks } : {};
    bench.put({ ...bench.docket, scheme: { ...fresh, ...shared, ...marks } as Scheme });
  }
</script>

{#if bench.form}
  {#key bench.form}<StepForm {bench} form={bench.form} />{/key}
{:else}
  <Overview {bench} stages={['sheets']} title="Sheets" first>
    <div>
      <label class="label" for="kind">The pages become</label>
      <select id="kind" class="field" value={scheme.kind} onchange={(event) => choose(event.currentTarget.value as Scheme['kind'])}>
        {#each KINDS as kind (kind)}<option value={kind}>{SCHEME_NAME[kind]}</option>{/each}
      </select>
      <p class="quiet">{SCHEME_SAID[scheme.kind]}</p>
    </div>
    {#if scheme.kind !== 'none'}
      {#key scheme.kind}<SchemeForm {bench} {scheme} />{/key}
    {/if}
  </Overview>
{/if}

<style>
  p {
    margin: 5px 0 0;
    font-size: 12.5px;
  }
</style>

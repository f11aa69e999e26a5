<script lang="ts">
  import { t } from '../../words/language';
  import { sayState } from '../../words/dummy';
  import type { Bench } from '../bench.svelte';
  import ErrorFields from '../dummy/ErrorFields.svelte';
  import ProofPanel from '../dummy/ProofPanel.svelte';

  let { bench }: { bench: Bench } = $props();
  const plan = $derived(bench.shown.plan);
  const { state, finish } = $derived(bench.dummy);
  const said = $derived(finish && state && finish.operations[state.operation] ? sayState(state, finish, bench.unit) : undefined);
</script>

<div class="dummy">
  <h1>{t`Dummy`}</h1>
  <section aria-label={t`What is done here`} aria-live="polite">
    {#if said}
      <h2>{said.does}</h2>
      <ul>
        {#each said.lines.slice(0, 8) as line, n (n)}<li>{line}</li>{/each}
        {#if said.lines.length > 8}<li class="quiet">{t`and ${said.lines.length - 8} lines more, on the ticket`}</li>{/if}
      </ul>
    {:else if plan}
      <h2>{t`It is made`}</h2>
      <p class="quiet">{t`Page through it with ← and →, or type a page below.`}</p>
    {/if}
  </section>
  <ProofPanel {bench} />
  {#if plan}<ErrorFields {bench} />{/if}
</div>

<style>
  .dummy {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 14px;
  }
  h1 {
    font-size: 16px;
  }
  h2 {
    font-size: 14px;
  }
  ul {
    display: grid;
    gap: 3px;
    margin: 4px 0 0;
    padding: 0;
    list-style: none;
    font-size: 13px;
    overflow-wrap: anywhere;
  }
  p {
    margin: 4px 0 0;
    font-size: 13px;
  }
</style>

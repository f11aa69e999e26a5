<script lang="ts">
  import { t } from '../../words/language';
  import type { Snippet } from 'svelte';
  import type { Stage } from '../../core/checks/finding';
  import type { Bench } from '../bench.svelte';
  import FindingCard from '../parts/FindingCard.svelte';

  interface Props {
    bench: Bench;
    stages: readonly Stage[];
    title: string;
    /** Findings stand before the rest: it is long. */
    first?: boolean;
    children?: Snippet;
    /** What stands behind the findings. */
    after?: Snippet;
  }
  let { bench, stages, title, first = false, children, after }: Props = $props();
  const RANK = { stop: 0, look: 1, note: 2 };
  // While a mend is only tried, the findings shown are those it would mend.
  const findings = $derived(
    (bench.draft.form || bench.draft.typing ? bench.findings : bench.base.findings)
      .filter(({ stage }) => stages.includes(stage))
      .sort((a, b) => RANK[a.level] - RANK[b.level]),
  );
</script>

<div class="overview">
  <h1>{title}</h1>
  {#if children && !first}{@render children()}{/if}
  <section aria-label={t`Findings`}>
    <h2>{findings.length ? t`Findings · ${findings.length}` : t`Nothing found here that will go wrong.`}</h2>
    {#each findings as finding (`${finding.code}${finding.pages.join()}${finding.step ?? ''}`)}
      <FindingCard {finding} {bench} />
    {/each}
  </section>
  {#if children && first}{@render children()}{/if}
  {@render after?.()}
</div>

<style>
  .overview,
  section {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 12px;
  }
  h1 {
    font-size: 16px;
  }
  h2 {
    font-size: 12px;
    color: var(--ink-2);
    border-top: 1px solid var(--rule);
    padding-top: 10px;
  }
</style>

<script lang="ts">
  import { onMount } from 'svelte';
  import { ALL_JOBS } from '../../wire/jobQuery';
  import type { JobListing } from '../../wire/told';
  import { t } from '../../words/language';
  import { api } from '../api';

  interface Props {
    /** The ids of the jobs that are picked. */
    selected: readonly string[];
  }
  /** Picks jobs out of those changed last, or of those that are searched for. */
  let { selected = $bindable() }: Props = $props();
  /** More are found by more words. */
  const MOST = 100;
  let search = $state('');
  let found = $state.raw<readonly JobListing[]>([]);
  let isMore = $state(false);
  let failed = $state(false);
  /** What is picked stays in sight, whatever is searched for. */
  let picked = $state.raw<readonly JobListing[]>([]);
  const shown = $derived([...picked, ...found.filter(({ id }) => !picked.some((each) => each.id === id))]);

  async function look(): Promise<void> {
    const words = search;
    try {
      const those = await api.jobs({ ...ALL_JOBS, search: words }, 0, MOST + 1);
      failed = false;
      if (words !== search) return;
      found = those.slice(0, MOST);
      isMore = those.length > MOST;
    } catch {
      failed = true;
    }
  }
  onMount(() => void look());
  const pick = (ids: readonly string[]): void => {
    picked = shown.filter(({ id }) => ids.includes(id));
    selected = ids;
  };
</script>

<input
  class="field"
  type="search"
  aria-label={t`Search jobs`}
  placeholder={t`Search jobs by name, kind or size`}
  bind:value={search}
  oninput={() => void look()}
/>
<select class="field" multiple size="4" aria-label={t`Jobs`} bind:value={() => [...selected], pick}>
  {#each shown as { id, summary } (id)}<option value={id}>{t`${summary.title} (${summary.pages} p)`}</option>{/each}
</select>
{#if failed}<p class="note">{t`The jobs could not be fetched.`}</p>
{:else if isMore}<p class="note">{t`These are the ${MOST} changed last. Search for others.`}</p>{/if}

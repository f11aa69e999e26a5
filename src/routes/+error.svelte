<script lang="ts">
  import { t } from '$lib/words/language';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api } from '$lib/ui/api';
  import { sayFailure } from '$lib/ui/sayFailure';

  let asking = $state(false);
  let wrong = $state('');
  async function remove(id: string): Promise<void> {
    try {
      await api.deleteJob(id);
      await goto('/');
    } catch (error) {
      wrong = sayFailure(error);
    }
  }
</script>

<svelte:head><title>{t`Folder`}</title></svelte:head>
<main>
  <h1>{page.error?.job ? t`This job cannot be opened here` : page.status === 404 ? t`Nothing here` : t`This did not work`}</h1>
  <p>{page.error?.message ?? t`The server met something that was not foreseen. Your jobs are unharmed.`}</p>
  {#if page.error?.job}
    {@const id = page.error.job}
    <p class="acts">
      <a class="link" href="/api/jobs/{id}/docket" download>{t`Download its docket`}</a>
      {#if asking}<span role="alert">{t`Delete this job? Files that other jobs use stay.`}</span>
        <button class="link stop" onclick={() => void remove(id)}>{t`Delete`}</button>
        <button class="link" onclick={() => (asking = false)}>{t`Keep`}</button>
      {:else}<button class="link" onclick={() => (asking = true)}>{t`Delete this job`}</button>{/if}
    </p>
    {#if wrong}<p role="alert">{wrong}</p>{/if}
  {/if}
  <a class="btn" href="/">{t`To the jobs`}</a>
</main>

<style>
  main {
    max-width: 520px;
    margin: 18vh auto;
    padding: 28px 32px;
    background: var(--well);
    border: 1px solid var(--rule);
    clip-path: var(--corner);
    display: grid;
    gap: 12px;
    justify-items: start;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
  }
  .stop {
    color: var(--cut);
  }
  h1 {
    font-size: 20px;
  }
</style>

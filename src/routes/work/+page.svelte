<script lang="ts">
  import { t } from '$lib/words/language';
  import { onMount, untrack } from 'svelte';
  import { api } from '$lib/ui/api';
  import type { WorkState } from '$lib/wire/told';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import WorkTable from '$lib/ui/parts/WorkTable.svelte';
  import { sayFailure } from '$lib/ui/sayFailure';

  let { data } = $props();
  let work = $state.raw(untrack(() => data.work));
  let wrong = $state('');
  let away = $state('');
  const going = $derived(work.filter(({ state }) => state === 'waiting' || state === 'working'));
  const ended = $derived(work.filter((each) => !going.includes(each)));

  const DROP = { run: api.dropRun, output: api.drop, measure: api.stopMeasures, intake: api.dismiss };
  async function drop({ of, id }: WorkState): Promise<void> {
    wrong = '';
    try {
      await DROP[of](id);
      work = await api.work();
    } catch (error) {
      wrong = sayFailure(error);
    }
  }
  async function again({ of, id }: WorkState): Promise<void> {
    wrong = '';
    try {
      work = await api.tryAgain(of, id);
    } catch (error) {
      wrong = sayFailure(error);
    }
  }
  onMount(() => {
    const again = setInterval(
      () =>
        void api.work().then(
          (now) => ([work, away] = [now, '']),
          (error) => (away = sayFailure(error)),
        ),
      1000,
    );
    return () => clearInterval(again);
  });
</script>

<svelte:head><title>{t`Work · Folder`}</title></svelte:head>

<TopBar here="work" />
<main class="lists">
  {#if away}<p class="trouble" role="alert">{away}</p>{/if}
  {#if wrong}<p class="trouble" role="alert">{wrong}</p>{/if}
  <section>
    <h1>{t`In progress`}</h1>
    <WorkTable work={going} none={t`Nothing is being made, taken in or worked right now.`} ondrop={drop} onagain={again} />
  </section>
  <section>
    <h1>{t`Recent`}</h1>
    <WorkTable work={ended} none={t`Outputs of jobs and files that recipes have worked will stand here.`} ondrop={drop} onagain={again} />
  </section>
</main>

<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { api, Refused, type WorkState } from '$lib/ui/api';
  import TopBar from '$lib/ui/parts/TopBar.svelte';
  import WorkTable from '$lib/ui/parts/WorkTable.svelte';
  import { sayTrouble } from '$lib/words/errors';

  let { data } = $props();
  let work = $state.raw(untrack(() => data.work));
  let wrong = $state('');
  const going = $derived(work.filter(({ state }) => state === 'waiting' || state === 'working'));
  const ended = $derived(work.filter((each) => !going.includes(each)));

  async function drop({ of, id }: WorkState): Promise<void> {
    wrong = '';
    try {
      await (of === 'run' ? api.dropRun(id) : api.drop(id));
      work = await api.work();
    } catch (error) {
      wrong = error instanceof Refused ? sayTrouble(error.trouble) : 'The server does not answer. Try again in a moment.';
    }
  }
  onMount(() => {
    const again = setInterval(
      () =>
        void api.work().then(
          (now) => (work = now),
          // Asked again in a moment.
          () => undefined,
        ),
      1000,
    );
    return () => clearInterval(again);
  });
</script>

<svelte:head><title>Work · Folder</title></svelte:head>

<TopBar here="work" />
<main>
  {#if wrong}<p class="trouble" role="alert">{wrong}</p>{/if}
  <section>
    <h1>Going on</h1>
    <WorkTable work={going} none="Nothing is being made, taken in or worked right now." ondrop={drop} />
  </section>
  <section>
    <h1>Ended lately</h1>
    <WorkTable work={ended} none="Outputs of jobs and files that recipes have worked will stand here." ondrop={drop} />
  </section>
</main>

<style>
  main {
    display: grid;
    gap: 26px;
    max-width: 1080px;
    margin: 0 auto;
    padding: 24px 28px 60px;
  }
  section {
    display: grid;
    gap: 10px;
    min-width: 0;
  }
  h1 {
    font-size: 19px;
  }
  .trouble {
    padding: 10px 14px;
    background: var(--card);
    border-left: 4px solid var(--cut);
  }
</style>

<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Folder</title></svelte:head>
<main>
  <h1>{page.status === 404 ? 'Nothing here' : 'This did not work'}</h1>
  <p>{page.error?.message ?? 'The server met something that was not foreseen. Your jobs are unharmed.'}</p>
  <a class="btn" href="/">To the jobs</a>
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
  h1 {
    font-size: 20px;
  }
</style>

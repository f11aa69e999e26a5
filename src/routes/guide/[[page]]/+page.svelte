<script lang="ts">
  import { t } from '$lib/words/language';
  let { data } = $props();
</script>

<svelte:head><title>{t`${data.title} · Guide to Folder`}</title></svelte:head>

<main>
  {#if data.page !== 'README'}<nav aria-label={t`Guide`}><a href="/guide">{t`All of the guide`}</a></nav>{/if}
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- our own pages, shipped along -->
  {@html data.html}
</main>

<style>
  main {
    max-width: 680px;
    margin: 0 auto;
    padding: 20px 24px 60px;
    font-size: 14.5px;
    line-height: 1.55;
  }
  main :global(h1) {
    font-size: 22px;
    margin: 10px 0;
  }
  main :global(h2) {
    font-size: 16px;
    margin: 22px 0 6px;
  }
  main :global(p),
  main :global(li) {
    margin: 6px 0;
  }
  main :global(img) {
    max-width: 100%;
    border: 1px solid var(--rule);
  }
  main :global(table) {
    border-collapse: collapse;
    font-size: 13px;
  }
  main :global(td),
  main :global(th) {
    padding: 3px 8px;
    border: 1px solid var(--rule);
    text-align: left;
  }
</style>

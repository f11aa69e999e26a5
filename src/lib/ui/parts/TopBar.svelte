<script lang="ts">
  import { LANGUAGE_COOKIE, LANGUAGES, spokenNow, t } from '../../words/language';
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import { api } from '../api';
  import { keysShown } from '../keysShown.svelte';

  interface Props {
    here: 'jobs' | 'recipes' | 'work';
    children?: Snippet;
  }
  /** The head of the pages that are not a job's: where one is, and what is begun here. */
  let { here, children }: Props = $props();

  /** Says all in another language from now on, in this browser. */
  function choose(code: string): void {
    document.cookie = `${LANGUAGE_COOKIE}=${code}; path=/; max-age=${365 * 86_400}; samesite=lax`;
    location.reload();
  }
  async function leave(): Promise<void> {
    await api.signOut();
    location.assign('/sign-in');
  }
</script>

<header>
  <a class="brand" href="/"><img src="/folder.svg" alt="" width="24" height="24" />{t`Folder`}</a>
  <nav aria-label={t`Rooms`}>
    <a href="/" aria-current={here === 'jobs' ? 'page' : undefined}>{t`Jobs`}</a>
    <a href="/recipes" aria-current={here === 'recipes' ? 'page' : undefined}>{t`Recipes`}</a>
    <a href="/work" aria-current={here === 'work' ? 'page' : undefined}>{t`Work`}</a>
  </nav>
  {@render children?.()}
  {#if page.data.person}<span class="quiet">{page.data.person} <button class="link" onclick={() => void leave()}>{t`Sign out`}</button></span>{/if}
  <select class="language" aria-label={t`Language`} value={spokenNow().language} onchange={(event) => choose(event.currentTarget.value)}>
    {#each Object.entries(LANGUAGES) as [code, name] (code)}<option value={code} lang={code}>{name}</option>{/each}
  </select>
  <button class="keys" onclick={() => (keysShown.on = true)}><kbd>?</kbd> {t`keys`}</button>
</header>

<style>
  header {
    display: flex;
    align-items: center;
    gap: 24px;
    height: 60px;
    padding: 0 28px;
    border-bottom: 1px solid var(--rule);
  }
  .brand {
    display: flex;
    align-items: center;
    gap: 10px;
    font-size: 18px;
    font-weight: 700;
  }
  nav {
    display: flex;
    flex: 1;
    gap: 18px;
  }
  a {
    color: var(--ink);
    text-decoration: none;
  }
  nav a {
    padding: 4px 0;
    border-bottom: 2px solid transparent;
  }
  .keys {
    border: 0;
    background: none;
    font-size: 12.5px;
    cursor: pointer;
  }
  nav [aria-current] {
    font-weight: 600;
    border-color: var(--act);
  }
</style>

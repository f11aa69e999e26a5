<script lang="ts">
  import { t } from '$lib/words/language';
  import { api } from '$lib/ui/api';
  import { sayFailure } from '$lib/ui/sayFailure';

  let { data } = $props();
  let name = $state('');
  let password = $state('');
  let wrong = $state('');
  let busy = $state(false);

  async function signIn(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    wrong = '';
    try {
      await api.signIn(name, password);
      // Loaded afresh: what was kept of whoever was here before is not shown.
      location.assign(data.to);
    } catch (error) {
      wrong = sayFailure(error);
      password = '';
      busy = false;
    }
  }
</script>

<svelte:head><title>{t`Sign in · Folder`}</title></svelte:head>
<main>
  <h1><img src="/folder.svg" alt="" width="24" height="24" />{t`Sign in to Folder`}</h1>
  <form onsubmit={signIn}>
    <label for="name">{t`Name`}</label>
    <!-- svelte-ignore a11y_autofocus -->
    <input id="name" bind:value={name} autocomplete="username" required autofocus maxlength="60" />
    <label for="password">{t`Password`}</label>
    <input id="password" type="password" bind:value={password} autocomplete="current-password" required maxlength="200" />
    {#if wrong}<p class="trouble" role="alert">{wrong}</p>{/if}
    <button class="btn" disabled={busy}>{busy ? t`Signing in` : t`Sign in`}</button>
  </form>
  <p class="quiet">{t`Whoever runs Folder here gives names and passwords.`}</p>
</main>

<style>
  main {
    width: min(360px, 92vw);
    margin: 18vh auto 0;
    padding: 28px 32px;
    display: grid;
    gap: 16px;
    border: 1px solid var(--rule);
    background: var(--well);
    clip-path: var(--corner);
  }
  h1 {
    display: flex;
    align-items: center;
    gap: 10px;
    font-size: 20px;
  }
  form {
    display: grid;
    gap: 6px;
  }
  input {
    padding: 7px 9px;
    border: 1px solid var(--ink-2);
    border-radius: 0;
    background: #fff;
    font: inherit;
    margin-bottom: 8px;
  }
  .btn {
    justify-self: start;
    margin-top: 4px;
  }
  .trouble {
    margin: 0;
    color: var(--cut);
  }
</style>

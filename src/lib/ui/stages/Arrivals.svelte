<script lang="ts">
  import { t } from '../../words/language';
  import { sayTrouble } from '../../words/troubles';
  import type { IntakeState } from '../../wire/told';
  import type { Bench } from '../bench.svelte';

  let { bench }: { bench: Bench } = $props();
  const howFar = ({ copy, done, total }: IntakeState): string =>
    total ? t`${copy ? t`cleaned` : t`surveyed`} ${done} of ${total} pages` : copy ? t`waiting to be cleaned` : t`waiting for its survey`;
</script>

{#if bench.incoming.uploads.length || bench.incoming.intakes.length}
  <ul aria-label={t`Files on their way in`}>
    {#each bench.incoming.uploads as file (file)}
      <li>
        <b>{file.name}</b>
        <progress max="1" value={file.share}></progress>
        <span class="mono">{t`${Math.round(file.share * 100)} % sent`}</span>
      </li>
    {/each}
    {#each bench.incoming.intakes as intake (intake.id)}
      <li class:failed={intake.state === 'failed'}>
        <b>{intake.name}</b>
        {#if intake.state === 'failed'}
          <p role="alert">{sayTrouble(intake.trouble ?? { code: 'unforeseen' })}</p>
          {#if intake.again && intake.trouble?.code === 'needs-password'}
            <form
              class="password"
              onsubmit={(event) => {
                event.preventDefault();
                const typed = new FormData(event.currentTarget).get('password');
                if (typeof typed === 'string' && typed) void bench.incoming.openWith(intake, typed);
              }}
            >
              <label>{t`Password`} <input class="field" type="password" name="password" autocomplete="off" maxlength="200" /></label>
              <button class="btn q small">{t`Open`}</button>
            </form>
          {/if}
          <span
            >{#if intake.again && intake.trouble?.code !== 'needs-password'}<button class="link" onclick={() => void bench.incoming.tryIntake(intake)}
                >{t`Try again`}</button
              >{/if}
            <button class="link" onclick={() => bench.incoming.dismiss(intake)}>{t`Dismiss`}</button></span
          >
        {:else}
          <progress max={intake.total || undefined} value={intake.total ? intake.done : undefined}></progress>
          <span class="mono">{howFar(intake)}</span>
          <button class="link" onclick={() => bench.incoming.dismiss(intake)}>{t`Cancel`}</button>
        {/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    position: absolute;
    left: 40px;
    right: 20px;
    bottom: 16px;
    max-height: 46%;
    overflow: auto;
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 6px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 160px 190px auto;
    gap: 4px 14px;
    align-items: center;
    padding: 9px 14px;
    background: var(--card);
    border-left: 4px solid var(--act);
    font-size: 13px;
  }
  .failed {
    border-color: var(--cut);
    grid-template-columns: 1fr auto;
  }
  .failed p {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  .password {
    grid-column: 1 / -1;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  .password input {
    display: inline-block;
    width: 200px;
  }
  b {
    overflow-wrap: anywhere;
  }
  progress {
    width: 100%;
    accent-color: var(--act);
  }
  .mono {
    font-size: 12px;
    text-align: right;
  }
</style>

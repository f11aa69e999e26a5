<script lang="ts" generics="Kind extends KeptKind">
  import { t } from '../../words/language';
  import type { Kept, KeptKind } from '../../core/docket/kept';
  import type { KeptOf } from '../kept.svelte';
  import Folded from '../parts/Folded.svelte';

  interface Props {
    title: string;
    store: KeptOf<Kind>;
    /** What would be kept; undefined while it cannot be used. */
    now: Kept<Kind>['settings'] | undefined;
    say: (settings: Kept<Kind>['settings']) => string;
    /** What to say while there are none. */
    none: string;
    onuse: (kept: Kept<Kind>) => void;
  }
  /** What is kept under names for every job: used with a click, kept as it stands now, forgotten. */
  let { title, store, now, say, none, onuse }: Props = $props();
  let name = $state('');
  $effect(() => store.load());
  async function keep(): Promise<void> {
    if (now && name.trim() && (await store.keep({ name: name.trim(), settings: now }))) name = '';
  }
</script>

<Folded {title} count={store.all.length}>
  <div class="kept">
    {#each store.all as each (each.name)}
      <p>
        <button type="button" class="link" onclick={() => onuse(each)}>{each.name}</button>
        <span class="quiet">{say(each.settings)}</span>
        <button
          type="button"
          class="link quiet"
          aria-label={t`Change ${each.name} to what is set now`}
          disabled={!now}
          onclick={() => now && void store.keep({ name: each.name, settings: now })}>{t`change`}</button
        >
        <button type="button" class="link quiet" aria-label={t`Remove ${each.name}`} onclick={() => void store.forget(each.name)}>{t`remove`}</button>
      </p>
    {:else}<p class="quiet">{none}</p>{/each}
    <div class="row">
      <input
        class="field"
        aria-label={t`Name to keep it under`}
        placeholder={t`Name`}
        maxlength="60"
        bind:value={name}
        onkeydown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          void keep();
        }}
      />
      <button type="button" class="btn q" disabled={!now || !name.trim()} onclick={() => void keep()}>{t`Keep this one`}</button>
    </div>
    {#if store.trouble}<p class="wrong" role="alert">{store.trouble}</p>{/if}
  </div>
</Folded>

<style>
  .kept {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 5px;
    margin-top: 6px;
  }
  p {
    display: grid;
    grid-template-columns: minmax(0, auto) minmax(0, 1fr) auto auto;
    gap: 8px;
    margin: 0;
  }
  p > .link:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    text-align: left;
  }
  p:not(:has(button)) {
    display: block;
  }
  .btn {
    padding: 4px 9px;
    font-size: 12.5px;
  }
</style>

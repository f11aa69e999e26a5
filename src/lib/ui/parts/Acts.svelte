<script lang="ts" module>
  import type { ActGroup } from '../../words/steps/stepWords';

  export interface Act {
    word: string;
    /** Among which others it stands. */
    group?: ActGroup;
    /** What it does, where its word says less. */
    does?: string;
    key?: string;
    disabled?: boolean;
    do: () => void;
  }
</script>

<script lang="ts">
  import { t } from '../../words/language';
  import { ACT_GROUPS } from '../../words/steps/stepWords';
  import { entriesOf } from '../../core/entries';

  interface Props {
    label: string;
    acts: readonly Act[];
  }
  /** What can be done, by groups; each says its key and what it does when pointed at. */
  let { label, acts }: Props = $props();
  const groups = $derived(
    [[undefined, ''] as const, ...entriesOf(ACT_GROUPS)]
      .map(([key, title]) => ({ title, acts: acts.filter(({ group }) => group === key) }))
      .filter((group) => group.acts.length),
  );
</script>

<section aria-label={t`Do`}>
  <p class="label">{label}</p>
  {#each groups as { title, acts: those } (title)}
    <div role="group" aria-label={title || label}>
      {#if title}<span class="title" aria-hidden="true">{title}</span>{/if}
      {#each those as act (act.word)}
        <button
          disabled={act.disabled}
          onclick={act.do}
          aria-keyshortcuts={act.key}
          title="{act.does ? `${act.does.charAt(0).toUpperCase()}${act.does.slice(1)}` : act.word}{act.key ? ` (${act.key})` : ''}">{act.word}</button
        >
      {/each}
    </div>
  {/each}
</section>

<style>
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    margin-bottom: 6px;
  }
  .title {
    width: 100%;
    margin-top: 2px;
    font-size: 11.5px;
    color: var(--ink-2);
  }
  button {
    flex: 1 0 auto;
    padding: 3px 9px;
    border: 1px solid var(--rule);
    background: var(--well);
    font-size: 12.5px;
    font-weight: 500;
    cursor: pointer;
  }
  button:hover:not(:disabled) {
    border-color: var(--act);
    color: var(--act);
  }
  button:disabled {
    opacity: 0.5;
  }
</style>

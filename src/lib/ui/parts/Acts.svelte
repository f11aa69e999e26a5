<script lang="ts" module>
  export interface Act {
    word: string;
    key?: string;
    disabled?: boolean;
    do: () => void;
  }
</script>

<script lang="ts">
  interface Props {
    label: string;
    acts: readonly Act[];
  }
  /** Words longer than this take a whole row. */
  const MOST_LETTERS = 15;
  /** What can be done, as cards with the keys that do it. */
  let { label, acts }: Props = $props();
</script>

<section aria-label="Do">
  <p class="label">{label}</p>
  <div>
    {#each acts as act (act.word)}
      <button class:wide={act.word.length > MOST_LETTERS} disabled={act.disabled} onclick={act.do}
        ><span>{act.word}</span>{#if act.key}<kbd>{act.key}</kbd>{/if}</button
      >
    {/each}
  </div>
</section>

<style>
  div {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 5px;
  }
  button {
    display: flex;
    justify-content: space-between;
    align-items: center;
    padding: 4px 9px;
    border: 1px solid var(--rule);
    background: var(--well);
    font-size: 13px;
    font-weight: 500;
    text-align: left;
    cursor: pointer;
    clip-path: polygon(0 0, calc(100% - 7px) 0, 100% 7px, 100% 100%, 0 100%);
  }
  .wide {
    grid-column: 1 / -1;
  }
  button:hover:not(:disabled) {
    border-color: var(--act);
    color: var(--act);
  }
  button:disabled {
    opacity: 0.5;
  }
  kbd {
    font: 11px var(--mono);
    color: var(--ink-2);
  }
</style>

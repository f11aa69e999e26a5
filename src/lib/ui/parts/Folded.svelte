<script lang="ts" module>
  /** How each was left, by its title: the next one of that title stands so, too. */
  const left = new Map<string, boolean>();
</script>

<script lang="ts">
  import { untrack, type Snippet } from 'svelte';

  interface Props {
    title: string;
    /** A figure beside the title. */
    count?: number;
    /** What stands in it, in a line, while it is closed. */
    said?: string;
    open?: boolean;
    ontoggle?: (shown: boolean) => void;
    children: Snippet;
  }
  /** A card with a folded corner, which opens. */
  let { title, count, said = '', open = false, ontoggle, children }: Props = $props();
  // How it stands is its reader's from then on.
  let shown = $state(untrack(() => left.get(title) ?? open));
</script>

<details bind:open={shown} ontoggle={(event) => ontoggle?.(event.currentTarget.open)}>
  <summary onclick={() => left.set(title, !shown)}
    >{#if said}<span>{title}</span>{:else}{title}{/if}{#if count !== undefined}&nbsp;<span class="mono">{count}</span>{/if}{#if said && !shown}<small
        >{said}</small
      >{/if}</summary
  >
  {@render children()}
</details>

<style>
  details {
    padding: 7px 10px;
    background: var(--card-2);
    font-size: 12.5px;
    clip-path: polygon(0 0, calc(100% - 11px) 0, 100% 11px, 100% 100%, 0 100%);
  }
  details :global(details) {
    background: var(--card);
  }
  summary {
    font-weight: 600;
    cursor: pointer;
    list-style: none;
  }
  small {
    display: block;
    font-weight: 400;
    color: var(--ink-2);
  }
  .mono {
    font-weight: 400;
    color: var(--ink-2);
  }
</style>

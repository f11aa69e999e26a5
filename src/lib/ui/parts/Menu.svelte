<script lang="ts">
  import { menu, type MenuItem } from '../menu.svelte';

  /** A menu at the pointer: arrows go through it, Enter does, Escape closes it. */
  let list: HTMLElement | undefined = $state();
  let back: Element | null = null;
  const EDGE = 8;

  function close(): void {
    delete menu.at;
    if (back instanceof HTMLElement || back instanceof SVGElement) back.focus();
  }
  function act(item: MenuItem): void {
    close();
    item.do();
  }
  const buttons = () => [...(list?.querySelectorAll<HTMLButtonElement>('button:not(:disabled)') ?? [])];
  $effect(() => {
    if (!menu.at || !list) return;
    back = document.activeElement;
    // What would run off the screen opens the other way.
    const { width, height } = list.getBoundingClientRect();
    list.style.left = `${Math.max(EDGE, Math.min(menu.at.x, innerWidth - width - EDGE))}px`;
    list.style.top = `${Math.max(EDGE, Math.min(menu.at.y, innerHeight - height - EDGE))}px`;
    buttons()[0]?.focus();
  });
  function onkeydown(event: KeyboardEvent): void {
    event.stopPropagation();
    const all = buttons();
    const at = all.indexOf(document.activeElement as HTMLButtonElement);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
    if (event.key === 'Escape' || event.key === 'Tab') close();
    else if (to !== undefined) all[(to + all.length) % all.length]?.focus();
    else return;
    event.preventDefault();
  }
</script>

<svelte:window
  onpointerdown={(event) => menu.at && !(event.target instanceof Node && list?.contains(event.target)) && close()}
  onblur={() => menu.at && close()}
/>

{#if menu.at}
  <div class="menu" role="menu" tabindex="-1" aria-label={menu.label} bind:this={list} {onkeydown}>
    {#each menu.items as item (item.word)}
      <button role="menuitem" disabled={item.disabled} onclick={() => act(item)}
        ><span>{item.word}</span>{#if item.key}<kbd aria-hidden="true">{item.key}</kbd>{/if}</button
      >
    {/each}
  </div>
{/if}

<style>
  .menu {
    position: fixed;
    z-index: 20;
    display: grid;
    min-width: 170px;
    max-height: calc(100vh - 16px);
    overflow: auto;
    padding: 4px 0;
    background: var(--card);
    border: 1px solid var(--ink-2);
  }
  button {
    display: flex;
    justify-content: space-between;
    gap: 24px;
    padding: 4px 12px;
    border: 0;
    background: none;
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }
  button:focus,
  button:hover:not(:disabled) {
    background: var(--card-2);
    outline: none;
    color: var(--act);
  }
  button:disabled {
    opacity: 0.45;
    cursor: default;
  }
  kbd {
    font: 11px var(--mono);
    color: var(--ink-2);
  }
</style>

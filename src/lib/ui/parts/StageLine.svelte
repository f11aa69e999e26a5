<script lang="ts">
  import { t } from '../../words/language';
  import type { Stage } from '../../core/checks/finding';
  import { STAGE_LINE } from '../../words/stages';

  let { stage }: { stage: Stage } = $props();
  /** What a stage is for, until that is dismissed in this browser. */
  const KEY = 'folder-told';
  const read = (): string[] => {
    try {
      return JSON.parse(localStorage.getItem(KEY) ?? '[]') as string[];
    } catch {
      return [];
    }
  };
  let told = $state.raw(read());
  function dismiss(): void {
    told = [...told, stage];
    try {
      localStorage.setItem(KEY, JSON.stringify(told));
    } catch {
      // A browser that keeps nothing tells it again.
    }
  }
  /** The guide opens beside the bench, in one window of its own. */
  function openGuide(event: MouseEvent & { currentTarget: HTMLAnchorElement }): void {
    if (window.open(event.currentTarget.href, 'folder-guide', 'popup,width=620,height=860')) event.preventDefault();
  }
</script>

{#if !told.includes(stage)}
  <div class="told" role="note">
    <p>{STAGE_LINE[stage]}</p>
    <a href="/guide/{stage}" target="folder-guide" onclick={openGuide}>{t`Guide`}</a>
    <button class="link" onclick={dismiss}>{t`Dismiss`}</button>
  </div>
{/if}

<style>
  .told {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    margin: -14px -16px 12px;
    padding: 9px 16px;
    background: var(--card-2);
    font-size: 12.5px;
  }
  p {
    width: 100%;
  }
</style>

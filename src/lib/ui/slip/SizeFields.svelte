<script lang="ts" generics="How extends Size & Pick<Resize, 'content' | 'fixed'>">
  import { t } from '../../words/language';
  import type { Size } from '../../core/measure/box';
  import { formatSize } from '../../core/measure/formatLength';
  import { contentScale, type Resize } from '../../core/pages/resize';
  import { sayPercent } from '../../words/lengths';
  import type { Bench } from '../bench.svelte';
  import Working from '../parts/Working.svelte';
  import ContentFields from './ContentFields.svelte';
  import PaperFields from './PaperFields.svelte';

  interface Props {
    bench: Bench;
    value: How;
    /** The size that the first of the pages has. */
    from: Size | undefined;
    onchange: (value: How, wrong: boolean) => void;
  }
  let { bench, value, from, onchange }: Props = $props();
  let wrong = $state(false);
  const scale = $derived(from && contentScale(from, value, value.content));
</script>

<PaperFields
  {bench}
  {value}
  onchange={(size, bad) => {
    wrong = bad;
    onchange({ ...value, ...size }, bad);
  }}
/>
<ContentFields {value} onchange={(how) => onchange(how, wrong)} />
{#if from && scale}
  <Working>
    <code>{formatSize(from.width, from.height, bench.unit)} → {formatSize(value.width, value.height, bench.unit)}</code><br />
    {#if value.content === 'hold'}{t`content keeps its real size`}
    {:else if Math.abs(scale[0] - scale[1]) < 1e-9}{t`content at ${sayPercent(scale[0])}`}
    {:else}{t`content at ${sayPercent(scale[0])} across, ${sayPercent(scale[1])} up and down`}{/if}{t`; bleed keeps its width`}
  </Working>
{/if}

<style>
  code {
    font: 12px var(--mono);
  }
</style>

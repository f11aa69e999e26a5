<script lang="ts">
  import { getContext } from 'svelte';
  import type { LineItem } from '../../core/model/surface';
  import type { Pictures } from '../pictures.svelte';
  import { isHidden, screenColor } from './ink';

  let { item }: { item: LineItem } = $props();
  const pictures = getContext<Pictures>('pictures');
</script>

<line
  x1={item.x0}
  y1={item.y0}
  x2={item.x1}
  y2={item.y1}
  stroke={item.ink === 'all' ? '#000' : screenColor(item.ink, pictures.hidden)}
  visibility={item.ink !== 'all' && isHidden(item.ink, pictures.hidden) ? 'hidden' : undefined}
  stroke-width={item.width}
  stroke-dasharray={item.dash.join(' ') || undefined}
  pointer-events="none"
/>

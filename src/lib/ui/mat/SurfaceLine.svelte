<script lang="ts">
  import type { LineItem } from '../../core/surface/surface';
  import { screenColor } from './ink';

  let { item }: { item: LineItem } = $props();
</script>

<line
  x1={item.x0}
  y1={item.y0}
  x2={item.x1}
  y2={item.y1}
  stroke={item.ink === 'all' ? '#000' : screenColor(item.ink)}
  stroke-width={item.width}
  stroke-dasharray={item.dash.join(' ') || undefined}
  pointer-events="none"
/>

<script lang="ts">
  import type { TextItem } from '../../core/surface/surface';

  let { item }: { item: TextItem } = $props();
  const ANCHOR = { left: 'start', centre: 'middle', right: 'end' } as const;
</script>

<text
  transform="matrix({item.matrix.join(' ')}) scale(1 -1)"
  font-size={item.size}
  font-family="'{item.face}'"
  text-anchor={ANCHOR[item.align]}
  fill="#1d2422"
  pointer-events="none">{item.text}</text
>

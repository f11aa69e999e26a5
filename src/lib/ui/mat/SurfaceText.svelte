<script lang="ts">
  import { getContext } from 'svelte';
  import { advancesOf, textWidth } from '../../core/numbers/faceMetrics';
  import type { TextItem } from '../../core/model/surface';
  import type { Pictures } from '../pictures.svelte';
  import { isHidden, screenColor } from './ink';

  let { item }: { item: TextItem } = $props();
  const pictures = getContext<Pictures>('pictures');
  /** Where each letter begins, as the PDF has it, whatever the browser would kern. */
  const places = $derived.by(() => {
    let x = -{ left: 0, centre: 0.5, right: 1 }[item.align] * textWidth(item.text, item);
    return advancesOf(item.text, item).map((advance) => (x += advance) - advance);
  });
</script>

<text
  transform="matrix({item.matrix.join(' ')}) scale(1 -1)"
  x={places.join(' ')}
  font-size={item.size}
  font-family="'{item.face}'"
  font-weight={item.weight === 'strong' ? 600 : 400}
  fill={screenColor(item.ink, pictures.hidden)}
  visibility={isHidden(item.ink, pictures.hidden) ? 'hidden' : undefined}
  pointer-events="none">{item.text}</text
>

<style>
  text {
    font-kerning: none;
    font-variant-ligatures: none;
    white-space: pre;
  }
</style>

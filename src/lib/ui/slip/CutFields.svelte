<script lang="ts">
  import { t } from '../../words/language';
  import { SHOWN_TWICE } from '../../core/pages/split';
  import type { Size } from '../../core/measure/box';
  import { type Unit } from '../../core/measure/unit';
  import Choice from '../parts/Choice.svelte';
  import LengthField from '../parts/LengthField.svelte';

  interface Cut {
    at?: number | undefined;
    gutter: number;
  }
  interface Props {
    value: Cut;
    /** The way the cut runs if there is just one; undefined for a grid. */
    along: 'width' | 'height' | undefined;
    size: Size | undefined;
    unit: Unit;
    onchange: (cut: Cut, wrong: boolean) => void;
  }
  /** Where a cut lies, and what is left out or shown twice at it. */
  let { value, along, size, unit, onchange }: Props = $props();

  let wrong = $state({ at: false, gutter: false });
  const middle = $derived(along && size ? size[along] / 2 : 100);
  function set(change: Cut, field: keyof typeof wrong, bad: boolean): void {
    wrong = { ...wrong, [field]: bad };
    onchange(change, wrong.at || wrong.gutter);
  }
  const twice = $derived(value.gutter < 0);
</script>

{#if along}
  <Choice
    label={t`Cut`}
    options={[
      ['middle', t`in the middle`],
      ['at', t`at a place`],
    ]}
    value={value.at === undefined ? 'middle' : 'at'}
    onchange={(where) => set(where === 'at' ? { ...value, at: middle } : { gutter: value.gutter }, 'at', false)}
  />
  {#if value.at !== undefined}
    <LengthField
      label={along === 'width' ? t`From the left` : t`From the head`}
      value={value.at}
      {unit}
      check={(points) => (points <= 0 || (size && points >= size[along]) ? t`The cut lies inside the page.` : undefined)}
      onchange={(at) => set(at === undefined ? value : { ...value, at }, 'at', at === undefined)}
    />
  {/if}
{/if}
<Choice
  label={t`At the cut`}
  options={[
    ['out', t`leave out`],
    ['twice', t`show twice`],
  ]}
  value={twice ? 'twice' : 'out'}
  onchange={(how) => set({ ...value, gutter: how === 'twice' ? -Math.abs(value.gutter || SHOWN_TWICE) : Math.abs(value.gutter) }, 'gutter', false)}
/>
<LengthField
  label={twice ? t`Shown on both` : t`Left out between`}
  value={Math.abs(value.gutter)}
  {unit}
  check={(points) => (points < 0 ? t`This cannot be less than 0.` : undefined)}
  onchange={(points) => set(points === undefined ? value : { ...value, gutter: twice ? -points : points }, 'gutter', points === undefined)}
/>

<script lang="ts">
  import { limitsOf } from '../../core/docket/limitsOf';
  import { splitsOf, type OutputKind, outputKind } from '../../core/handover/outputs';
  import { PART_MB, type Split } from '../../core/handover/split';
  import type { PageList } from '../../core/model/page';
  import { counted, splitName, type SplitBy } from '../../words/outputs';
  import CountField from './CountField.svelte';
  import PagesField from './PagesField.svelte';

  interface Props {
    kind: OutputKind;
    split: Split | undefined;
    list: PageList;
    /** A number in it cannot be used. */
    bad: boolean;
    onchange: (split: Split | undefined) => void;
  }
  /** How the pages of an output are shared out to several files. */
  let { kind, split, list, bad, onchange }: Props = $props();
  const unit = $derived(counted(kind));
  const level = $derived(split?.by === 'bookmarks' ? split.level : 0);
  const FRESH: { [By in SplitBy]: Extract<Split, { by: By }> } = {
    every: { by: 'every', count: 10 },
    bookmarks: { by: 'bookmarks', level: 0 },
    series: { by: 'series' },
    pieces: { by: 'pieces' },
    places: { by: 'places', at: '1' },
    faces: { by: 'faces' },
    size: { by: 'size', mb: 10 },
  };
</script>

<div>
  <label class="label" for="split">Split</label>
  <select id="split" class="field" value={split?.by ?? ''} onchange={(event) => onchange(FRESH[event.currentTarget.value as SplitBy])}>
    <option value="">one file</option>
    {#each splitsOf(kind) as by (by)}<option value={by}>{splitName(by, kind)}</option>{/each}
  </select>
</div>
{#if split?.by === 'every'}
  <CountField
    label="{unit.charAt(0).toUpperCase()}{unit.slice(1)} a file"
    value={split.count}
    most={limitsOf(outputKind(kind).schema, 'split.count').most}
    of={unit}
    onchange={(count) => onchange({ by: 'every', count })}
  />
{:else if split?.by === 'bookmarks'}
  <CountField
    label="Bookmarks of level"
    value={level + 1}
    most={limitsOf(outputKind(kind).schema, 'split.level').most + 1}
    of="levels"
    onchange={(value) => onchange({ by: 'bookmarks', level: Math.max(0, (value || 1) - 1) })}
  />
{:else if split?.by === 'places'}
  <PagesField label="A file begins at" value={split.at} {list} onchange={(at) => onchange({ by: 'places', at })} />
{:else if split?.by === 'faces'}
  <label class="tick"
    ><input
      type="checkbox"
      checked={!!split.reverse}
      onchange={(event) => onchange({ by: 'faces', ...(event.currentTarget.checked ? { reverse: true } : {}) })}
    /> backs in reverse, for a pile that comes out the wrong way round</label
  >
{:else if split?.by === 'size'}
  <div>
    <label class="label" for="mb">Largest file, MB</label>
    <input
      id="mb"
      class="field mono"
      type="number"
      step="any"
      min={PART_MB.least}
      max={PART_MB.most}
      value={split.mb}
      oninput={(event) => onchange({ by: 'size', mb: event.currentTarget.valueAsNumber })}
    />
    {#if bad}<p class="wrong" role="alert">A number of megabytes from {PART_MB.least} to {PART_MB.most}.</p>{/if}
  </div>
{/if}

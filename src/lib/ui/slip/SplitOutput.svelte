<script lang="ts">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { splitsOf, type OutputKind, outputKind } from '../../core/handover/outputs';
  import { PART_MB, type Split } from '../../core/handover/split';
  import type { PageList } from '../../core/model/page';
  import { counted, splitName, type SplitBy } from '../../words/outputs';
  import NumberField from './NumberField.svelte';
  import PagesField from './PagesField.svelte';

  interface Props {
    kind: OutputKind;
    split: Split | undefined;
    list: PageList;
    /** `wrong`: what a field holds cannot be used. */
    onchange: (split: Split | undefined, wrong?: boolean) => void;
  }
  /** How the pages of an output are shared out to several files. */
  let { kind, split, list, onchange }: Props = $props();
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
  <label class="label" for="split">{t`Split`}</label>
  <select id="split" class="field" value={split?.by ?? ''} onchange={(event) => onchange(FRESH[event.currentTarget.value as SplitBy])}>
    <option value="">{t`one file`}</option>
    {#each splitsOf(kind) as by (by)}<option value={by}>{splitName(by, kind)}</option>{/each}
  </select>
</div>
{#if split?.by === 'every'}
  <NumberField
    whole
    least={1}
    label={t`${unit.charAt(0).toUpperCase()}${unit.slice(1)} a file`}
    value={split.count}
    most={limitsOf(outputKind(kind).schema, 'split.count').most}
    of={unit}
    onchange={(count, wrong) => onchange({ by: 'every', count }, wrong)}
  />
{:else if split?.by === 'bookmarks'}
  <NumberField
    whole
    least={1}
    label={t`Bookmarks of level`}
    value={level + 1}
    most={limitsOf(outputKind(kind).schema, 'split.level').most + 1}
    of={t`levels`}
    onchange={(value, wrong) => onchange({ by: 'bookmarks', level: value - 1 }, wrong)}
  />
{:else if split?.by === 'places'}
  <PagesField label={t`A file begins at`} value={split.at} {list} onchange={(at) => onchange({ by: 'places', at })} />
{:else if split?.by === 'faces'}
  <label class="tick"
    ><input
      type="checkbox"
      checked={!!split.reverse}
      onchange={(event) => onchange({ by: 'faces', ...(event.currentTarget.checked ? { reverse: true } : {}) })}
    />
    {t`backs in reverse, for a pile that comes out the wrong way round`}</label
  >
{:else if split?.by === 'size'}
  <NumberField label={t`Largest file`} unit="MB" value={split.mb} {...PART_MB} onchange={(mb, wrong) => onchange({ by: 'size', mb }, wrong)} />
{/if}

<script lang="ts">
  import { t } from '../../words/language';
  import { dayOf } from '../../core/numbers/day';
  import { PatternError, readPatternOf } from '../../core/numbers/pattern';
  import { SLUG_TOKENS } from '../../core/sheets/marks/slug';
  import { MARK_LENGTH, MARK_LIMITS, MARK_OFFSET, MARK_WEIGHT } from '../../core/sheets/marks/markSize';
  import { SWITCHED, type MarkSettings } from '../../core/sheets/marks';
  import { markWords } from '../../words/marks';
  import { sayPatternError } from '../../words/patterns';
  import { formatLength } from '../../core/measure/formatLength';
  import Folded from '../parts/Folded.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import type { SchemeDraft } from './schemeDraft.svelte';
  import type { Scheme } from '../../core/sheets/schemes';

  let { draft }: { draft: SchemeDraft<Exclude<Scheme, { kind: 'none' }>> } = $props();
  const marks = $derived(draft.value.marks);
  const unit = $derived(draft.unit);
  const set = (change: Partial<MarkSettings>) => draft.set({ marks: { ...marks, ...change } });
  const said = $derived(
    [...SWITCHED.filter((kind) => marks[kind]).map((kind) => markWords(kind).name), ...(marks.slug ? [t`slug line`] : [])].join(', ') || t`none`,
  );
  let slugTrouble = $state('');

  function setSlug(slug: string): void {
    slugTrouble = '';
    try {
      if (slug.trim()) readPatternOf(slug, SLUG_TOKENS);
    } catch (error) {
      if (!(error instanceof PatternError)) throw error;
      slugTrouble = sayPatternError(error, SLUG_TOKENS);
    }
    const { slug: _, date: __, ...rest } = marks;
    const today = dayOf(new Date());
    draft.take(slugTrouble ? undefined : slug, () => ({ marks: slug.trim() ? { ...rest, slug, date: today } : rest }));
  }
  const limits = (key: keyof typeof MARK_LIMITS) => (points: number) => {
    const [least, most] = MARK_LIMITS[key];
    return points < least || points > most
      ? t`From ${formatLength(least, key === 'weight' ? 'pt' : unit)} to ${formatLength(most, key === 'weight' ? 'pt' : unit)}.`
      : undefined;
  };
</script>

<Folded title={t`Marks`} {said}>
  <div class="kinds">
    {#each SWITCHED as kind (kind)}
      <label
        ><input type="checkbox" checked={!!marks[kind]} onchange={(event) => set({ [kind]: event.currentTarget.checked })} />
        {markWords(kind).name}</label
      >
    {/each}
  </div>
  <div class="slug">
    <label class="label" for="slug">{t`Slug line`}</label>
    <input
      id="slug"
      class="field mono"
      value={marks.slug ?? ''}
      placeholder={'{job} · {sheet} {side} · {ink}'}
      onchange={(event) => setSlug(event.currentTarget.value)}
    />
    {#if slugTrouble}<p class="wrong" role="alert">{slugTrouble}</p>{/if}
  </div>
  <div class="three">
    <LengthField
      label={t`Length`}
      value={marks.length ?? MARK_LENGTH}
      {unit}
      check={limits('length')}
      onchange={(points) => draft.take(points, (length) => ({ marks: { ...marks, length } }))}
    />
    <LengthField
      label={t`Distance`}
      value={marks.offset ?? MARK_OFFSET}
      {unit}
      check={limits('offset')}
      onchange={(points) => draft.take(points, (offset) => ({ marks: { ...marks, offset } }))}
    />
    <LengthField
      label={t`Weight`}
      value={marks.weight ?? MARK_WEIGHT}
      unit="pt"
      check={limits('weight')}
      onchange={(points) => draft.take(points, (weight) => ({ marks: { ...marks, weight } }))}
    />
  </div>
</Folded>

<style>
  .kinds {
    display: flex;
    flex-wrap: wrap;
    gap: 3px 14px;
    padding: 6px 0 4px;
    font-size: 13px;
  }
  .slug {
    padding: 2px 0 6px;
  }
  .three {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 8px;
  }
</style>

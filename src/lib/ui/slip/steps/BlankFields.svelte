<script lang="ts">
  import { t } from '../../../words/language';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import { A4_SHAPE, blank, LEFT_BLANK, type BlankShape } from '../../../core/docket/steps/blank';
  import { COLUMN_GAP, PLAIN_MARGINS } from '../../../core/docket/shapes';
  import { sayWrongBleed } from '../../../words/lengths';
  import type { Book } from '../../../core/model/page';
  import Choice from '../../parts/Choice.svelte';
  import NumberField from '../NumberField.svelte';
  import BookFields from '../BookFields.svelte';
  import EdgeFields from '../EdgeFields.svelte';
  import { bookEdges } from '../edges';
  import NewFormatField from '../NewFormatField.svelte';
  import MarginFields from '../MarginFields.svelte';
  import PaperFields from '../PaperFields.svelte';
  import PlaceField from '../PlaceField.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'blank'> = $props();
  let wrong = $state<Record<string, boolean>>({});
  const first = $derived(!before.pages.length);
  const book = $derived(bench.draft.book ?? bench.docket.book);

  function set(field: string, change: Partial<typeof step>, bad = false): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
  const shape = (field: string, change: Partial<BlankShape>, bad = false) => set(field, { shape: { ...(step.shape ?? A4_SHAPE), ...change } }, bad);
  const margins = { ...PLAIN_MARGINS, columns: 1, gap: COLUMN_GAP };
  function lie(next: Book): void {
    bench.draft.book = next;
    // The book is part of what is being tried, so the trial is worked out again.
    onchange({ ...step }, Object.values(wrong).some(Boolean));
  }
</script>

<NumberField
  whole
  least={1}
  label={t`How many`}
  value={step.count}
  most={limitsOf(stepKind('blank').schema, 'count').most}
  of={t`pages`}
  onchange={(count, bad) => set('count', { count }, bad)}
/>
{#if first}
  <BookFields {book} onchange={lie} />
{:else}
  <PlaceField value={step.where} list={before} beside={bench.selected.selection ?? 'last'} onchange={(where) => set('where', { where })} />
  <label class="check"
    ><input
      type="checkbox"
      checked={!step.shape}
      onchange={(event) => set('shape', { shape: event.currentTarget.checked ? undefined : { ...A4_SHAPE, ...before.pages[0]!.trim } })}
    />
    {t`like the page beside them`}</label
  >
{/if}
<Choice
  label={t`On them`}
  options={[
    ['nothing', t`nothing`],
    ['words', t`words`],
  ]}
  value={step.words === undefined ? 'nothing' : 'words'}
  onchange={(what) => set('words', { words: what === 'words' ? LEFT_BLANK : undefined })}
/>
{#if step.words !== undefined}
  <div>
    <label class="label" for="words">{t`Words in the middle`}</label>
    <input
      id="words"
      class="field"
      maxlength="120"
      value={step.words}
      oninput={(event) => {
        const words = event.currentTarget.value;
        set('words', { words }, !blank.schema.shape.words.safeParse(words).success);
      }}
    />
    {#if wrong.words}<p class="wrong" role="alert">{t`Words are letters of western Europe, up to 120 of them.`}</p>{/if}
  </div>
{/if}
<NewFormatField value={step.format} formats={bench.docket.formats} like={!step.shape && !first} onchange={(format) => set('format', { format })} />
{#if step.shape}
  <PaperFields {bench} value={step.shape} onchange={(size, bad) => shape('size', size, bad)} />
  <EdgeFields
    label={t`Bleed`}
    edges={bookEdges(book)}
    values={step.shape.bleed}
    unit={bench.unit}
    check={(points) => sayWrongBleed(points, bench.unit)}
    onchange={(bleed, bad) => shape('bleed', { bleed }, bad)}
  />
  <label class="check"
    ><input
      type="checkbox"
      checked={!!step.shape.margins}
      onchange={(event) => shape('margins', { margins: event.currentTarget.checked ? margins : undefined })}
    />
    {t`margins and columns`}</label
  >
  {#if step.shape.margins}
    <MarginFields
      {book}
      value={step.shape.margins}
      trim={step.shape}
      unit={bench.unit}
      onchange={(next, bad) => shape('margins', { margins: next }, bad)}
    />
  {/if}
{/if}

<style>
  .check {
    font-size: 12.5px;
  }
</style>

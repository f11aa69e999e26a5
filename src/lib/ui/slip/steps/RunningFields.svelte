<script lang="ts">
  import { t } from '../../../words/language';
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import type { TextAt } from '../../../core/model/lines';
  import { mm } from '../../../core/measure/unit';
  import { PLACE_WORD } from '../../../words/numbers';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import NumberField from '../NumberField.svelte';
  import { withDate } from '../dated';
  import LineSettings from '../LineSettings.svelte';
  import PatternField from '../PatternField.svelte';
  import PlacePicker from '../PlacePicker.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'running'> = $props();
  /** The text being set, by its number. */
  let at = $state(0);
  const now = $derived(step.texts[Math.min(at, step.texts.length - 1)]!);
  let wrong = $state<Record<string, boolean>>({});

  function set(field: string, change: Partial<typeof step>, bad = false): void {
    wrong = { ...wrong, [field]: bad };
    onchange(withDate({ ...step, ...change }), Object.values(wrong).some(Boolean));
  }
  const put = (change: Partial<TextAt>) => set('texts', { texts: step.texts.map((text) => (text === now ? { ...text, ...change } : text)) });
  /** Picks the text at a place, or begins one there. */
  function pick(place: Pick<TextAt, 'edge' | 'across'>): void {
    const known = step.texts.findIndex(({ edge, across }) => edge === place.edge && across === place.across);
    if (known >= 0) return void (at = known);
    at = step.texts.length;
    set('texts', { texts: [...step.texts, { ...place, text: '{title}' }] });
  }
  function drop(): void {
    set('texts', { texts: step.texts.filter((text) => text !== now) });
    at = 0;
  }
  const TOKENS = ['title', 'series', 'label', 'page', 'pages', 'piece', 'file', 'date'] as const;
</script>

<PlacePicker book={before.book} taken={step.texts} chosen={now} onpick={pick} />
<p class="quiet small">{t`Up to three at the head and three at the foot; click a place to write there.`}</p>
<PatternField label="{now.edge}, {PLACE_WORD[now.across]}" value={now.text} tokens={TOKENS} onchange={(text) => put({ text })} />
<div class="ways">
  {#if before.book.facing}
    <label
      ><input
        type="checkbox"
        checked={now.left !== undefined}
        onchange={(event) => put({ left: event.currentTarget.checked ? now.text : undefined })}
      />
      {t`other words on left pages`}</label
    >
    {#if now.left !== undefined}<PatternField
        label={t`On left pages`}
        value={now.left}
        tokens={[]}
        optional
        onchange={(left) => put({ left })}
      />{/if}
  {/if}
  <label
    ><input
      type="checkbox"
      checked={now.first !== undefined}
      onchange={(event) => put({ first: event.currentTarget.checked ? now.text : undefined })}
    />
    {t`other words on first pages`}</label
  >
  {#if now.first !== undefined}<PatternField
      label={t`On the first page of a series`}
      value={now.first}
      tokens={[]}
      optional
      onchange={(first) => put({ first })}
    />{/if}
  {#if step.texts.length > 1}<button type="button" class="link" onclick={drop}>{t`Remove this one`}</button>{/if}
</div>
<Choice
  label={t`Rule`}
  options={[
    ['none', t`none`],
    ['over', t`over`],
    ['under', t`under`],
  ]}
  value={step.rule?.at ?? 'none'}
  onchange={(rule) => set('rule', { rule: rule === 'none' ? undefined : { width: 0.4, gap: mm(1), ...step.rule, at: rule } })}
/>
{#if step.rule}
  {@const rule = step.rule}
  <div class="row">
    <NumberField
      label={t`Rule’s weight`}
      value={rule.width}
      {...limitsOf(stepKind('running').schema, 'rule.width')}
      unit="pt"
      onchange={(width, bad) => set('rule', { rule: { ...rule, width } }, bad)}
    />
    <LengthField
      label={t`Gap`}
      value={rule.gap}
      unit={bench.unit}
      check={(points) => (points < 0 ? t`The rule stands off its line by 0 or more.` : undefined)}
      onchange={(gap) => set('gap', gap === undefined ? {} : { rule: { ...rule, gap } }, gap === undefined)}
    />
  </div>
{/if}
<LineSettings {bench} {step} {onchange} />

<style>
  .ways {
    display: grid;
    gap: 4px;
    font-size: 12.5px;
    justify-items: start;
  }
  .ways :global(> div) {
    justify-self: stretch;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { formatFigure, formatLength } from '../../core/measure/formatLength';
  import { coverPages } from '../../core/pages/coverParts';
  import type { PageList } from '../../core/model/page';
  import type { SheetPlan } from '../../core/sheets/plan';
  import { PLAIN_COVER, SPINE_TEXT, type CoverScheme } from '../../core/sheets/scheme';
  import type { Signatures } from '../../core/sheets/schemes';
  import { COVER_WORD } from '../../words/book';
  import { sayDistance } from '../../words/lengths';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import { BLACK } from '../../core/ink/colour';
  import ColorField from './ColorField.svelte';
  import NumberField from './NumberField.svelte';
  import type { Bench } from '../bench.svelte';
  import type { SchemeDraft } from './schemeDraft.svelte';
  import StockFields from './StockFields.svelte';

  let { bench, draft, plan, list }: { bench: Bench; draft: SchemeDraft<Signatures>; plan: SheetPlan | undefined; list: PageList } = $props();
  const unit = $derived(draft.unit);
  const cover = $derived(draft.value.cover ?? PLAIN_COVER);
  const parts = $derived(coverPages(list));
  const planned = $derived(plan?.cover);
  /** As it stands, before what is being typed. */
  const before = $derived(bench.base.plan?.cover);
  const spine = $derived(planned?.spine);
  const set = (change: Partial<CoverScheme>) => draft.set({ cover: { ...cover, ...change } });
  const length = (key: 'added' | 'flap' | 'spine') => (points: number | undefined) =>
    draft.take(points, (given) => ({ cover: { ...cover, [key]: given } }));
  const under = (what: string) => (points: number) => sayDistance(points, what, cover.stock, unit);
  function workedOut(): void {
    const { spine: _, ...rest } = cover;
    draft.set({ cover: rest });
  }
  const figure = (points: number) => formatFigure(points, unit);
</script>

<Folded title={t`Cover`} count={parts.length || undefined} open={!!parts.length}>
  {#if !parts.length}
    <p class="quiet">
      {t`None yet. Pick its pages on Pages and make them the cover (Shift C): back, spine and front, or one piece. They leave the list and get a sheet of their own.`}
    </p>
  {:else}
    <div class="fields">
      <p class="quiet">{t`${parts.map(({ part }) => COVER_WORD[part]).join(', ')}: on a sheet of its own, after those of the book.`}</p>
      <StockFields
        label={t`The cover’s sheet`}
        stock={cover.stock}
        {unit}
        needed={planned?.plan.needed.marks}
        drawn={before?.plan.sheet}
        onchange={(given) => draft.take(given, (stock) => ({ cover: { ...cover, stock } }))}
      />
      <div class="row">
        <LengthField label={t`Boards, glue`} value={cover.added} {unit} check={under(t`What is added`)} onchange={length('added')} />
        <LengthField
          label={t`Thread, each`}
          value={draft.value.thread ?? 0}
          {unit}
          check={under(t`The thread`)}
          onchange={(points) => draft.take(points, (thread) => ({ thread }))}
        />
      </div>
      <div class="row">
        <LengthField label={t`Spine`} value={spine?.width ?? 0} {unit} check={under(t`The spine`)} onchange={length('spine')} />
        <LengthField label={t`Flaps`} value={cover.flap ?? 0} {unit} check={under(t`A flap`)} onchange={length('flap')} />
      </div>
      {#if spine}
        <p class="mono sum">
          {t`${spine.leaves} leaves`}{#if spine.caliper}&nbsp;× {figure(spine.caliper)}{/if}{#if spine.thread}&nbsp;+ {spine.signatures - 1} × {figure(
              spine.thread,
            )}{/if}{#if spine.added}&nbsp;+ {figure(spine.added)}{/if}{spine.worked === undefined
            ? t`: paper not known`
            : ` = ${formatLength(spine.worked, unit)}`}
        </p>
        {#if cover.spine !== undefined}<p class="quiet">
            {t`As typed.`} <button type="button" class="link" onclick={workedOut}>{t`Work it out`}</button>
          </p>{/if}
      {/if}
      {#if planned}
        <p class="mono sum">
          {planned.parts.map(({ length }) => figure(length)).join(' + ')} = {formatLength(
            planned.parts.reduce((sum, { length }) => sum + length, 0),
            unit,
          )}
        </p>
      {/if}
      <div>
        <label class="label" for="spine-text">{t`On the spine`}</label>
        <input
          id="spine-text"
          class="field"
          maxlength="200"
          placeholder={t`nothing besides its art`}
          value={cover.text ?? ''}
          oninput={(event) => set({ text: event.currentTarget.value })}
        />
      </div>
      {#if cover.text?.trim()}
        <div class="row">
          <NumberField
            label={t`Its size`}
            unit="pt"
            value={cover.textSize ?? SPINE_TEXT.plain}
            least={SPINE_TEXT.least}
            most={SPINE_TEXT.most}
            onchange={(value, wrong) => draft.take(wrong ? undefined : value, (textSize) => ({ cover: { ...cover, textSize } }))}
          />
          {#if list.book.spine !== 'head'}
            <Choice
              label={t`It reads`}
              options={[
                ['down', t`down`],
                ['up', t`up`],
              ]}
              value={cover.runs}
              onchange={(runs) => set({ runs })}
            />
          {/if}
        </div>
      {/if}
      {#if cover.text?.trim()}
        <ColorField
          value={cover.ink ?? BLACK}
          spots={[]}
          onchange={(ink, wrong) => draft.take(wrong ? undefined : ink, (ink) => ({ cover: { ...cover, ink } }))}
        />
      {/if}
      <label class="tick"
        ><input
          type="checkbox"
          checked={cover.copies === 'most'}
          onchange={(event) => set({ copies: event.currentTarget.checked ? 'most' : { across: 1, up: 1 } })}
        />
        {t`as many covers on a sheet as fit`}</label
      >
    </div>
  {/if}
</Folded>

<style>
  .sum {
    margin: 0;
    font-size: 12px;
  }
  .tick {
    font-size: 13px;
  }
</style>

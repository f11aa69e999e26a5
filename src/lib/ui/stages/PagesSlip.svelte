<script lang="ts">
  import { t } from '../../words/language';
  import { namePages } from '../../words/pages';
  import { formatFigure, formatLength } from '../../core/measure/formatLength';
  import { bleedSides, faceAt, sideAt } from '../../core/pages/page';
  import type { Aspect } from '../../core/model/page';
  import { describeIndexes } from '../../core/select/selection';
  import { saySize } from '../../words/sizes';
  import type { Bench } from '../bench.svelte';
  import Acts, { type Act } from '../parts/Acts.svelte';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';
  import { sayBook } from '../../words/book';
  import BookFields from '../slip/BookFields.svelte';
  import CompareTable from '../slip/CompareTable.svelte';
  import FormatForm from '../slip/FormatForm.svelte';
  import FoldOuts from '../slip/FoldOuts.svelte';
  import Formats from '../slip/Formats.svelte';
  import { actsOf, sayKey } from '../slip/acts';
  import { SHORTCUTS } from '../slip/shortcuts';
  import LengthField from '../parts/LengthField.svelte';
  import Overview from '../slip/Overview.svelte';
  import StepForm from '../slip/StepForm.svelte';
  import { MOST_SAFE } from '../../core/docket/docket';

  let { bench }: { bench: Bench } = $props();

  const selected = $derived(bench.selected.indexes);
  const page = $derived(selected.length === 1 ? faceAt(bench.shown.list, selected[0]!) : undefined);
  const bleed = $derived(page && bleedSides(page.bleed, sideAt(selected[0]!, bench.shown.list)));
  const from = $derived(page?.art && bench.docket.steps.find((step) => step.kind === 'take-in' && step.source === page.art!.source));
  const unit = $derived(bench.unit);

  const acts = $derived<Act[]>([
    ...actsOf('pages', bench),
    ...SHORTCUTS.filter(({ shown }) => shown(bench)).map(({ key, word, does, step }): Act => ({
      word: word(bench),
      group: 'shape',
      does: does(),
      key: sayKey(key),
      do: () => {
        const begun = step(bench);
        if (begun) bench.open({ kind: begun.kind, begun });
      },
    })),
  ]);
  const give = (aspect: Aspect) => bench.putFormat(page!.format!.id, { ids: [page!.id] }, [aspect]);
  const book = $derived(bench.docket.book);
  /** The safe margin as typed. */
  let safe = $state<number | undefined>();
</script>

{#if bench.draft.form}
  {#key bench.draft.form}<StepForm {bench} form={bench.draft.form} />{/key}
{:else if bench.draft.format}
  <FormatForm {bench} format={bench.draft.format} />
{:else}
  <Overview {bench} stages={['pages']} title={t`Pages`}>
    <Acts
      label={selected.length
        ? t`With ${namePages(selected.length, describeIndexes(selected, bench.shown.list))}`
        : t`Select pages, or choose what to do with all`}
      {acts}
    />
    {#if page && bleed}
      <dl class="facts">
        <dt>{t`trim`}</dt>
        <dd>{saySize(page.trim, unit)}</dd>
        <dt>{t`bleed`}</dt>
        <dd>
          {#if new Set(Object.values(bleed).map((value) => value.toFixed(3))).size === 1}{t`${formatLength(bleed.head, unit)} all round`}
          {:else}{t`head ${formatFigure(bleed.head, unit)}, foot ${formatFigure(bleed.foot, unit)}, left ${formatFigure(bleed.left, unit)}, right ${formatLength(bleed.right, unit)}`}{/if}{page.mirrored
            ? t`, mirrored`
            : ''}
        </dd>
        <dt>{t`shows`}</dt>
        <dd>{page.art ? t`page ${page.art.index + 1} of ${from?.kind === 'take-in' ? from.name : t`a file`}` : t`nothing, it is blank`}</dd>
        {#if page.piece}<dt>{t`piece`}</dt>
          <dd>{t`${page.piece.name}, ${page.piece.quantity} wanted`}</dd>{/if}
        {#if page.format}<dt>{t`format`}</dt>
          <dd>
            {page.format.name}{#each page.format.own as aspect (aspect)}<br />{t`own ${aspect} ·`}
              <button class="link" onclick={() => give(aspect)}>{t`give back`}</button>{/each}
          </dd>{/if}
      </dl>
    {/if}
    {#snippet after()}
      <Choice
        label={t`Against the source`}
        options={[
          ['off', t`off`],
          ['beside', t`beside`],
          ['blink', t`blink`],
        ]}
        value={bench.view.compare}
        onchange={(how) => (bench.view.compare = how)}
      />
      {#if bench.view.compare !== 'off'}<CompareTable {bench} />{/if}
      <FoldOuts {bench} />
      <Formats {bench} />
      <Folded title={t`${sayBook(book)} · safe ${formatLength(bench.docket.safe, unit)}`}>
        <BookFields {book} onchange={(next) => bench.put({ ...bench.docket, book: next })} />
        <LengthField
          label={t`Safe margin`}
          value={bench.docket.safe}
          {unit}
          check={(points) => (points < 0 || points > MOST_SAFE ? t`A safe margin is from 0 to ${formatLength(MOST_SAFE, unit)}.` : undefined)}
          onchange={(points) => (safe = points)}
        />
        {#if safe !== undefined && safe !== bench.docket.safe}
          <button class="link" onclick={() => bench.put({ ...bench.docket, safe: safe! })}>{t`Apply`}</button>
        {/if}
      </Folded>
    {/snippet}
  </Overview>
{/if}

<script lang="ts">
  import { t } from '../../../words/language';
  import { formatSize } from '../../../core/measure/formatLength';
  import { COVER_PARTS, type CoverPart } from '../../../core/model/page';
  import { likelyParts } from '../../../core/pages/coverParts';
  import { pickedOf } from '../../../core/select/selection';
  import { COVER_WORD } from '../../../words/book';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'cover'> = $props();

  const selected = $derived(pickedOf(step.pages, before).filter((index) => index < before.pages.length));
  // Other pages are other parts; what each is gets worked out anew.
  $effect(() => {
    if (!selected.length || selected.length === step.parts.length || selected.length > COVER_PARTS.length) return;
    const parts = likelyParts(
      selected.map((index) => before.pages[index]!),
      before,
    );
    if (parts.length === selected.length) onchange({ ...step, parts });
  });
  const set = (n: number, part: CoverPart) => onchange({ ...step, parts: step.parts.map((each, at) => (at === n ? part : each)) });
</script>

{#if selected.length === step.parts.length}
  <dl>
    {#each selected as index, n (index)}
      {@const { trim } = before.pages[index]!}
      <dt>
        <label for="part-{n}">{t`page`} <span class="mono">{index + 1}</span></label>
        <span class="mono quiet">{formatSize(trim.width, trim.height, bench.unit)}</span>
      </dt>
      <dd>
        <select id="part-{n}" class="field" value={step.parts[n]} onchange={(event) => set(n, event.currentTarget.value as CoverPart)}>
          {#each COVER_PARTS as part (part)}<option value={part}>{COVER_WORD[part]}</option>{/each}
        </select>
      </dd>
    {/each}
  </dl>
{/if}
<p class="quiet small">
  {t`These pages leave the list, so positions and numbers are those of the book alone. On Sheets the cover gets a sheet of its own; its spine follows from the leaves.`}
</p>

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr 140px;
    align-items: center;
    gap: 6px 10px;
    margin: 0;
  }
  dt {
    display: grid;
    font-size: 13px;
  }
  dd {
    margin: 0;
  }
</style>

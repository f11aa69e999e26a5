<script lang="ts">
  import { t } from '../../words/language';
  import { EDGES, PLACES, type LinePlace, type TextAt } from '../../core/model/lines';
  import { cornerOf } from '../../core/numbers/placeLines';
  import { backSide, frontSide } from '../../core/pages/page';
  import type { Book } from '../../core/model/page';
  import { placeWord } from '../../words/numbers';

  type At = Pick<TextAt, 'edge' | 'across'>;
  interface Props {
    book: Book;
    /** The places that are taken; one of them may be the one being set. */
    taken: readonly At[];
    chosen: At | undefined;
    onpick: (at: At) => void;
  }
  /** A pair of facing pages on which a place is selected; its twin on the other page shows where it falls there. */
  let { book, taken, chosen, onpick }: Props = $props();

  const pages = $derived(book.facing ? [backSide(book), frontSide(book)] : [frontSide(book)]);
  const stacked = $derived(book.spine === 'head');
  /** Left and right are offered apart: they do not mirror. */
  const mirrored: readonly LinePlace[] = PLACES.filter((place) => place !== 'left' && place !== 'right');
  const same = (a: At, b: At) => a.edge === b.edge && a.across === b.across;
  const at = (place: At, side: (typeof pages)[number]) => {
    const { x, y } = cornerOf(place, side);
    return { left: { left: '14%', centre: '50%', right: '86%' }[x], top: y === 'head' ? '12%' : '88%' };
  };
</script>

<div class="pair" class:stacked role="radiogroup" aria-label={t`Place`}>
  {#each pages as side, n (side)}
    <div class="page">
      {#each EDGES as edge (edge)}
        {#each mirrored as across (across)}
          {@const place = { edge, across }}
          {@const on = chosen && same(chosen, place)}
          <button
            type="button"
            role="radio"
            aria-checked={!!on}
            aria-hidden={n < pages.length - 1}
            tabindex={n < pages.length - 1 ? -1 : 0}
            aria-label="{edge}, {placeWord(across, book)}"
            title="{edge}, {placeWord(across, book)}"
            class:on
            class:taken={taken.some((one) => same(one, place))}
            style:left={at(place, side).left}
            style:top={at(place, side).top}
            onclick={() => onpick(place)}
          ></button>
        {/each}
      {/each}
    </div>
  {/each}
</div>

<style>
  .pair {
    display: flex;
    justify-content: center;
    padding: 5px 0;
    background: var(--mat);
  }
  .stacked {
    flex-direction: column;
    align-items: center;
  }
  .page {
    position: relative;
    width: 76px;
    height: 60px;
    background: #fffdf7;
    border: 1px solid var(--ink);
  }
  button {
    position: absolute;
    width: 15px;
    height: 11px;
    padding: 0;
    translate: -50% -50%;
    border: 1px dashed var(--ink-2);
    background: none;
    cursor: pointer;
  }
  .taken {
    border-style: solid;
    background: #cfc7b3;
  }
  .on {
    border: 2px solid var(--ink);
    background: var(--pick);
  }
</style>

<script lang="ts">
  import { boundAt } from '../../core/pages/page';
  import type { Book } from '../../core/model/page';
  import Choice from '../parts/Choice.svelte';

  interface Props {
    book: Book;
    onchange: (book: Book) => void;
  }
  let { book, onchange }: Props = $props();
</script>

<Choice
  label="Leaves"
  options={[
    ['facing', 'facing pages'],
    ['loose', 'loose pages'],
  ]}
  value={book.facing ? 'facing' : 'loose'}
  onchange={(which) => onchange({ ...book, facing: which === 'facing' })}
/>
<div class="row">
  <Choice
    label="Spine at the"
    options={[
      ['left', 'left'],
      ['right', 'right'],
      ['head', 'head'],
    ]}
    value={book.spine}
    onchange={(spine) => onchange(boundAt(book, spine))}
  />
  {#if book.facing}
    <Choice
      label="First page lies"
      options={book.spine === 'head'
        ? [
            ['upper', 'above'],
            ['lower', 'below'],
          ]
        : [
            ['left', 'left'],
            ['right', 'right'],
          ]}
      value={book.first}
      onchange={(first) => onchange({ ...book, first })}
    />
  {/if}
</div>

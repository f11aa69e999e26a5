<script lang="ts">
  import type { Book } from '../../core/pages/page';
  import Choice from '../parts/Choice.svelte';

  interface Props {
    book: Book;
    onchange: (book: Book) => void;
  }
  let { book, onchange }: Props = $props();

  /** A book bound at the other side begins at the other side too, unless it was told otherwise. */
  function bind(spine: Book['spine']): void {
    if (spine === book.spine) return;
    onchange({ ...book, spine, first: book.first === 'right' ? 'left' : 'right' });
  }
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
    ]}
    value={book.spine}
    onchange={bind}
  />
  {#if book.facing}
    <Choice
      label="First page lies"
      options={[
        ['left', 'left'],
        ['right', 'right'],
      ]}
      value={book.first}
      onchange={(first) => onchange({ ...book, first })}
    />
  {/if}
</div>

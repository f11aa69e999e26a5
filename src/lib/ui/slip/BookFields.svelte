<script lang="ts">
  import { t } from '../../words/language';
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
  label={t`Leaves`}
  options={[
    ['facing', t`facing pages`],
    ['loose', t`loose pages`],
  ]}
  value={book.facing ? 'facing' : 'loose'}
  onchange={(which) => onchange({ ...book, facing: which === 'facing' })}
/>
<div class="row">
  <Choice
    label={t`Spine at the`}
    options={[
      ['left', t`left`],
      ['right', t`right`],
      ['head', t`head`],
    ]}
    value={book.spine}
    onchange={(spine) => onchange(boundAt(book, spine))}
  />
  {#if book.facing}
    <Choice
      label={t`First page lies`}
      options={book.spine === 'head'
        ? [
            ['upper', t`above`],
            ['lower', t`below`],
          ]
        : [
            ['left', t`left`],
            ['right', t`right`],
          ]}
      value={book.first}
      onchange={(first) => onchange({ ...book, first })}
    />
  {/if}
</div>

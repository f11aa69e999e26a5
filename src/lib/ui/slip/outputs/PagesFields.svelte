<script lang="ts">
  import Choice from '../../parts/Choice.svelte';
  import PagesField from '../PagesField.svelte';
  import type { OutputFieldsProps } from './outputFields';

  let { bench, output, onchange }: OutputFieldsProps<'pages'> = $props();
</script>

<Choice
  label="Pages"
  options={[
    ['all', 'all of them'],
    ['some', 'some'],
  ]}
  value={output.pages === undefined ? 'all' : 'some'}
  onchange={(which) => onchange({ pages: which === 'all' ? undefined : bench.selected.text.trim() || 'all' })}
/>
{#if output.pages !== undefined}
  <PagesField label="Which" value={output.pages} list={bench.base.list} onchange={(pages) => onchange({ pages })} />
{/if}
<Choice
  label="A viewer shows"
  options={[
    ['bleed', 'trim and bleed'],
    ['trim', 'the trim only'],
  ]}
  value={output.crop}
  onchange={(crop) => onchange({ crop })}
/>

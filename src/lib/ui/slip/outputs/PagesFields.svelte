<script lang="ts">
  import { scanOf } from '../../../core/pages/straighten';
  import Choice from '../../parts/Choice.svelte';
  import PagesField from '../PagesField.svelte';
  import type { OutputFieldsProps } from './outputFields';

  let { bench, output, onchange }: OutputFieldsProps<'pages'> = $props();
  const hasScans = $derived(bench.base.list.pages.some((page) => scanOf(page, bench.surveys)));
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
{#if hasScans || output.searchable}
  <label class="tick"
    ><input type="checkbox" checked={!!output.searchable} onchange={(event) => onchange({ searchable: event.currentTarget.checked || undefined })} /> read
    the words on scans, so that they can be found and copied; a few seconds each</label
  >
{/if}

<script lang="ts">
  import { t } from '../../../words/language';
  import { scanOf } from '../../../core/pages/straighten';
  import Choice from '../../parts/Choice.svelte';
  import PagesField from '../PagesField.svelte';
  import type { OutputFieldsProps } from './outputFields';

  let { bench, output, onchange }: OutputFieldsProps<'pages'> = $props();
  const hasScans = $derived(bench.base.list.pages.some((page) => scanOf(page, bench.surveys)));
</script>

<Choice
  label={t`Pages`}
  options={[
    ['all', t`all of them`],
    ['some', t`some`],
  ]}
  value={output.pages === undefined ? 'all' : 'some'}
  onchange={(which) => onchange({ pages: which === 'all' ? undefined : bench.selected.text.trim() || 'all' })}
/>
{#if output.pages !== undefined}
  <PagesField label={t`Which`} value={output.pages} list={bench.base.list} onchange={(pages) => onchange({ pages })} />
{/if}
<Choice
  label={t`A viewer shows`}
  options={[
    ['bleed', t`trim and bleed`],
    ['trim', t`the trim only`],
  ]}
  value={output.crop}
  onchange={(crop) => onchange({ crop })}
/>
{#if hasScans || output.searchable}
  <label class="tick"
    ><input type="checkbox" checked={!!output.searchable} onchange={(event) => onchange({ searchable: event.currentTarget.checked || undefined })} />
    {t`read the words on scans, so that they can be found and copied; a few seconds each`}</label
  >
{/if}

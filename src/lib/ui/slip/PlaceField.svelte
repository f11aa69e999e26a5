<script lang="ts">
  import { t } from '../../words/language';
  import type { PageList } from '../../core/model/page';
  import type { Place } from '../../core/select/place';
  import type { Selection } from '../../core/model/selection';
  import Choice from '../parts/Choice.svelte';
  import PagesField from './PagesField.svelte';

  interface Props {
    value: Place;
    list: PageList;
    /** The page meant where a page must be named and none is yet. */
    beside: Selection;
    onchange: (place: Place) => void;
  }
  let { value, list, beside, onchange }: Props = $props();

  const OPTIONS = [
    ['start', t`Start`],
    ['before', t`Before`],
    ['after', t`After`],
    ['end', t`End`],
  ] as const;
  const choose = (at: Place['at']) => onchange(at === 'before' || at === 'after' ? { at, pages: 'pages' in value ? value.pages : beside } : { at });
</script>

<Choice label={t`Where`} options={OPTIONS} value={value.at} onchange={choose} />
{#if 'pages' in value}
  {@const at = value.at}
  <PagesField label={t`${at === 'before' ? t`Before` : t`After`} page`} value={value.pages} {list} onchange={(pages) => onchange({ at, pages })} />
{/if}

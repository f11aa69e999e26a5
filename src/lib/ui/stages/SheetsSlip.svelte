<script lang="ts">
  import { t } from '../../words/language';
  import { withScheme } from '../../core/docket/edit';
  import { SCHEMES, type Scheme } from '../../core/sheets/schemes';
  import { schemeWords } from '../../words/schemes';
  import type { Bench } from '../bench.svelte';
  import Overview from '../slip/Overview.svelte';
  import ProofLine from '../parts/ProofLine.svelte';
  import SchemeForm from '../slip/SchemeForm.svelte';
  import StepForm from '../slip/StepForm.svelte';

  let { bench }: { bench: Bench } = $props();
  const scheme = $derived(bench.docket.scheme);
  const KINDS = SCHEMES.map(({ kind }) => kind);
  const choose = (kind: Scheme['kind']) => bench.put(withScheme(bench.docket, kind, bench.shown.list));
  const facing = $derived(bench.docket.book.facing);
  const pair = () => bench.put({ ...bench.docket, book: { ...bench.docket.book, facing: !facing } });
</script>

{#if bench.draft.form}
  {#key bench.draft.form}<StepForm {bench} form={bench.draft.form} />{/key}
{:else}
  <Overview {bench} stages={['sheets']} title={t`Sheets`} first>
    <div>
      <label class="label" for="kind">{t`The pages become`}</label>
      <select id="kind" class="field" value={scheme.kind} onchange={(event) => choose(event.currentTarget.value as Scheme['kind'])}>
        {#each KINDS as kind (kind)}<option value={kind}>{schemeWords(kind).name}</option>{/each}
      </select>
      <p class="quiet">{schemeWords(scheme.kind).said}</p>
      {#if scheme.kind === 'flat'}
        <p class="quiet">
          {facing ? t`Pages are fronts and backs in turn: 1 and 2 are one piece.` : t`Each page is a piece of its own, with nothing on its back.`}
          <button class="link" type="button" onclick={pair}>{facing ? t`Each page by itself` : t`Fronts and backs in turn`}</button>
        </p>
      {/if}
    </div>
    {#if scheme.kind !== 'none'}
      <div class="proof"><ProofLine {bench} /><a href="/jobs/{bench.id}/dummy">{t`Fold it`}</a></div>
      {#key scheme.kind}<SchemeForm {bench} {scheme} />{/key}
    {/if}
  </Overview>
{/if}

<style>
  .proof {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 10px;
    font-size: 13px;
  }
  .proof a {
    white-space: nowrap;
  }
  p {
    margin: 5px 0 0;
    font-size: 12.5px;
  }
</style>

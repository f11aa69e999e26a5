<script lang="ts">
  import { t } from '../../words/language';
  import { plural } from '../../words/plural';
  import { namePages } from '../../words/pages';
  import { getContext } from 'svelte';
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import { inksOf, namesOf, PROCESS, type JobInk } from '../../core/numbers/jobInks';
  import { facesOf } from '../../core/pages/page';
  import { describeIndexes } from '../../core/select/selection';
  import { stepWords } from '../../words/steps';
  import type { Bench } from '../bench.svelte';
  import { newStepId } from '../newStepId';
  import { screenColor } from '../mat/ink';
  import Folded from '../parts/Folded.svelte';
  import type { Pictures } from '../pictures.svelte';

  /** The inks of the job: where each is, what brought it; one alone or without it on the mat. */
  let { bench }: { bench: Bench } = $props();
  const pictures = getContext<Pictures>('pictures');

  const inks = $derived(inksOf(bench.base.list, bench.surveys, bench.docket));
  const faces = $derived(facesOf(bench.base.list));
  const names = $derived(inks.map(({ name }) => name));
  const isHidden = (name: string) => pictures.hidden.includes(name);
  const alone = (name: string) => !isHidden(name) && names.length > 1 && names.every((other) => other === name || isHidden(other));

  function hide(hidden: readonly string[]): void {
    pictures.hidden = [...new Set(hidden.flatMap((name) => namesOf(name, bench.base.list, bench.surveys)))].sort();
  }
  const toggle = (name: string) => hide(names.filter((other) => (other === name ? !isHidden(name) : isHidden(other))));
  const only = (name: string) => hide(alone(name) ? [] : names.filter((other) => other !== name));

  function color({ name, kind, mix }: JobInk): string {
    if (kind === 'spot') return mix ? screenColor({ as: 'spot', name, tint: 1, mix }) : '#888';
    const n = PROCESS.findIndex((plate) => plate === name);
    const on = (plate: number) => (plate === n ? 1 : 0);
    const [c, m, y, k] = [on(0), on(1), on(2), on(3)];
    return n < 0 ? `linear-gradient(90deg, #d33, #3a3, #33d)` : screenColor({ as: 'process', c, m, y, k });
  }
  const where = ({ pages }: JobInk): string => {
    const ids = new Set(pages);
    const here = faces.flatMap(({ id }, index) => (ids.has(id) ? [index] : []));
    const cover = here.length < ids.size ? t`cover` : '';
    if (!here.length) return cover;
    const also = cover && t` and ${cover}`;
    if (here.length === faces.length) return t`all pages${also}`;
    const said = describeIndexes(here, bench.base.list) + also;
    return said.length > 18 ? plural(pages.length, 'page') : namePages(pages.length, said);
  };
  const by = ({ steps }: JobInk): string =>
    steps
      .flatMap((id) => {
        const n = bench.docket.steps.findIndex((step) => step.id === id);
        return n < 0 ? [] : [`${n + 1} ${stepWords(bench.docket.steps[n]!.kind).name.toLowerCase()}`];
      })
      .join(', ');
</script>

<Folded title={t`Inks`} count={inks.length} open={pictures.hidden.length > 0}>
  <ul>
    {#each inks as ink (ink.kind + ink.name)}
      <li class:hidden={isHidden(ink.name)} class:elsewhere={bench.selected.ids.size > 0 && !ink.pages.some((id) => bench.selected.ids.has(id))}>
        <i style:background={color(ink)}></i>
        <span
          ><b>{ink.name}</b>{ink.kind === 'spot' ? t` spot` : ''}<small
            ><button class="link" onclick={() => bench.selected.choose(ink.pages)}>{where(ink)}</button>
            {t`· step ${by(ink) || '–'}`}{#if ink.kind === 'spot'}
              · <button
                class="link"
                aria-label={t`Rename ${ink.name}`}
                onclick={() => bench.open({ kind: 'ink', begun: { id: newStepId(), kind: 'ink', from: ink.name, to: ink.name } })}>{t`rename`}</button
              >{/if}</small
          ></span
        >
        <button class="link" aria-pressed={alone(ink.name)} aria-label={t`${ink.name} alone`} onclick={() => only(ink.name)}>{t`alone`}</button>
        <button
          class="eye"
          aria-pressed={isHidden(ink.name)}
          aria-label={t`Hide ${ink.name}`}
          title={t`${isHidden(ink.name) ? t`Show` : t`Hide`} on the mat`}
          onclick={() => toggle(ink.name)}
          >{#if isHidden(ink.name)}<EyeOff size={14} />{:else}<Eye size={14} />{/if}</button
        >
      </li>
    {/each}
  </ul>
  {#if bench.selected.ids.size}<p class="quiet">{t`Those that the selected pages do not have are pale.`}</p>{/if}
  {#if pictures.hidden.length}
    <p class="quiet">
      {t`Only the mat leaves them out; what goes out has them all.`} <button class="link" onclick={() => hide([])}>{t`Show all`}</button>
    </p>
  {/if}
</Folded>

<style>
  ul {
    display: grid;
    gap: 4px;
    margin: 6px 0 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: 12px minmax(0, 1fr) auto auto;
    gap: 7px;
    align-items: center;
  }
  i {
    height: 22px;
    border: 1px solid var(--ink-2);
  }
  b {
    font-weight: 500;
  }
  small {
    display: block;
    color: var(--ink-2);
  }
  .hidden b {
    text-decoration: line-through;
  }
  .elsewhere i,
  .elsewhere b {
    opacity: 0.4;
  }
  .eye {
    padding: 0;
    border: 0;
    background: none;
    line-height: 0;
    cursor: pointer;
  }
  .link[aria-pressed='true'] {
    font-weight: 700;
    text-decoration: none;
  }
  p {
    margin-top: 6px;
  }
</style>

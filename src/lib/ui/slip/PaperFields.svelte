<script lang="ts">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { stepKind } from '../../core/docket/steps';
  import type { Size } from '../../core/measure/box';
  import { formatSize } from '../../core/measure/formatLength';
  import { NAMED_SIZES, nameSize, pixels, sameSize, SCREEN_PPI, SCREEN_SIZES, sizeByName } from '../../core/paper/sizes';
  import { saySize } from '../../words/sizes';
  import { sayTrouble } from '../../words/troubles';
  import { sayPageLength } from '../../words/lengths';
  import { Refused } from '../api';
  import type { Bench } from '../bench.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import NumberField from './NumberField.svelte';
  import { sizes } from '../sizes.svelte';

  interface Props {
    bench: Bench;
    value: Size;
    onchange: (size: Size, wrong: boolean) => void;
  }
  let { bench, value, onchange }: Props = $props();
  sizes.load();

  const unit = $derived(bench.unit);
  const families = [...new Set(NAMED_SIZES.map(({ family }) => family))];
  let wrong = $state({ width: false, height: false, like: false });
  let ppi = $state(SCREEN_PPI);
  let screens = $state(false);
  let keeping = $state<string | undefined>();
  let trouble = $state('');

  const chosen = $derived.by(() => {
    const own = sizes.own.find((size) => sameSize(size, value));
    if (own) return `own:${own.name}`;
    const screen = screens && SCREEN_SIZES.find((size) => sameSize(inPoints(size), value));
    if (screen) return `screen:${screen.name}`;
    const known = nameSize(value);
    return known && !known.landscape ? `named:${known.name}` : '';
  });
  const inPoints = ({ width, height }: Size): Size => ({ width: pixels(width, ppi), height: pixels(height, ppi) });
  const ownName = $derived(chosen.startsWith('own:') ? chosen.slice(4) : undefined);

  function side(which: 'width' | 'height', points: number | undefined): void {
    say(which, points === undefined, points === undefined ? {} : { [which]: points });
  }
  /** Says the size with a change of it, and whether a field holds what cannot be used. */
  function say(field: keyof typeof wrong, bad: boolean, change: Partial<Size> = {}): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ width: value.width, height: value.height, ...change }, Object.values(wrong).some(Boolean));
  }
  function take({ width, height }: Size): void {
    wrong = { width: false, height: false, like: false };
    onchange({ width, height }, false);
  }
  function choose(key: string): void {
    const [kind, name] = [key.slice(0, key.indexOf(':')), key.slice(key.indexOf(':') + 1)];
    screens = kind === 'screen';
    if (kind === 'recent') take(sizes.recent[Number(name)]!);
    else if (kind === 'own') take(sizes.own.find((size) => size.name === name)!);
    else if (kind === 'screen') take(inPoints(SCREEN_SIZES.find((size) => size.name === name)!));
    else take(sizeByName(name)!);
  }
  const PPI = limitsOf(stepKind('take-in').schema, 'ppi');
  function setPpi(count: number): void {
    // The pixels stay, so the length follows the resolution.
    const pixelsNow = { width: (value.width * ppi) / 72, height: (value.height * ppi) / 72 };
    ppi = count;
    take(inPoints(pixelsNow));
  }
  /** Takes the size of the page at a position. */
  function like(position: number): void {
    const page = bench.base.list.pages[position - 1];
    if (page) take(page.trim);
  }
  async function keep(): Promise<void> {
    if (!keeping?.trim()) return;
    try {
      await sizes.keep(keeping.trim(), value);
      [keeping, trouble] = [undefined, ''];
    } catch (error) {
      trouble = error instanceof Refused ? sayTrouble(error.trouble) : t`Not kept: the server does not answer. Try again in a moment.`;
    }
  }
</script>

<div>
  <label class="label" for="named-size">{t`Named size`}</label>
  <select id="named-size" class="field" value={chosen} onchange={(event) => choose(event.currentTarget.value)}>
    <option value="" disabled>{t`own size`}</option>
    {#if sizes.recent.length}
      <optgroup label={t`used last`}>
        {#each sizes.recent as size, i (i)}<option value="recent:{i}">{saySize(size, unit)}</option>{/each}
      </optgroup>
    {/if}
    {#if sizes.own.length}
      <optgroup label={t`named here`}>
        {#each sizes.own as size (size.name)}<option value="own:{size.name}">{size.name} · {formatSize(size.width, size.height, unit)}</option>{/each}
      </optgroup>
    {/if}
    {#each families as family (family)}
      <optgroup label={family}>
        {#each NAMED_SIZES.filter((size) => size.family === family) as size (size.name)}
          <option value="named:{size.name}">{size.name} · {formatSize(size.width, size.height, unit)}</option>
        {/each}
      </optgroup>
    {/each}
    <optgroup label={t`screens, at ${ppi} px an inch`}>
      {#each SCREEN_SIZES as size (size.name)}<option value="screen:{size.name}">{size.name}</option>{/each}
    </optgroup>
  </select>
</div>
<div class="sides">
  <LengthField label={t`Width`} value={value.width} {unit} {ppi} check={sayPageLength} onchange={(points) => side('width', points)} />
  <LengthField label={t`Height`} value={value.height} {unit} {ppi} check={sayPageLength} onchange={(points) => side('height', points)} />
  <button
    class="btn q swap"
    type="button"
    title={t`Swap width and height`}
    aria-label={t`Swap width and height`}
    onclick={() => take({ width: value.height, height: value.width })}>⇄</button
  >
</div>
<div class="more">
  {#if screens}
    <NumberField inline label={t`px an inch`} value={ppi} {...PPI} onchange={(count, bad) => !bad && setPpi(count)} />
  {/if}
  {#if bench.base.list.pages.length}
    <NumberField
      inline
      whole
      label={t`like page`}
      value={undefined}
      least={1}
      most={bench.base.list.pages.length}
      onempty={() => say('like', false)}
      onchange={(position, bad) => (bad ? say('like', true) : like(position))}
    />
  {/if}
  {#if ownName}
    <button type="button" class="link" onclick={() => void sizes.drop(ownName)}>{t`remove “${ownName}”`}</button>
  {:else if keeping === undefined && !chosen}
    <button type="button" class="link" onclick={() => (keeping = '')}>{t`name this size`}</button>
  {/if}
</div>
{#if keeping !== undefined}
  <div class="keep">
    <label class="label" for="size-name">{t`Name for ${formatSize(value.width, value.height, unit)}`}</label>
    <input
      id="size-name"
      class="field"
      maxlength="60"
      autocomplete="off"
      bind:value={keeping}
      onkeydown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          void keep();
        }
      }}
    />
    <button type="button" class="link" onclick={() => void keep()}>{t`Keep it for all jobs`}</button>
    {#if trouble}<p class="wrong" role="alert">{trouble}</p>{/if}
  </div>
{/if}

<style>
  .sides {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 30px;
    gap: 6px;
    align-items: start;
  }
  .swap {
    margin-top: 20px;
    padding: 5px 0;
    justify-content: center;
  }
  .more {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 14px;
    margin-top: -4px;
    font-size: 12.5px;
  }
  .keep {
    padding: 8px 10px;
    background: var(--card-2);
    font-size: 12.5px;
  }
</style>

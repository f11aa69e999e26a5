<script lang="ts">
  import { t } from '../../../words/language';
  import { untrack } from 'svelte';
  import { quarters, type Turn } from '../../../core/measure/matrix';
  import { gridOf, parseOrder, rescue, RescueError, SCAN_ORDERS, withTurn, type Arrangement } from '../../../core/pages/rescue';
  import { pickedOf } from '../../../core/select/selection';
  import { workOutOrder, type Proposal } from '../../../core/pages/workOutOrder';
  import { turnPage } from '../../../core/pages/turn';
  import { SCAN_ORDER_WORD, sayTold } from '../../../words/scans';
  import Choice from '../../parts/Choice.svelte';
  import Folded from '../../parts/Folded.svelte';
  import Measuring from '../../parts/Measuring.svelte';
  import CutFields from '../CutFields.svelte';
  import DoubtfulScan from '../DoubtfulScan.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'reading-order'> = $props();

  // The pages of a booklet face each other, however its scans lay.
  untrack(() => {
    if (!bench.draft.form?.step && !bench.docket.book.facing) bench.draft.book = { ...bench.docket.book, facing: true };
  });
  const scans = $derived(pickedOf(step.pages, before).map((index) => before.pages[index]!));
  const { arrangement } = $derived(step);
  const spine = $derived(before.book.spine);
  let wrong = $state({ cut: false, own: false, turned: false });
  function set(change: Partial<typeof step>, field?: keyof typeof wrong, bad = false): void {
    if (field) wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }

  function choose(by: Arrangement['by']): void {
    wrong = { ...wrong, own: false };
    if (by === 'stitched') set({ arrangement: { by, scans: 'sheets' } });
    else if (by === 'signature') set({ arrangement: { by, pages: 16 } });
    else if (by === 'spreads') set({ arrangement: { by } });
    else set({ arrangement: { by, ...grid, order: known?.map(({ scan, part }) => grid.columns * grid.rows * scan + part + 1) ?? [1] } });
  }

  const known = $derived.by(() => {
    try {
      return rescue(scans.length, arrangement, spine);
    } catch (error) {
      if (error instanceof RescueError) return undefined;
      throw error;
    }
  });
  const grid = $derived(gridOf(arrangement, spine));
  const turnOfScan = (n: number): Turn => step.turned?.find((each) => each.scans.includes(n))?.by ?? 0;
  /** What becomes of each scan: its turn, and the positions of its parts. */
  const mapping = $derived(
    scans.map((_, scan) => ({
      turn: turnOfScan(scan + 1),
      positions: Array.from({ length: grid.columns * grid.rows }, (_, part) =>
        known ? known.findIndex((found) => found.scan === scan && found.part === part) + 1 : 0,
      ),
    })),
  );

  let proposal = $state.raw<Proposal | undefined>();
  function workOut(): void {
    proposal = workOutOrder(scans, bench.surveys, spine);
    answered = [];
    if (!proposal) return;
    wrong = { cut: wrong.cut, own: false, turned: false };
    orderText = undefined;
    turnedTexts = {};
    onchange({ ...step, arrangement: proposal.arrangement, turned: proposal.turned.length ? proposal.turned : undefined }, wrong.cut);
  }
  /** Scans, from 1, of which somebody said how they lie. */
  let answered = $state<number[]>([]);
  const doubtful = $derived(proposal?.mixed ? proposal.unsure.filter((n) => n <= scans.length && !answered.includes(n)).slice(0, 4) : []);
  function answer(n: number, upsideDown: boolean): void {
    answered = [...answered, n];
    const turned = upsideDown ? withTurn(step.turned ?? [], n, quarters(turnOfScan(n) + 180)) : step.turned;
    // What was said of these scans holds for no other job.
    set({ turned: turned?.length ? turned : undefined, byNumbers: undefined });
  }
  const measuring = $derived(scans.some(({ art }) => art && bench.isMeasuring(art.source)));

  let orderText = $state<string | undefined>();
  function readOrder(text: string): void {
    orderText = text;
    const order = parseOrder(text);
    if (arrangement.by === 'own') set(order ? { arrangement: { ...arrangement, order } } : {}, 'own', !order);
  }

  const TURNS = [
    [90, t`Turn right 90°`],
    [180, t`Turn 180°`],
    [270, t`Turn left 90°`],
  ] as const;
  let turnedTexts = $state<Record<number, string>>({});
  const turnedText = (by: number): string => turnedTexts[by] ?? step.turned?.find((each) => each.by === by)?.scans.join(', ') ?? '';
  function turn(by: 90 | 180 | 270, text: string): void {
    turnedTexts = { ...turnedTexts, [by]: text };
    const scansTurned = text.trim() ? parseOrder(text) : [];
    const others = (step.turned ?? []).filter((each) => each.by !== by);
    const turned = scansTurned?.length ? [...others, { scans: scansTurned, by }] : others;
    const bad = !scansTurned || scansTurned.some((scan) => scan > scans.length);
    set(bad ? {} : { turned: turned.length ? turned : undefined }, 'turned', bad);
  }
</script>

<button class="btn q" type="button" disabled={!scans.length || measuring} onclick={workOut}
  >{measuring ? t`Reading the pages …` : t`Work it out`}</button
>
<Measuring {bench} />
{#if proposal}
  <p class="small" role="status">
    {#if proposal.from === 'numbers'}
      {t`From the numbers on the pages: ${proposal.agree.length} agree${proposal.differ.length ? t`, ${proposal.differ.length} do not (pages ${proposal.differ.join(', ')})` : ''}${proposal.unread.length ? t`, ${proposal.unread.length} have none` : ''}.`}
    {:else}
      {t`These pages carry no numbers that can be read: proposed from ${scans.length} scans and how they lie. Look through the result.`}
    {/if}
    {sayTold(proposal.told)}
  </p>
  {#each doubtful as n (n)}
    <DoubtfulScan page={turnPage(scans[n - 1]!, turnOfScan(n))} scan={n} surveys={bench.surveys} onanswer={(upsideDown) => answer(n, upsideDown)} />
  {/each}
{/if}
<label class="tick"
  ><input
    type="checkbox"
    checked={!!step.byNumbers}
    onchange={(event) => onchange({ ...step, byNumbers: event.currentTarget.checked ? true : undefined }, wrong.cut)}
  />
  {t`work it out anew on every job that a recipe brings it to`}</label
>
<Choice
  label={t`The scans show`}
  options={[
    ['stitched', t`stitched`],
    ['signature', t`signature`],
    ['spreads', t`spreads`],
    ['own', t`own list`],
  ]}
  value={arrangement.by}
  onchange={choose}
/>
{#if arrangement.by === 'stitched'}
  <div>
    <label class="label" for="scan-order">{t`One after another`}</label>
    <select
      id="scan-order"
      class="field"
      value={arrangement.scans}
      onchange={(event) => set({ arrangement: { by: 'stitched', scans: event.currentTarget.value as (typeof SCAN_ORDERS)[number] } })}
    >
      {#each SCAN_ORDERS as order (order)}<option value={order}>{SCAN_ORDER_WORD[order]}</option>{/each}
    </select>
  </div>
{:else if arrangement.by === 'signature'}
  <Choice
    label={t`Pages in each`}
    options={[
      ['8', '8'],
      ['16', '16'],
      ['32', '32'],
    ]}
    value={String(arrangement.pages) as '8' | '16' | '32'}
    onchange={(pages) => set({ arrangement: { by: 'signature', pages: Number(pages) as 8 | 16 | 32 } })}
  />
{:else if arrangement.by === 'own'}
  <div>
    <label class="label" for="own-order">{t`Parts in reading order`}</label>
    <input
      id="own-order"
      class="field mono"
      autocomplete="off"
      value={orderText ?? arrangement.order.join(', ')}
      oninput={(event) => readOrder(event.currentTarget.value)}
    />
    {#if wrong.own}<p class="wrong" role="alert">{t`Parts are counted scan by scan, from the left: 2, 3, 6-8.`}</p>{/if}
  </div>
{/if}
<Folded title={t`Where each is cut`} open={step.at !== undefined || step.gutter !== 0}>
  <CutFields
    value={step}
    along={grid.columns * grid.rows === 2 ? (grid.columns === 2 ? 'width' : 'height') : undefined}
    size={scans[0]?.trim}
    unit={bench.unit}
    onchange={({ at, gutter }, bad) => {
      const { at: _, ...rest } = step;
      wrong = { ...wrong, cut: bad };
      onchange({ ...rest, ...(at === undefined ? {} : { at }), gutter }, Object.values(wrong).some(Boolean));
    }}
  />
</Folded>
<Folded title={t`Scans that lie turned`} count={step.turned?.flatMap((each) => each.scans).length ?? 0} open={!!step.turned}>
  {#each TURNS as [by, word] (by)}
    <label class="turn"
      >{word}
      <input
        class="field mono"
        placeholder={t`none`}
        autocomplete="off"
        value={turnedText(by)}
        oninput={(event) => turn(by, event.currentTarget.value)}
      /></label
    >
  {/each}
  {#if wrong.turned}<p class="wrong" role="alert">{t`Scans are counted from 1 to ${scans.length}: 2, 5-7.`}</p>{/if}
</Folded>
{#if known}
  <Folded title={t`What becomes of each scan`} count={scans.length} open>
    <div class="listing">
      <table class="mono">
        <thead><tr><th>{t`scan`}</th><th>{t`pages, from the left`}</th><th>{t`turn`}</th></tr></thead>
        <tbody>
          {#each mapping as { turn, positions }, n (n)}
            <tr><td>{n + 1}</td><td>{positions.join(' · ')}</td><td>{turn ? `${turn}°` : ''}</td></tr>
          {/each}
        </tbody>
      </table>
    </div>
  </Folded>
{/if}

<style>
  .turn {
    display: grid;
    grid-template-columns: 110px 1fr;
    align-items: center;
    margin-top: 4px;
  }
</style>

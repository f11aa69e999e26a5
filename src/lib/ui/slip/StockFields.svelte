<script lang="ts">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import type { Size } from '../../core/measure/box';
  import { formatLength, formatSize } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { nameSize } from '../../core/paper/sizes';
  import { caliperOf, MOST_CALIPER, samePaper, STOCKS, stocksFor, type Stock, stockSchema } from '../../core/paper/stock';
  import { sayPageLength } from '../../words/lengths';
  import { papers } from '../kept.svelte';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import KeptList from './KeptList.svelte';
  import NumberField from './NumberField.svelte';

  interface Props {
    label: string;
    stock: Stock;
    unit: Unit;
    /** What is to find room on it. */
    needed: Size | undefined;
    /** The sheet as it lies on the press: its width and height are those that are seen. */
    drawn?: Size | undefined;
    /** Undefined while a field holds what cannot be used. */
    onchange: (stock: Stock | undefined) => void;
  }
  /** A sheet of paper: its size, what is known of it, and the papers kept for every job. */
  let { label, stock, unit, needed, drawn, onchange }: Props = $props();
  const id = $props.id();
  papers.load();

  const name = $derived(nameSize(stock)?.name ?? '');
  const offered = $derived(STOCKS.some((known) => known.name === name) ? name : '');
  const takesAll = $derived(needed && new Set(stocksFor(needed).map(({ name }) => name)));
  const kept = $derived(papers.all.find(({ settings }) => samePaper(settings, stock)));
  const caliper = $derived(caliperOf(stock));
  const set = (change: Partial<Stock>) => onchange({ ...stock, ...change });
  const figure = (key: 'grammage' | 'bulk') => ({
    value: stock[key],
    ...limitsOf(stockSchema, key),
    onchange: (value: number, wrong: boolean) => onchange(wrong ? undefined : { ...stock, [key]: value }),
    onempty() {
      const { [key]: _, ...rest } = stock;
      onchange(rest);
    },
  });
  /** It lies on its other side on the press. */
  const lies = $derived(!!drawn && drawn.width === stock.height && drawn.height === stock.width);
  /** While both are typed, one after the other, the two fields stay what they were, however the sheet comes to lie meanwhile. */
  let typed = $state<boolean | undefined>();
  const [across, up] = $derived((typed ?? lies) ? (['height', 'width'] as const) : (['width', 'height'] as const));
  const length = (key: 'width' | 'height') => (points: number | undefined) =>
    onchange(points === undefined ? undefined : { ...stock, [key]: points });
  /** The thickness as typed; 0 leaves it to grammage and bulk. */
  function setCaliper(points: number | undefined): void {
    if (points === undefined) return onchange(undefined);
    const { caliper: _, ...rest } = stock;
    onchange(points ? { ...rest, caliper: points } : rest);
  }
  function choose(key: string): void {
    if (key.startsWith('kept:')) return onchange(papers.all.find(({ name }) => name === key.slice(5))!.settings);
    const { width, height } = STOCKS.find((known) => known.name === key)!;
    set({ width, height });
  }
  const paper = $derived(
    [
      stock.grammage ? `${stock.grammage} g/m²` : '',
      stock.caliper || caliper ? t`${formatLength(stock.caliper ?? caliper ?? 0, unit === 'in' ? 'in-decimal' : unit)} thick` : '',
      stock.grain ? t`grain along the ${stock.grain} side` : '',
    ]
      .filter(Boolean)
      .join(' · ') || t`nothing said of it`,
  );
  const say = ({ width, height, grammage }: Stock) => `${formatSize(width, height, unit)}${grammage ? `, ${grammage} g` : ''}`;
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <select {id} class="field" value={kept ? `kept:${kept.name}` : offered} onchange={(event) => choose(event.currentTarget.value)}>
    <option value="" disabled>{t`own size`}</option>
    {#if papers.all.length}
      <optgroup label={t`kept papers`}>
        {#each papers.all as { name, settings } (name)}<option value="kept:{name}">{name} · {say(settings)}</option>{/each}
      </optgroup>
    {/if}
    {#each STOCKS as known (known.name)}
      <option value={known.name}
        >{known.name} · {formatSize(known.width, known.height, unit)}{takesAll && !takesAll.has(known.name) ? t` · too small` : ''}</option
      >
    {/each}
  </select>
</div>
<div
  class="row"
  onfocusin={() => (typed ??= lies)}
  onfocusout={({ currentTarget, relatedTarget }) => {
    if (!(relatedTarget instanceof Node && currentTarget.contains(relatedTarget))) typed = undefined;
  }}
>
  <LengthField label={t`Sheet width`} value={stock[across]} {unit} check={sayPageLength} onchange={length(across)} />
  <LengthField label={t`Sheet height`} value={stock[up]} {unit} check={sayPageLength} onchange={length(up)} />
</div>
<Folded title={t`Paper`} said={paper}>
  <div class="fields">
    <div class="row">
      <NumberField label={t`Grammage`} unit="g/m²" {...figure('grammage')} />
      <NumberField label={t`Bulk`} unit="cm³/g" {...figure('bulk')} />
    </div>
    <div class="row">
      <LengthField
        label={t`Thickness of a leaf`}
        value={stock.caliper ?? caliper ?? 0}
        unit={unit === 'in' ? 'in-decimal' : unit}
        check={(points) =>
          points < 0
            ? t`Paper is thicker than 0; 0 leaves it to grammage and bulk.`
            : points > MOST_CALIPER
              ? t`More than ${formatLength(MOST_CALIPER, unit)} is board.`
              : undefined}
        onchange={setCaliper}
      />
      <Choice
        label={t`Grain along the`}
        options={[
          ['', '?'],
          ['long', t`long side`],
          ['short', t`short`],
        ]}
        value={stock.grain ?? ''}
        onchange={(grain) => {
          const { grain: _, ...rest } = stock;
          onchange(grain ? { ...rest, grain } : rest);
        }}
      />
    </div>
    <p class="quiet">
      {stock.caliper !== undefined
        ? t`As typed. Type 0, and it follows from grammage and bulk.`
        : caliper === undefined
          ? t`Type grammage and bulk, and the thickness follows; or type it.`
          : t`${stock.grammage} × ${stock.bulk} = ${Math.round(stock.grammage! * stock.bulk!)} µm (ISO 534) = ${formatLength(caliper, 'mm')}.`}
    </p>
    <KeptList
      title={t`Kept papers`}
      store={papers}
      now={stock}
      {say}
      none={t`None yet. A paper kept here, with its size and thickness, is there for every job.`}
      onuse={({ settings }) => onchange(settings)}
    />
  </div>
</Folded>

<script lang="ts">
  import type { BorderFold } from '../../core/fold/fold';
  import type { PatternChoice } from '../../core/fold/patterns';
  import type { Unit } from '../../core/measure/unit';
  import LengthsField from './LengthsField.svelte';

  type Own = Extract<PatternChoice, { fold: 'own' }>;
  interface Props {
    pattern: Own;
    unit: Unit;
    /** Undefined while what is typed cannot be used. */
    onchange: (pattern: Own | undefined) => void;
  }
  /** The preparer's own folds: panels by their widths and heights, and the folds one after another. */
  let { pattern, unit, onchange }: Props = $props();
  const setFold = (n: number, change: Partial<BorderFold>) =>
    onchange({ ...pattern, folds: pattern.folds.map((fold, m) => (m === n ? { ...fold, ...change } : fold)) });
  /** The next border from the left that is not folded yet. */
  function add(): void {
    const folded = pattern.folds.filter(({ axis }) => axis === 'vertical').map(({ border }) => border);
    const border = Array.from({ length: pattern.columns.length - 1 }, (_, n) => n + 1).find((n) => !folded.includes(n)) ?? 1;
    onchange({ ...pattern, folds: [...pattern.folds, { axis: 'vertical', border, moves: 'before', goes: 'under' }] });
  }
</script>

{#each [['columns', 'Panels from the left'], ['rows', 'Panels from the foot']] as const as [key, label] (key)}
  <LengthsField {label} value={pattern[key]} {unit} onchange={(lengths) => onchange(lengths && { ...pattern, [key]: lengths })} />
{/each}
<ol>
  {#each pattern.folds as fold, n (n)}
    {@const across = fold.axis === 'horizontal'}
    <li>
      <select
        class="field"
        aria-label="Fold {n + 1}: border"
        value="{fold.axis} {fold.border}"
        onchange={(event) => {
          const [axis, border] = event.currentTarget.value.split(' ') as [BorderFold['axis'], string];
          setFold(n, { axis, border: Number(border) });
        }}
      >
        {#each pattern.columns.slice(1) as _, border (border)}<option value="vertical {border + 1}">{border + 1} | {border + 2}</option>{/each}
        {#each pattern.rows.slice(1) as _, border (border)}<option value="horizontal {border + 1}">row {border + 1} / {border + 2}</option>{/each}
      </select>
      <select
        class="field"
        aria-label="Fold {n + 1}: what moves"
        value={fold.moves}
        onchange={(event) => setFold(n, { moves: event.currentTarget.value as BorderFold['moves'] })}
      >
        <option value="before">{across ? 'lower' : 'left'} part</option><option value="after">{across ? 'upper' : 'right'} part</option>
      </select>
      <select
        class="field"
        aria-label="Fold {n + 1}: over or under"
        value={fold.goes}
        onchange={(event) => setFold(n, { goes: event.currentTarget.value as BorderFold['goes'] })}
      >
        <option value="under">under</option><option value="over">over</option>
      </select>
      <button
        type="button"
        class="link"
        aria-label="Take out fold {n + 1}"
        disabled={pattern.folds.length === 1}
        onclick={() => onchange({ ...pattern, folds: pattern.folds.toSpliced(n, 1) })}>×</button
      >
    </li>
  {/each}
</ol>
<button type="button" class="link" disabled={pattern.folds.length >= 30} onclick={add}>one more fold</button>

<style>
  ol {
    display: grid;
    gap: 6px;
    margin: 0;
    padding-left: 20px;
    font: 12px var(--mono);
  }
  li {
    white-space: nowrap;
  }
  li select {
    width: 68px;
    padding: 2px;
    font-size: 12px;
  }
</style>

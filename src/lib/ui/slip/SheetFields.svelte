<script lang="ts">
  import { t } from '../../words/language';
  import type { Bench } from '../bench.svelte';
  import WhichSheet from './WhichSheet.svelte';
  import { nameSize } from '../../core/paper/sizes';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { schemeSchema } from '../../core/sheets/schemes';
  import { formatLength, formatSize } from '../../core/measure/formatLength';
  import type { SheetPlan } from '../../core/sheets/plan';
  import { workOf } from '../../core/sheets/press';
  import { LAYS, WORK_STYLES } from '../../core/sheets/pressTerms';
  import { PLAIN_OVERS } from '../../core/sheets/scheme';
  import type { PressScheme } from '../../core/sheets/schemes';
  import { WORK_STYLE_NAME } from '../../words/press';
  import { sayDistance } from '../../words/lengths';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import NumberField from './NumberField.svelte';
  import StockFields from './StockFields.svelte';
  import type { PressDraft } from './schemeDraft.svelte';

  let { bench, draft, plan }: { bench: Bench; draft: PressDraft; plan: SheetPlan | undefined } = $props();
  const scheme = $derived(draft.value);
  const unit = $derived(draft.unit);
  /** As typed; where as many as fit are wanted, as many as did. */
  const copies = $derived(typeof scheme.copies === 'object' ? scheme.copies : (plan?.grid ?? plan?.copies ?? { across: 1, up: 1 }));
  const shared = (change: Partial<PressScheme>) => draft.set(change);

  const under = (what: string) => (points: number) => sayDistance(points, what, scheme.stock, unit);
  /** As it was chosen, else as it was planned for these pages. */
  const work = $derived(scheme.work ?? plan?.work ?? workOf(scheme));
  const LAY_NAME = { centre: t`in the middle`, left: t`at the left`, right: t`at the right` };
  const paper = $derived.by(() => {
    const { width, height } = plan?.sheet ?? scheme.stock;
    return [nameSize(scheme.stock)?.name, formatSize(width, height, unit), scheme.stock.grammage && `${scheme.stock.grammage} g/m²`]
      .filter(Boolean)
      .join(' · ');
  });
  /** How it is printed and lies, and how many pieces are wanted, in a line each. */
  const pressed = $derived(
    [
      WORK_STYLE_NAME[work],
      scheme.copies === 'most' ? t`as many as fit` : `${copies.across} × ${copies.up}`,
      LAY_NAME[scheme.lay ?? 'centre'],
      scheme.turned ? t`turned ${scheme.turned}°` : '',
      scheme.gripper ? t`gripper ${formatLength(scheme.gripper, unit)}` : '',
    ]
      .filter(Boolean)
      .join(' · '),
  );
  const run = $derived(
    [scheme.run?.pieces ? t`${scheme.run.pieces} pieces` : '', t`${scheme.run?.overs ?? PLAIN_OVERS} % overs`].filter(Boolean).join(' · '),
  );
  function setCopies(key: 'across' | 'up', value: number, wrong: boolean): void {
    draft.take(wrong ? undefined : value, (given) => ({ copies: { ...copies, [key]: given } }));
  }
  /** Ganged pieces say themselves how many of them are wanted. */
  const ganged = $derived('arrange' in scheme && scheme.arrange === 'gang');
</script>

<Folded title={t`Sheet and paper`} said={paper} open>
  <div class="fields">
    <StockFields
      label={t`Sheet`}
      stock={scheme.stock}
      {unit}
      needed={plan?.needed.marks}
      drawn={bench.base.plan?.sheet}
      onchange={(given) => draft.take(given, (stock) => ({ stock }))}
    />
    <WhichSheet {bench} {draft} />
  </div>
</Folded>
<Folded title={t`Press`} said={pressed}>
  <div class="fields">
    <div class="row">
      <div>
        <label class="label" for="work">{t`Printed`}</label>
        <select
          id="work"
          class="field"
          value={work}
          onchange={(event) => shared({ work: event.currentTarget.value as (typeof WORK_STYLES)[number] })}
        >
          {#each WORK_STYLES as each (each)}<option value={each}>{WORK_STYLE_NAME[each]}</option>{/each}
        </select>
      </div>
      {#if work === 'sheetwise'}
        <Choice
          label={t`Turns on its`}
          options={[
            ['short-edge', t`short edge`],
            ['long-edge', t`long edge`],
          ]}
          value={scheme.turn}
          onchange={(turn) => shared({ turn })}
        />
      {/if}
    </div>
    <div class="row">
      <NumberField
        label={t`Copies across`}
        value={copies.across}
        {...limitsOf(schemeSchema, 'copies.across')}
        onchange={(value, wrong) => setCopies('across', value, wrong)}
      />
      <NumberField
        label={t`up`}
        value={copies.up}
        {...limitsOf(schemeSchema, 'copies.up')}
        onchange={(value, wrong) => setCopies('up', value, wrong)}
      />
    </div>
    <label class="tick"
      ><input
        type="checkbox"
        checked={scheme.copies === 'most'}
        onchange={(event) => shared({ copies: event.currentTarget.checked ? 'most' : { across: 1, up: 1 } })}
      />
      {t`as many as fit`}</label
    >
    <div class="row">
      <LengthField
        label={t`Between copies`}
        value={scheme.between ?? 0}
        {unit}
        check={under(t`The space between`)}
        onchange={(points) => draft.take(points, (between) => ({ between }))}
      />
      <LengthField
        label={t`Gripper`}
        value={scheme.gripper ?? 0}
        {unit}
        check={under(t`The gripper margin`)}
        onchange={(points) => draft.take(points, (gripper) => ({ gripper }))}
      />
    </div>
    <Choice
      label={t`The work lies`}
      options={LAYS.map((lay) => [lay, LAY_NAME[lay]] as const)}
      value={scheme.lay ?? 'centre'}
      onchange={(lay) => shared({ lay })}
    />
    <Choice
      label={t`Turned on the sheet`}
      options={[
        ['0', '0°'],
        ['90', '90°'],
        ['180', '180°'],
        ['270', '270°'],
      ]}
      value={`${scheme.turned ?? 0}`}
      onchange={(turned) => shared({ turned: Number(turned) as 0 | 90 | 180 | 270 })}
    />
  </div>
</Folded>
<Folded title={t`Run`} said={run}>
  <div class="fields">
    <div class="row">
      {#if !ganged}
        <NumberField
          label={t`Pieces wanted`}
          value={scheme.run?.pieces ?? 0}
          {...limitsOf(schemeSchema, 'run.pieces')}
          least={0}
          onchange={(value, wrong) =>
            draft.take(wrong ? undefined : value, (pieces) => ({
              run: { overs: scheme.run?.overs ?? PLAIN_OVERS, ...(pieces ? { pieces } : {}) },
            }))}
        />
      {/if}
      <NumberField
        label={t`Overs`}
        unit="%"
        value={scheme.run?.overs ?? PLAIN_OVERS}
        {...limitsOf(schemeSchema, 'run.overs')}
        onchange={(value, wrong) => draft.take(wrong ? undefined : value, (overs) => ({ run: { ...scheme.run, overs } }))}
      />
    </div>
  </div>
</Folded>

<style>
  .tick {
    font-size: 13px;
  }
</style>

<script lang="ts">
  import { t } from '../../words/language';
  import { limitsOf } from '../../core/docket/limitsOf';
  import { stepKind } from '../../core/docket/steps';
  import NumberField from './NumberField.svelte';

  interface Props {
    columns: number;
    rows: number;
    onchange: (grid: { columns: number; rows: number }, wrong: boolean) => void;
  }
  /** How many parts or pages lie across and down. */
  let { columns, rows, onchange }: Props = $props();
  let wrong = $state({ columns: false, rows: false });
  function set(field: keyof typeof wrong, count: number, bad: boolean): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ columns, rows, [field]: count }, wrong.columns || wrong.rows);
  }
</script>

<div class="row">
  <NumberField
    whole
    least={1}
    label={t`Across`}
    value={columns}
    most={limitsOf(stepKind('join').schema, 'columns').most}
    of={t`columns`}
    onchange={(count, bad) => set('columns', count, bad)}
  />
  <NumberField
    whole
    least={1}
    label={t`Down`}
    value={rows}
    most={limitsOf(stepKind('join').schema, 'rows').most}
    of={t`rows`}
    onchange={(count, bad) => set('rows', count, bad)}
  />
</div>

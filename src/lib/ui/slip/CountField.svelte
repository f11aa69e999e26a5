<script lang="ts">
  interface Props {
    label: string;
    value: number;
    most: number;
    /** What is counted, as the sentence for a wrong number has it. */
    of: string;
    onchange: (value: number, wrong: boolean) => void;
  }
  let { label, value, most, of, onchange }: Props = $props();
  const id = $props.id();
  const fine = (count: number) => Number.isInteger(count) && count >= 1 && count <= most;
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <input
    {id}
    class="field mono"
    type="number"
    min="1"
    max={most}
    {value}
    oninput={(event) => onchange(event.currentTarget.valueAsNumber, !fine(event.currentTarget.valueAsNumber))}
  />
  {#if !fine(value)}<p class="wrong" role="alert">A whole number of {of} from 1 to {most}.</p>{/if}
</div>

<style>
  input {
    text-align: right;
  }
</style>

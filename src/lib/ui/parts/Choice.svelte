<script lang="ts" generics="T extends string">
  interface Props {
    label: string;
    options: readonly (readonly [value: T, text: string])[];
    value: T;
    onchange: (value: T) => void;
  }
  let { label, options, value, onchange }: Props = $props();
  const name = $props.id();
</script>

<fieldset>
  <legend class="label">{label}</legend>
  <div style:grid-template-columns="repeat({options.length}, 1fr)">
    {#each options as [option, text] (option)}
      <label class:on={option === value}>
        <input type="radio" {name} value={option} checked={option === value} onchange={() => onchange(option)} />{text}
      </label>
    {/each}
  </div>
</fieldset>

<style>
  fieldset {
    min-width: 0;
    margin: 0;
    padding: 0;
    border: 0;
  }
  legend {
    padding: 0;
  }
  div {
    display: grid;
    border: 1px solid var(--rule);
  }
  label {
    display: grid;
    place-items: center;
    padding: 5px 4px;
    background: var(--well);
    border-left: 1px solid var(--rule);
    font-size: 13px;
    text-align: center;
    cursor: pointer;
  }
  label:first-child {
    border-left: 0;
  }
  .on {
    background: var(--act);
    color: #fff;
  }
  label:focus-within {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
  input {
    position: absolute;
    opacity: 0;
    pointer-events: none;
  }
</style>

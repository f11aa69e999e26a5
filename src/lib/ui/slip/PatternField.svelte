<script lang="ts">
  import { StepProblem } from '../../core/docket/stepKind';
  import { PatternError, readPattern, type Token } from '../../core/numbers/pattern';
  import { sayStepProblem } from '../../words/errors';

  interface Props {
    label: string;
    value: string;
    /** The tokens that are offered. */
    tokens: readonly Token[];
    /** May say nothing. */
    optional?: boolean;
    onchange: (text: string) => void;
  }
  let { label, value, tokens, optional = false, onchange }: Props = $props();
  const id = $props.id();
  let input: HTMLInputElement | undefined = $state();

  const wrong = $derived.by(() => {
    if (optional && !value.trim()) return '';
    try {
      readPattern(value);
      return '';
    } catch (error) {
      if (error instanceof PatternError) return sayStepProblem(new StepProblem(error.code, { seen: error.seen }));
      throw error;
    }
  });

  /** Puts a token where the cursor is. */
  function insert(token: Token): void {
    const [from, to] = [input?.selectionStart ?? value.length, input?.selectionEnd ?? value.length];
    onchange(`${value.slice(0, from)}{${token}}${value.slice(to)}`);
    const after = from + token.length + 2;
    requestAnimationFrame(() => {
      input?.focus();
      input?.setSelectionRange(after, after);
    });
  }
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <input
    bind:this={input}
    {id}
    class="field"
    class:bad={wrong}
    {value}
    maxlength="300"
    spellcheck="false"
    autocomplete="off"
    aria-invalid={!!wrong}
    oninput={(event) => onchange(event.currentTarget.value)}
  />
  {#if tokens.length}
    <p class="tokens">
      {#each tokens as token (token)}<button type="button" class="mono" onclick={() => insert(token)}>{token}</button>{/each}
    </p>
  {/if}
  {#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
</div>

<style>
  .bad {
    border-color: var(--cut);
  }
  .tokens {
    display: flex;
    flex-wrap: wrap;
    gap: 3px;
    margin-top: 3px;
  }
  .tokens button {
    padding: 0 5px;
    border: 1px solid var(--rule);
    background: var(--card-2);
    font-size: 11.5px;
    cursor: pointer;
  }
  .tokens button:hover {
    border-color: var(--act);
    color: var(--act);
  }
</style>

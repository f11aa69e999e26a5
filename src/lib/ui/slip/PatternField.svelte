<script lang="ts" generics="T extends string">
  import { PatternError, readPatternOf } from '../../core/numbers/pattern';
  import { TOKENS } from '../../core/model/lines';
  import { sayPatternError } from '../../words/patterns';

  interface Props {
    label: string;
    value: string;
    /** The tokens that are offered. */
    tokens: readonly T[];
    /** The tokens that it may hold, where those are not the ones of lines on pages. */
    read?: readonly string[];
    /** May say nothing. */
    optional?: boolean;
    onchange: (text: string) => void;
  }
  let { label, value, tokens, read = TOKENS, optional = false, onchange }: Props = $props();
  const id = $props.id();
  let input: HTMLInputElement | undefined = $state();

  const wrong = $derived.by(() => {
    if (optional && !value.trim()) return '';
    try {
      readPatternOf(value, read);
      return '';
    } catch (error) {
      if (error instanceof PatternError) return sayPatternError(error, read);
      throw error;
    }
  });

  /** Puts a token where the cursor is. */
  function insert(token: T): void {
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

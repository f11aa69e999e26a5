<script lang="ts">
  import { t, translated } from '../../words/language';
  import { plural } from '../../words/plural';
  import { sayAgo } from '../../words/ago';
  import { outputKey, outputKind, outputSchema, type Output } from '../../core/handover/outputs';
  import { pressMistake } from '../../core/handover/standIns';
  import { PRESS_MISTAKE } from '../../words/machines';
  import { outputWords, sayBytes, sayOutput, sayPart } from '../../words/outputs';
  import { sayOutcome } from '../../words/proof';
  import { sayTrouble } from '../../words/troubles';
  import type { OutputState } from '../../wire/told';
  import { api } from '../api';
  import { asSaved } from '../asSaved';
  import type { Bench } from '../bench.svelte';
  import { timeLeft, type FirstSeen } from '../timeLeft';
  import { filesOf } from './outputFiles';
  import type { Snippet } from 'svelte';

  interface Props {
    bench: Bench;
    output: Output;
    /** What it comes to. */
    amount: string;
    onmake: () => void;
    /** What may be fetched besides. */
    children?: Snippet | undefined;
  }
  let { bench, output, amount, onmake, children }: Props = $props();
  const key = $derived(outputKey(output));
  const made = $derived(bench.outputs.filter(({ spec }) => outputKey(spec) === key));
  const chosen = $derived(bench.handing.chosen === key);
  const mistake = $derived(output.kind === 'press' && bench.base.plan ? pressMistake(bench.base.plan, output) : undefined);
  const files = $derived(filesOf(bench.base, output));
  const wanted = $derived(asSaved(outputSchema, output));
  const isNow = ({ upToDate, spec }: OutputState): boolean => upToDate && asSaved(outputSchema, spec) === wanted;

  async function drop({ id }: OutputState): Promise<void> {
    await api.drop(id);
    await bench.poll();
  }
  /** What is done with each is timed by itself. */
  const first: Record<string, FirstSeen> = {};
  const share = ({ id, doing, done, total }: OutputState): string => {
    if (!total) return '';
    return [t`${done} of ${total}`, timeLeft((first[`${id} ${doing}`] ??= { at: Date.now(), done }), done, total)].filter(Boolean).join(' · ');
  };
</script>

<article class:chosen>
  <div class="what">
    <h2>
      {outputWords(output.kind).name}
      {#if sayOutput(output).length}<small>{sayOutput(output).join(' · ')}</small>{/if}
    </h2>
    <p>{outputWords(output.kind).said}</p>
    {#if mistake}<p class="out-of-date" role="alert">{PRESS_MISTAKE[mistake]}</p>{/if}
    {#if files.wrong}<p class="out-of-date" role="alert">{files.wrong}</p>{:else}
      <p class="mono amount">
        {amount}{#if files.names.length > 1}{t`${amount ? ' · ' : ''}${files.names.length} files`}{/if}
      </p>
      <p class="mono names">
        {files.names.slice(0, 3).join(', ')}{#if files.names.length > 3}
          … {files.names.at(-1)}{/if}
      </p>
    {/if}
  </div>
  <div class="acts">
    <button class="btn" disabled={!!files.wrong} onclick={onmake}>{outputWords(output.kind).make}</button>
    <span>
      <button class="link" aria-expanded={chosen} onclick={() => (bench.handing.chosen = chosen ? undefined : key)}>{t`Settings`}</button>
      <button class="link" onclick={() => bench.handing.remove(key)}>{t`Remove`}</button>
    </span>
  </div>
  {#if children}<p class="besides">{@render children()}</p>{/if}
  {#if made.length}<ul>
      {#each made as one (one.id)}
        <li class={one.state}>
          {#if one.state === 'done'}
            <a class="file" href="/api/outputs/{one.id}/file" download={one.fileName}>{one.fileName}</a>
            <span class="mono">{sayBytes(one.files.reduce((sum, { bytes }) => sum + bytes, 0))}</span>
            {#if sayOutput(one.spec).length}<span class="quiet">{sayOutput(one.spec).join(' · ')}</span>{/if}
            <span class={one.upToDate ? 'up-to-date' : 'out-of-date'}>{one.upToDate ? t`up to date` : t`out of date: the job has changed since`}</span
            >
            {#if one.upToDate && !isNow(one)}<span class="out-of-date">{t`made with other settings`}</span>{/if}
            {#if one.files[0]?.proof}<span class={one.files[0].proof.holds ? 'up-to-date' : 'out-of-date'}>{sayOutcome(one.files[0].proof)}</span
              >{/if}
            {#if outputKind(one.spec.kind).sent}<a href="/jobs/{bench.id}/received/{one.id}">{t`What it received`}</a>{/if}
            <span class="quiet">{sayAgo(one.finishedAt ?? one.createdAt)}</span>
            <button class="link" onclick={() => void drop(one)}>{t`Delete`}</button>
            {#if one.by}<span class="quiet">{one.by}</span>{/if}
            {#if one.despite}<p class="note">{t`Handed over all the same: ${one.despite}`}</p>{/if}
            {#if one.files[0]?.proof?.named.length}<ul class="found">
                {#each one.files[0].proof.named as { says, pages } (says)}<li>
                    {says}
                    {#if pages.length}<a href="/jobs/{bench.id}/sheets" onclick={() => bench.selected.choose(pages)}>{t`Show on Sheets`}</a>{/if}
                  </li>{/each}
              </ul>{/if}
            {#if one.files.length > 1 || one.files.some(({ over, alone }) => over || alone)}
              <details>
                <summary>{plural(one.files.length, 'file')}</summary>
                <ol>
                  {#each one.files as file, n (n)}
                    <li>
                      <a href="/api/outputs/{one.id}/file/{n}" download={file.name}>{file.name}</a>
                      <span class="mono">{sayPart(file, output.kind)}</span>
                      <span class="mono">{sayBytes(file.bytes)}</span>
                      {#if file.over}<span class="out-of-date">{t`one page, and larger than was allowed by itself`}</span>{/if}
                      {#if file.alone}<span class="note">{t`The last one has no back: lift it off the pile before the backs are printed.`}</span>{/if}
                    </li>
                  {/each}
                </ol>
              </details>
            {/if}
          {:else if one.state === 'failed'}
            <span class="out-of-date" role="alert">{sayTrouble(one.trouble ?? { code: 'unforeseen' })}</span>
            <button class="link" onclick={() => void drop(one)}>{t`Dismiss`}</button>
          {:else if one.state === 'cancelled'}
            <span class="quiet">{t`Cancelled. Nothing was written.`}</span>
            <button class="link" onclick={() => void drop(one)}>{t`Dismiss`}</button>
          {:else}
            <progress max={one.total || undefined} value={one.total ? one.done : undefined} aria-label={t`Being made`}></progress>
            <span class="mono">{one.state === 'waiting' ? t`waiting` : `${translated(one.doing)} ${share(one)}`}</span>
            <button class="link" onclick={() => void drop(one)}>{t`Cancel`}</button>
          {/if}
        </li>
      {/each}
    </ul>{/if}
</article>

<style>
  article {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: start;
    gap: 8px 24px;
    padding: 16px 22px;
    background: var(--card);
    clip-path: var(--corner);
  }
  article.chosen {
    box-shadow: inset 4px 0 0 var(--act);
  }
  h2 {
    font-size: 16px;
    margin-bottom: 2px;
  }
  h2 small {
    font-size: 12.5px;
    font-weight: 400;
    color: var(--ink-2);
  }
  .amount,
  .names {
    margin-top: 3px;
    font-size: 12.5px;
    color: var(--ink-2);
    overflow-wrap: anywhere;
  }
  .acts {
    display: grid;
    gap: 6px;
    justify-items: end;
  }
  .acts span {
    display: flex;
    gap: 14px;
    font-size: 13px;
  }
  .besides {
    grid-column: 1 / -1;
    display: flex;
    gap: 16px;
    margin: 0;
    font-size: 13px;
  }
  ul {
    grid-column: 1 / -1;
    list-style: none;
    margin: 0;
    padding: 0;
  }
  ul > li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 16px;
    padding: 8px 0;
    border-top: 1px solid var(--rule);
    font-size: 13px;
  }
  details,
  .note {
    flex-basis: 100%;
  }
  ol {
    max-height: 220px;
    overflow: auto;
    margin: 4px 0 0;
    padding-left: 28px;
  }
  ol li {
    padding: 2px 0;
  }
  ol span {
    margin-left: 12px;
    color: var(--ink-2);
  }
  .found {
    flex-basis: 100%;
    max-height: 190px;
    overflow: auto;
  }
  .found li {
    padding: 3px 0;
    border-top: 0;
  }
  .file {
    font-weight: 600;
    overflow-wrap: anywhere;
  }
  .up-to-date {
    color: var(--fine);
    font-weight: 600;
  }
  .out-of-date,
  ol .out-of-date {
    color: var(--cut);
  }
  .quiet {
    margin-left: auto;
  }
  progress {
    flex: 1;
    accent-color: var(--act);
  }
</style>

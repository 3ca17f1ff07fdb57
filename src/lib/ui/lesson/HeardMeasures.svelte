<script lang="ts">
  /** Each measure of a take with its mark: a sign beside its number, so that no colour is needed. */
  import type { Ear } from './ear.svelte';

  interface Props {
    marks: Ear['marks'];
    /** By the index of a measure. */
    numbers: readonly string[];
    /** For fingertips and arm’s length. */
    isLarge?: boolean;
  }
  let { marks, numbers, isLarge = false }: Props = $props();
  const SIGNS = { right: '✓', slips: '✗', stopped: '…' } as const;
  const WORDS = { right: 'right', slips: 'not yet right', stopped: 'with a stop' } as const;
  const LOOKS = {
    right: 'border-hairline text-quiet',
    slips: 'border-2 border-ink font-semibold',
    stopped: 'border-dashed border-ink',
  } as const;
</script>

{#if marks.length > 0}
  <ol class="flex flex-wrap {isLarge ? 'gap-1.5' : 'gap-1'}" aria-label="Measures as heard">
    {#each marks as { measure, mark, slips } (measure)}
      <li
        class="flex items-center gap-1 rounded-sm border tabular-nums {LOOKS[mark]} {isLarge
          ? 'min-h-9 min-w-12 justify-center px-2'
          : 'min-h-7 px-1.5 text-sm'}"
        title={slips.join('; ')}
      >
        <span>{numbers[measure] === '0' ? 'pickup' : numbers[measure]}</span><span aria-hidden="true"
          >{SIGNS[mark]}</span
        >
        <span class="sr-only">{WORDS[mark]}{slips.length > 0 ? `: ${slips.join('; ')}` : ''}</span>
      </li>
    {/each}
  </ol>
{/if}

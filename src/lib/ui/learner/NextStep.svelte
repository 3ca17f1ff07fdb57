<script lang="ts">
  /** The next thing to practise in a piece, in one sentence. */
  import type { TimeSignature } from '$core/score/score';
  import { measuresText, tempoText } from '$ui/text';

  interface Props {
    title?: string;
    numbers: readonly string[];
    time: TimeSignature;
    next: {
      chunk: { section: string; from: number; to: number };
      step: { says: string; hand: string | null };
      tempo: number;
    } | null;
  }
  let { title, numbers, time, next }: Props = $props();
</script>

{#if title}<strong class="font-semibold">{title}</strong>{next ? ', ' : ': '}{/if}{#if next}{next.chunk
    .section}, {measuresText(numbers, next.chunk.from, next.chunk.to)}: {next.step.says.toLowerCase()}{#if next.step.hand},
    <span class="font-mono whitespace-nowrap tracking-tight">{tempoText(time, next.tempo)}</span
    >{/if}{:else}every step is done{/if}

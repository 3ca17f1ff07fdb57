<script lang="ts">
  /** The next thing to practise in a piece, in one sentence. */
  import { stepInSentence } from '$core/lessons/steps';
  import type { TimeSignature } from '$core/score/score';
  import { measuresBetween, tempoText } from '$ui/text';

  interface Props {
    title?: string;
    time: TimeSignature;
    next:
      | {
          chunk: { section: string; name?: string | null };
          /** Numbers of its first and last measure, as they are printed. */
          numbers: readonly [string, string];
          step: { says: string; hand: string | null };
          tempo: number | null;
        }
      | null
      | undefined;
  }
  let { title, time, next }: Props = $props();
</script>

{#if title}<strong class="font-semibold">{title}</strong>{next ? ', ' : ': '}{/if}{#if next}{next.chunk
    .name ?? next.chunk.section}, {measuresBetween(next.numbers)}: {stepInSentence(
    next.step.says,
  )}{#if next.tempo},
    <span class="font-mono whitespace-nowrap tracking-tight">{tempoText(time, next.tempo)}</span
    >{/if}{:else}every step is done{/if}

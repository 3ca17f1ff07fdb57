<script lang="ts">
  /** The next thing to practise in a piece, in one sentence. */
  import { stepInSentence } from '$core/lessons/steps';
  import type { TimeSignature } from '$core/score/score';
  import { tempoText } from '$ui/text';

  interface Props {
    title?: string;
    time: TimeSignature;
    next:
      | {
          chunk: { section: string; name?: string | null };
          /** "measures 1 to 4" */
          where: string;
          step: { says: string; hand: string | null };
          tempo: number | null;
        }
      | null
      | undefined;
  }
  let { title, time, next }: Props = $props();
</script>

{#if title}<strong class="font-semibold">{title}</strong>{next ? ', ' : ': '}{/if}{#if next}{next.chunk
    .name ?? next.chunk.section}, {next.where}: {stepInSentence(next.step.says)}{#if next.tempo},
    <span class="font-mono whitespace-nowrap tracking-tight">{tempoText(time, next.tempo)}</span
    >{/if}{:else}every step is done{/if}

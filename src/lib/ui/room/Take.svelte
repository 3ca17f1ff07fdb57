<script lang="ts">
  /** What came of a take: a sentence, each measure's mark, and one thing to do now. */
  import { moveText } from '$core/takes/move';
  import type { TimeSignature } from '$core/score/score';
  import { measureText, tempoText, toBeats } from '$ui/text';
  import { speak, canSpeak } from './speak';
  import type { RoomState } from './room.svelte';

  interface Props {
    room: RoomState;
    time: TimeSignature;
    /** The sentence is read aloud by itself. */
    isSpoken: boolean;
  }
  let { room, time, isSpoken }: Props = $props();
  const { ear } = $derived(room);
  const says = $derived(ear.says((quarters) => String(toBeats(time, quarters))));
  const numberOf = $derived((measure: number) => room.music?.score.measures[measure]?.number ?? '');
  const proposal = $derived(
    room.move &&
      moveText(room.move, {
        measureText: (measure) => measureText(numberOf(measure)),
        tempoText: (tempo) => tempoText(time, tempo),
      }),
  );
  const SIGNS = { right: '✓', slips: '✗', stopped: '…' } as const;
  const WORDS = { right: 'right', slips: 'not yet right', stopped: 'with a stop' } as const;

  $effect(() => {
    if (isSpoken && !ear.isListening && ear.take && proposal) speak(`${says} ${proposal}`);
  });
</script>

<section
  class="border-t-2 border-ink bg-paper px-4 py-3 sm:px-7"
  aria-label="What was heard"
  data-test="heard"
>
  {#if ear.marks.length > 0}
    <ol class="flex flex-wrap gap-1.5" aria-label="Measures as heard">
      {#each ear.marks as { measure, mark, slips } (measure)}
        <li
          class="flex min-h-9 min-w-12 items-center justify-center gap-1 rounded-sm border px-2 tabular-nums
            {mark === 'right'
            ? 'border-hairline text-quiet'
            : mark === 'slips'
              ? 'border-2 border-ink font-semibold'
              : 'border-dashed border-ink'}"
        >
          <span>{numberOf(measure)}</span><span aria-hidden="true">{SIGNS[mark]}</span>
          <span class="sr-only">{WORDS[mark]}{slips.length > 0 ? `: ${slips.join('; ')}` : ''}</span>
        </li>
      {/each}
    </ol>
  {/if}
  {#if ear.isListening}
    <p class="mt-1 text-quiet" role="status">Listening…</p>
  {:else}
    <p class="mt-2 text-lg" role="status" aria-live="polite">{says}</p>
    {#if proposal}
      <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <button type="button" class="action" onclick={() => room.follow()}>{proposal}</button>
        <button type="button" class="link" onclick={() => void room.playTake()}>Hear what you played</button>
        <button type="button" class="link" onclick={() => void room.play()}>Hear how it goes</button>
        {#if canSpeak()}
          <button type="button" class="link" onclick={() => speak(`${says} ${proposal}`)}>Say it</button>
        {/if}
      </p>
    {/if}
  {/if}
</section>

<script lang="ts">
  /** What came of a take: a sentence, each measure's mark, and one thing to do now. */
  import { moveText } from '$core/takes/move';
  import type { TimeSignature } from '$core/score/score';
  import { measureText, tempoText, toBeats } from '$ui/text';
  import HeardMeasures from '$ui/lesson/HeardMeasures.svelte';
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
  const numbers = $derived(room.music?.score.measures.map((m) => m.number) ?? []);
  const proposal = $derived(
    room.move &&
      moveText(room.move, {
        measureText: (measure) => measureText(numbers[measure] ?? ''),
        tempoText: (tempo) => tempoText(time, tempo),
      }),
  );
  $effect(() => {
    if (isSpoken && !ear.isListening && ear.take && proposal) speak(`${says} ${proposal}`);
  });
</script>

<section
  class="border-t-2 border-ink bg-paper px-4 py-3 sm:px-7"
  aria-label="What was heard"
  data-test="heard"
>
  <HeardMeasures marks={ear.marks} {numbers} isLarge />
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

<script lang="ts">
  /** How low and high a song goes: asked for where there is no melody to tell. */
  import { capital } from '$core/capital';
  import type { VoiceRange } from '$core/keys/rank';
  import { parsePitch, pitchName, toMidi } from '$core/theory/pitch';

  interface Props {
    /** As it was said. */
    said: VoiceRange | null;
    onsay: (range: VoiceRange) => void;
  }
  let { said, onsay }: Props = $props();
  const ENDS = [
    { end: 'low', label: 'Lowest note', like: 'A3' },
    { end: 'high', label: 'Highest note', like: 'C5' },
  ] as const;
  let typed = $state({ low: '', high: '' });
  let wrong = $state('');

  function say(event: SubmitEvent): void {
    event.preventDefault();
    const [low, high] = ENDS.map(({ end }) => parsePitch(capital(typed[end].trim())));
    wrong = '';
    if (!low || !high) wrong = 'Write each note with its octave, like A3 or C5.';
    else if (toMidi(low) >= toMidi(high)) wrong = 'The lowest note comes first.';
    else onsay({ low, high });
  }
</script>

<form class="mb-6 flex flex-wrap items-end gap-x-4 gap-y-2" onsubmit={say} aria-label="Range of the song">
  <p class="basis-full">
    {said
      ? `The voice is judged by the range you gave, ${pitchName(said.low)} to ${pitchName(said.high)}.`
      : 'There’s no melody here, so the voice doesn’t count yet. How low and high does the song go, in the key as written?'}
  </p>
  {#each ENDS as { end, label, like } (end)}
    <label class="grid text-sm text-quiet"
      >{label}
      <input class="field w-24 text-base text-ink" placeholder={like} bind:value={typed[end]} /></label
    >
  {/each}
  <button class="action">Compare for the voice</button>
  {#if wrong}<p class="basis-full text-alarm" role="alert">{wrong}</p>{/if}
</form>

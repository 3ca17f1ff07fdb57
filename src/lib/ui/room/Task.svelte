<script lang="ts">
  /** One step being practised: the music large, what was heard of it, and the few things there are to press. */
  import type { RoomTask } from '$core/lessons/room';
  import { stepInSentence } from '$core/lessons/steps';
  import Picture from '$ui/score/Picture.svelte';
  import { capital, measuresText, tempoText } from '$ui/text';
  import Play from '@lucide/svelte/icons/play';
  import Square from '@lucide/svelte/icons/square';
  import Take from './Take.svelte';
  import type { RoomState } from './room.svelte';

  interface Props {
    room: RoomState;
    task: RoomTask;
    isSpoken: boolean;
    /** The pretend player can play, on the simulated instrument. */
    simulated: boolean;
  }
  let { room, task, isSpoken, simulated }: Props = $props();
  const { sound, ear } = $derived(room);
  const practising = $derived(room.practising);
  const numbers = $derived(room.music?.score.measures.map((m) => m.number) ?? []);
  const what = $derived(
    room.isWhole
      ? `${capital(stepInSentence(task.says))}, ${task.where}`
      : `${capital(measuresText(numbers, practising.from, practising.to))}${practising.hand === 'both' ? '' : `, ${practising.hand} hand`}`,
  );
  let music = $state<HTMLElement>();
  let innerWidth = $state(0);
  const isWide = $derived(innerWidth >= 640);
  // What sounds stays in sight.
  $effect(() => {
    const [first] = sound.sounding;
    if (!first) return;
    music
      ?.querySelector(`[id="${CSS.escape(first)}"], [data-id="${CSS.escape(first)}"]`)
      ?.closest('svg')
      ?.scrollIntoView({ block: 'nearest' });
  });
  function byMicrophone(): void {
    room.listenTo('microphone');
    void room.take();
  }
  /** Measures that were not right in the take; before it those that are practised, where that is less than the step. */
  const marked = $derived(
    ear.take && !ear.isListening
      ? new Set(ear.marks.filter((m) => m.mark !== 'right').map((m) => m.measure))
      : room.isWhole
        ? undefined
        : new Set(Array.from({ length: practising.to - practising.from + 1 }, (_, i) => practising.from + i)),
  );
</script>

<svelte:window bind:innerWidth />

<div class="flex min-h-0 flex-1 flex-col bg-paper">
  <div class="flex flex-wrap items-baseline gap-x-4 px-4 pt-2 sm:px-7">
    <h2 class="text-lg">{what}</h2>
    {#if !room.isWhole}
      <button type="button" class="link" onclick={() => room.whole()}>Back to the whole step</button>
    {/if}
  </div>
  <!-- It scrolls. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="music min-h-40 flex-1 overflow-y-auto px-1 sm:px-7"
    bind:this={music}
    tabindex="0"
    role="region"
    aria-label="Music of {task.title}"
  >
    {#each room.pictures as svg, i (i)}
      <Picture
        {svg}
        sounding={sound.sounding}
        slipped={ear.slipped}
        {...marked ? { marked } : {}}
        label="Music of {task.title}, {task.where}"
      />
    {/each}
  </div>
  {#if ear.problem}
    <p class="border-t border-hairline px-4 py-2 text-alarm sm:px-7" role="alert">
      {ear.problem} You can still play, and press “I did it”.
      {#if ear.source === 'keyboard'}
        <button type="button" class="link" onclick={byMicrophone}>Use the microphone</button>
      {/if}
    </p>
  {:else if ear.isListening && !ear.take}
    <p class="border-t border-hairline px-4 py-2 sm:px-7" role="status">
      Listening to {ear.listensTo}. Play after the count-in.
      {#if simulated}
        <button type="button" class="link" onclick={() => ear.pretend()}>Let the pretend player play</button>
      {/if}
    </p>
  {:else if ear.isJudging}
    <p class="border-t border-hairline px-4 py-2 text-quiet sm:px-7" role="status">Listening to the end…</p>
  {:else if ear.take}
    <Take {room} time={task.time} {isSpoken} />
  {/if}
  <div
    class="flex flex-wrap items-center justify-center gap-x-4 gap-y-2 border-t border-hairline bg-paper px-4 py-2 pb-[max(0.5rem,env(safe-area-inset-bottom))] sm:px-7"
  >
    <button
      type="button"
      class="flex h-14 w-14 shrink-0 items-center justify-center rounded-full border-2 border-field"
      aria-label={sound.isPlaying && !ear.isListening ? 'Stop' : 'Hear how it goes'}
      onclick={() => void room.play()}
    >
      {#if sound.isPlaying && !ear.isListening}<Square size={18} aria-hidden="true" />{:else}<Play
          size={22}
          aria-hidden="true"
        />{/if}
    </button>
    {#if task.hand}
      <button
        type="button"
        class="h-14 min-w-32 rounded-full bg-accent px-5 text-lg font-semibold text-on-accent"
        aria-pressed={ear.isListening}
        onclick={() => void room.take()}>{ear.isListening ? 'Done' : 'I’ll play'}</button
      >
    {/if}
    <button type="button" class="h-14 rounded-full border-2 border-field px-4" onclick={() => room.didIt()}
      >I did it</button
    >
    <div class="flex items-center gap-1" role="group" aria-label="Tempo">
      <button type="button" class="h-11 w-11 text-xl" aria-label="Slower" onclick={() => room.quicken(-1)}
        >−</button
      >
      <span class="min-w-16 text-center tabular-nums">{tempoText(task.time, practising.tempo)}</span>
      <button type="button" class="h-11 w-11 text-xl" aria-label="Faster" onclick={() => room.quicken(1)}
        >+</button
      >
    </div>
    <!-- On a phone they give way to the music. -->
    <details class="max-sm:w-full" open={isWide}>
      <summary class="flex min-h-11 cursor-pointer items-center justify-center text-quiet sm:hidden"
        >More</summary
      >
      <div class="flex flex-wrap items-center justify-center gap-x-4 gap-y-1">
        <label class="flex min-h-11 items-center gap-2"
          ><input type="checkbox" class="tick" bind:checked={sound.loops} />Repeat</label
        >
        <label class="flex min-h-11 items-center gap-2"
          ><input type="checkbox" class="tick" bind:checked={sound.speaks} />Spoken counts</label
        >
        {#if task.hand}
          <label class="flex min-h-11 items-center gap-2"
            >Listen to <select
              class="field"
              value={ear.source}
              disabled={ear.isListening}
              onchange={(e) =>
                room.listenTo(e.currentTarget.value === 'microphone' ? 'microphone' : 'keyboard')}
            >
              <option value="keyboard">keyboard</option>
              <option value="microphone">microphone</option>
            </select></label
          >
        {/if}
        {#if practising.hand !== 'both' && ear.source === 'keyboard'}
          <label class="flex min-h-11 items-center gap-2"
            ><input
              type="checkbox"
              class="tick"
              checked={room.plays === 'other hand'}
              onchange={(e) => (room.plays = e.currentTarget.checked ? 'other hand' : 'click')}
            />Other hand plays along</label
          >
        {/if}
      </div>
    </details>
    {#if room.next}
      <button type="button" class="link min-h-11" onclick={() => room.open(room.next)}>Next step</button>
    {/if}
  </div>
</div>

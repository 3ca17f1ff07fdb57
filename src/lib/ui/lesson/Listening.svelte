<script lang="ts">
  /** What the ear heard of a step: a mark for each measure, a sentence, and the grade that is proposed. */
  import { gradeText } from '$core/lessons/events';
  import { tempoText } from '$ui/text';
  import type { TimeSignature } from '$core/score/score';
  import { toBeats } from '$ui/text';
  import type { Ear } from './ear.svelte';
  import HeardMeasures from './HeardMeasures.svelte';
  import { GRADE_KEYS, type LessonState } from './lesson.svelte';

  interface Props {
    ear: Ear;
    lesson: LessonState;
    time: TimeSignature;
    numbers: readonly string[];
    /** The pretend player can play, on the simulated instrument. */
    simulated: boolean;
    /** Where the pretend player is, in a demo without an instrument. */
    pretendAt?: string | undefined;
    onaccept: () => void;
    ongrade: (grade: 1 | 2 | 3 | 4) => void;
    onagain: () => void;
  }
  let { ear, lesson, time, numbers, simulated, pretendAt, onaccept, ongrade, onagain }: Props = $props();

  const says = $derived(ear.says((quarters) => String(toBeats(time, quarters))));
  const heard = $derived(ear.heard);
  function byMicrophone(): void {
    ear.forget();
    ear.source = 'microphone';
    onagain();
  }
</script>

<section
  class="border-t border-hairline bg-paper px-4 py-2 text-[15px] sm:px-7"
  aria-label="What was heard"
  data-test="heard"
>
  {#if ear.problem}
    <p class="text-alarm" role="alert">
      {ear.problem}
      {#if pretendAt}<a class="link" href={pretendAt} data-sveltekit-reload>Try it with the pretend player</a
        >{/if}
      {#if ear.source === 'keyboard'}
        <button type="button" class="link" onclick={byMicrophone}>Use the microphone</button>
      {/if}
      <button type="button" class="link" onclick={() => ear.forget()}>Close</button>
    </p>
  {:else if ear.isJudging}
    <p class="text-quiet" role="status">Listening to the end…</p>
  {:else}
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <p role="status" aria-live="polite" class="min-w-0 flex-1 basis-72">
        {#if ear.isListening && !ear.take}
          Listening to {ear.listensTo}. Play when you are ready, at
          {tempoText(time, lesson.asked ?? lesson.piece?.goal ?? 60)}.
        {:else if ear.isListening}
          Listening…
        {:else}
          {says}
        {/if}
      </p>
      {#if simulated && ear.isListening && !ear.take}
        <button type="button" class="link" onclick={() => ear.pretend()}>Let the pretend player play</button>
      {/if}
      <HeardMeasures marks={ear.marks} {numbers} />
    </div>
    {#if !ear.isListening && heard}
      <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
        <button type="button" class="action" title="A" onclick={onaccept}>
          Accept “{gradeText(heard.grade)}”{heard.tempo === null ? '' : `, ${tempoText(time, heard.tempo)}`}
        </button>
        <span class="text-sm text-quiet">or</span>
        {#each GRADE_KEYS.filter(({ grade }) => grade !== heard.grade) as { grade, says: word } (grade)}
          <button
            type="button"
            class="min-h-8 rounded-full border border-field px-2 text-sm pointer-coarse:min-h-11"
            title={String(grade)}
            onclick={() => ongrade(grade)}>{word}</button
          >
        {/each}
        <button type="button" class="link ml-auto text-sm" onclick={onagain}>Listen again</button>
        <button type="button" class="link text-sm" onclick={() => ear.forget()}>Close</button>
      </div>
    {/if}
  {/if}
</section>

<script lang="ts">
  /** A lesson: the music of the chunk in hand, large; its steps, how they went, what is said and what is set for the week. */
  import { playedIn } from '$core/lessons/plan';
  import { stepInSentence } from '$core/lessons/steps';
  import { KEYBOARDS } from '$core/hands/register';
  import { follows, ticksOf } from '$core/score/places';
  import { toMidi } from '$core/theory/pitch';
  import type { TimeSignature } from '$core/score/score';
  import { FASTEST, SLOWEST } from '$ui/sound/sound.svelte';
  import Keys from '$ui/keys/Keys.svelte';
  import { shapeAt } from '$ui/keys/shape';
  import Picture from '$ui/score/Picture.svelte';
  import { readingMove, walkReading } from '$ui/score/walkReading';
  import { readingOf } from '$core/version/announce';
  import { placesText, tempoText, toBeats, toQuarters } from '$ui/text';
  import Play from '@lucide/svelte/icons/play';
  import Square from '@lucide/svelte/icons/square';
  import EarIcon from '@lucide/svelte/icons/ear';
  import type { Grade } from '$core/lessons/events';
  import { Ear } from './ear.svelte';
  import ForWeek from './ForWeek.svelte';
  import Listening from './Listening.svelte';
  import Meanwhile from './Meanwhile.svelte';
  import { FINGERTIP, nearestNote, noteOf } from '$ui/score/pointed';
  import { LESSON_KEYS, type LessonAct } from './keys';
  import { GRADE_KEYS, type LessonState } from './lesson.svelte';
  import type { LessonMusic } from './music.svelte';
  import { Metronome } from './metronome.svelte';
  import Steps from './Steps.svelte';
  import { untrack } from 'svelte';

  interface Props {
    lesson: LessonState;
    music: LessonMusic;
    time: TimeSignature;
    numbers: readonly string[];
    keyboard: number;
    /** Last time's words. */
    last: { date: string; note: string } | null;
    /** Names of the pieces, and their metres, by assignment. */
    pieces: Readonly<Record<string, { title: string; time: TimeSignature }>>;
    /** The simulated instrument is listened to. */
    simulated?: boolean;
    pretendAt?: string | undefined;
  }
  let {
    lesson,
    music,
    time,
    numbers,
    keyboard,
    last,
    pieces,
    simulated = false,
    pretendAt,
  }: Props = $props();
  const { sound } = untrack(() => music);
  const metronome = new Metronome();
  const ear = new Ear();

  const chunk = $derived(lesson.chunk);
  const after = $derived(lesson.walk[lesson.walk.findIndex((c) => c.id === chunk?.id) + 1]);
  /** What the step in hand is played over: with the chunk before it, where it is connected to that. */
  const played = $derived(chunk && playedIn(lesson.step?.id, chunk, lesson.chunks));
  const shown = $derived([
    ...music.stretchesOf(lesson.chunks.find((c) => c === played?.before)),
    ...music.stretchesOf(chunk),
  ]);
  const later = $derived(shown.length > 1 || after === lesson.whole ? [] : music.stretchesOf(after));
  const chunkName = $derived(chunk ? (chunk.name ?? `${chunk.section}, ${placesText(numbers, chunk)}`) : '');
  const joins = $derived(
    lesson.steps.some((s) => s.id === 'join' && !s.passed)
      ? lesson.chunks.find((c) => chunk && follows(c, chunk))
      : undefined,
  );
  const tempo = $derived(lesson.asked ?? lesson.rungs[0] ?? lesson.piece?.goal ?? 60);
  const range = $derived(KEYBOARDS[keyboard as keyof typeof KEYBOARDS] ?? KEYBOARDS[88]);
  const version = $derived(music.version);
  /** As much of the keyboard as the chunk needs, whole octaves: large keys are read from further away. */
  const keys = $derived.by(() => {
    if (!version || !chunk) return range;
    const { start, end } = ticksOf(version.score.measures, chunk);
    const midis = version.score.parts[0]!.notes.filter((n) => n.onset >= start && n.onset < end).map((n) =>
      toMidi(n.pitch),
    );
    if (midis.length === 0) return range;
    return {
      low: Math.max(range.low, 12 * Math.floor((Math.min(...midis) - 1) / 12)),
      high: Math.min(range.high, 12 * Math.ceil((Math.max(...midis) + 1) / 12)),
    };
  });
  const shape = $derived.by(() => {
    if (!version || !chunk) return undefined;
    const note = version.score.parts[0]!.notes.find((n) => n.id === music.note);
    // Before anything sounds: how the hands lie where the chunk begins.
    const begins = ticksOf(version.score.measures, chunk).start;
    const first = version.score.parts[0]!.notes.find((n) => n.onset >= begins)?.onset ?? begins;
    return shapeAt(version, note?.onset ?? first, sound.isPlaying ? { ids: sound.sounding } : undefined);
  });

  $effect(() => {
    void [version, shown, later];
    untrack(() => void music.draw([...shown, ...later]));
  });
  $effect(() => {
    void chunk?.id;
    untrack(() => {
      sound.stop();
      ear.forget();
      music.note = undefined;
    });
  });
  $effect(() => () => {
    sound.stop();
    metronome.stop();
    ear.close();
  });

  function play(): void {
    if (sound.isPlaying) return sound.stop();
    if (!version || !played) return;
    metronome.stop();
    sound.hands = lesson.step?.hand ?? 'both';
    sound.loops = true;
    sound.countIn = true;
    sound.share = Math.min(FASTEST, Math.max(SLOWEST, tempo / version.score.tempo));
    void sound.toggle(ticksOf(version.score.measures, played.places).start, played.places);
  }
  /** Listens to the step in hand, or ends the take. */
  function listen(): void {
    if (ear.isListening) return ear.stop();
    if (!version || !played) return;
    sound.stop();
    void ear.start({ version, places: played.places, hand: lesson.step?.hand ?? 'both', tempo }, simulated);
  }
  function accept(grade = ear.heard?.grade): void {
    const { heard } = ear;
    if (!heard || !grade || ear.isListening) return;
    lesson.accept(heard, grade);
    ear.forget();
  }
  /** A grade is said of what was heard, where something was; else of the step in hand. */
  function graded(value: Grade): void {
    if (ear.heard && !ear.isListening) accept(value);
    else lesson.grade(value);
  }
  const beats = $derived(toBeats(time, tempo));
  function click(): void {
    if (sound.isPlaying) sound.click = !sound.click;
    else void metronome.toggle(beats, time);
  }
  const tap = (): void => lesson.tap(performance.now(), (b) => toQuarters(time, b));

  let noteField = $state<HTMLTextAreaElement>();
  let end = $state<HTMLFormElement>();

  /** What a key does, where nothing is being written. */
  const ACTS: Readonly<Record<LessonAct, () => void>> = {
    'check off': () => lesson.tick(),
    play,
    listen,
    accept,
    'next step': () => lesson.stepBy(1),
    'previous step': () => lesson.stepBy(-1),
    'next chunk': () => lesson.walkBy(1),
    'previous chunk': () => lesson.walkBy(-1),
    tap,
    metronome: click,
    write: () => noteField?.focus(),
    'set week': () => lesson.setWeek(),
    end: () => end?.requestSubmit(),
    'grade 1': () => graded(1),
    'grade 2': () => graded(2),
    'grade 3': () => graded(3),
    'grade 4': () => graded(4),
  };
  const byPress = new Map(LESSON_KEYS.map(({ press, act }) => [press, ACTS[act]]));
  function onkeydown(event: KeyboardEvent): void {
    const target = event.target as Element | null;
    if (event.key === 'Escape' && target === noteField) return noteField?.blur();
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (target?.closest('input, textarea, select, [role="dialog"]')) return;
    // Space and Enter press what has the focus.
    if ((event.key === ' ' || event.key === 'Enter') && target?.closest('button, a, summary')) return;
    const act = byPress.get(event.key);
    if (!act) return;
    event.preventDefault();
    act();
  }

  function touch(event: MouseEvent): void {
    if (!(event.target instanceof Element)) return;
    const at = { x: event.clientX, y: event.clientY, within: FINGERTIP };
    const id = noteOf(event.target) ?? nearestNote(event.target, at);
    music.note = id === music.note ? undefined : id;
  }

  /** Where the music itself has the focus, the arrows walk its notes, which are read out. */
  const reading = $derived(version && chunk ? readingOf(version, chunk) : []);
  let read = $state('');
  function walkMusic(event: KeyboardEvent): void {
    const move = readingMove(event);
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    const at = walkReading(reading, music.note, move);
    music.note = at?.id;
    read = at?.text ?? '';
  }
</script>

<svelte:window {onkeydown} />

<div class="grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_20.5rem]" data-keys-home tabindex="-1">
  <div class="contents flex-col bg-paper lg:flex lg:min-h-0 lg:min-w-0">
    <div class="flex flex-wrap items-baseline gap-x-3 bg-paper px-4 pt-3 sm:px-7">
      <h2 class="text-lg">{chunkName}</h2>
      {#if joins}<span class="text-quiet">then connected to {placesText(numbers, joins)}</span>{/if}
      <span class="ml-auto flex items-center gap-1">
        <button
          class="flex h-9 w-9 items-center justify-center text-lg"
          aria-label="Previous chunk"
          title="←"
          onclick={() => lesson.walkBy(-1)}>‹</button
        >
        <label class="sr-only" for="chunk">Chunk</label>
        <select
          id="chunk"
          class="field"
          value={chunk?.id}
          onchange={(e) => lesson.choose(e.currentTarget.value)}
        >
          {#each lesson.walk as c (c.id)}
            <option value={c.id}>{c.name ?? placesText(numbers, c)}</option>
          {/each}
        </select>
        <button
          class="flex h-9 w-9 items-center justify-center text-lg"
          aria-label="Next chunk"
          title="→"
          onclick={() => lesson.walkBy(1)}>›</button
        >
      </span>
    </div>
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions, a11y_no_noninteractive_tabindex -->
    <div
      class="music min-h-0 flex-1 overflow-y-auto bg-paper px-2 sm:px-7"
      role="application"
      aria-label="Music of {chunkName}: arrow keys move"
      tabindex="0"
      onclick={touch}
      onkeydown={walkMusic}
    >
      <p class="sr-only" aria-live="polite">{read}</p>
      {#if music.problem}<p class="py-3 text-alarm" role="alert">
          The music can’t be shown: {music.problem}
        </p>{/if}
      {#each shown as stretch (stretch.id)}
        {#each music.pictures[stretch.id] ?? [undefined] as svg, i (i)}
          <Picture
            {svg}
            selected={music.note}
            sounding={sound.sounding}
            slipped={ear.slipped}
            label="{placesText(numbers, stretch)} of {chunkName}"
          />
        {/each}
      {/each}
      {#each later as stretch (stretch.id)}
        <div class="opacity-40">
          {#each music.pictures[stretch.id] ?? [] as svg, i (i)}
            <Picture {svg} label="Next: {placesText(numbers, stretch)}" />
          {/each}
        </div>
      {/each}
    </div>
    {#if ear.isListening || ear.isJudging || ear.take || ear.problem}
      <Listening
        {ear}
        {lesson}
        {time}
        {numbers}
        {simulated}
        {pretendAt}
        onaccept={() => accept()}
        ongrade={accept}
        onagain={listen}
      />
    {/if}
    <div class="flex items-center gap-5 border-t border-hairline bg-paper px-4 pt-1 sm:px-7">
      <div class="h-[86px] min-w-0 flex-1">
        <Keys
          low={keys.low}
          high={keys.high}
          marks={shape?.down ?? []}
          next={shape?.next ?? []}
          label="The hands' shape: {shape?.text ?? ''}"
        />
      </div>
      <p class="hidden w-24 shrink-0 text-sm leading-snug text-quiet sm:block">{shape?.text ?? ''}</p>
    </div>
    <div
      class="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-hairline bg-paper px-4 py-2 max-lg:sticky max-lg:bottom-0 max-lg:z-10 max-lg:order-last sm:px-7"
    >
      <button
        class="flex h-11 w-11 shrink-0 items-center justify-center rounded-full bg-accent text-on-accent disabled:opacity-50"
        aria-label={sound.isPlaying ? 'Stop' : 'Play the current step'}
        title="Space"
        disabled={!version}
        onclick={play}
      >
        {#if sound.isPlaying}<Square size={16} aria-hidden="true" />{:else}<Play
            size={19}
            aria-hidden="true"
          />{/if}
      </button>
      <button
        class="flex h-11 items-center gap-1.5 rounded-full border px-3 font-semibold disabled:opacity-50 {ear.isListening
          ? 'border-accent bg-accent-soft'
          : 'border-field bg-paper'}"
        aria-pressed={ear.isListening}
        aria-label={ear.isListening ? 'Done playing' : 'Listen to the playing'}
        title="L"
        disabled={!version}
        onclick={listen}
      >
        <EarIcon size={17} aria-hidden="true" />{ear.isListening ? 'Done' : 'Listen'}
      </button>
      <button
        class="h-9 border-b-2 px-1 {metronome.isOn || (sound.isPlaying && sound.click)
          ? 'border-accent'
          : 'border-transparent text-quiet hover:text-ink'}"
        aria-pressed={metronome.isOn || sound.click}
        title="M"
        onclick={click}>Metronome</button
      >
      <div class="flex flex-wrap items-center gap-1.5" role="group" aria-label="Tempo reached">
        <span class="text-sm text-quiet">{tempoText(time, tempo)}</span>
        {#each lesson.rungs as rung (rung)}
          <button
            class="h-10 min-w-12 rounded-md border px-2 font-semibold {rung === tempo
              ? 'border-accent bg-accent-soft'
              : 'border-field bg-paper'}"
            aria-pressed={rung === tempo}
            onclick={() => (lesson.tempo = rung)}>{toBeats(time, rung)}</button
          >
        {/each}
        <button class="h-10 rounded-md border border-field px-3" title="B" onclick={tap}>Tap the beat</button>
      </div>
      <button type="button" class="link ml-auto lg:hidden" onclick={() => end?.requestSubmit()}
        >End lesson</button
      >
      {#if sound.silence}<p class="text-sm text-alarm" role="status">{sound.silence}</p>{/if}
    </div>
  </div>

  <div
    class="flex min-h-0 flex-col overflow-y-auto border-l border-hairline px-4 py-2"
    role="region"
    aria-label="Steps and notes"
  >
    {#if lesson.piece}
      <Steps {lesson} {time} />
      <div class="mt-2" role="group" aria-label="How did it go?">
        <p class="text-sm text-quiet">
          How did it go{lesson.last || lesson.step ? ': ' : ''}{stepInSentence(
            lesson.lastStep ?? lesson.step?.says ?? '',
          )}?
        </p>
        <div class="mt-1 flex flex-wrap gap-1">
          {#each GRADE_KEYS as { grade, says } (grade)}
            <button
              class="h-10 rounded-full border px-2 text-[14px] {lesson.last?.grade === grade
                ? 'border-accent bg-accent-soft font-semibold'
                : 'border-field bg-paper'}"
              aria-pressed={lesson.last?.grade === grade}
              title={String(grade)}
              onclick={() => graded(grade)}>{says}</button
            >
          {/each}
        </div>
      </div>
    {/if}
    <Meanwhile {lesson} />
    <label class="mt-2 grid text-sm text-quiet"
      >Lesson notes (saved as you type)
      <textarea
        class="field mt-0.5 text-base text-ink"
        rows="2"
        bind:this={noteField}
        value={lesson.note}
        oninput={(e) => lesson.write(e.currentTarget.value)}></textarea></label
    >
    {#if last?.note}<p class="mt-1 text-sm text-quiet">Last time: {last.note}</p>{/if}
    <ForWeek {lesson} {pieces} />
    <form
      method="post"
      action="?/end"
      class="mt-4"
      bind:this={end}
      onsubmit={async (event) => {
        // What was said is with the server before the lesson ends.
        event.preventDefault();
        const form = event.currentTarget;
        try {
          await lesson.flush();
          form.submit();
        } catch {
          lesson.refused = 'You’re offline. The lesson ends when you’re back; nothing is lost.';
        }
      }}
    >
      <button class="action max-lg:hidden" title="E">End lesson</button>
    </form>
  </div>
</div>

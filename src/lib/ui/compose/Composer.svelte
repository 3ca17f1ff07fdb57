<script lang="ts">
  /** A tune written by hand: letters are notes, digits lengths; chords, words and sections from one line each; seen as it grows. */
  import { labelOf, RIGHTS_LABELS } from '$ui/labels';
  import {
    chosenItems,
    copied,
    deskOf,
    measureAtDesk,
    nameSection,
    paste,
    setChords,
    setWords,
    toggleRepeat,
    wordsFrom,
    writeKey,
    type Copied,
    type Desk,
  } from '$core/compose/compose';
  import { readChordRow } from '$core/score/chordRow';
  import { EMPTY, sketchSchema, type Sketch } from '$core/compose/sketch';
  import { itemId, toScore } from '$core/compose/toScore';
  import { pitchName } from '$core/theory/pitch';
  import { noteValue } from '$core/score/ticks';
  import { keyOptions } from '$core/theory/easyKeys';
  import { sourceSheet } from '$lib/engrave/sourceSheet';
  import { keyText, pressOf } from '$ui/form/press';
  import { listenToKeys, type Instrument } from '$ui/midi/keyboard';
  import Keys from '$ui/keys/Keys.svelte';
  import { FINGERTIP, nearestNote } from '$ui/score/pointed';
  import Sheet from '$ui/score/Sheet.svelte';
  import { measureText, toBeats, toQuarters } from '$ui/text';
  import { onMount, tick } from 'svelte';
  import { COMPOSE_KEYS, composeKey, PAGE_KEYS } from './keys';
  import { hearSketch } from './hear';
  import WritingButtons from './WritingButtons.svelte';

  interface Props {
    /** Keeps the sketch as a piece. */
    onkeep: (sketch: Sketch, rights: string) => Promise<void>;
    rights: readonly string[];
    /** The simulated instrument is listened to. */
    simulated: boolean;
  }
  let { onkeep, rights, simulated }: Props = $props();

  /** Kept on this device while it is written, so that nothing is lost. */
  const KEPT = 'keypath.sketch';
  /** The desk's width; on a narrow one lines are short and notes as large as on paper. */
  let room = $state(0);
  const isNarrow = $derived(room > 0 && room < 560);
  const LINE = $derived(isNarrow ? 2 : 4);
  const WIDTH = $derived(isNarrow ? Math.max(240, Math.round(room / 0.88)) : 900);
  /** The lowest key that is shown where there is no room for three octaves. */
  let lowest = $state(60);

  let desk = $state.raw<Desk>(deskOf(EMPTY));
  let past = $state.raw<readonly Desk[]>([]);
  let future = $state.raw<readonly Desk[]>([]);
  let copy: Copied | undefined;
  let line = $state<'chords' | 'words' | 'section'>();
  let text = $state('');
  let verse = $state(1);
  let complaint = $state('');
  let problem = $state('');
  let busy = $state(false);
  let right = $state('not known');
  let instrument = $state.raw<Instrument>();
  let silence = $state('');
  let board = $state<HTMLElement>();
  let field = $state<HTMLInputElement>();

  onMount(() => {
    try {
      const kept = sketchSchema.safeParse(JSON.parse(localStorage.getItem(KEPT) ?? 'null'));
      if (kept.success) desk = deskOf(kept.data);
    } catch {
      localStorage.removeItem(KEPT);
    }
    board?.focus();
    return () => instrument?.stop();
  });

  function set(next: Desk): void {
    if (next.sketch !== desk.sketch) {
      past = [...past, desk].slice(-500);
      future = [];
      localStorage.setItem(KEPT, JSON.stringify(next.sketch));
    }
    desk = next;
  }
  const setSketch = (sketch: Sketch): void => set({ ...desk, sketch });
  function undo(): void {
    const before = past.at(-1);
    if (!before) return;
    [past, future, desk] = [past.slice(0, -1), [...future, desk], before];
    localStorage.setItem(KEPT, JSON.stringify(desk.sketch));
  }
  function redo(): void {
    const after = future.at(-1);
    if (!after) return;
    [past, future, desk] = [[...past, desk], future.slice(0, -1), after];
    localStorage.setItem(KEPT, JSON.stringify(desk.sketch));
  }

  const sketch = $derived(desk.sketch);
  const score = $derived(toScore(sketch));
  /** A line of measures each; a pickup comes on top. */
  const lines = $derived.by(() => {
    const first = sketch.pickup > 0 ? 1 : 0;
    const { length } = score.measures;
    const count = Math.max(1, Math.ceil((length - first) / LINE));
    return Array.from({ length: count }, (_, i) => ({
      from: i === 0 ? 0 : first + i * LINE,
      to: Math.min(length - 1, first + (i + 1) * LINE - 1),
    }));
  });
  /** What a line depends on: a sheet that has not changed is the same object, and is not drawn again. */
  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- a memory beside what is shown
  const known = new Map<number, { name: string; sheet: ReturnType<typeof sourceSheet> }>();
  const sheets = $derived(
    lines.map((range, i) => {
      const sheet = sourceSheet(score, WIDTH, range);
      const name = JSON.stringify(sheet);
      const before = known.get(i);
      if (before?.name === name) return before.sheet;
      known.set(i, { name, sheet });
      return sheet;
    }),
  );
  const chosen = $derived.by(() => {
    const range = chosenItems(desk);
    return new Set(
      range ? sketch.items.slice(range.from, range.to).map((_, i) => itemId(range.from + i)) : [],
    );
  });
  const measure = $derived(measureAtDesk(desk));
  const before = $derived(sketch.items[desk.at - 1]);
  const lengthName = $derived(
    `${desk.dots ? 'dotted ' : ''}${{ 1: 'whole notes', 2: 'half notes', 4: 'quarters', 8: 'eighths', 16: 'sixteenths' }[desk.value]}${desk.triplet ? ' in triplets' : ''}`,
  );
  const said = $derived(
    `${measureText(score.measures[measure]?.number ?? '1')}: ${before ? (before.pitch ? pitchName(before.pitch) : 'rest') : 'at the beginning'}; next ${lengthName}`,
  );

  /** Notes from the one in hand on: words begin there, or with the note that was just written where one stands behind the last. */
  const wordsAt = $derived(desk.at === sketch.items.length ? 0 : desk.at);

  async function open(what: 'chords' | 'words' | 'section'): Promise<void> {
    line = what;
    complaint = '';
    text =
      what === 'chords'
        ? (sketch.chords[measure] ?? '')
        : what === 'section'
          ? (sketch.sections[measure] ?? '')
          : wordsFrom(sketch, wordsAt, verse);
    await tick();
    field?.focus();
    field?.select();
  }
  let chordsAt = $state(0);
  function keepLine(): void {
    complaint = '';
    if (line === 'chords') {
      if (text.trim() && !readChordRow(text)) {
        complaint = 'These aren’t chords. Write them like C Am7, or beat by beat like C . G7 .';
        return;
      }
      setSketch(setChords(sketch, chordsAt, text));
      chordsAt += 1;
      text = sketch.chords[chordsAt] ?? '';
      if (chordsAt >= score.measures.length) close();
    } else if (line === 'words') {
      setSketch(setWords(sketch, wordsAt, verse, text));
      close();
    } else {
      setSketch(nameSection(sketch, measure, text));
      close();
    }
  }
  function close(): void {
    line = undefined;
    board?.focus();
  }

  async function listen(): Promise<void> {
    silence = '';
    if (instrument) {
      instrument.stop();
      instrument = undefined;
      return;
    }
    try {
      instrument = await listenToKeys(({ midi }) => set(writeKey(desk, midi)), simulated);
    } catch (error) {
      silence = error instanceof Error ? error.message : String(error);
    }
  }

  function onkeydown(event: KeyboardEvent): void {
    if (event.target !== board) return;
    if (carryOut(pressOf(event))) event.preventDefault();
  }
  /** A note that is touched is the one that the next stroke changes. */
  function touch(event: MouseEvent): void {
    if (!(event.target instanceof Element)) return;
    const id = nearestNote(event.target, { x: event.clientX, y: event.clientY, within: FINGERTIP });
    const at = sketch.items.findIndex((_, i) => itemId(i) === id);
    if (at >= 0) set({ ...desk, at: at + 1, from: null });
  }
  /** Carries out what a key, or its button, means; false where it means nothing. */
  function carryOut(press: string): boolean {
    const key = composeKey(press);
    const acts: Readonly<Record<string, () => void>> = {
      s: () => {
        chordsAt = measure;
        void open('chords');
      },
      w: () => void open('words'),
      n: () => void open('section'),
      ':': () => setSketch(toggleRepeat(sketch, measure)),
      'Ctrl+c': () => (copy = copied(desk)),
      'Ctrl+v': () => copy && set(paste(desk, copy)),
      'Ctrl+z': undo,
      'Ctrl+Shift+z': redo,
      ' ': () => void hearSketch(score, desk.at === sketch.items.length ? 0 : desk.at),
    };
    const act = key ? () => set(key.act(desk)) : acts[press];
    act?.();
    return act !== undefined;
  }

  async function keepPiece(): Promise<void> {
    problem = '';
    const checked = sketchSchema.safeParse(sketch);
    if (!checked.success) problem = checked.error.issues[0]!.message;
    else if (!sketch.items.some((i) => i.pitch)) problem = 'No notes yet. Type a letter to write one.';
    if (problem) return;
    busy = true;
    try {
      await onkeep(sketch, right);
      localStorage.removeItem(KEPT);
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
  }
  const TIMES = ['4/4', '3/4', '2/4', '6/8', '2/2', '3/8', '9/8', '12/8', '5/4'];
  const pickups = $derived(
    Array.from({ length: sketch.time.beats }, (_, n) => ({
      beats: n,
      ticks: n * noteValue(sketch.time.beatType),
    })),
  );
</script>

<div class="flex flex-wrap items-end gap-x-4 gap-y-2">
  <label class="grid text-sm text-quiet"
    >Title<input
      class="field w-52 text-base text-ink"
      maxlength="200"
      value={sketch.title}
      onchange={(event) => setSketch({ ...sketch, title: event.currentTarget.value })}
    /></label
  >
  <label class="grid text-sm text-quiet"
    >Composer<input
      class="field w-40 text-base text-ink"
      maxlength="200"
      value={sketch.composer}
      onchange={(event) => setSketch({ ...sketch, composer: event.currentTarget.value })}
    /></label
  >
  <label class="grid text-sm text-quiet"
    >Key<select
      class="field text-base text-ink"
      aria-label="Key"
      value={sketch.key}
      onchange={(event) => setSketch({ ...sketch, key: event.currentTarget.value })}
    >
      {#each ['major', 'minor'] as const as mode (mode)}
        {#each keyOptions(mode) as { code, name } (code)}<option value={code}>{name}</option>{/each}
      {/each}
    </select></label
  >
  <label class="grid text-sm text-quiet"
    >Time signature<select
      class="field text-base text-ink"
      aria-label="Time signature"
      value="{sketch.time.beats}/{sketch.time.beatType}"
      onchange={(event) => {
        const [beats, beatType] = event.currentTarget.value.split('/').map(Number);
        setSketch({ ...sketch, pickup: 0, time: { beats: beats!, beatType: beatType as 4 } });
      }}
    >
      {#each TIMES as time (time)}<option>{time}</option>{/each}
    </select></label
  >
  <label class="grid text-sm text-quiet"
    >Pickup<select
      class="field text-base text-ink"
      aria-label="Pickup"
      value={String(sketch.pickup)}
      onchange={(event) => setSketch({ ...sketch, pickup: Number(event.currentTarget.value) })}
    >
      {#each pickups as { beats, ticks } (ticks)}<option value={String(ticks)}
          >{beats === 0 ? 'none' : beats === 1 ? 'one beat' : `${beats} beats`}</option
        >{/each}
    </select></label
  >
  <label class="grid text-sm text-quiet"
    >Beats a minute<input
      class="field w-24 text-base text-ink"
      type="number"
      min="20"
      max="300"
      value={toBeats(sketch.time, sketch.tempo)}
      onchange={(event) =>
        setSketch({
          ...sketch,
          tempo: Math.max(
            20,
            Math.min(300, toQuarters(sketch.time, Number(event.currentTarget.value) || 96)),
          ),
        })}
    /></label
  >
  <label class="grid text-sm text-quiet"
    >Rights<select class="field text-base text-ink" aria-label="Rights" bind:value={right}>
      {#each rights as id (id)}<option value={id}>{labelOf(RIGHTS_LABELS, id)}</option>{/each}
    </select></label
  >
  <button type="button" class="action" disabled={busy} onclick={() => void keepPiece()}
    >{busy ? 'Saving…' : 'Save this piece'}</button
  >
</div>
{#if problem}<p class="mt-2 text-alarm" role="alert">{problem}</p>{/if}

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions (it is written on by keys) -->
<div
  class="mt-4 min-h-72 rounded-md border border-hairline bg-paper px-4 py-2 focus-visible:border-accent"
  data-keys-home
  bind:clientWidth={room}
  role="application"
  aria-label="Melody: letters write notes, digits set their length"
  aria-describedby="compose-said"
  tabindex="0"
  bind:this={board}
  {onkeydown}
  onclick={touch}
>
  {#each sheets as sheet, i (i)}
    <Sheet
      {sheet}
      selected={desk.at > 0 ? itemId(desk.at - 1) : undefined}
      {chosen}
      current={measure}
      label="Measures {score.measures[lines[i]?.from ?? 0]?.number} to {score.measures[lines[i]?.to ?? 0]
        ?.number}"
    />
  {/each}
</div>
<p id="compose-said" class="mt-1 text-quiet first-letter:uppercase" role="status">{said}</p>

<WritingButtons
  {desk}
  canUndo={past.length > 0}
  canRedo={future.length > 0}
  onpress={(press) => {
    carryOut(press);
    if (!line) board?.focus();
  }}
/>

{#if line}
  <form
    class="mt-2 flex flex-wrap items-center gap-3"
    onsubmit={(event) => {
      event.preventDefault();
      keepLine();
    }}
  >
    <label class="flex min-w-0 flex-1 items-center gap-3"
      ><span class="whitespace-nowrap"
        >{line === 'chords'
          ? `Chords of ${measureText(score.measures[chordsAt]?.number ?? '')}`
          : line === 'words'
            ? 'Lyrics from here'
            : `Section that starts at ${measureText(score.measures[measure]?.number ?? '')}`}</span
      ><input
        class="field min-w-0 flex-1"
        bind:this={field}
        bind:value={text}
        placeholder={line === 'chords'
          ? 'C Am7, or C . G7 .'
          : line === 'words'
            ? 'The wind has pa-per wings'
            : 'Verse'}
        onkeydown={(event) => {
          if (event.key === 'Escape') close();
        }}
      /></label
    >
    {#if line === 'words'}
      <label class="flex items-center gap-2"
        >verse <input
          class="field w-16"
          type="number"
          min="1"
          max="9"
          bind:value={verse}
          onchange={() => (text = wordsFrom(sketch, wordsAt, verse))}
        /></label
      >
    {/if}
    <button class="link">{line === 'chords' ? 'Next measure' : 'Save'}</button>
    <button type="button" class="link" onclick={close}>Back to the notes</button>
    {#if complaint}<p class="w-full text-sm text-alarm" role="alert">{complaint}</p>{/if}
  </form>
{/if}

<div class="mt-3 grid items-center gap-4 md:grid-cols-[auto_minmax(0,1fr)]">
  <div class="flex flex-wrap gap-4 text-sm">
    <button type="button" class="link" aria-pressed={instrument !== undefined} onclick={() => void listen()}
      >{instrument ? `Listening to ${instrument.name}` : 'Play it on a MIDI keyboard'}</button
    >
    {#if silence}<p class="text-alarm" role="status">{silence}</p>{/if}
  </div>
  {#if isNarrow}
    <p class="flex justify-between text-sm">
      <button type="button" class="link" disabled={lowest <= 36} onclick={() => (lowest -= 12)}
        >Lower octave</button
      >
      <button type="button" class="link" disabled={lowest >= 84} onclick={() => (lowest += 12)}
        >Higher octave</button
      >
    </p>
  {/if}
  <div class={isNarrow ? 'h-36' : 'h-24'}>
    <Keys
      low={isNarrow ? lowest : 48}
      high={isNarrow ? lowest + 12 : 84}
      marks={[]}
      label="Piano keys to write notes"
      onkey={(midi) => {
        set(writeKey(desk, midi));
        board?.focus();
      }}
    />
  </div>
</div>

<details class="mt-3">
  <summary class="cursor-pointer text-quiet">Shortcuts</summary>
  <dl
    class="mt-1 grid grid-cols-[7rem_minmax(0,1fr)] gap-x-4 text-sm md:grid-cols-[7rem_minmax(0,1fr)_7rem_minmax(0,1fr)]"
  >
    {#each [...COMPOSE_KEYS, ...PAGE_KEYS] as { press, does } (press)}
      <dt class="font-mono">{keyText(press)}</dt>
      <dd class="text-quiet">{does}</dd>
    {/each}
  </dl>
</details>

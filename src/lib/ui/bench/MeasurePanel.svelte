<script lang="ts">
  /** The measure in hand: chord, fingers, count, pedal, what was changed and why, how hard it is. */
  import { countText } from '$core/counting/count';
  import { endOf, placeInMeasure } from '$core/score/metre';
  import { pitchName } from '$core/score/pitch';
  import { chordSymbol, chordToneNames, degree, inversion, isDiatonic } from '$core/theory/chord';
  import type { Version } from '$core/version/realise';
  import { measureText } from '$ui/text';
  import type { Bench } from './bench.svelte';
  import Fingers from './Fingers.svelte';

  let { bench, version }: { bench: Bench; version: Version } = $props();

  const measure = $derived(version.score.measures[bench.measure ?? 0]!);
  const inside = (tick: number): boolean => tick >= measure.start && tick < endOf(measure);
  const notes = $derived(version.score.parts[0]!.notes.filter((n) => inside(n.onset)));
  const chords = $derived(
    version.chords.filter((c) => c.chord && c.onset < endOf(measure) && c.onset + c.duration > measure.start),
  );
  const counts = $derived(version.counts[measure.index]?.counts ?? []);
  const pedals = $derived(version.score.pedals.filter((p) => inside(p.onset) && p.type !== 'stop'));
  const reasons = $derived([
    ...new Set(version.reasons.filter((r) => r.measure === measure.index).map((r) => r.text)),
  ]);
  const violations = $derived(version.violations.filter((v) => v.measure === measure.index));
  const difficulty = $derived(version.difficulty[measure.index]);
  const INVERSIONS = ['', 'first inversion', 'second inversion', 'third inversion', 'fourth inversion'];
  const beatName = (tick: number): string =>
    String(1 + placeInMeasure(measure, tick) / (measure.time.beatType === 8 ? 5040 : 10080));
</script>

<section aria-label={measureText(measure.number)} class="grid content-start gap-5 text-[15px]">
  <div>
    <h2 class="text-lg first-letter:uppercase">{measureText(measure.number)}</h2>
    <p class="eyebrow">
      {#each chords as { chord }, i (i)}
        {#if chord}
          {i > 0 ? ', then ' : ''}<span title={chordToneNames(chord)}>{chordSymbol(chord)}</span>
          ({degree(chord, version.key)}{isDiatonic(chord, version.key) ? '' : ', borrowed'}{inversion(chord) >
          0
            ? `, ${INVERSIONS[inversion(chord)]}`
            : ''})
        {/if}
      {:else}
        no chord
      {/each}
    </p>
  </div>

  {#each ['right', 'left'] as const as hand (hand)}
    {@const own = notes.filter((n) => n.staff === (hand === 'right' ? 1 : 2))}
    <div>
      <h3 class="mb-1 font-semibold">{hand === 'right' ? 'Right hand' : 'Left hand'}</h3>
      {#if own.length > 0}
        <Fingers
          notes={own}
          fingers={version.fingers}
          {hand}
          selected={bench.selected}
          onselect={(id) => bench.select(id)}
        />
      {:else}
        <p class="eyebrow">rests</p>
      {/if}
      {#if bench.note && own.some((n) => n.id === bench.selected)}
        <div class="mt-2 border-l-[3px] border-accent pl-3" aria-live="polite">
          <p>{bench.why?.text ?? `${pitchName(bench.note.pitch)} …`}</p>
          {#if version.fingers[bench.note.id]?.decided}
            <button type="button" class="link mt-1 text-sm" onclick={() => bench.giveBack()}>
              Give it back <kbd class="font-mono">0</kbd>
            </button>
          {:else}
            <p class="mt-1 text-sm text-quiet">
              Proposed. <kbd class="font-mono">1</kbd>–<kbd class="font-mono">5</kbd> decides.
            </p>
          {/if}
        </div>
      {/if}
    </div>
  {/each}

  {#if counts.length > 0}
    <div>
      <h3 class="font-semibold">Count</h3>
      <p class="font-mono">
        {#each counts as count (count.at)}<span class={count.kind === 'onset' ? '' : 'text-quiet'}
            >{countText(count)}&nbsp;</span
          >{/each}
      </p>
    </div>
  {/if}

  <div>
    <h3 class="font-semibold">Pedal</h3>
    <p class="eyebrow">
      {#if version.score.pedals.length === 0}
        none in this version
      {:else if pedals.length === 0}
        as before
      {:else}
        {#each pedals as pedal, i (pedal.onset)}{i > 0 ? ', ' : ''}{pedal.type === 'change'
            ? 'cleared'
            : 'down'} on {beatName(pedal.onset)}{/each}
      {/if}
    </p>
  </div>

  {#if reasons.length > 0}
    <div>
      <h3 class="font-semibold">What was done here</h3>
      <ul class="list-disc pl-5 text-quiet">
        {#each reasons as reason (reason)}<li>{reason}</li>{/each}
      </ul>
    </div>
  {/if}

  {#if violations.length > 0}
    <div>
      <h3 class="font-semibold text-alarm">Beyond level {bench.recipe.level}</h3>
      <ul class="list-disc pl-5">
        {#each violations as v (v.limit + v.hand)}
          <li>
            {v.limit}{v.hand === 'both' ? '' : `, ${v.hand} hand`}: {v.found}, where the level has {v.allowed}
          </li>
        {/each}
      </ul>
    </div>
  {/if}

  {#if difficulty}
    <div>
      <h3 class="font-semibold">Hard here: {difficulty.score} of 100</h3>
      <p class="eyebrow">{difficulty.reasons.join(', ') || 'nothing in particular'}</p>
    </div>
  {/if}
</section>

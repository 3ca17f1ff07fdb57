<script lang="ts">
  /** The measure in hand: chord, fingers, count, pedal, what was changed and why, how hard it is. */
  import { levelText } from '$core/arrange/levels';
  import type { Hand } from '$core/fingering/events';
  import { positionText } from '$core/fingering/positions';
  import { endOf } from '$core/score/metre';
  import { pitchName } from '$core/score/pitch';
  import { chordSymbol, chordToneNames, degree, inversion, isDiatonic } from '$core/theory/chord';
  import type { Version } from '$core/version/realise';
  import { decisionsOf } from '$core/version/recipe';
  import { measureText } from '$ui/text';
  import type { Bench } from './bench.svelte';
  import CountPanel from './CountPanel.svelte';
  import Fingers from './Fingers.svelte';
  import OtherFingerings from './OtherFingerings.svelte';
  import PedalPanel from './PedalPanel.svelte';
  import TexturePanel from './TexturePanel.svelte';

  let { bench, version }: { bench: Bench; version: Version } = $props();

  const measure = $derived(version.score.measures[bench.measure ?? 0]!);
  const inside = (tick: number): boolean => tick >= measure.start && tick < endOf(measure);
  const notes = $derived(version.score.parts[0]!.notes.filter((n) => inside(n.onset)));
  const chords = $derived(
    version.chords.filter((c) => c.chord && c.onset < endOf(measure) && c.onset + c.duration > measure.start),
  );
  /** Positions that hold in the measure: those that begin in it, and the one that goes on from before. */
  const positions = $derived((hand: Hand): string => {
    const own = version.positions.filter((p) => p.hand === hand && p.onset < endOf(measure));
    const begin = own.findIndex((p) => inside(p.onset));
    const from =
      begin < 0 ? own.length - 1 : own[begin]?.onset === measure.start ? begin : Math.max(0, begin - 1);
    return own.slice(Math.max(0, from)).map(positionText).join('; ');
  });
  const reasons = $derived([
    ...new Set(version.reasons.filter((r) => r.measure === measure.index).map((r) => r.text)),
  ]);
  const givenOver = $derived(new Set(decisionsOf(bench.decisions, 'hand').map((d) => d.note)));
  const wide = $derived(version.wide.filter((w) => w.measure === measure.index));
  const violations = $derived(version.violations.filter((v) => v.measure === measure.index));
  const difficulty = $derived(version.difficulty[measure.index]);
  const INVERSIONS = ['', 'first inversion', 'second inversion', 'third inversion', 'fourth inversion'];
</script>

<section
  aria-label={measureText(measure.number)}
  class="grid grid-cols-[minmax(0,1fr)] content-start gap-5 text-[15px]"
>
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
        <p class="mt-1 text-sm text-quiet">{positions(hand)}</p>
      {:else}
        <p class="eyebrow">rests</p>
      {/if}
      {#if bench.note && own.some((n) => n.id === bench.selected)}
        <div class="mt-2 border-l-[3px] border-accent pl-3" aria-live="polite">
          <p>{bench.why?.text ?? `${pitchName(bench.note.pitch)} …`}</p>
          {#if version.fingers[bench.note.id]?.decided || givenOver.has(bench.note.id)}
            <button type="button" class="link mt-1 mr-3 text-sm" onclick={() => bench.giveBack()}>
              Give it back <kbd class="font-mono">0</kbd>
            </button>
          {:else}
            <p class="mt-1 text-sm text-quiet">
              Proposed. <kbd class="font-mono">1</kbd>–<kbd class="font-mono">5</kbd> decides.
            </p>
          {/if}
          <button type="button" class="link mt-1 text-sm" onclick={() => bench.otherHand()}>
            {hand === 'right' ? 'Left' : 'Right'} hand takes it <kbd class="font-mono">X</kbd>
          </button>
        </div>
      {/if}
      <OtherFingerings
        {bench}
        ways={bench.others.filter((o) => o.hand === hand)}
        notes={own.filter((n) => n.id in version.fingers)}
      />
    </div>
  {/each}

  <TexturePanel {bench} {version} measure={measure.index} />
  <CountPanel {bench} {version} measure={measure.index} />
  <PedalPanel {bench} {version} measure={measure.index} />

  {#if reasons.length > 0}
    <div>
      <h3 class="font-semibold">What was done here</h3>
      <ul class="list-disc pl-5 text-quiet">
        {#each reasons as reason (reason)}<li>{reason}</li>{/each}
      </ul>
    </div>
  {/if}

  {#if wide.length > 0}
    <div>
      <h3 class="font-semibold text-alarm">Wider than the hand</h3>
      <ul class="list-disc pl-5">
        {#each wide as chord (chord.onset + chord.hand)}
          <li>
            {chord.hand} hand, {chord.span} semitones where it holds {chord.reach}: {chord.ways
              .map((w) => w.text)
              .join('; or ')}
          </li>
        {/each}
      </ul>
      <p class="text-sm text-quiet">Never force a stretch.</p>
    </div>
  {/if}

  {#if violations.length > 0}
    <div>
      <h3 class="font-semibold text-alarm">Beyond level {levelText(bench.recipe.level)}</h3>
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

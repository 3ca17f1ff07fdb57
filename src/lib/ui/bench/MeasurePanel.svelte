<script lang="ts">
  /** The measure in hand: chord, fingers, count, pedal, what was changed and why, how hard it is. */
  import { MELODY_LINE_NAMES } from '$core/analysis/melody';
  import { levelText } from '$core/arrange/levels';
  import type { Hand } from '$core/fingering/events';
  import { positionText } from '$core/fingering/positions';
  import { endOf } from '$core/score/metre';
  import { pitchName } from '$core/score/pitch';
  import { chordSymbol, chordToneNames, degree, inversion, isDiatonic } from '$core/theory/chord';
  import type { Version } from '$core/version/realise';
  import { allKinds } from '$core/decisions/registry';
  import { measureText } from '$ui/text';
  import CountPanel from './CountPanel.svelte';
  import Fingers from './Fingers.svelte';
  import OtherFingerings from './OtherFingerings.svelte';
  import PedalPanel from './PedalPanel.svelte';
  import DecisionPanel from './DecisionPanel.svelte';
  import NoteDecisions from './NoteDecisions.svelte';
  import { perform } from './commands';
  import { getBench } from './state/bench.svelte';

  let { version }: { version: Version } = $props();

  const bench = getBench();
  const { selection } = bench;
  const answer = $derived(bench.view.answer?.note === selection.id ? bench.view.answer : undefined);
  const measure = $derived(version.score.measures[selection.measure ?? 0]!);
  /** Kinds with lists of their own below; what has a panel of its own is not repeated. */
  const OWN_PANEL = ['counting', 'pedal'];
  const listed = $derived(
    allKinds().filter(
      (kind) =>
        !OWN_PANEL.includes(kind.id) &&
        (kind.scopes.includes('measure') || kind.scopes.includes('section')) &&
        bench.situation &&
        (kind.choices?.(bench.situation).length ?? 0) > 0,
    ),
  );
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
          selected={selection.id}
          onselect={(note) => perform(bench, { do: 'select note', note })}
        />
        <p class="mt-1 text-sm text-quiet">{positions(hand)}</p>
      {:else}
        <p class="eyebrow">rests</p>
      {/if}
      {#if selection.note && own.some((n) => n.id === selection.id)}
        <div class="mt-2 border-l-[3px] border-accent pl-3" aria-live="polite">
          <p>{answer?.why?.text ?? `${pitchName(selection.note.pitch)} …`}</p>
          <NoteDecisions note={selection.note.id} />
        </div>
      {/if}
      <OtherFingerings
        list={(answer?.others ?? []).filter((o) => o.hand === hand)}
        notes={own.filter((n) => n.id in version.fingers)}
      />
    </div>
  {/each}

  {#each listed as kind (kind.id)}
    <DecisionPanel kind={kind.id}>
      {#if kind.id === 'melody'}
        <p class="text-sm text-quiet">
          now {MELODY_LINE_NAMES[version.melody.lines[measure.index] ?? 'upper']} has it
        </p>
      {/if}
    </DecisionPanel>
  {/each}
  <CountPanel {version} measure={measure.index} />
  <PedalPanel {version} measure={measure.index} />

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
            {chord.hand} hand, {chord.span} semitones where it holds {chord.reach}: {chord.remedies
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
      <h3 class="font-semibold text-alarm">Beyond level {levelText(bench.document.recipe.level)}</h3>
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

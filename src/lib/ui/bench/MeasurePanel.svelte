<script lang="ts">
  /** The measure in hand, short: its fingers and why, what else would do, and a line for each thing that can be decided. */
  import { MELODY_LINE_NAMES } from '$core/analysis/melody';
  import { levelText } from '$core/arrange/levels';
  import { valuesIn } from '$core/decisions/holds';
  import { textureText, type Texture } from '$core/arrange/textures';
  import type { Hand } from '$core/fingering/events';
  import { positionText } from '$core/fingering/positions';
  import { endOf } from '$core/score/metre';
  import { pitchName } from '$core/theory/pitch';
  import { intervalOf } from '$core/theory/intervalWord';
  import { violationText } from '$core/version/limits';
  import { chordSymbol, chordToneNames, degree, inversion, isDiatonic } from '$core/theory/chord';
  import type { Version } from '$core/version/realise';
  import { muddyChords } from '$core/hands/muddy';
  import { allKinds, decisionText, kindOf, type KindId } from '$core/decisions/registry';
  import { capital, measureText, plural, reasonsText } from '$ui/text';
  import CountPanel from './CountPanel.svelte';
  import Fingers from './Fingers.svelte';
  import OtherFingerings from './OtherFingerings.svelte';
  import PedalPanel from './PedalPanel.svelte';
  import DecisionPanel from './DecisionPanel.svelte';
  import NoteDecisions from './NoteDecisions.svelte';
  import { perform } from './commands';
  import { scopeText } from './scopeText';
  import { getBench } from './state/bench.svelte';

  interface Props {
    version: Version;
    /** Opens the list of what can be decided, or of what one kind offers. */
    onchoose: (kind?: KindId) => void;
    /** Opens the form for a pattern of one's own. */
    onpattern: () => void;
  }
  let { version, onchoose, onpattern }: Props = $props();

  const bench = getBench();
  const { selection, again } = bench;
  const answer = $derived(bench.view.answer?.note === selection.id ? bench.view.answer : undefined);
  const measure = $derived(version.score.measures[selection.measure ?? 0]!);
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
  const blurring = $derived(muddyChords(version.score.parts[0]!, version.score.measures));
  const muddy = $derived(blurring.filter((m) => m.measure === measure.index));
  const wide = $derived(version.wide.filter((w) => w.measure === measure.index));
  const violations = $derived(version.violations.filter((v) => v.measure === measure.index));
  const difficulty = $derived(version.difficulty[measure.index]);
  const INVERSIONS = ['', 'first inversion', 'second inversion', 'third inversion', 'fourth inversion'];
  const texture = $derived.by((): Texture | undefined =>
    bench.layout
      ? (valuesIn('texture', bench.document.decisions, bench.layout)[measure.index] as Texture)
      : undefined,
  );
  /** What is decided in the measure or its section beside what has a line of its own. */
  const decidedHere = $derived(
    bench.document.decisions.filter(
      ({ kind, at }) =>
        !kindOf(kind).stands?.measure &&
        (('measure' in at && at.measure === measure.id) ||
          ('range' in at &&
            bench.layout &&
            valuesIn(kind, [{ kind, at, value: true } as never], bench.layout)[measure.index])),
    ),
  );
  const lists = $derived(
    allKinds().filter(
      (kind) =>
        kind.stands?.measure === 'list' &&
        bench.situation &&
        (kind.choices?.(bench.situation).length ?? 0) > 0,
    ),
  );
</script>

<section
  aria-label={measureText(measure.number)}
  class="grid grid-cols-[minmax(0,1fr)] content-start gap-3 text-[15px]"
>
  <div>
    <h2 class="text-lg first-letter:uppercase">{measureText(measure.number)}</h2>
    <p class="eyebrow">
      {#each chords as { chord }, i (i)}
        {#if chord}
          {i > 0 ? ', then ' : ''}<span title={chordToneNames(chord)}>{chordSymbol(chord)}</span>
          ({degree(chord, version.key)}{isDiatonic(chord, version.key) ? '' : ', outside the key'}{inversion(
            chord,
          ) > 0
            ? `, ${INVERSIONS[inversion(chord)]}`
            : ''})
        {/if}
      {:else}
        no chord
      {/each}
    </p>
  </div>

  {#if selection.notes.length > 1}
    <p class="border-l-[3px] border-accent pl-3" role="status">
      Selected: {scopeText(bench, selection.byMeasure ? 'range' : 'note')}
    </p>
  {/if}

  {#each ['right', 'left'] as const as hand (hand)}
    {@const own = notes.filter((n) => n.staff === (hand === 'right' ? 1 : 2))}
    <div>
      <h3 class="sr-only">{hand === 'right' ? 'Right hand' : 'Left hand'}</h3>
      {#if own.length > 0}
        <Fingers
          notes={own}
          fingers={version.fingers}
          {hand}
          selected={selection.id}
          onselect={(note) => perform(bench, { do: 'select note', note })}
        />
        <p class="mt-0.5 text-sm text-quiet">{positions(hand)}</p>
      {:else}
        <p class="eyebrow">{hand} hand rests</p>
      {/if}
      {#if selection.note && own.some((n) => n.id === selection.id)}
        <div class="mt-1 border-l-[3px] border-accent pl-3" aria-live="polite">
          <p class="max-desk:hidden">{answer?.why?.text ?? `${pitchName(selection.note.pitch)} …`}</p>
          <NoteDecisions note={selection.note.id} {hand} />
        </div>
        {#if again.question}
          <div class="mt-2 rounded-md bg-accent-soft p-3 text-sm" role="group" aria-label="Where else">
            <p>
              This passage repeats in {plural(again.question.places, 'place', 'places')}. Use your choice
              there too, from now on?
            </p>
            <p class="mt-1 flex gap-4">
              <button type="button" class="link" onclick={() => again.keep(true)}
                >Everywhere it repeats</button
              >
              <button type="button" class="link" onclick={() => again.keep(false)}>Only here</button>
            </p>
          </div>
        {/if}
      {/if}
      <OtherFingerings
        list={(answer?.others ?? []).filter((o) => o.hand === hand)}
        notes={own.filter((n) => n.id in version.fingers)}
        {hand}
      />
    </div>
  {/each}

  <p>
    <button type="button" class="link" onclick={() => onchoose()}>More options</button>
    <kbd class="font-mono text-sm text-quiet pointer-coarse:hidden">Enter</kbd>
    <button
      type="button"
      class="link ml-3 text-sm"
      aria-pressed={bench.choosesOn}
      title="The next note or measure you touch ends the selection (Shift with the arrow keys)"
      onclick={() => (bench.choosesOn = !bench.choosesOn)}
      >{bench.choosesOn ? 'Touch the last note…' : 'Select more'}</button
    >
  </p>

  {#if decidedHere.length > 0}
    <ul class="text-sm">
      {#each decidedHere as decision (decision.kind + JSON.stringify(decision.at))}
        <li class="flex items-baseline gap-2">
          <span>{decisionText(decision)}</span>
          <button
            type="button"
            class="link ml-auto"
            aria-label="Reset: {decisionText(decision)}"
            onclick={() => perform(bench, { do: 'give back', kind: decision.kind, at: decision.at })}
            >Reset</button
          >
        </li>
      {/each}
    </ul>
  {/if}

  {#each lists as kind (kind.id)}
    <DecisionPanel kind={kind.id} says={kind.id === 'texture' && texture ? textureText(texture) : undefined}>
      {#if kind.id === 'texture'}
        <button type="button" class="link text-sm" onclick={onpattern}>Your own pattern</button>
      {/if}
      {#if kind.id === 'melody'}
        <p class="text-sm text-quiet">
          Melody: {MELODY_LINE_NAMES[version.melody.lines[measure.index] ?? 'upper']}
        </p>
      {/if}
    </DecisionPanel>
  {/each}
  <CountPanel {version} measure={measure.index} />
  <PedalPanel {version} measure={measure.index} />

  {#if muddy.length > 0}
    <div>
      <h3 class="font-semibold">Close and low</h3>
      <ul class="list-disc pl-5">
        {#each muddy as chord (chord.onset + chord.hand)}<li>
            {capital(chord.hand)} hand: {chord.text}.
          </li>{/each}
      </ul>
    </div>
  {/if}
  {#if wide.length > 0}
    <div>
      <h3 class="font-semibold text-alarm">Wider than the reach</h3>
      <ul class="list-disc pl-5">
        {#each wide as chord (chord.onset + chord.hand)}
          <li>
            {capital(chord.hand)} hand: {intervalOf(chord.span)} (reach: {intervalOf(chord.reach)}). {capital(
              chord.remedies.map((w) => w.text).join('; or '),
            )}.
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
          <li>{violationText(v, bench.document.recipe.level)}</li>
        {/each}
      </ul>
    </div>
  {/if}

  {#if difficulty}
    <p>
      <span class="font-semibold">Difficulty {difficulty.score} of 100</span>
      <span class="text-quiet">{reasonsText(difficulty.reasons) || 'nothing stands out'}</span>
    </p>
  {/if}

  {#if reasons.length > 0}
    <details>
      <summary class="cursor-pointer text-quiet">Why it’s arranged this way ({reasons.length})</summary>
      <ul class="list-disc pl-5 text-sm text-quiet">
        {#each reasons as reason (reason)}<li>{reason}</li>{/each}
      </ul>
    </details>
  {/if}

  {#if again.everywhere !== undefined}
    <p class="text-sm text-quiet">
      Your choices apply {again.everywhere ? 'everywhere it repeats' : 'only where you make them'}.
      <button type="button" class="link" onclick={() => again.keep(!again.everywhere)}
        >{again.everywhere ? 'Only here' : 'Everywhere it repeats'}</button
      >
    </p>
  {/if}
</section>

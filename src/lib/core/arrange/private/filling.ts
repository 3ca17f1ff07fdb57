/**
 * Chord tones under the melody in the right hand: a third or sixth below long notes, fuller at chord changes from level 4
 * on, and wherever the left hand has gone low and left the chord behind. The melody stays on top.
 */
import { beatLength, placeInMeasure } from '../../score/metre';
import { pitchName } from '../../theory/pitch';
import { measureAt, type SoundingNote } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { chordSymbol, chordTones, type Chord } from '../../theory/chord';
import { pitchClass, spellMidi } from '../../theory/fifths';
import type { LevelContract } from '../levels';
import type { ArrangeReason } from '../reason';
import type { PianoKey } from './patterns';
import { isClear } from '../../hands/register';
import type { MeasureStretches, Stretch } from './stretches';
import { octavesOf } from './voicing';

interface FillSettings {
  readonly contract: LevelContract;
  /** Semitones the right hand holds. */
  readonly reach: number;
  /** The source is for two hands and thin itself: only what the left hand has left behind is filled in. */
  readonly sparing: boolean;
  readonly except?: ReadonlySet<number>;
}

/** Lowest key of a filling, E3: below it the left hand is at home. */
const LOWEST = 52;
/** Under this key a chord's third is no longer heard as part of the chord above: the left hand has gone low. */
const LOW = 48;
/** From the highest key of the left hand to the lowest filling: two keys side by side are in each other's way. */
const APART = 2;
/** Fewest beats of a long note. */
const LONG = 1.5;

/** Notes to add under a melody, each as long as the melody note above it. */
export function fillUnder(
  melody: readonly SoundingNote[],
  left: readonly SoundingNote[],
  inMeasures: readonly MeasureStretches[],
  measures: readonly Measure[],
  settings: FillSettings,
): { notes: Note[]; reasons: ArrangeReason[] } {
  const { contract } = settings;
  const notes: Note[] = [];
  const reasons: ArrangeReason[] = [];
  if (contract.rightNotes < 2) return { notes, reasons };
  const lower = [...left].sort((a, b) => a.onset - b.onset);
  let firstLeft = 0;
  let filledStretch: Stretch | undefined;
  const longest = lower.reduce((most, n) => Math.max(most, n.duration), 0);
  for (const [index, note] of melody.entries()) {
    const measure = measureAt(measures, note.onset);
    if (settings.except?.has(measure.index)) continue;
    const stretch = inMeasures[measure.index]?.stretches.find(
      (s) => s.onset <= note.onset && note.onset < s.end,
    );
    if (!stretch) continue;
    while (firstLeft < lower.length && lower[firstLeft]!.onset + longest < note.onset) firstLeft += 1;
    const under = soundingIn(lower, firstLeft, note.onset, note.onset + note.duration);
    const inStretch = soundingIn(
      lower,
      firstLeft,
      Math.min(stretch.onset, note.onset - beatLength(measure.time)),
      stretch.end,
    );
    const beat = beatLength(measure.time);
    // Between the beats a chord under the melody would trip it.
    if (placeInMeasure(measure, note.onset) % beat !== 0) continue;
    const isLong = note.duration >= LONG * beat;
    const isChange = stretch !== filledStretch;
    const behind = leavesChordBehind(stretch.chord, inStretch);
    const wanted = howMany(
      contract,
      { isLong, isChange, behind, isShort: note.duration < beat / 2 },
      settings,
    );
    if (wanted === 0) continue;
    // What the left hand strikes over the same chord, before or after, is its own place too.
    const keys = keysUnder(note, stretch.chord, [...under, ...inStretch], wanted, settings, {
      justStruck: justStruck(melody, index, beat, inStretch),
      held: chordsFrom(inMeasures, measure.index, stretch.end, note.onset + note.duration),
    });
    if (keys.length === 0) continue;
    filledStretch = stretch;
    const added = keys.map(({ midi, tone }, i): Note => ({
      id: `F${measure.id}-${note.onset - measure.start}-${i}`,
      onset: note.onset,
      duration: note.duration,
      pitch: spellMidi(midi, tone),
      staff: 1,
      voice: 1,
    }));
    notes.push(...added);
    const names = added.map((n) => pitchName(n.pitch)).join(' ');
    const why = behind
      ? 'the left hand moved low'
      : isChange
        ? 'the chord begins here'
        : 'a long note allows it';
    reasons.push({
      measure: measure.index,
      notes: added.map((n) => n.id),
      reason: `${names} of ${chordSymbol(stretch.chord)} under the melody: ${why}`,
    });
  }
  return { notes, reasons };
}

/**
 * Keys that either hand has struck within the beat before a note of the melody: struck again at once under it they would be heard as
 * a stumble.
 */
function justStruck(
  melody: readonly SoundingNote[],
  index: number,
  beat: Ticks,
  left: readonly SoundingNote[],
): ReadonlySet<number> {
  const { onset } = melody[index]!;
  const keys = new Set(left.filter((n) => n.onset <= onset && onset - n.onset <= beat).map((n) => n.midi));
  for (let i = index - 1; i >= 0 && onset - melody[i]!.onset <= beat; i--) keys.add(melody[i]!.midi);
  return keys;
}

/** The chords of a stretch of time that begins in a measure, by its index. */
function chordsFrom(
  inMeasures: readonly MeasureStretches[],
  first: number,
  from: Ticks,
  to: Ticks,
): readonly Chord[] {
  const chords: Chord[] = [];
  for (let i = first; i < inMeasures.length && inMeasures[i]!.measure.start < to; i++)
    for (const s of inMeasures[i]!.stretches) if (s.onset < to && s.end > from) chords.push(s.chord);
  return chords;
}

interface Occasion {
  readonly isLong: boolean;
  readonly isChange: boolean;
  readonly behind: boolean;
  readonly isShort: boolean;
}

function howMany(contract: LevelContract, o: Occasion, { sparing }: FillSettings): number {
  const most = contract.rightNotes - 1;
  if (o.isShort) return 0;
  if (o.behind && o.isChange) return Math.min(most, sparing ? 1 : 2);
  if (sparing) return 0;
  if (most === 1) return o.isLong ? 1 : 0;
  if (o.isChange) return Math.min(most, o.isLong ? 3 : 2);
  return o.isLong ? Math.min(most, 2) : 0;
}

function soundingIn(notes: readonly SoundingNote[], from: number, start: Ticks, end: Ticks): SoundingNote[] {
  const result: SoundingNote[] = [];
  for (let i = from; i < notes.length && notes[i]!.onset < end; i++)
    if (notes[i]!.onset + notes[i]!.duration > start) result.push(notes[i]!);
  return result;
}

/** The left hand plays no third of the chord where a third is clear. */
function leavesChordBehind(chord: Chord, left: readonly SoundingNote[]): boolean {
  const third = chordTones(chord)[1];
  return (
    left.length > 0 &&
    third !== undefined &&
    !left.some((n) => n.midi >= LOW && n.midi % 12 === pitchClass(third))
  );
}

/** The chord's tones below a melody note that its hand holds with it, nearest first; a single one a third or sixth below. */
function keysUnder(
  note: SoundingNote,
  chord: Chord,
  left: readonly SoundingNote[],
  wanted: number,
  { contract, reach }: FillSettings,
  { justStruck, held }: { readonly justStruck: ReadonlySet<number>; readonly held: readonly Chord[] },
): PianoKey[] {
  const span = Math.min(reach, contract.span ?? reach);
  const floor = Math.max(LOWEST, note.midi - span, ...left.map((n) => n.midi + APART));
  const tones = chordTones(chord);
  const candidates = tones
    // What is held on into other chords belongs to them all.
    .filter((tone) => held.every((c) => chordTones(c).some((t) => pitchClass(t) === pitchClass(tone))))
    .flatMap((tone) => octavesOf(tone, floor, note.midi - 3).map((midi): PianoKey => ({ midi, tone })))
    .filter((key) => !justStruck.has(key.midi))
    .sort((a, b) => b.midi - a.midi);
  if (candidates.length === 0) return [];
  // Without its third a chord says little; doubling the melody's own tone says nothing.
  const third = tones[1];
  const isThird = (k: PianoKey): boolean => k.tone === third;
  // From the fourth level on a seventh that the left hand does not have sounds here.
  const seventh = contract.level >= 4 ? tones[3] : undefined;
  const isMissing = (k: PianoKey): boolean =>
    k.tone === seventh && !left.some((n) => n.midi % 12 === pitchClass(k.tone)) && note.midi - k.midi < 11;
  const interval = (k: PianoKey): number => note.midi - k.midi;
  const sweet = (k: PianoKey): number =>
    [3, 4, 8, 9].includes(interval(k)) ? 0 : interval(k) === 12 ? 3 : 1;
  const first = [...candidates].sort(
    (a, b) =>
      Number(isMissing(b)) - Number(isMissing(a)) ||
      sweet(a) - sweet(b) ||
      Number(isThird(b)) - Number(isThird(a)) ||
      Math.abs(b.midi - a.midi),
  )[0]!;
  if (wanted === 1) return sweet(first) > 1 && !isMissing(first) ? [] : [first];
  const chosen: PianoKey[] = [];
  for (const key of [first, ...candidates.filter((k) => k !== first)]) {
    if (chosen.length === wanted) break;
    const isDoubling = [note.midi, ...chosen.map((k) => k.midi)].some((m) => (m - key.midi) % 12 === 0);
    const isClose = chosen.some((k) => Math.abs(k.midi - key.midi) < 3);
    const all = [...chosen, key].map((k) => k.midi).sort((a, b) => a - b);
    if (!isDoubling && !isClose && isClear([...all, note.midi])) chosen.push(key);
  }
  return chosen.sort((a, b) => a.midi - b.midi);
}

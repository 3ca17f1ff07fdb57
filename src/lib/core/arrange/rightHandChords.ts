/**
 * Sing-along: the right hand of a version without a melody. Chord tones that the bass does not have, close together around
 * and above middle C, each shape the nearest to the one before.
 */
import type { ChordSpan } from '../analysis/harmony';
import type { Measure, Note } from '../score/score';
import { pitchClassName } from '../score/pitch';
import { bassOf, chordSymbol, chordTones, type Chord } from '../theory/chord';
import { fromFifths, pitchClass, spellMidi, type Fifths } from '../theory/fifths';
import { stretchesOf, type LeftHandReason } from './leftHand';
import type { LevelContract } from './levels';
import { movement, type Voicing } from './voicing';

export interface RightHandSettings {
  readonly contract: LevelContract;
  /** Semitones the right hand holds. */
  readonly reach: number;
  readonly keyboard: { readonly low: number; readonly high: number };
}

/** The hand lies above the left hand's triads and below the voice: from D4 to G5. */
const LOW = 62;
const HIGH = 79;
const HOME = 67;

/** Builds the right hand from the chords alone. */
export function rightHandChords(
  measures: readonly Measure[],
  chords: readonly ChordSpan[],
  settings: RightHandSettings,
): { notes: Note[]; reasons: LeftHandReason[] } {
  const notes: Note[] = [];
  const reasons: LeftHandReason[] = [];
  let before: Voicing | undefined;
  for (const measure of measures)
    for (const stretch of stretchesOf(measure, chords, settings.contract, reasons)) {
      const voicing = nearest(shapesOf(stretch.chord, settings), before);
      if (!voicing) continue;
      const own = voicing.notes.map(({ midi, tone }, i): Note => ({
        id: `R${measure.index}-${stretch.onset - measure.start}-${i}`,
        onset: stretch.onset,
        duration: stretch.end - stretch.onset,
        pitch: spellMidi(midi, tone),
        staff: 1,
        voice: 1,
      }));
      notes.push(...own);
      const names = own.map((n) => pitchClassName(n.pitch)).join(' ');
      const kept = before?.notes.filter((a) => voicing.notes.some((b) => b.midi === a.midi)) ?? [];
      const stays = kept.map((n) => pitchClassName(fromFifths(n.tone))).join(' and ');
      reasons.push({
        measure: measure.index,
        notes: own.map((n) => n.id),
        reason: `${chordSymbol(stretch.chord)} as ${names}${stays ? `; ${stays} ${kept.length > 1 ? 'stay' : 'stays'}` : ''}`,
      });
      before = voicing;
    }
  return { notes, reasons };
}

/** The tones a hand of `most` notes plays above a bass: the third tells most, then the seventh, the fifth, the root. */
function tonesFor(chord: Chord, most: number): Fifths[] {
  const [root, third, fifth, seventh] = chordTones(chord);
  const order = [third, seventh, fifth, root].filter((t): t is Fifths => t !== undefined);
  const withoutBass = order.filter((t) => pitchClass(t) !== pitchClass(bassOf(chord)));
  return (withoutBass.length >= most ? withoutBass : order).slice(0, most);
}

/** Every close shape of the tones within the hand and the range. */
function shapesOf(chord: Chord, { contract, reach, keyboard }: RightHandSettings): Voicing[] {
  const span = Math.min(reach, contract.span ?? reach);
  const tones = tonesFor(chord, contract.rightNotes);
  const high = Math.min(HIGH, keyboard.high);
  return tones.flatMap((bottom) =>
    Array.from({ length: high - LOW + 1 }, (_, i) => LOW + i)
      .filter((midi) => midi % 12 === pitchClass(bottom))
      .map((midi) => ({
        notes: [
          { midi, tone: bottom },
          ...tones
            .filter((t) => t !== bottom)
            .map((tone) => ({ midi: midi + ((pitchClass(tone) - (midi % 12) + 12) % 12 || 12), tone })),
        ].sort((a, b) => a.midi - b.midi),
      }))
      .filter(({ notes }) => notes.at(-1)!.midi <= high && notes.at(-1)!.midi - notes[0]!.midi <= span),
  );
}

function nearest(shapes: readonly Voicing[], before: Voicing | undefined): Voicing | undefined {
  const cost = (v: Voicing): number => (before ? movement(before, v) : Math.abs(v.notes[0]!.midi - HOME));
  return [...shapes].sort((a, b) => cost(a) - cost(b) || a.notes[0]!.midi - b.notes[0]!.midi)[0];
}

/**
 * Progressions written out in textures, for measuring how well chords are heard: every chord of a list as block chords,
 * broken chords, Alberti figures, waltz bass or under a melody with passing notes. Composed by rule, in any key.
 */
import { evenMeasures } from './evenMeasures';
import { notate } from '../score/notate';
import type { Note, Score } from '../score/score';
import { measureLength } from '../score/metre';
import { noteValue, TICKS_PER_QUARTER as Q } from '../score/ticks';
import { bassOf, chordTones, type Chord } from '../theory/chord';
import { parseChord } from '../theory/chordName';
import { nearestPitch, pitchClass, spellMidi, type Fifths } from '../theory/fifths';
import { parseKey, scaleFifths, tonicFifths, type Key } from '../theory/key';
import { toMidi } from '../theory/pitch';

export const TEXTURES = ['block', 'broken', 'alberti', 'waltz', 'melody'] as const;
type ProgressionTexture = (typeof TEXTURES)[number];

/** Chords named in C major or A minor, moved to a key: "C Am F G7" in D is D Bm G A7. */
export function chordsIn(names: string, key: Key): Chord[] {
  const home = key.mode === 'major' ? 0 : 3;
  const by = tonicFifths(key) - home;
  return names.split(' ').map((name) => {
    const chord = parseChord(name);
    if (!chord) throw new Error(`Not a chord: ${name}`);
    return {
      ...chord,
      root: chord.root + by,
      ...(chord.bass === undefined ? {} : { bass: chord.bass + by }),
    };
  });
}

/** One chord to a measure of 4/4 (3/4 for the waltz). No chord symbols. */
export function progressionScore(
  chords: readonly Chord[],
  keyName: string,
  texture: ProgressionTexture,
): Score {
  const key = parseKey(keyName)!;
  const time = texture === 'waltz' ? { beats: 3, beatType: 4 } : { beats: 4, beatType: 4 };
  const length = measureLength(time);
  const measures = evenMeasures(chords.length, time, () => key);
  const notes: Note[] = [];
  const put = (onset: number, duration: number, midi: number, tone: Fifths, staff: 1 | 2): void => {
    notes.push({
      id: `n${notes.length}`,
      onset,
      duration,
      pitch: spellMidi(midi, tone),
      staff,
      voice: staff === 1 ? 1 : 5,
    });
  };
  const near = (tone: Fifths, midi: number): number => toMidi(nearestPitch(tone, midi));
  let melodyAt = 74;
  chords.forEach((chord, i) => {
    const start = measures[i]!.start;
    const tones = chordTones(chord);
    const bass = bassOf(chord);
    const low = near(bass, 43);
    // The upper notes of the left hand, close above the bass.
    const upper = tones
      .filter((t) => pitchClass(t) !== pitchClass(bass))
      .map((t) => ({ t, m: above(t, Math.max(low + 3, 50)) }))
      .sort((a, b) => a.m - b.m);
    const eighth = noteValue(8);
    if (texture === 'block') {
      put(start, length, low, bass, 2);
      for (const { t, m } of upper) put(start, length, m, t, 2);
    } else if (texture === 'waltz') {
      put(start, Q, low, bass, 2);
      for (const beat of [1, 2]) for (const { t, m } of upper) put(start + beat * Q, Q, m, t, 2);
    } else {
      const top = upper.at(-1)!;
      const figure =
        texture === 'alberti' || upper.length < 2
          ? [{ t: bass, m: low }, top, ...upper.slice(0, -1)]
          : [{ t: bass, m: low }, ...upper];
      for (let e = 0; e < 8; e++) {
        const { t, m } = figure[e % figure.length]!;
        put(start + e * eighth, eighth, m, t, 2);
      }
    }
    // The right hand: chord tones on the beats, in the melody texture with steps between them.
    const beats = length / Q;
    for (let b = 0; b < beats; b++) {
      const tone = tones[(b * 2 + i) % Math.min(3, tones.length)]!;
      const midi = near(tone, melodyAt);
      melodyAt = midi > 81 ? 72 : midi < 66 ? 74 : midi + (b % 2 === 0 ? 2 : -2);
      if (texture === 'melody' && b % 2 === 1) {
        // A passing or neighbouring note of the scale on the second half of the beat.
        put(start + b * Q, eighth, midi, tone, 1);
        const step = scaleStep(key, midi, i % 2 === 0 ? 1 : -1);
        put(start + b * Q + eighth, eighth, step.midi, step.tone, 1);
      } else if (texture !== 'block' || b % 2 === 0)
        put(start + b * Q, texture === 'block' ? Math.min(2, beats - b) * Q : Q, midi, tone, 1);
    }
  });
  return {
    title: 'Progression',
    composer: '',
    tempo: 0,
    measures,
    parts: [
      {
        id: 'P1',
        name: 'Piano',
        staves: 2,
        notes: notate(measures, notes).sort((a, b) => a.onset - b.onset || a.staff - b.staff),
      },
    ],
    chordSymbols: [],
    pedals: [],
  };
}

/** The lowest MIDI number of a tone at or above another. */
function above(tone: Fifths, midi: number): number {
  return midi + ((((pitchClass(tone) - midi) % 12) + 12) % 12);
}

function scaleStep(key: Key, midi: number, by: 1 | -1): { midi: number; tone: Fifths } {
  const scale = scaleFifths(key);
  for (let m = midi + by; ; m += by) {
    const tone = scale.find((t) => pitchClass(t) === ((m % 12) + 12) % 12);
    if (tone !== undefined) return { midi: m, tone };
  }
}

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { melodyOf } from '../analysis/melody';
import { chordsOf } from '../analysis/harmony';
import { pitchName, toMidi } from '../theory/pitch';
import { byOnset } from '../score/query';
import type { Score, TimeSignature } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { toFifths } from '../theory/fifths';
import type { Chord } from '../theory/chord';
import { leftHand, type LeftHandSettings } from './private/leftHand';
import { levelNumbered } from './levels';
import { reduceMelody } from './private/reduceMelody';
import { isClear, KEYBOARDS } from '../hands/register';
import { stretchesOf } from './private/stretches';
import { usualTextures } from './styles';
import type { TextureId } from './textures';
import { byNearness, closeVoicings, movement, playedTones, type Voicing } from './private/voicing';

const fourFour: TimeSignature = { beats: 4, beatType: 4 };

describe('reducing a melody', () => {
  const reduced = (right: string, level: number, time = fourFour) => {
    const score = scoreFrom({ key: 'C', time, right });
    const { notes, changes } = reduceMelody(melodyOf(score), score.measures, levelNumbered(level));
    return {
      line: notes.map((n) => `${pitchName(n.pitch)}@${n.onset / Q}+${n.duration / Q}`).join(' '),
      changes: changes.map((c) => c.kind),
    };
  };
  it('leaves out what lies between the beats at level 1 and lets the beat sing on', () => {
    expect(reduced('C4:0.5 D4:0.5 E4:1 F4:2', 1)).toEqual({
      line: 'C4@0+1 E4@1+1 F4@2+2',
      changes: ['left-out', 'lengthened'],
    });
  });
  it('makes a dotted rhythm straight at level 1 and keeps it at level 2', () => {
    expect(reduced('C4:1.5 D4:0.5 E4:2', 1).line).toBe('C4@0+2 E4@2+2');
    expect(reduced('C4:1.5 D4:0.5 E4:2', 2).line).toBe('C4@0+1.5 D4@1.5+0.5 E4@2+2');
  });
  it('drops a sixteenth at level 2 and keeps the beat', () => {
    expect(reduced('C4:0.75 D4:0.25 E4:1 F4:2', 2).line).toBe('C4@0+1 E4@1+1 F4@2+2');
  });
  it('moves a note that leans over the beat onto it', () => {
    const { line, changes } = reduced('C4:0.5 D4:1 E4:0.5 F4:2', 1);
    expect(line).toBe('C4@0+1 D4@1+1 F4@2+2');
    expect(changes).toContain('moved');
  });
  it('puts a note that is pushed before the barline on the beat at levels 1 and 2', () => {
    const score = scoreFrom({ key: 'C', time: fourFour, right: 'C4:1 D4:1 E4:1.5 G4:0.5 | A4:2 E4:2' });
    const notes = melodyOf(score);
    const at = (level: number, pushed: typeof notes) =>
      reduceMelody(pushed, score.measures, levelNumbered(level))
        .notes.map((n) => `${pitchName(n.pitch)}@${n.onset / Q}+${n.duration / Q}`)
        .join(' ');
    // G4 lasts until the E4 of the second measure.
    const pushed = notes
      .filter((n) => pitchName(n.pitch) !== 'A4')
      .map((n) => (pitchName(n.pitch) === 'G4' ? { ...n, duration: 2.5 * Q } : n));
    for (const level of [1, 2]) expect(at(level, pushed)).toBe('C4@0+1 D4@1+1 E4@2+2 G4@4+2 E4@6+2');
    expect(at(3, pushed)).toBe('C4@0+1 D4@1+1 E4@2+1.5 G4@3.5+2.5 E4@6+2');
    // Where the beat has a note of its own it is an upbeat, and stays.
    expect(at(2, notes)).toContain('G4@3.5+0.5 A4@4+2');
  });
  it('keeps eighth triplets from level 3 on', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 2, beatType: 4 }, right: 'C4:1 G4:1' });
    const [first, last] = melodyOf(score) as [ReturnType<typeof melodyOf>[0], ReturnType<typeof melodyOf>[0]];
    const triplet = [0, 1, 2].map((i) => ({ ...first, id: `t${i}`, onset: (i * Q) / 3, duration: Q / 3 }));
    const at = (level: number) =>
      reduceMelody([...triplet, last], score.measures, levelNumbered(level)).notes.length;
    expect([at(2), at(3)]).toEqual([3, 4]); // two eighths and the last note at level 2
  });
  it('keeps the eighths of 6/8 at every level', () => {
    const line = 'C4:0.5 D4:0.5 E4:0.5 F4:1.5';
    for (const level of [1, 2, 3] as const)
      expect(reduced(line, level, { beats: 6, beatType: 8 }).changes).toEqual([]);
  });
  it('keeps the quarters of 3/8, whose beat is an eighth', () => {
    expect(reduced('C4:0.5 D4:0.5 E4:0.5', 1, { beats: 3, beatType: 8 }).changes).toEqual([]);
  });

  it('law: no two notes overlap, every beat note stays, nothing is shorter than the level has', () => {
    const values = fc.constantFrom(0.25, 0.5, 0.75, 1, 1.5, 2);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('C4', 'D4', 'G4', 'A4', 'C5'), values), {
          minLength: 1,
          maxLength: 14,
        }),
        fc.constantFrom<number>(1, 2, 3),
        (line, level) => {
          let at = 0;
          const score = scoreFrom({
            key: 'C',
            time: fourFour,
            right: 'r:4 | r:4 | r:4 | r:4 | r:4 | r:4 | r:4',
          });
          const base = melodyOf(
            scoreFrom({ key: 'C', time: fourFour, right: line.map(([p]) => `${p}:4`).join(' | ') }),
          );
          const melody = line.map(([, quarters], i) => {
            at += quarters * Q;
            return { ...base[i]!, id: `n${i}`, onset: at - quarters * Q, duration: quarters * Q };
          });
          const { notes } = reduceMelody(melody, score.measures, levelNumbered(level));
          notes.forEach((note, i) => {
            expect(note.duration).toBeGreaterThan(0);
            expect(note.duration).toBeGreaterThanOrEqual(level === 1 ? Q : Q / 2);
            const next = notes[i + 1];
            if (next) expect(note.onset + note.duration).toBeLessThanOrEqual(next.onset);
          });
          const kept = new Map(notes.map((n) => [n.id, n]));
          for (const source of melody)
            if (source.onset % Q === 0) expect(kept.get(source.id)?.onset).toBe(source.onset);
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('register', () => {
  it('keeps triads out of the mud and lets fifths and octaves go lower', () => {
    expect(isClear([48, 52, 55])).toBe(true); // C3 E3 G3
    expect(isClear([36, 40, 43])).toBe(false); // C2 E2 G2
    expect(isClear([34, 41])).toBe(true); // B♭1 F2
    expect(isClear([33, 40])).toBe(false); // A1 E2
    expect(isClear([24, 36])).toBe(true);
  });
});

const C: Chord = { root: 0, kind: 'major' };
const F: Chord = { root: -1, kind: 'major' };
const G7: Chord = { root: 1, kind: 'dominant7' };

/** The first of the shapes by nearness. */
const nearest = (
  shapes: readonly Voicing[],
  before: Voicing | undefined,
  home: number,
  bass: number,
): Voicing | undefined => byNearness(shapes, { before, home, bass, thumb: 'top' })[0];

describe('voicing', () => {
  const limits = { low: 43, high: 62, span: 9, most: 3 };
  const midi = (v: { notes: readonly { midi: number }[] } | undefined) => v?.notes.map((n) => n.midi);
  it('goes the shortest way and keeps common tones', () => {
    const c = nearest(closeVoicings(C, limits), undefined, 48, 0);
    expect(midi(c)).toEqual([48, 52, 55]);
    const f = nearest(closeVoicings(F, limits), c, 48, -1);
    expect(midi(f)).toEqual([48, 53, 57]);
    expect(movement(c!, f!)).toBe(3);
    expect(midi(nearest(closeVoicings(G7, limits), c, 48, 1))).toEqual([47, 53, 55]);
  });
  it('law: no shape that was offered is nearer than the one that was taken', () => {
    fc.assert(
      fc.property(fc.integer({ min: -5, max: 6 }), fc.integer({ min: -5, max: 6 }), (a, b) => {
        const first = nearest(closeVoicings({ root: a, kind: 'minor' }, limits), undefined, 48, a)!;
        const all = closeVoicings({ root: b, kind: 'major' }, limits);
        const taken = nearest(all, first, 48, b)!;
        for (const other of all) expect(movement(first, taken)).toBeLessThanOrEqual(movement(first, other));
      }),
    );
  });
  it('gives up the fifth first, never the root', () => {
    expect(playedTones(G7, 3)).toEqual([1, 5, -1]); // G B F
    expect(playedTones(G7, 2)).toEqual([1, 5]);
  });
  it('keeps a named bass lowest', () => {
    const overE: Chord = { ...C, bass: toFifths({ step: 'E', alter: 0 }) };
    for (const v of closeVoicings(overE, limits)) expect(v.notes[0]!.midi % 12).toBe(4);
  });
});

describe('the left hand', () => {
  const build = (
    source: Score,
    level: number,
    change: Partial<LeftHandSettings> = {},
    texture: TextureId | null = null,
  ) => {
    const melody = melodyOf(source);
    const contract = levelNumbered(level);
    return leftHand(source.measures, stretchesOf(source.measures, chordsOf(source), contract), melody, {
      contract,
      texturesIn: ({ time }) => [...(texture ? [texture] : []), ...usualTextures(level, time, 'plain')],
      freshStarts: new Set([0]),
      reach: 12,
      keyboard: KEYBOARDS[61],
      ...change,
    });
  };
  const song = scoreFrom({
    key: 'C',
    time: fourFour,
    right: 'E5:4 | F5:4 | D5:4 | C5:4',
    chords: 'C | F C/E | G7 | C',
  });
  const shapes = (notes: readonly { onset: number; pitch: Parameters<typeof pitchName>[0] }[]): string[] =>
    byOnset([...notes]).map((g) => g.notes.map((n) => pitchName(n.pitch)).join(' '));

  it('holds the root, or the named bass, once per chord at level 1', () => {
    expect(shapes(build(song, 1).notes)).toEqual(['C3', 'F3', 'E3', 'G3', 'C3']);
  });
  it('adds the fifth at level 2, together or in turn', () => {
    expect(shapes(build(song, 2).notes)[0]).toBe('C3 G3');
    expect(shapes(build(song, 2, {}, 'root-then-fifth').notes).slice(0, 2)).toEqual(['C3', 'G3']);
  });
  it('takes the nearest inversion for block chords', () => {
    expect(shapes(build(song, 3, {}, 'block-chord').notes).slice(0, 2)).toEqual(['C3 E3 G3', 'C3 F3 A3']);
  });
  it('breaks the chord from its root at level 3', () => {
    expect(shapes(build(song, 3).notes).slice(0, 5)).toEqual(['C3', 'G3', 'E3', 'G3', 'F3']);
  });
  it('says why', () => {
    expect(
      build(song, 3, {}, 'block-chord')
        .reasons.map((r) => r.reason)
        .join(),
    ).toContain('C stays under the hand');
    expect(build(song, 1).reasons[2]!.reason).toContain('named bass of C/E');
  });
  it('stays below a low melody', () => {
    const low = scoreFrom({ key: 'C', time: fourFour, right: 'E3:4 | D3:4', chords: 'C | G' });
    for (const level of [1, 2, 3] as const) {
      const { notes } = build(low, level);
      for (const note of notes) {
        const above = melodyOf(low).find((m) => m.onset <= note.onset && note.onset < m.onset + m.duration)!;
        expect(toMidi(note.pitch)).toBeLessThan(above.midi);
      }
    }
  });
  it('has at most two onsets a measure at level 1 and says what it left out', () => {
    const busy = scoreFrom({ key: 'C', time: fourFour, right: 'C5:4', chords: 'C Am F G' });
    const { notes, reasons } = build(busy, 1);
    expect(notes).toHaveLength(2);
    expect(reasons.some((r) => /left out/.test(r.reason))).toBe(true);
  });
  it('leaves a pickup to the melody, and keeps to the keyboard', () => {
    const pickup = scoreFrom({ key: 'C', time: fourFour, pickup: 1, right: 'G4:1 | C5:4', chords: 'C | C' });
    expect(build(pickup, 2).notes.every((n) => n.onset >= Q)).toBe(true);
    for (const note of build(song, 3, { keyboard: KEYBOARDS[49] }).notes)
      expect(toMidi(note.pitch)).toBeGreaterThanOrEqual(36);
  });
  it('law: within reach, clear, and named by place and role', () => {
    const kinds = ['major', 'minor', 'dominant7', 'diminished', 'minor7'] as const;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -5, max: 6 }), fc.constantFrom(...kinds)), {
          minLength: 1,
          maxLength: 6,
        }),
        fc.constantFrom<number>(1, 2, 3),
        fc.constantFrom(10, 12, 14),
        (list, level, reach) => {
          const frame = scoreFrom({ key: 'C', time: fourFour, right: list.map(() => 'C5:4').join(' | ') });
          const source: Score = {
            ...frame,
            chordSymbols: list.map(([root, kind], i) => ({ onset: i * 4 * Q, chord: { root, kind } })),
          };
          const { notes } = build(source, level, { reach });
          expect(new Set(notes.map((n) => n.id)).size).toBe(notes.length);
          for (const group of byOnset(notes)) {
            const midi = group.notes.map((n) => toMidi(n.pitch)).sort((a, b) => a - b);
            expect(midi.at(-1)! - midi[0]!).toBeLessThanOrEqual(
              Math.min(reach, levelNumbered(level).span ?? 0),
            );
            expect(midi.length).toBeLessThanOrEqual(levelNumbered(level).leftNotes);
            expect(isClear(midi)).toBe(true);
          }
          const bars = new Set(notes.map((n) => Math.floor(n.onset / (4 * Q))));
          expect(bars.size).toBe(list.length);
        },
      ),
    );
  });
});

import fc from 'fast-check';
import { parseMidi, writeMidi as encode } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { keyFromProfile } from '../../analysis/keyProfile';
import { pitchName } from '../../theory/pitch';
import { proposedParts } from '../../players/parts';
import { soundingNotes } from '../../score/query';
import type { Score } from '../../score/score';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { keyCode } from '../../theory/key';
import { readScoreFile } from '../readScoreFile';
import { quantise } from '../private/midi/quantise';
import { readMidi } from './read';
import { splitHands } from '../../players/splitHands';
import { writeMidi } from '../private/midi/write';

const piano = scoreFrom({
  title: 'Round trip',
  key: 'Eb',
  time: { beats: 3, beatType: 4 },
  tempo: 90,
  right: 'Eb4:1 G4:0.5 Ab4:0.5 Bb4:1 | [C5 Eb5]:2 D5:1 | B4:1.5 C5:0.5 Ab4:1 | Eb5:3',
  left: 'Eb3:3 | [Ab2 Eb3]:3 | G2:1 [F3 B3]:2 | [Eb2 Bb2]:3',
});
const heard = (score: Score) =>
  soundingNotes(score.parts[0]!.notes).map(
    (n) => `${pitchName(n.pitch)}@${n.onset / Q}+${n.duration / Q}/${n.staff}`,
  );

describe('MIDI, there and back', () => {
  it('keeps pitches, spelling, times, hands, tempo, time signature and key', () => {
    const back = readMidi(writeMidi(piano)).score;
    expect(heard(back)).toEqual(heard(piano));
    expect(back).toMatchObject({ title: 'Round trip', tempo: 90 });
    expect(back.measures.map((m) => [m.time.beats, m.key.fifths, m.length / Q])).toEqual(
      Array(4).fill([3, -3, 3]),
    );
  });
  it('keeps the pedal, with changes', () => {
    const pedals = [
      { onset: 0, type: 'start' as const },
      { onset: 3 * Q, type: 'change' as const },
      { onset: 12 * Q, type: 'stop' as const },
    ];
    expect(
      readMidi(writeMidi({ ...piano, pedals })).score.pedals.map((p) => [Math.round(p.onset / Q), p.type]),
    ).toEqual(pedals.map((p) => [p.onset / Q, p.type]));
  });
  it('finds a pickup where the music begins late', () => {
    const pickup = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'r:3 G4:1 | C5:2 E5:2',
      left: 'r:4 | C3:4',
    });
    const { measures } = readMidi(writeMidi(pickup)).score;
    expect(measures.map((m) => [m.number, m.length / Q, m.beginsAt / Q])).toEqual([
      ['0', 1, 3],
      ['1', 4, 0],
    ]);
  });
  it('plays repeats', () => {
    const repeated = {
      ...piano,
      measures: piano.measures.map((m, i) => (i === 1 ? { ...m, repeatEnd: true } : m)),
    };
    expect(readMidi(writeMidi(repeated)).score.measures).toHaveLength(6);
  });
  it('is read by its content, whatever it is called', () => {
    expect(readScoreFile('song.xml', writeMidi(piano)).score.title).toBe('Round trip');
  });
});

/** A file as a player or another program would leave it: `place` moves every stroke, `hold` every length, in quarters. */
function performed(
  score: Score,
  place: (at: number, i: number) => number,
  hold = (d: number): number => d,
): Uint8Array {
  const division = 480;
  const notes = soundingNotes(score.parts[0]!.notes).map((n, i) => {
    const at = Math.round(Math.max(0, place(n.onset / Q, i)) * division);
    return { at, end: at + Math.max(1, Math.round(hold(n.duration / Q) * division)), noteNumber: n.midi };
  });
  const events = notes
    .flatMap((n) => [
      { at: n.at, type: 'noteOn' as const, noteNumber: n.noteNumber, velocity: 70 },
      { at: n.end, type: 'noteOff' as const, noteNumber: n.noteNumber, velocity: 0 },
    ])
    .sort((a, b) => a.at - b.at);
  let before = 0;
  const track = events.map(({ at, ...event }) => {
    const deltaTime = at - before;
    before = at;
    return { ...event, deltaTime, channel: 0 };
  });
  return Uint8Array.from(
    encode({
      header: { format: 0, numTracks: 1, ticksPerBeat: division },
      tracks: [[...track, { deltaTime: 0, meta: true, type: 'endOfTrack' }]],
    }),
  );
}

/** Small deviations that are the same in every run. */
const wobble = (i: number): number => 0.04 * Math.sin(i * 12.9898);

const waltz = scoreFrom({
  key: 'G',
  time: { beats: 3, beatType: 4 },
  right:
    'G4:1 A4:1 B4:1 | D5:2 B4:1 | C5:1 E5:0.5 D5:0.5 C5:1 | B4:3 | A4:1 B4:1 C5:1 | B4:2 G4:1 | A4:1 F#4:1 D4:1 | G4:3',
  left: 'G2:1 [B3 D4]:1 [B3 D4]:1 | G2:1 [B3 D4]:1 [B3 D4]:1 | C3:1 [E3 G3]:1 [E3 G3]:1 | G2:1 [B3 D4]:1 [B3 D4]:1 | A2:1 [E3 C4]:1 [E3 C4]:1 | G2:1 [B3 D4]:1 [B3 D4]:1 | D3:1 [F#3 C4]:1 [F#3 C4]:1 | G2:3',
});
const strokes = (score: Score): string[] =>
  soundingNotes(score.parts[0]!.notes).map((n) => `${n.midi}@${n.onset / Q}+${n.duration / Q}`);

describe('recorded playing', () => {
  it('comes out on the beats, held as long as it was meant, hands and time signature found', () => {
    const score = readMidi(
      performed(
        waltz,
        (at, i) => at + wobble(i),
        (d) => d * 1.04,
      ),
    ).score;
    expect(strokes(score)).toEqual(strokes(waltz));
    expect(score.measures).toHaveLength(8);
    expect(score.measures[0]!.time).toEqual({ beats: 3, beatType: 4 });
    const meant = soundingNotes(waltz.parts[0]!.notes).map((n) => n.staff);
    const found = soundingNotes(score.parts[0]!.notes).map((n) => n.staff);
    // Where the hands come near each other an inner note may go to either.
    expect(found.filter((staff, i) => staff === meant[i]).length / meant.length).toBeGreaterThan(0.95);
  });
  it('has its beat found where it does not keep to the beats of its file', () => {
    const free = (at: number, i: number): number => 1.31 * at + 0.25 * Math.sin(at / 7) + 0.3 * wobble(i);
    const { score, warnings } = readMidi(performed(waltz, free, (d) => d * 1.28));
    expect(strokes(score)).toEqual(strokes(waltz));
    expect(warnings.join()).toMatch(/at about 9\d a minute/);
  });
});

describe('a file that says less than it knows', () => {
  const pickup = scoreFrom({
    key: 'C',
    time: { beats: 4, beatType: 4 },
    pickup: 1,
    right: 'G4:1 | C5:2 E5:1 D5:1 | C5:2 A4:2 | D5:2 F5:1 E5:1 | D5:3 G4:1 | E5:2 D5:1 C5:1 | C5:4',
    left: 'r:1 | C3:4 | A2:4 | D3:4 | G2:4 | G3:4 | C3:4',
  });
  it('has its pickup found without silence before it', () => {
    const { measures } = readMidi(performed(pickup, (at) => at)).score;
    expect(measures.map((m) => [m.number, m.length / Q, m.beginsAt / Q]).slice(0, 2)).toEqual([
      ['0', 1, 3],
      ['1', 4, 0],
    ]);
  });
  it('keeps its own barlines where the music fits them', () => {
    expect(readMidi(performed(waltz, (at) => at)).score.measures[0]!.beginsAt).toBe(0);
  });
  it('means a pickup by a first measure of a shorter time signature', () => {
    const file = parseMidi(performed(pickup, (at) => at));
    const metre = (deltaTime: number, numerator: number) =>
      ({
        deltaTime,
        meta: true,
        type: 'timeSignature',
        numerator,
        denominator: 4,
        metronome: 24,
        thirtyseconds: 8,
      }) as const;
    const bytes = Uint8Array.from(
      encode({
        header: { format: 1, numTracks: 2, ticksPerBeat: 480 },
        tracks: [
          [metre(0, 1), metre(480, 4), { deltaTime: 0, meta: true, type: 'endOfTrack' }],
          file.tracks[0]!,
        ],
      }),
    );
    const { measures } = readMidi(bytes).score;
    expect(measures.slice(0, 2).map((m) => [m.length / Q, m.beginsAt / Q, m.time.beats])).toEqual([
      [1, 3, 4],
      [4, 0, 4],
    ]);
  });
  it('ends a stroke where its key is struck again, and no stroke early', () => {
    const twice = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right: 'C5:1 C5:1 C5:2' });
    expect(
      strokes(
        readMidi(
          performed(
            twice,
            (at) => at,
            (d) => d * 1.06,
          ),
        ).score,
      ),
    ).toEqual(strokes(twice));
  });
});

describe('tempo and players', () => {
  it('keeps changes of tempo', () => {
    const changing = { ...piano, tempoChanges: [{ onset: 6 * Q, tempo: 60 }] };
    expect(readMidi(writeMidi(changing)).score.tempoChanges).toEqual([{ onset: 6 * Q, tempo: 60 }]);
  });
  it('keeps more than two tracks apart, by their names', () => {
    const three: Score = {
      ...piano,
      parts: [
        {
          ...scoreFrom({ key: 'Eb', time: { beats: 3, beatType: 4 }, right: 'G5:3 | Ab5:3 | G5:3 | G5:3' })
            .parts[0]!,
          id: 'V',
          name: 'Voice',
        },
        ...piano.parts,
      ],
    };
    const { score } = readScoreFile('three.mid', writeMidi(three));
    expect(score.parts.map((p) => p.name)).toEqual(['Voice', 'Right hand', 'Left hand']);
    expect(Object.values(proposedParts(score).parts)).toEqual(['melody', 'right', 'left']);
  });
});

describe('a damaged file', () => {
  it('law: is refused with a sentence or read, never a crash', () => {
    const bytes = writeMidi(piano);
    fc.assert(
      fc.property(fc.nat(bytes.length - 1), fc.nat(bytes.length - 1), fc.nat(255), (cut, at, value) => {
        for (const broken of [bytes.slice(0, cut), bytes.map((b, i) => (i === at ? value : b))])
          try {
            readMidi(broken);
          } catch (error) {
            expect((error as Error).name).toBe('InputError');
          }
      }),
      { numRuns: 150 },
    );
  });
});

describe('quantising', () => {
  const at = (...places: number[]) =>
    places.map((p) => ({ onset: Math.round(p * Q), duration: Math.round(0.3 * Q) }));
  const onsets = (...places: number[]) => quantise(at(...places)).map((n) => n.onset / Q);
  it('brings what was played near a beat to it', () => {
    expect(onsets(0.01, 0.98, 2.03)).toEqual([0, 1, 2]);
  });
  it('tells triplets from sixteenths', () => {
    expect(onsets(0.01, 0.34, 0.65).map((o) => Math.round(o * 3))).toEqual([0, 1, 2]);
    expect(onsets(0, 0.26, 0.49, 0.76)).toEqual([0, 0.25, 0.5, 0.75]);
  });
  it('law: what is on the grid stays, and nothing loses its length', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(64), fc.integer({ min: 1, max: 16 })), { minLength: 1 }),
        (list) => {
          const notes = list.map(([o, d]) => ({ onset: (o * Q) / 4, duration: (d * Q) / 4 }));
          quantise(notes).forEach((n, i) => {
            expect(n.onset).toBe(notes[i]!.onset);
            expect(n.duration).toBeGreaterThan(0);
          });
        },
      ),
    );
  });
});

describe('hands', () => {
  const struck = (...groups: number[][]) =>
    groups.flatMap((g, i) => g.map((midi) => ({ onset: i * Q, duration: Q, midi })));
  it('are parted by register and reach', () => {
    expect(splitHands(struck([48, 52, 55, 72], [43, 71], [48, 64, 67, 72]))).toEqual([
      2, 2, 2, 1, 2, 1, 2, 1, 1, 1,
    ]);
  });
  it('follow their line where it crosses middle C', () => {
    expect(splitHands(struck([48, 64], [48, 62], [48, 59], [48, 60], [48, 64]))).toEqual([
      2, 1, 2, 1, 2, 1, 2, 1, 2, 1,
    ]);
  });
  it('hold no more than they reach', () => {
    const notes = struck([36, 48, 52, 64, 67, 76]);
    const staves = splitHands(notes);
    for (const staff of [1, 2]) {
      const own = notes.filter((_, i) => staves[i] === staff).map((n) => n.midi);
      expect(Math.max(...own) - Math.min(...own)).toBeLessThanOrEqual(16);
    }
  });
});

describe('the key of a file without one', () => {
  it.each([
    ['C', [60, 62, 64, 65, 67, 69, 71, 72, 60, 64, 67]],
    ['D', [62, 64, 66, 67, 69, 71, 73, 74, 62, 66, 69]],
    ['Am', [69, 71, 72, 74, 76, 77, 68, 69, 69, 72, 76]],
  ])('%s', (code, midi) => {
    const weights = Array.from({ length: 12 }, (_, pc) => midi.filter((m) => m % 12 === pc).length);
    expect(keyCode(keyFromProfile(weights))).toBe(code);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readMusicXml } from '../io/musicxml/read';
import { writeMusicXml } from '../io/musicxml/write';
import { endOf } from '../score/metre';
import { pitchName, STEPS } from '../theory/pitch';
import { soundingNotes } from '../score/query';
import { TICKS_PER_QUARTER } from '../score/ticks';
import { chordSymbol } from '../theory/chord';
import {
  alter,
  copied,
  deskOf,
  go,
  goMeasure,
  measureAtDesk,
  moveNote,
  nameSection,
  paste,
  remove,
  setChords,
  setLength,
  setWords,
  toggleRepeat,
  toggleTie,
  wordsFrom,
  writeKey,
  writeLetter,
  writeRest,
  type Desk,
} from './compose';
import { EMPTY, sketchSchema, type Sketch } from './sketch';
import { toScore } from './toScore';

/** Writes letters: "c d e" are notes, "r" a rest, a digit the length from there on, "." a dotted one. */
function write(text: string, sketch: Sketch = EMPTY): Desk {
  return text.split(' ').reduce((desk, stroke): Desk => {
    if (/^\d+$/.test(stroke)) return setLength(desk, { value: Number(stroke) as 4, dots: 0 });
    if (stroke === '.') return setLength(desk, { dots: 1 });
    if (stroke === 'r') return writeRest(desk);
    return writeLetter(desk, stroke.toUpperCase() as 'C');
  }, deskOf(sketch));
}
const sounds = ({ sketch }: Desk): string[] =>
  soundingNotes(toScore(sketch).parts[0]!.notes).map(
    (n) => `${pitchName(n.pitch)}@${n.onset / TICKS_PER_QUARTER}/${n.duration / TICKS_PER_QUARTER}`,
  );

describe('a tune is written', () => {
  it('by letters, each in the octave nearest to the one before and as the key has it', () => {
    expect(sounds(write('g a b c'))).toEqual(['G4@0/1', 'A4@1/1', 'B4@2/1', 'C5@3/1']);
    expect(sounds(write('d f c', { ...EMPTY, key: 'D' }))).toEqual(['D5@0/1', 'F♯5@1/1', 'C♯5@2/1']);
  });
  it('with lengths, dots, rests and ties over barlines', () => {
    const desk = write('4 . c 8 d 2 e r 1 g');
    expect(sounds(desk)).toEqual(['C5@0/1.5', 'D5@1.5/0.5', 'E5@2/2', 'G5@6/4']);
    const { measures, parts } = toScore(desk.sketch);
    expect(measures).toHaveLength(3);
    expect(parts[0]!.notes.filter((n) => n.tie).map((n) => n.tie)).toEqual(['start', 'stop']);
  });
  it('by keys, spelled in the key; altered and moved afterwards', () => {
    const desk = writeKey(deskOf({ ...EMPTY, key: 'Eb' }), 68);
    expect(sounds(desk)).toEqual(['A♭4@0/1']);
    expect(sounds(alter(desk, 1))).toEqual(['A4@0/1']);
    expect(sounds(moveNote(desk, 7))).toEqual(['A♭5@0/1']);
    expect(sounds(moveNote(desk, 1))).toEqual(['B♭4@0/1']);
  });
  it('in triplets, and the same key tied is one note', () => {
    const three = ['C', 'D', 'E'].reduce(
      (d, s) => writeLetter(d, s as 'C'),
      setLength(deskOf(EMPTY), { value: 8, triplet: true }),
    );
    expect(sounds(three).map((t) => t.split('@')[1])).toEqual([
      '0/0.3333333333333333',
      '0.3333333333333333/0.3333333333333333',
      '0.6666666666666666/0.3333333333333333',
    ]);
    expect(sounds(writeLetter(toggleTie(write('c')), 'C'))).toEqual(['C5@0/2']);
  });
  it('and written over: removed, put between, gone to by measure', () => {
    const desk = write('c d e f g a b c');
    expect(sounds(remove(desk))).toHaveLength(7);
    const between = writeLetter(go(desk, -8), 'G');
    expect(sounds(between)[0]).toBe('G4@0/1');
    expect(goMeasure(desk, -1).at).toBe(4);
    expect(measureAtDesk(desk)).toBe(1);
    expect(sounds(remove(go(goMeasure(desk, -1), 2, true)))).toHaveLength(6);
  });
});

describe('what stands with a tune', () => {
  const tune = write('c d e f g a b c').sketch;
  it('chords of a measure, words to the notes, sections and repeats', () => {
    const full = toggleRepeat(
      nameSection(setWords(setChords(tune, 1, 'G . G7 .'), 0, 1, 'The pa-per _ kite'), 0, 'Verse'),
      1,
    );
    const score = toScore(full);
    expect(score.chordSymbols.map((s) => [s.onset / TICKS_PER_QUARTER, chordSymbol(s.chord!)])).toEqual([
      [4, 'G'],
      [6, 'G7'],
    ]);
    expect(
      score.parts[0]!.notes.flatMap((n) => n.lyrics ?? []).map((l) => `${l.text} ${l.syllabic}`),
    ).toEqual(['The single', 'pa begin', 'per end', 'kite single']);
    expect(score.measures.map((m) => [m.section, m.repeatEnd])).toEqual([
      ['Verse', undefined],
      [undefined, true],
    ]);
    expect(wordsFrom(full, 0, 1)).toBe('The pa-per _ kite');
    expect(sketchSchema.safeParse(full).success).toBe(true);
    expect(toggleRepeat(full, 1).repeats).toEqual([]);
  });
  it('words go past rests, and past what a tie leads on to', () => {
    const held = setWords(
      writeLetter(toggleTie(writeLetter(writeRest(write('c')), 'D')), 'D').sketch,
      0,
      1,
      'Long road',
    );
    expect(held.items.map((i) => i.words[0] ?? '')).toEqual(['Long', '', 'road', '']);
  });
  it('a measure is copied with its chords to the end', () => {
    const desk = deskOf(setChords(setChords(tune, 0, 'C'), 1, 'G'));
    const first = goMeasure(goMeasure(desk, -1), -1);
    const again = paste({ ...first, at: desk.at }, copied(first));
    expect(sounds(again).slice(8)).toEqual(['C5@8/1', 'D5@9/1', 'E5@10/1', 'F5@11/1']);
    expect(again.sketch.chords[2]).toBe('C');
  });
  it('after a pickup measures are counted from the first full one', () => {
    const { measures } = toScore(write('g c d e f', { ...EMPTY, pickup: TICKS_PER_QUARTER }).sketch);
    expect(
      measures.map((m) => [m.number, m.start / TICKS_PER_QUARTER, m.length / TICKS_PER_QUARTER]),
    ).toEqual([
      ['0', 0, 1],
      ['1', 1, 4],
    ]);
  });
});

it('law: whatever is written, measures follow each other and the music is read back as it sounds', () => {
  const stroke = fc.constantFrom(
    ...STEPS.map((s) => (d: Desk) => writeLetter(d, s)),
    writeRest,
    toggleTie,
    remove,
    (d: Desk) => go(d, -1),
    (d: Desk) => go(d, 2, true),
    (d: Desk) => goMeasure(d, -1),
    (d: Desk) => alter(d, 1),
    (d: Desk) => moveNote(d, -3),
    (d: Desk) => setLength(d, { value: 8 }),
    (d: Desk) => setLength(d, { value: 2, dots: 1 }),
    (d: Desk) => setLength(d, { value: 4, dots: 0 }),
    (d: Desk) => paste(d, copied(d)),
  );
  const start = fc.record({
    time: fc.constantFrom(
      { beats: 4, beatType: 4 as const },
      { beats: 3, beatType: 4 as const },
      { beats: 6, beatType: 8 as const },
    ),
    pickup: fc.constantFrom(0, TICKS_PER_QUARTER),
  });
  fc.assert(
    fc.property(start, fc.array(stroke, { minLength: 1, maxLength: 25 }), (begun, strokes) => {
      const desk = strokes.reduce(
        (d, s) => (d.sketch.items.length > 200 ? d : s(d)),
        deskOf({ ...EMPTY, ...begun }),
      );
      expect(desk.at).toBeGreaterThanOrEqual(0);
      expect(desk.at).toBeLessThanOrEqual(desk.sketch.items.length);
      const score = toScore(desk.sketch);
      score.measures.forEach((m, i) => expect(m.start).toBe(i === 0 ? 0 : endOf(score.measures[i - 1]!)));
      fc.pre(score.parts[0]!.notes.length > 0);
      const heard = (s: typeof score) =>
        soundingNotes(s.parts[0]?.notes ?? []).map((n) => [n.onset, n.duration, n.midi]);
      expect(heard(readMusicXml(writeMusicXml(score)).score)).toEqual(heard(score));
    }),
    { numRuns: 150 },
  );
});

/** A teacher's pattern: read, said again, played over chords, refused with the reason, taken from an example. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { melodyOf } from '../analysis/melody';
import { KEYBOARDS } from '../hands/register';
import { byOnset } from '../score/query';
import { noteValue, TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { parseChord } from '../theory/chordName';
import { parseKey } from '../theory/key';
import { parsePitch, pitchName, toMidi } from '../theory/pitch';
import { levelNumbered } from './levels';
import { patternFrom, patternPlayed } from './patternFrom';
import { leftHand } from './private/leftHand';
import { stretchesOf } from './private/stretches';
import { singAlong } from './singAlong';
import {
  PATTERN_UNITS,
  patternProblem,
  readTeacherPattern,
  stepsText,
  teacherPattern,
  teacherPatternSchema,
  teacherPatternText,
  type TeacherPatternText,
} from './teacherPattern';

const FOUR = { beats: 4, beatType: 4 };
const THREE = { beats: 3, beatType: 4 };
const C = parseKey('C')!;
const chord = (name: string) => parseChord(name)!;

/** Pitches and places (in quarters) of a pattern in the left hand over chords, without the last measure. */
function played(
  text: TeacherPatternText,
  chords: string,
  { level = 5, reach = 14, time = FOUR, key = 'C', melody = 'C6' } = {},
) {
  const bars = chords.split('|').length + 1;
  const quarters = (time.beats * 4) / time.beatType;
  const score = scoreFrom({
    key,
    time,
    right: Array.from({ length: bars }, () => `${melody}:${quarters}`).join(' | '),
    chords: `${chords} | C`,
  });
  const contract = levelNumbered(level);
  const made = leftHand(
    score.measures,
    stretchesOf(score.measures, chordsOf(score), contract),
    melodyOf(score),
    {
      contract,
      texturesIn: () => [text],
      freshStarts: new Set([0]),
      reach,
      keyboard: KEYBOARDS[88],
    },
  );
  const strokes = byOnset(made.notes.filter((n) => n.onset < score.measures.at(-1)!.start))
    .map((g) => `${g.notes.map((n) => pitchName(n.pitch)).join('+')}@${g.onset / Q}`)
    .join(' ');
  return { strokes, reasons: made.reasons.map((r) => r.reason).join('; ') };
}

describe('a pattern as it is typed', () => {
  it.each([
    ['Rolling: eighths 1 5 8 5', 'Rolling: eighths 1 5 8 5'],
    ['  Push :  1 .  5 1+8 ', 'Push: eighths 1 . 5 1+8'],
    ['Low: quarters 5, 1 - 3+5', 'Low: quarters 5, 1 - 3+5'],
    ['Near: halves 3+1 nearest', 'Near: halves 1+3 nearest'],
  ])('%s is read and said again', (typed, said) => {
    expect(teacherPatternSchema.parse(typed)).toBe(said);
  });

  it('has its steps for a name where none is given', () => {
    expect(readTeacherPattern('1 5 8 5')).toMatchObject({ name: '1 5 8 5', unit: 'eighths', length: 4 });
  });

  it.each([
    ['Bad: eighths 1 x', '“x” isn’t a note of the chord. Type 1, 3, 5, 7 or 8, or 1+5 for two together.'],
    ['Bad: eighths . 1', '“.” continues the note before it; there is none. For a rest, type “-”.'],
    ['Bad: eighths 1 - .', '“.” continues the note before it; there is none. For a rest, type “-”.'],
    ['Bad: quarters - -', 'A pattern needs at least one note, for example “1 5 8 5”.'],
    ['Bad:', 'A pattern needs at least one note, for example “1 5 8 5”.'],
    [`Bad: ${'1 '.repeat(65)}`, 'A pattern has at most 64 steps; this one has 65.'],
  ])('%s is refused with what to change', (typed, problem) => {
    expect(readTeacherPattern(typed)).toEqual({ problem });
  });

  it('comes back from its text, whatever it is', () => {
    const tone = fc.record({
      number: fc.integer({ min: 1, max: 7 }),
      octave: fc.integer({ min: -1, max: 1 }),
    });
    const word = fc.oneof(
      fc.constantFrom('-', '.'),
      fc
        .array(tone, { minLength: 1, maxLength: 3 })
        .map((tones) =>
          tones
            .map(({ number, octave }) => (octave < 0 ? `${number},` : String(number + 7 * octave)))
            .join('+'),
        ),
    );
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 12 }),
        fc.constantFrom(...Object.keys(PATTERN_UNITS)),
        fc.boolean(),
        (words, unit, isNearest) => {
          const read = readTeacherPattern(`Mine: ${unit} ${words.join(' ')}${isNearest ? ' nearest' : ''}`);
          if ('problem' in read) return;
          expect(readTeacherPattern(teacherPatternText(read))).toEqual(read);
          expect(stepsText(read).split(' ')).toHaveLength(read.length + (isNearest ? 1 : 0));
        },
      ),
    );
  });
});

describe('a pattern in the left hand', () => {
  it.each([
    [
      'P: eighths 1 5 8 5',
      'C | F',
      'C3@0 G3@0.5 C4@1 G3@1.5 C3@2 G3@2.5 C4@3 G3@3.5 F3@4 C4@4.5 F4@5 C4@5.5 F3@6 C4@6.5 F4@7 C4@7.5',
    ],
    ['P: quarters 1 3+5 nearest', 'C | F', 'C3@0 E3+G3@1 C3@2 E3+G3@3 C3@4 F3+A3@5 C3@6 F3+A3@7'],
    ['P: quarters 1 . 5 8', 'Am', 'A2@0 E3@2 A3@3'],
    ['P: halves 1 2', 'Am', 'A2@0 B2@2'],
    ['P: quarters 1 - 7 -', 'G7', 'G2@0 F3@2'],
    ['P: halves 1 7', 'G', 'G2@0 G3@2'],
    ['P: quarters 1 5, 1 5,', 'C', 'C3@0 G2@1 C3@2 G2@3'],
    ['P: quarters 1 3 5 8', 'C/E', 'E3@0 G3@1 C4@2 E4@3'],
  ] as const)('%s over %s', (text, chords, strokes) => {
    expect(played(text, chords).strokes).toBe(strokes);
  });

  it('begins again with each chord, and is cut where the chord ends', () => {
    expect(played('P: quarters 1 3 5 3', 'C F', { time: FOUR }).strokes).toBe('C3@0 E3@1 F3@2 A3@3');
    expect(played('P: quarters 1 5', 'C', { time: THREE }).strokes).toBe('C3@0 G3@1 C3@2');
  });

  it('says why it does not stand where the level or the hand has no room for it', () => {
    const wide = played('Wide: quarters 1+10', 'C', { level: 5, reach: 12 });
    expect(wide.strokes).not.toContain('+E4');
    expect(wide.reasons).toContain('“Wide” doesn’t fit here: wider than an octave');
    const quick = played('Quick: sixteenths 1 3 5 3', 'C', { level: 3 });
    expect(quick.reasons).toContain('“Quick” doesn’t fit here: its notes are shorter than those of level 3');
    const under = played('High: quarters 1 5 8 12', 'C', { melody: 'C3' });
    expect(under.reasons).toContain('“High” doesn’t fit here: no room below the right hand');
  });

  it('keeps within keyboard, reach and melody over every chord, or stands aside', () => {
    const names = ['C', 'Dm', 'E7', 'F♯m7', 'B♭', 'G/B', 'A♭maj7', 'C♯dim'];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('1', '3', '5', '7', '8', '10', '1+5', '2', '-', '.'), {
          minLength: 1,
          maxLength: 8,
        }),
        fc.constantFrom(...names),
        fc.integer({ min: 2, max: 6 }),
        fc.constantFrom('G4', 'C5', 'E3'),
        (steps, name, level, melody) => {
          const text = `P: quarters 1 ${steps.join(' ')}` as const;
          fc.pre(!('problem' in readTeacherPattern(text)));
          const { strokes } = played(text, name, { level, melody, reach: 12 });
          for (const stroke of strokes.split(' ').filter(Boolean)) {
            const keys = stroke
              .split('@')[0]!
              .split('+')
              .map((n) => toMidi(parsePitch(n)!));
            expect(keys.length).toBeLessThanOrEqual(levelNumbered(level).leftNotes);
            expect(keys.at(-1)! - keys[0]!).toBeLessThanOrEqual(levelNumbered(level).span ?? 12);
            expect(keys.at(-1)!).toBeLessThan(toMidi(parsePitch(melody)!));
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what a level has of patterns', () => {
  it.each([
    ['P: eighths 1 5 8 5', 2, '16 left-hand notes'],
    ['P: quarters 1+3+5', 2, '3 notes at once; level 2 has at most 2'],
    ['P: halves 1+10', 4, 'wider than an octave, the widest at level 4'],
    ['P: triplets 1 3 5', 3, 'its notes are shorter than those of level 3'],
  ] as const)('%s at level %i', (text, level, why) => {
    const problem = patternProblem(teacherPattern(text), levelNumbered(level), FOUR);
    if (why.startsWith('16'))
      expect(problem).toMatch(/shorter than those of level 2|left-hand notes in a measure/);
    else expect(problem).toBe(why);
  });
  it('lets one through that keeps every limit', () => {
    expect(patternProblem(teacherPattern('P: halves 1 5'), levelNumbered(2), FOUR)).toBeUndefined();
    expect(patternProblem(teacherPattern('P: eighths 1 5 8 5'), levelNumbered(4), FOUR)).toBeUndefined();
  });
});

describe('a pattern for the right hand of sung chords', () => {
  const sung = (rhythm: TeacherPatternText, chords: string, level = 4) => {
    const score = scoreFrom({ key: 'C', time: FOUR, right: 'C5:4 | C5:4 | C5:4', chords: `${chords} | C` });
    const contract = levelNumbered(level);
    const { notes, reasons } = singAlong(
      score.measures,
      stretchesOf(score.measures, chordsOf(score), contract),
      {
        contract,
        rhythmIn: () => rhythm,
        reach: 12,
        keyboard: KEYBOARDS[88],
        freshStarts: new Set([0]),
      },
    );
    const strokes = byOnset(notes.filter((n) => n.onset < score.measures.at(-1)!.start))
      .map((g) => `${g.notes.map((n) => pitchName(n.pitch)).join('+')}@${g.onset / Q}`)
      .join(' ');
    return { strokes, reasons: reasons.map((r) => r.reason).join('; ') };
  };

  it('is counted from the lowest note of the inversion that lies nearest', () => {
    expect(sung('Thumb: eighths 3+5 . 1 3+5', 'C | F').strokes).toBe(
      'C5+E5@0 G4@1 C5+E5@1.5 C5+E5@2 G4@3 C5+E5@3.5 C5+F5@4 A4@5 C5+F5@5.5 C5+F5@6 A4@7 C5+F5@7.5',
    );
  });

  it('is held where the level has no such pattern, and says so', () => {
    const { strokes, reasons } = sung('Quick: sixteenths 1 3', 'C | F', 2);
    expect(strokes.split(' ')).toHaveLength(2);
    expect(reasons).toContain('“Quick” doesn’t fit here');
  });
});

describe('a pattern taken from an example', () => {
  const eighth = noteValue(8);
  const notes = (text: string) =>
    text.split(' ').map((word) => {
      const [midi, onset, duration] = word.split(':').map(Number) as [number, number, number];
      return { midi, onset: onset * eighth, duration: duration * eighth };
    });
  const taken = (text: string, name: string, eighths = 8, key = C) => {
    const read = patternFrom(notes(text), {
      chord: chord(name),
      key,
      length: eighths * eighth,
      name: 'Mine',
    });
    return 'problem' in read ? read.problem : teacherPatternText(read);
  };

  it.each([
    ['48:0:1 55:1:1 60:2:1 55:3:1 48:4:1 55:5:1 60:6:1 55:7:1', 'C', 'Mine: eighths 1 5 8 5'],
    ['45:0:3 52:3:1 57:4:4', 'Am', 'Mine: eighths 1 . . 5 8 . . .'],
    ['43:0:4 43:4:4 47:0:4 50:4:4', 'G', 'Mine: halves 1+3 1+5'],
    ['43:0:2 45:2:2 47:4:2 43:6:2', 'G', 'Mine: quarters 1 2 3 1'],
    ['55:0:2 60:2:2 64:4:4', 'C', 'Mine: quarters 5, 1 3 .'],
    ['48:0:2 55:4:2', 'C', 'Mine: quarters 1 - 5 -'],
    ['48:0:4 54:4:4', 'C', 'F♯ is in neither C nor the key.'],
  ])('%s over %s', (text, name, pattern) => {
    expect(taken(text, name)).toBe(pattern);
  });

  it('refuses a rhythm that has no common step', () => {
    const read = patternFrom(
      [
        { midi: 48, onset: 0, duration: 7 },
        { midi: 50, onset: 7, duration: 7 },
      ],
      {
        chord: chord('C'),
        key: C,
        length: noteValue(1),
        name: '',
      },
    );
    expect(read).toHaveProperty('problem');
  });

  it('gives back what it plays: taken from its own strokes it is the same pattern', () => {
    for (const text of ['P: eighths 1 5 8 5', 'P: quarters 1 3+5', 'P: eighths 1 . 5 10 8 5 3 2'] as const) {
      const { strokes } = played(text, 'F', { level: 6 });
      const read = patternFrom(
        strokes.split(' ').flatMap((stroke, i, all) => {
          const [names, at] = stroke.split('@') as [string, string];
          const next = Number(all[i + 1]?.split('@')[1] ?? 4);
          return names.split('+').map((name) => {
            const midi = toMidi(parsePitch(name)!);
            return { midi, onset: Number(at) * Q, duration: (next - Number(at)) * Q };
          });
        }),
        { chord: chord('F'), key: parseKey('F')!, length: 4 * Q, name: 'P' },
      );
      expect('problem' in read ? read.problem : teacherPatternText(read)).toBe(text);
    }
  });

  it('is heard from what was played, however fast', () => {
    for (const pace of [0.2, 0.31, 0.6]) {
      const jitter = [0, 0.012, -0.01, 0.008, 0.004];
      const read = patternPlayed(
        [
          [48, 0],
          [55, 1],
          [60, 2],
          [64, 2],
          [55, 4],
        ].map(([midi, step], i) => ({ midi: midi!, onset: step! * pace + jitter[i]! })),
        { chord: chord('C'), key: C, unit: 'eighths', name: 'Played' },
      );
      expect('problem' in read ? read.problem : teacherPatternText(read)).toBe(
        'Played: eighths 1 5 8+10 . 5',
      );
    }
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toMidi, STEPS } from '../theory/pitch';
import type { Note, Score } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { scoreOfStudy, STUDIES } from '../test/studies';
import { difficultyOf } from './difficulty';
import { demandsOf } from './private/demands';
import { hardestOf, levelOf, scoreOfWhole } from './level';
import { handTerms } from './private/terms';

const fourFour = { beats: 4, beatType: 4 };
const piece = (right: string, left = 'C3:4', key = 'C', tempo = 100): Score =>
  scoreFrom({ key, time: fourFour, tempo, right, left });
const scoreOf = (score: Score): number => difficultyOf(score)[0]!.score;
const reasonsOf = (score: Score): readonly string[] => difficultyOf(score)[0]!.reasons;

/** Ranks from 1, equal values sharing the mean of their ranks. */
function ranks(values: readonly number[]): number[] {
  return values.map((v) => {
    const below = values.filter((w) => w < v).length;
    const same = values.filter((w) => w === v).length;
    return below + (same + 1) / 2;
  });
}

/** Spearman's rank correlation: the correlation of the ranks. */
function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const [x, y] = [ranks(a), ranks(b)];
  const mean = (v: readonly number[]): number => v.reduce((s, n) => s + n, 0) / v.length;
  const [mx, my] = [mean(x), mean(y)];
  const covariance = x.reduce((s, _, i) => s + (x[i]! - mx) * (y[i]! - my), 0);
  const spread = (v: readonly number[], m: number): number =>
    Math.sqrt(v.reduce((s, n) => s + (n - m) ** 2, 0));
  return covariance / (spread(x, mx) * spread(y, my));
}

describe('on studies of known order', () => {
  const scored = STUDIES.map((study) => ({ study, score: scoreOfWhole(difficultyOf(scoreOfStudy(study))) }));
  it('are four for each level', () => {
    for (const level of [1, 2, 3, 4, 5, 6])
      expect(STUDIES.filter((s) => s.level === level).length).toBeGreaterThanOrEqual(4);
  });
  it('ranks them as their levels do', () => {
    const correlation = rankCorrelation(
      scored.map((s) => s.study.level),
      scored.map((s) => s.score),
    );
    expect(correlation).toBeGreaterThan(0.95);
  });
  it('gives nearly all of them their level, and none is off by two', () => {
    const off = scored.map((s) => Math.abs(levelOf(s.score) - s.study.level));
    expect(off.filter((o) => o === 0).length).toBeGreaterThanOrEqual(22);
    expect(Math.max(...off)).toBeLessThanOrEqual(1);
  });
});

/** A measure of notes in two hands, each hand a line or chords on a grid of eighths. */
const hand = fc.array(
  fc.record({
    eighths: fc.integer({ min: 1, max: 4 }),
    rest: fc.boolean(),
    tones: fc.uniqueArray(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 3 }),
  }),
  { minLength: 3, maxLength: 14 },
);

const LOWEST = { right: 28, left: 17 } as const; // C4 and F2 as staff positions

function notesOf(line: readonly { eighths: number; rest: boolean; tones: number[] }[], staff: 1 | 2): Note[] {
  let onset = 0;
  return line.flatMap(({ eighths, rest, tones }, i) => {
    const at = onset;
    onset += (eighths * Q) / 2;
    if ((rest && i > 0) || at >= 12 * Q) return [];
    return [...tones]
      .sort((a, b) => a - b)
      .map((tone, t): Note => {
        const position = LOWEST[staff === 1 ? 'right' : 'left'] + tone;
        return {
          id: `${staff}-${i}-${t}`,
          onset: at,
          duration: (eighths * Q) / 2,
          pitch: { step: STEPS[position % 7]!, alter: 0, octave: Math.floor(position / 7) },
          staff,
          voice: staff === 1 ? 1 : 5,
        };
      });
  });
}

const music = fc
  .record({ right: hand, left: hand, tempo: fc.integer({ min: 40, max: 180 }) })
  .map(({ right, left, tempo }): Score => {
    const frame = piece('C4:4 | C4:4 | C4:4', 'C3:4 | C3:4 | C3:4', 'C', tempo);
    return withNotes(
      frame,
      [...notesOf(right, 1), ...notesOf(left, 2)].sort((a, b) => a.onset - b.onset),
    );
  });

const withNotes = (score: Score, notes: readonly Note[]): Score => ({
  ...score,
  parts: [{ ...score.parts[0]!, notes }],
});

const mapNotes = (score: Score, change: (note: Note) => Note): Score =>
  withNotes(score, score.parts[0]!.notes.map(change));

/** No measure, and neither the whole, is easier in the second score than in the first. */
function neverEasier(easier: Score, harder: Score): void {
  const [a, b] = [difficultyOf(easier), difficultyOf(harder)];
  a.forEach((d, i) => expect(b[i]!.score, `measure ${i + 1}`).toBeGreaterThanOrEqual(d.score));
  expect(scoreOfWhole(b)).toBeGreaterThanOrEqual(scoreOfWhole(a));
}

describe('making one thing harder never lowers it', () => {
  it('faster', () => {
    fc.assert(
      fc.property(music, fc.integer({ min: 1, max: 100 }), (score, by) =>
        neverEasier(score, { ...score, tempo: score.tempo + by }),
      ),
    );
  });
  it('wider: every distance inside a hand stretched twofold', () => {
    const widened = (note: Note): Note => {
      const low = LOWEST[note.staff === 1 ? 'right' : 'left'];
      const position = STEPS.indexOf(note.pitch.step) + 7 * note.pitch.octave;
      const moved = note.staff === 1 ? low + 2 * (position - low) : low + 9 - 2 * (low + 9 - position);
      return { ...note, pitch: { step: STEPS[moved % 7]!, alter: 0, octave: Math.floor(moved / 7) } };
    };
    fc.assert(fc.property(music, (score) => neverEasier(score, mapNotes(score, widened))));
  });
  it('one more accidental', () => {
    fc.assert(
      fc.property(music, fc.nat(), (score, pick) => {
        const notes = score.parts[0]!.notes;
        const chosen = notes[pick % notes.length]!;
        const { step, octave } = chosen.pitch;
        neverEasier(
          score,
          mapNotes(score, (n) =>
            n.pitch.step === step && n.pitch.octave === octave
              ? { ...n, pitch: { ...n.pitch, alter: 1 } }
              : n,
          ),
        );
      }),
    );
  });
  it('more sharps in the signature', () => {
    const lines = ['C5:1 B4:1 A4:1 G4:1', 'F4:0.5 E4:0.5 D4:1 C4:2'];
    const inKey = (fifths: number): Score => {
      const sharps = [...'FCGDAEB'].slice(0, fifths);
      const plain = piece(lines.join(' | '), '[C3 G3]:4 | F3:2 B3:2');
      return {
        ...mapNotes(plain, (n) => ({
          ...n,
          pitch: { ...n.pitch, alter: sharps.includes(n.pitch.step) ? 1 : 0 },
        })),
        measures: plain.measures.map((m) => ({ ...m, key: { fifths, mode: 'major' as const } })),
      };
    };
    for (let fifths = 0; fifths < 6; fifths++) neverEasier(inKey(fifths), inKey(fifths + 1));
  });
  it('one more note in a chord', () => {
    fc.assert(
      fc.property(music, fc.nat(), (score, pick) => {
        const notes = score.parts[0]!.notes;
        const chosen = notes[pick % notes.length]!;
        const { pitch } = chosen;
        const added: Note = { ...chosen, id: 'added', pitch: { ...pitch, octave: pitch.octave + 1 } };
        if (notes.some((n) => n.onset === chosen.onset && toMidi(n.pitch) === toMidi(added.pitch))) return;
        const own = notes.filter((n) => n.staff === chosen.staff && n.onset === chosen.onset);
        if (own.some((n) => toMidi(n.pitch) > toMidi(pitch))) return;
        const measure = Math.floor(chosen.onset / (4 * Q));
        const side = chosen.staff === 1 ? 'right' : 'left';
        const termsOf = (of: Score) => handTerms(demandsOf(of)[measure]!, side);
        const after = termsOf(withNotes(score, [...notes, added]));
        // A doubled octave can lie nearer to what comes next: the leap may shrink, nothing else does.
        for (const { kind, points } of termsOf(score))
          if (kind !== 'leaps')
            expect(after.find((t) => t.kind === kind)!.points, kind).toBeGreaterThanOrEqual(points);
      }),
    );
  });
  it.each([
    ['half a beat early', 'E4:1 F4:1 G4:1 E4:1', 'E4:1 F4:1 G4:0.5 E4:1.5'],
    ['held over the middle', 'E4:1 F4:1 G4:1 E4:1', 'E4:1 F4:2 E4:1'],
    ['off the beat throughout', 'E4:1 F4:1 G4:1 E4:1', 'r:0.5 E4:1 F4:1 G4:1 E4:0.5'],
    ['between the halves of beats', 'E4:0.5 F4:0.5 G4:1 E4:2', 'E4:0.25 F4:0.5 G4:0.25 G4:1 E4:2'],
  ])('more syncopated: %s', (_name, plain, syncopated) => {
    for (const left of ['C3:4', 'C3:2 G3:2', 'C3:1 G3:1 E3:1 G3:1'])
      expect(scoreOf(piece(syncopated, left))).toBeGreaterThanOrEqual(scoreOf(piece(plain, left)));
  });
  it('hands more independent: the same strokes of the left hand moved between those of the right', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 4, maxLength: 4 }), (tones) => {
        const right = tones.map((t) => `${STEPS[t]}4:1`).join(' ');
        const together = piece(right, 'C3:1 E3:1 G3:1 E3:1');
        const between = piece(right, 'r:0.5 C3:1 E3:1 G3:1 E3:0.5');
        expect(scoreOf(between)).toBeGreaterThan(scoreOf(together));
      }),
    );
  });
  it('a second hand that comes in', () => {
    expect(scoreOf(piece('C4:1 D4:1 E4:2', 'C3:4'))).toBeGreaterThan(scoreOf(piece('C4:1 D4:1 E4:2', 'r:4')));
  });
});

describe('each hand and the reasons', () => {
  it('scores a hand by itself, and null where it rests', () => {
    const [m] = difficultyOf(piece('C5:0.25 D5:0.25 E5:0.25 F5:0.25 G5:3', 'r:4'));
    expect(m!.left).toBeNull();
    expect(m!.right!.score).toBe(m!.score);
  });
  it('stays within the scale', () => {
    const hard = '[C4 E4 G4 C5]:0.25 '.repeat(16).trim();
    expect(scoreOf(piece(hard, '[C2 E2 G2 C3]:0.25 '.repeat(16).trim(), 'C', 300))).toBeLessThanOrEqual(100);
    expect(scoreOf(piece('r:4', 'r:4'))).toBe(0);
  });
  it.each([
    ['C4:0.25 D4:0.25 E4:0.25 F4:0.25 G4:1 E4:1 C4:1', 'C3:4', /^right hand: fast sixteenths$/],
    ['C4:1 D4:1 E4:1 C4:1', 'C2:1 [E3 G3]:1 C2:1 [E3 G3]:1', /^left hand: leaps of a tenth/],
    ['C4:1 D4:1 E4:1 C4:1', '[C3 B3]:4', /^left hand: .*a stretch of a seventh/],
    ['C4:1 D#4:1 E4:1 F#4:1', 'C3:4', /^right hand: accidentals \(D♯ F♯\)$/],
    ['C4:0.5 D4:1 E4:1 D4:1 E4:0.5', 'C3:4', /^right hand: .*notes held over the beat/],
    ['C4:1 D4:1 E4:1 C4:1', 'r:0.5 C3:1 G3:1 C3:1 G3:0.5', /^different rhythms in each hand$/],
    ['[C4 E4 G4]:2 [D4 F4 A4]:2', '[C3 E3 G3]:4', /^both hands: 3 notes at once/],
    ['C6:1 E6:1 D6:1 E6:1', 'C3:4', /^right hand: notes far above the staff$/],
  ])('%s over %s', (right, left, reason) => {
    expect(reasonsOf(piece(right, left))).toContainEqual(expect.stringMatching(reason));
  });
  it('says nothing of what is not hard', () => {
    expect(reasonsOf(piece('C4:2 D4:2', 'C3:4'))).toEqual([]);
    expect(
      reasonsOf(scoreFrom({ key: 'G', time: fourFour, right: 'G4:1 F#4:1 G4:2', left: 'G3:4' })),
    ).toEqual([]);
  });
  it('counts the tempo of the place', () => {
    const two = piece('C4:1 D4:1 E4:1 F4:1 | C4:1 D4:1 E4:1 F4:1', 'C3:4 | C3:4');
    const [first, second] = difficultyOf({ ...two, tempoChanges: [{ onset: 4 * Q, tempo: 200 }] });
    expect(second!.score).toBeGreaterThan(first!.score);
  });
});

describe('the whole', () => {
  it('is as hard as its hardest tenth', () => {
    const measures = Array.from({ length: 20 }, (_, i) => ({ score: i < 2 ? 50 : 10 }));
    expect(scoreOfWhole(measures)).toBe(50);
    expect(scoreOfWhole([])).toBe(0);
  });
  it('names at most three places, the hardest first', () => {
    const score = piece(
      ['C4:4', 'C4:0.25 '.repeat(16).trim(), 'C4:4', 'C4:0.5 '.repeat(8).trim()].join(' | '),
      'C3:4 | C3:4 | C3:4 | C3:4',
    );
    expect(hardestOf(difficultyOf(score)).map((d) => d.measure)).toEqual([1, 3]);
  });
  it('names a leap of more than an octave also where every measure is as hard', () => {
    const [spot] = hardestOf(difficultyOf(piece('C4:1 E5:1 C4:1 E5:1', 'C3:4')));
    expect(spot?.reasons.join()).toContain('leaps of a tenth');
    expect(hardestOf(difficultyOf(piece('C4:1 D4:1 E4:1 D4:1', 'C3:4')))).toEqual([]);
  });
});

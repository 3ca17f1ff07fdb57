import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { soundingNotes } from '../score/query';
import type { Mark, Measure, Note, Score } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { readAbc } from '../io/abc/read';
import { scoreFrom } from '../test/shorthand';
import { perform } from './perform';
import type { PlayedNote } from './played';
import { clockOf } from './tempo';

const four = { beats: 4, beatType: 4 };
const plain = scoreFrom({ key: 'C', time: four, tempo: 120, right: 'C4:1 D4:1 E4:1 F4:1 | G4:2 A4:2' });
const withNotes = (score: Score, change: (note: Note, i: number) => Partial<Note>): Score => ({
  ...score,
  parts: [{ ...score.parts[0]!, notes: score.parts[0]!.notes.map((n, i) => ({ ...n, ...change(n, i) })) }],
});
const withMarks = (score: Score, marks: readonly Mark[]): Score => ({
  ...score,
  parts: [{ ...score.parts[0]!, marks }],
});
const withMeasures = (score: Score, change: Record<number, Partial<Measure>>): Score => ({
  ...score,
  measures: score.measures.map((m, i) => ({ ...m, ...change[i] })),
});
/** Onset and length in quarters. */
const times = (notes: readonly PlayedNote[]): string[] =>
  notes.map(
    (n) =>
      `${n.midi}@${Math.round((n.onset / Q) * 1000) / 1000}+${Math.round((n.duration / Q) * 1000) / 1000}`,
  );
const dynamic = (value: string, quarters: number, staff = 1): Mark => ({
  kind: 'dynamic',
  onset: quarters * Q,
  staff,
  value,
});
const hairpin = (type: 'crescendo' | 'diminuendo' | 'stop', quarters: number): Mark => ({
  kind: 'hairpin',
  onset: quarters * Q,
  staff: 1,
  type,
  number: 1,
});
const velocities = (score: Score): number[] => perform(score).notes.map((n) => n.velocity);

describe('a performance', () => {
  it('plays what is written, in its time', () => {
    const performance = perform(plain);
    expect(times(performance.notes)).toEqual(['60@0+1', '62@1+1', '64@2+1', '65@3+1', '67@4+2', '69@6+2']);
    const { seconds, tick } = clockOf(performance);
    expect(performance.notes.map((n) => seconds(n.onset))).toEqual([0, 0.5, 1, 1.5, 2, 3]);
    expect(seconds(performance.end)).toBe(4);
    expect(tick(1.25)).toBe(2.5 * Q);
    expect(clockOf(performance, 0.5).seconds(4 * Q)).toBe(4);
  });
  it('joins ties, and lets go where the music goes elsewhere', () => {
    const tied = scoreFrom({
      key: 'C',
      time: four,
      right: 'C4:2 D4:2 | E4:4',
    });
    const held = withNotes(tied, (n, i) =>
      i === 1 ? { tie: 'start' } : i === 2 ? { tie: 'stop', pitch: tied.parts[0]!.notes[1]!.pitch } : {},
    );
    expect(times(perform(held).notes)).toEqual(['60@0+2', '62@2+6']);
    const repeated = withMeasures(held, { 0: { repeatEnd: true } });
    // The first time the tie leads back to the beginning: it ends with the measure.
    expect(times(perform(repeated).notes)).toEqual(['60@0+2', '62@2+2', '60@4+2', '62@6+6']);
  });
  it('unfolds repeats, endings and jumps, and knows each written measure in them', () => {
    const song = scoreFrom({ key: 'C', time: four, right: 'C4:4 | D4:4 | E4:4 | F4:4' });
    const ended = withMeasures(song, {
      0: { repeatStart: true },
      1: { ending: '1', endingEnd: true, repeatEnd: true },
      2: { ending: '2', endingEnd: true },
    });
    expect(perform(ended).notes.map((n) => n.midi)).toEqual([60, 62, 60, 64, 65]);
    expect(perform(ended).measures.map((m) => [m.index, m.onset / Q])).toEqual([
      [0, 0],
      [1, 4],
      [0, 8],
      [2, 12],
      [3, 16],
    ]);
    const jump = withMeasures(song, { 1: { route: { fine: true } }, 3: { route: { jump: 'da capo' } } });
    expect(perform(jump).notes.map((n) => n.midi)).toEqual([60, 62, 64, 65, 60, 62]);
  });
  it('swings the second eighth to two thirds of its beat, and leaves triplets and quarters', () => {
    const swing = scoreFrom({
      key: 'C',
      time: four,
      right: 'C4:0.5 D4:0.5 E4:1 F4:0.25 G4:0.25 A4:0.5 B4:1',
    });
    expect(times(perform(swing, 'swing').notes)).toEqual([
      '60@0+0.667',
      '62@0.667+0.333',
      '64@1+1',
      '65@2+0.333',
      '67@2.333+0.333',
      '69@2.667+0.333',
      '71@3+1',
    ]);
    const said = withMarks(swing, [{ kind: 'words', onset: 0, staff: 1, text: 'Swing' }]);
    expect(times(perform(said).notes)).toEqual(times(perform(swing, 'swing').notes));
    const triplet = scoreFrom({ key: 'C', time: { beats: 1, beatType: 4 }, right: 'C4:0.5 D4:0.5' });
    const three = {
      ...triplet,
      parts: [
        {
          ...triplet.parts[0]!,
          notes: [0, 1, 2].map((i): Note => ({
            ...triplet.parts[0]!.notes[0]!,
            id: `t${i}`,
            onset: (i * Q) / 3,
            duration: Q / 3,
          })),
        },
      ],
    };
    expect(perform(three, 'swing').notes.map((n) => n.onset)).toEqual([0, Q / 3, (2 * Q) / 3]);
    const compound = scoreFrom({
      key: 'C',
      time: { beats: 6, beatType: 8 },
      right: 'C4:0.5 D4:0.5 E4:0.5 C4:1.5',
    });
    expect(times(perform(compound, 'swing').notes)).toEqual(times(perform(compound, 'straight').notes));
  });
  it('changes its tempo where it is written, each time', () => {
    const slower = {
      ...withMeasures(plain, { 1: { repeatEnd: true } }),
      tempoChanges: [{ onset: 4 * Q, tempo: 60 }],
    };
    expect(perform(slower).tempi).toEqual([
      { onset: 0, tempo: 120 },
      { onset: 4 * Q, tempo: 60 },
      { onset: 8 * Q, tempo: 120 },
      { onset: 12 * Q, tempo: 60 },
    ]);
    expect(clockOf(perform(slower)).seconds(16 * Q)).toBe(12);
  });
  it('holds a fermata: its note lasts nearly twice as long, and the tempo comes back', () => {
    const held = withNotes(plain, (_n, i) => (i === 3 ? { fermata: true } : {}));
    const { seconds } = clockOf(perform(held));
    expect(seconds(3 * Q)).toBe(1.5);
    expect(seconds(4 * Q) - seconds(3 * Q)).toBeCloseTo(0.9, 5);
    expect(seconds(6 * Q) - seconds(4 * Q)).toBeCloseTo(1, 5);
  });
  it('is as loud as it is marked: from the mark on, for both hands, stressed at a stress alone', () => {
    expect(velocities(plain)).toEqual([80, 80, 80, 80, 80, 80]);
    expect(velocities(withMarks(plain, [dynamic('p', 0), dynamic('f', 3)]))).toEqual([
      56, 56, 56, 94, 94, 94,
    ]);
    expect(velocities(withMarks(plain, [dynamic('p', 0), dynamic('sfz', 2)]))).toEqual([
      56, 56, 76, 56, 56, 56,
    ]);
    expect(velocities(withMarks(plain, [dynamic('fp', 1)]))).toEqual([80, 94, 56, 56, 56, 56]);
    const hands = scoreFrom({ key: 'C', time: four, right: 'C5:4', left: 'C3:4' });
    expect(velocities(withMarks(hands, [dynamic('ff', 0)]))).toEqual([108, 108]);
    expect(velocities(withMarks(hands, [dynamic('ff', 0), dynamic('p', 0, 2)]))).toEqual([56, 108]);
  });
  it('swells under a hairpin to the next dynamic, or by one step', () => {
    const swell = withMarks(plain, [
      dynamic('p', 0),
      hairpin('crescendo', 0),
      hairpin('stop', 4),
      dynamic('f', 4),
    ]);
    expect(velocities(swell)).toEqual([56, 66, 75, 85, 94, 94]);
    const open = withMarks(plain, [dynamic('f', 0), hairpin('diminuendo', 1), hairpin('stop', 3)]);
    expect(velocities(open)).toEqual([94, 94, 88, 82, 82, 82]);
  });
  it('shortens and stresses what is articulated', () => {
    const marked = withNotes(plain, (_n, i) => ({
      articulations:
        ([['staccato'], ['accent'], ['tenuto'], ['staccatissimo', 'strong-accent']] as const)[i] ?? [],
    }));
    const { notes } = perform(marked);
    expect(notes.slice(0, 4).map((n) => n.duration / Q)).toEqual([0.5, 1, 1, 0.3]);
    expect(notes.slice(0, 4).map((n) => n.velocity)).toEqual([80, 96, 80, 104]);
  });
  it('plays what is brought out louder than what is around it', () => {
    const out = withNotes(plain, (_n, i) => (i === 1 ? { isBroughtOut: true as const } : {}));
    expect(
      perform(out)
        .notes.slice(0, 3)
        .map((n) => n.velocity),
    ).toEqual([80, 96, 80]);
  });
  it('rolls a chord from below, or from above where it goes down, and lets go together', () => {
    const chord = scoreFrom({ key: 'C', time: four, right: '[C4 E4 G4]:4' });
    const rolled = (way: Note['arpeggio']): PlayedNote[] => [
      ...perform(withNotes(chord, () => ({ arpeggio: way! }))).notes,
    ];
    expect(rolled('plain').map((n) => [n.midi, n.onset / Q])).toEqual([
      [60, 0],
      [64, 0.1],
      [67, 0.2],
    ]);
    expect(rolled('down').map((n) => n.midi)).toEqual([67, 64, 60]);
    expect(new Set(rolled('plain').map((n) => n.onset + n.duration))).toEqual(new Set([4 * Q]));
    expect(rolled('bracket').map((n) => n.onset)).toEqual([0, 0, 0]);
  });
  it('plays grace notes before the beat where they are struck through, on it where not, and after their note', () => {
    const grace = (change: Partial<NonNullable<Note['grace']>>): Score => {
      const [first, ...rest] = plain.parts[0]!.notes;
      const small: Note = {
        ...rest[0]!,
        id: 'g',
        duration: 0,
        pitch: { step: 'B', alter: 0, octave: 4 },
        grace: { slash: false, type: 8, order: 0, ...change },
      };
      return { ...plain, parts: [{ ...plain.parts[0]!, notes: [first!, small, ...rest] }] };
    };
    const around = (score: Score): string[] => times(perform(score).notes).slice(0, 3);
    expect(around(grace({ slash: true }))).toEqual(['60@0+1', '71@0.875+0.125', '62@1+1']);
    expect(around(grace({}))).toEqual(['60@0+1', '71@1+0.5', '62@1.5+0.5']);
    expect(around(grace({ after: true }))).toEqual(['60@0+1', '62@1+0.875', '71@1.875+0.125']);
  });
  describe('graces in ABC', () => {
    const abc = (music: string, unit = '1/4'): string[] =>
      times(perform(readAbc(`X:1\nL:${unit}\nK:C\n${music}|\n`).score).notes);
    it('take a quarter of what they are written with, on the beat, before every note of their chord', () => {
      expect(abc('C{F}G C2')).toEqual(['60@0+1', '65@1+0.25', '67@1.25+0.75', '60@2+2']);
      expect(abc('C2{F}G2 C4', '1/8')).toEqual(['60@0+1', '65@1+0.125', '67@1.125+0.875', '60@2+2']);
      expect(abc('{F/G/}[EA] C3')).toEqual([
        '65@0+0.125',
        '67@0.125+0.125',
        '64@0.25+0.75',
        '69@0.25+0.75',
        '60@1+3',
      ]);
      // Struck through they do so as well, and are engraved so.
      expect(abc('C{/F}G C2').slice(1, 3)).toEqual(['65@1+0.25', '67@1.25+0.75']);
    });
    it('are left to the player where they would leave nothing of their note', () => {
      expect(abc('{FGAG}C {FGA}C C2').map((n) => n.split('+')[0])).toEqual([
        '60@0',
        '65@1',
        '67@1.25',
        '69@1.5',
        '60@1.75',
        '60@2',
      ]);
    });
    it('are read by the unit of their tune, wherever it is said, or by its time signature', () => {
      const first = (head: string, grace = '{F}G4 G4'): number =>
        readAbc(`X:1\n${head}\n${grace}|\n`).score.parts[0]!.notes.find((n) => n.grace)!.grace!.length! / Q;
      expect(first('M:4/4\nK:C\nL: 1/16')).toBe(1 / 16);
      expect(first('M:4/4\nK:C')).toBe(1 / 8);
      expect(first('M:2/4\nK:C')).toBe(1 / 16);
      expect(first('M:2/4\nL:1/8\nK:C', '{F2}G4')).toBe(1 / 4);
    });
    it('a general gracing is a short note above in the key, whatever else is said of the note', () => {
      const graced = (music: string): string[] =>
        times(perform(readAbc(`X:1\nL:1/4\nK:D\n${music}|\n`).score).notes).slice(0, 2);
      expect(graced('~E4')).toEqual(['66@0+0.25', '64@0.25+3.75']);
      expect(graced('~!roll!E4')).toEqual(graced('~E4'));
      // Graces of its own are played instead.
      expect(graced('{A}~E4')).toEqual(['69@0+0.25', '64@0.25+3.75']);
    });
  });
  it('plays trills from above and turns round their note, by the key', () => {
    const abc = (music: string): string[] =>
      times(perform(readAbc(`X:1\nL:1/4\nK:G\n${music}|\n`).score).notes);
    expect(abc('!trill!E/ z/ z3').map((n) => n.split('+')[0])).toEqual([
      '66@0',
      '64@0.125',
      '66@0.25',
      '64@0.375',
    ]);
    expect(abc('!trill!E z3')).toHaveLength(8);
    expect(abc('!turn!G z3')).toEqual(['67@0+0.2', '69@0.2+0.2', '67@0.4+0.2', '66@0.6+0.2', '67@0.8+0.2']);
  });
  it('swings a hornpipe, the short note of its dotted pairs too', () => {
    const abc = (music: string): string[] =>
      times(perform(readAbc(`X:1\nR:hornpipe\nL:1/8\nM:4/4\nK:C\n${music}|\n`).score).notes);
    expect(abc('C>DEF G4').map((n) => n.split('+')[0])).toEqual([
      '60@0',
      '62@0.667',
      '64@1',
      '65@1.667',
      '67@2',
    ]);
    expect(abc('C/D/E/F/ G6')[3]).toMatch(/^65@0.833/);
  });
  it('presses and lifts the pedal; a change is up, then down', () => {
    const pedalled: Score = {
      ...plain,
      pedals: [
        { onset: 0, type: 'start' },
        { onset: 4 * Q, type: 'change' },
        { onset: 8 * Q, type: 'stop' },
      ],
    };
    expect(perform(pedalled).pedals.map((p) => [p.onset / Q, p.down])).toEqual([
      [0, true],
      [4, false],
      [4, true],
      [8, false],
    ]);
  });
  it('law: without marks every sounding note is played once for each time its measure is, and nothing else', () => {
    const line = fc.array(fc.constantFrom('C4:1 D4:1 E4:2', 'r:2 G4:2', '[C4 E4]:4', 'A4:0.5 B4:0.5 C5:3'), {
      minLength: 1,
      maxLength: 6,
    });
    fc.assert(
      fc.property(line, fc.boolean(), (measures, again) => {
        const score = scoreFrom({ key: 'C', time: four, right: measures.join(' | ') });
        const repeated = again ? withMeasures(score, { [measures.length - 1]: { repeatEnd: true } }) : score;
        const { notes, measures: passes, end } = perform(repeated);
        expect(notes).toHaveLength(soundingNotes(score.parts[0]!.notes).length * (again ? 2 : 1));
        expect(passes).toHaveLength(measures.length * (again ? 2 : 1));
        for (const note of notes) expect(note.onset + note.duration).toBeLessThanOrEqual(end);
      }),
      { numRuns: 60 },
    );
  });
});

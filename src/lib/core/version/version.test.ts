import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { levelNumbered } from '../arrange/levels';
import { pitchName, toMidi } from '../theory/pitch';
import { byOnset, measureAt, soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { readMusicXml } from '../io/musicxml/read';
import { writeMusicXml } from '../io/musicxml/write';
import { scoreFrom } from '../test/shorthand';
import { keyName } from '../theory/key';
import { checkVersion } from './check';
import { realise, type Version } from './realise';
import { whyFinger } from './why';
import { WHOLE } from '../decisions/anchor';
import { decide, giveBack } from '../decisions/decide';
import { sectionAnchor } from '../decisions/holds';
import { decisionSchema, type Decision } from '../decisions/registry';
import { arrangement } from './arrangement';
import { DEFAULT_RECIPE, recipeSchema, type Recipe } from './recipe';

const song = scoreFrom({
  title: 'Song',
  key: 'G',
  time: { beats: 4, beatType: 4 },
  pickup: 1,
  tempo: 100,
  right:
    'D4:1 | G4:1.5 A4:0.5 B4:1 D5:1 | B4:0.75 A4:0.25 G4:2 r:1 | C5:1 B4:0.5 A4:0.5 G4:1 E4:1 | D4:2 F#4:1 r:1 | G4:4',
  left: 'r:1 | [G2 D3 B3]:4 | E3:1 [G3 B3]:1 E3:1 [G3 B3]:1 | C3:4 | D3:2 [F#3 C4]:2 | [G2 D3]:4',
  chords: ' | G | Em | C | D7 | G',
  sections: { 1: 'Verse' },
});
const recipe = (change: Partial<Recipe> = {}): Recipe => ({ ...DEFAULT_RECIPE, ...change });
const notesOf = (score: Score) => score.parts[0]!.notes;
const levels = [1, 2, 3] as const;
const keys = ['C', 'G', 'D', 'F', 'Bb', 'A', 'Eb', 'F#'] as const;
const anyRecipe = fc
  .record({ level: fc.constantFrom(...levels), key: fc.constantFrom(null, ...keys) })
  .map((change) => recipe(change));

describe('realising a version', () => {
  it('is deterministic', () => {
    expect(realise(song, recipe(), [])).toEqual(realise(song, recipe(), []));
  });

  it('gives a reason for what it does, and reports what it changed', () => {
    const version = realise(song, recipe({ level: 1 }), []);
    expect(version.account.melodyLeftOut).toBeGreaterThan(0);
    expect(version.reasons.filter((r) => r.about === 'melody').length).toBeGreaterThanOrEqual(
      version.account.melodyLeftOut,
    );
    expect(version.reasons.filter((r) => r.about === 'left hand').length).toBeGreaterThan(3);
  });

  it('counts the pickup as four and writes counts and fingers onto the notes', () => {
    const version = realise(song, recipe(), []);
    const first = notesOf(version.score)[0]!;
    expect(first.lyrics?.[0]).toMatchObject({ line: 'counts', text: '4' });
    expect(first.finger).toBeGreaterThan(0);
    expect(notesOf(version.score)[1]!.lyrics?.[0]?.text).toBe('1 (2)');
  });

  it('has pedal from level 3 on, and none for a keyboard without one', () => {
    expect(realise(song, recipe({ level: 2 }), []).score.pedals).toEqual([]);
    expect(realise(song, recipe({ level: 3 }), []).score.pedals.length).toBeGreaterThan(2);
    expect(
      realise(song, recipe({ level: 3 }), [{ kind: 'pedal', at: WHOLE, value: 'none' }]).score.pedals,
    ).toEqual([]);
  });

  it('slows the goal down for the lower levels', () => {
    expect(levels.map((level) => realise(song, recipe({ level }), []).goalTempo)).toEqual([70, 80, 86]);
  });

  it('makes a version of a melody with chord symbols alone', () => {
    const lead = scoreFrom({
      key: 'F',
      time: { beats: 3, beatType: 4 },
      right: 'F4:2 A4:1 | C5:3 | Bb4:2 G4:1 | F4:3',
      chords: 'F | C7 | Bb | F',
    });
    const version = realise(lead, recipe({ level: 3 }), []);
    const low = notesOf(version.score).filter((n) => n.staff === 2);
    // A waltz bass: low note, chord, chord; the end is held.
    expect(byOnset(low).map((g) => g.notes.length)).toEqual([1, 2, 2, 1, 3, 3, 1, 2, 2, 3]);
    expect(version.violations).toEqual([]);
  });

  it('lifts a low melody so that the left hand has room, and says so', () => {
    const low = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C3:2 E3:2 | G3:4',
      chords: 'C | C',
    });
    const version = realise(low, recipe(), []);
    expect(pitchName(notesOf(version.score)[0]!.pitch)).toBe('C4');
    expect(version.reasons.find((r) => r.about === 'register')?.text).toContain('an octave higher');
  });

  it('law: whatever the recipe, measures are full, hands apart, every note fingered, nothing off the keyboard', () => {
    fc.assert(
      fc.property(anyRecipe, (made) => {
        const version = realise(song, made, []);
        for (const staff of [1, 2])
          for (const measure of version.score.measures) {
            const inside = notesOf(version.score).filter(
              (n) =>
                n.staff === staff && n.onset >= measure.start && n.onset < measure.start + measure.length,
            );
            for (const n of inside)
              expect(n.onset + n.duration).toBeLessThanOrEqual(measure.start + measure.length);
          }
        const sounding = soundingNotes(notesOf(version.score));
        for (const note of sounding) expect(version.fingers[note.id]?.finger).toBeGreaterThan(0);
        const limits = version.violations.map((v) => v.limit);
        expect(limits).not.toContain('hands overlap');
        expect(limits).not.toContain('range of the keyboard');
        expect(limits).not.toContain('notes at once');
        expect(limits).not.toContain('shortest note');
        // The written file is read back as the same music.
        const back = readMusicXml(writeMusicXml(version.score)).score;
        const key = (n: (typeof sounding)[number]): string => `${n.onset}+${n.duration}=${n.midi}/${n.staff}`;
        expect(soundingNotes(notesOf(back)).map(key).sort()).toEqual(sounding.map(key).sort());
      }),
      { numRuns: 24 },
    );
  });

  it('law: the melody keeps its notes on the beat in every version', () => {
    fc.assert(
      fc.property(anyRecipe, (made) => {
        const version = realise(song, made, []);
        const by = version.key.fifths - version.sourceKey.fifths;
        const source = soundingNotes(notesOf(song).filter((n) => n.staff === 1));
        const kept = new Map(notesOf(version.score).map((n) => [n.id, n]));
        for (const note of source.filter((n) => n.onset % Q === 0)) {
          const found = kept.get(note.id)!;
          expect(found.onset).toBe(note.onset);
          expect(((toMidi(found.pitch) - note.midi - 7 * by) % 12) | 0).toBe(0);
        }
      }),
      { numRuns: 20 },
    );
  });
});

describe('decisions', () => {
  it('are kept, marked, and can be given back', () => {
    const decisions = decide([], { kind: 'finger', at: { note: 'm1s1n0' }, value: 4 });
    const version = realise(song, recipe(), decisions);
    expect(version.fingers['m1s1n0']).toEqual({ finger: 4, decided: true });
    expect(giveBack(decisions, 'finger', { note: 'm1s1n0' })).toEqual([]);
    expect(decide(decisions, { kind: 'finger', at: { note: 'm1s1n0' }, value: 2 })).toHaveLength(1);
  });

  it('wait while their note is away, and come back with it', () => {
    const sixteenth = notesOf(song).find((n) => n.duration === Q / 4)!.id;
    const decisions = decide([], { kind: 'finger', at: { note: sixteenth }, value: 3 });
    const away = realise(song, recipe({ level: 1 }), decisions);
    expect(away.parked).toEqual([{ decision: decisions[0], why: 'its note is not in this version' }]);
  });

  it('law: survive every change of level and key as long as their note does', () => {
    const base = realise(song, recipe(), []);
    const ids = Object.keys(base.fingers);
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...ids), { minLength: 1, maxLength: 4 }),
        fc.constantFrom<1 | 2 | 3 | 4 | 5>(1, 2, 3, 4, 5),
        anyRecipe,
        (chosen, finger, made) => {
          const decisions = chosen.map((note): Decision => ({ kind: 'finger', at: { note }, value: finger }));
          const version = realise(song, made, decisions);
          for (const decision of decisions) {
            const there = version.fingers[(decision.at as { note: string }).note];
            if (there) expect(there).toEqual({ finger, decided: true });
            else expect(version.parked.map((p) => p.decision)).toContainEqual(decision);
          }
        },
      ),
      { numRuns: 25 },
    );
  });

  it('hold for the bass of a measure whatever is built on it', () => {
    const bass = Object.keys(realise(song, recipe({ level: 1 }), []).fingers).find((id) =>
      id.startsWith('Lm1-'),
    )!;
    const decisions = decide([], { kind: 'finger', at: { note: bass }, value: 2 });
    for (const level of levels)
      for (const key of keys) {
        const version = realise(song, recipe({ level, key }), decisions);
        expect(version.fingers[bass]?.finger ?? 'parked').toBe(version.parked.length ? 'parked' : 2);
      }
  });

  it('are explained by what they cost', () => {
    const made = arrangement(song, recipe(), []);
    const why = whyFinger(made, [], 'm1s1n0')!;
    expect(why.text.startsWith(`${why.finger} on G4`)).toBe(true);
    const other = ((why.finger % 5) + 1) as 1;
    const decisions = decide([], { kind: 'finger', at: { note: 'm1s1n0' }, value: other });
    expect(whyFinger(made, decisions, 'm1s1n0')!.text).toContain(
      `You chose ${other}; the suggestion was ${why.finger}`,
    );
  });

  it('and recipes from outside are checked', () => {
    expect(recipeSchema.safeParse(recipe({ key: 'F#' })).success).toBe(true);
    for (const wrong of [
      { level: 0 },
      { level: 2.3 },
      { key: 'H' },
      { reach: { right: 3, left: 8 } },
      { keyboard: 50 },
    ])
      expect(recipeSchema.safeParse({ ...recipe(), ...wrong }).success).toBe(false);
    expect(decisionSchema.safeParse({ kind: 'finger', at: { note: 'x' }, value: 6 }).success).toBe(false);
  });
});

describe('checking a version', () => {
  const check = (right: string, left: string, level: number, key = 'C') =>
    checkVersion(scoreFrom({ key, time: { beats: 4, beatType: 4 }, right, left }), {
      contract: levelNumbered(level),
      reach: { right: 12, left: 12 },
      keyboard: { low: 36, high: 96 },
    }).map((v) => v.limit);
  it.each([
    ['notes at once', '[C4 E4]:4', 'C3:4', 1, 'C'],
    ['span in semitones', 'C5:4', '[C3 C4]:4', 2, 'C'],
    ['shortest note', 'C4:0.5 D4:0.5 E4:1 F4:2', 'C3:4', 1, 'C'],
    ['dotted notes', 'C4:0.75 D4:0.25 E4:1 F4:2', 'C3:4', 2, 'C'],
    ['leap in semitones', 'C4:1 C5:1 E4:2', 'C3:4', 1, 'C'],
    ['left-hand onsets in a measure', 'C5:4', 'C3:1 E3:1 G3:1 E3:1', 1, 'C'],
    ['accidentals in the key signature', 'C5:4', 'C3:4', 1, 'A'],
    ['range of the keyboard', 'C5:4', 'C1:4', 1, 'C'],
    ['hands overlap', 'C4:4', 'E4:4', 1, 'C'],
    ['ties', 'r:1 C5:2.5 D5:0.5', 'C3:4', 2, 'C'],
  ] as [string, string, string, number, string][])('finds: %s', (limit, right, left, level, key) => {
    expect(check(right, left, level, key)).toContain(limit);
  });
  it('finds nothing in music that keeps the contract', () => {
    expect(check('C4:1 D4:1 E4:2', 'C3:4', 1)).toEqual([]);
    expect(check('C4:1.5 D4:0.5 E4:2', '[C3 G3]:4', 2)).toEqual([]);
    expect(check('C5:1.5 D5:0.5 E5:2', '[C3 E3 A3]:4', 3)).toEqual([]);
  });
  it('names the measure and the key it was checked in', () => {
    expect(keyName(realise(song, recipe({ key: 'A' }), []).key)).toBe('A major');
    expect(realise(song, recipe({ key: 'A' }), []).violations.map((v) => v.limit)).toContain(
      'accidentals in the key signature',
    );
  });
});

describe('decisions beyond fingers', () => {
  const plain = recipe();
  it('a note goes to the other hand, with its finger, and what no hand holds is said', () => {
    const note = 'm1s1n0';
    const version = realise(song, plain, decide([], { kind: 'hand', at: { note }, value: 'left' }));
    expect(version.score.parts[0]!.notes.find((n) => n.id === note)!.staff).toBe(2);
    expect(version.fingers[note]).toBeDefined();
    for (const chord of version.wide) expect(chord.remedies.length).toBeGreaterThan(0);
  });
  it('words for a measure take the places of its counts, and wait when they do not fit', () => {
    const places = realise(song, plain, []).counts[1]!.counts.length;
    const fitting = decide([], {
      kind: 'count',
      at: { measure: 'm1' },
      value: Array(places).fill('la').join(' '),
    });
    expect(realise(song, plain, fitting).counts[1]!.counts.every((c) => c.say === 'la')).toBe(true);
    const short = decide([], { kind: 'count', at: { measure: 'm1' }, value: 'la' });
    const version = realise(song, plain, short);
    expect(version.parked.map((p) => p.decision)).toEqual(places === 1 ? [] : short);
    expect(version.counts).toEqual(realise(song, plain, []).counts);
  });
  it('a section is counted in its own school, and gives it back', () => {
    const { score, form } = realise(song, plain, []);
    const at = sectionAnchor({ measures: score.measures, sections: form.sections }, 0);
    const other = decide([], { kind: 'counting', at, value: 'takadimi' });
    expect(realise(song, plain, other).counts[form.sections[0]!.to]!.counts[0]!.say).toBe('ta');
    expect(giveBack(other, 'counting', at)).toEqual([]);
  });
  it('pedal that is decided for a measure stands at a level without pedal', () => {
    const style = decide([], { kind: 'pedal', at: { measure: 'm1' }, value: 'harmony' });
    expect(realise(song, { ...plain, level: 1 }, []).pedals).toEqual([]);
    const { pedals, score } = realise(song, { ...plain, level: 1 }, style);
    expect(pedals.length).toBeGreaterThan(0);
    const { start, length } = score.measures[1]!;
    expect(pedals.every((p) => p.onset >= start && p.onset <= start + length)).toBe(true);
  });
  it('a swung piece says so', () => {
    const swung = realise(song, { ...plain, feel: 'swing' }, []);
    expect(swung.score.parts[0]!.marks).toContainEqual(expect.objectContaining({ text: 'Swing' }));
    expect(realise(song, plain, []).feel).toBe('straight');
  });
  it('a recipe that leaves out what is usual is still one', () => {
    const { countFor: _a, cutTime: _b, feel: _c, ...old } = DEFAULT_RECIPE;
    expect(recipeSchema.parse(old)).toEqual(DEFAULT_RECIPE);
  });
  it('a piece within its level stays note for note, and a texture changes only the measures it is chosen for', () => {
    const easy = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C4:1 D4:1 E4:1 F4:1 | G4:2 E4:2 | F4:1 E4:1 D4:1 E4:1 | C4:4',
      left: 'C3:4 | C3:4 | G2:4 | C3:4',
    });
    const sounds = ({ score }: Version, measure?: number) =>
      soundingNotes(score.parts[0]!.notes)
        .filter((n) => measure === undefined || measureAt(score.measures, n.onset).index === measure)
        .map((n) => `${pitchName(n.pitch)} ${n.staff} ${n.onset} ${n.duration}`);
    const source = soundingNotes(easy.parts[0]!.notes).map(
      (n) => `${pitchName(n.pitch)} ${n.staff} ${n.onset} ${n.duration}`,
    );
    for (const level of [1, 2, 3, 4])
      expect(sounds(realise(easy, recipe({ level, key: 'C' }), [])).sort()).toEqual([...source].sort());
    const texture = decide([], { kind: 'texture', at: { measure: 'm1' }, value: 'root-then-fifth' });
    const [plainly, decided] = [[], texture].map((d) => realise(easy, recipe({ level: 2, key: 'C' }), d));
    expect(sounds(decided!, 1)).not.toEqual(sounds(plainly!, 1));
    for (const measure of [0, 2, 3]) expect(sounds(decided!, measure)).toEqual(sounds(plainly!, measure));
  });
  it('a tune that is brought down an octave is counted so, as a reader of both finds', () => {
    const high = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C6:1 D6:1 E6:1 F6:1 | G6:2 E6:2 | F6:1 E6:1 D6:1 E6:1 | C6:4',
    });
    for (const level of [1, 2, 4]) {
      const { score, account, accountText } = realise(high, recipe({ level, key: 'C' }), []);
      const tune = soundingNotes(high.parts[0]!.notes);
      const made = soundingNotes(score.parts[0]!.notes);
      const away = tune.filter((n) => {
        const there = made.filter(
          (m) => m.onset === n.onset && m.pitch.step === n.pitch.step && m.staff === 1,
        );
        return there.length > 0 && there.every((m) => m.midi !== n.midi);
      });
      expect(account.moved).toBe(away.length);
      expect(accountText.includes('in another octave')).toBe(away.length > 0);
      if (level === 1) expect(away).toHaveLength(tune.length);
    }
  });
});

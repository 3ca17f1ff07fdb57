/** What each kind of decision does to the music of a version, and that none of them does more. */
import fc from 'fast-check';
import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readMusicXml } from '../../io/musicxml/read';
import { writeMusicXml } from '../../io/musicxml/write';
import { perform } from '../../performance/perform';
import { pitchName } from '../../theory/pitch';
import { soundingNotes } from '../../score/query';
import { TICKS_PER_QUARTER } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { chordSymbol } from '../../theory/chord';
import { transpositionTo } from '../../transpose/transpose';
import { realise, type Version } from '../../version/realise';
import { DEFAULT_RECIPE, type Recipe } from '../../version/recipe';
import { allKinds, decisionSchema, KINDS, type Decision } from '../registry';
import type { Anchor, Scope } from '../anchor';
import type { Situation } from '../kind';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:1 E5:1 G5:2 | A5:2 A5:2 | G5:1 F5:1 E5:1 D5:1 | C5:4',
  left: '[C3 E3 G3]:4 | [F3 A3 C4]:4 | [G3 B3 D4]:4 | [C3 E3 G3]:4',
  chords: 'C | F | G | C',
});
const recipe: Recipe = { ...DEFAULT_RECIPE, level: 6, key: 'C', reach: { right: 9, left: 9 } };
const made = (decisions: readonly Decision[], other: Partial<Recipe> = {}, source = song): Version =>
  realise(source, { ...recipe, ...other }, decisions);

/** Struck notes of a staff in a measure: "C3@0/4" is C3 on the first beat for four quarters. */
const struck = ({ score }: Version, measure: number, staff: number): string[] => {
  const { start, length } = score.measures[measure]!;
  return soundingNotes(score.parts[0]!.notes)
    .filter((n) => n.staff === staff && n.onset >= start && n.onset < start + length)
    .map(
      (n) =>
        `${pitchName(n.pitch)}@${(n.onset - start) / TICKS_PER_QUARTER}/${n.duration / TICKS_PER_QUARTER}`,
    );
};
const pitches = (version: Version, measure: number, staff: number): string[] =>
  struck(version, measure, staff).map((text) => text.split('@')[0]!);
const noteOf = (version: Version, measure: number, staff: number, name?: string): string => {
  const { start, length } = version.score.measures[measure]!;
  return soundingNotes(version.score.parts[0]!.notes).find(
    (n) =>
      n.staff === staff &&
      n.onset >= start &&
      n.onset < start + length &&
      (!name || pitchName(n.pitch) === name),
  )!.id;
};
const plain = made([]);
const left = noteOf(plain, 0, 2);

describe('the plain version', () => {
  it('is what the others are compared with', () => {
    expect(pitches(plain, 0, 2)).toEqual(['C3', 'E3', 'G3']);
    expect(struck(plain, 1, 1)).toEqual(['A5@0/2', 'A5@2/2']);
  });
});

describe('inversion', () => {
  it('turns the chord in hand to its nearest shape above or below', () => {
    const turned = (value: -2 | -1 | 1 | 2): string[] =>
      pitches(made([{ kind: 'inversion', at: { note: left }, value }]), 0, 2);
    expect(turned(1)).toEqual(['E3', 'G3', 'C4']);
    expect(turned(2)).toEqual(['G3', 'C4', 'E4']);
    expect(turned(-1)).toEqual(['G2', 'C3', 'E3']);
  });
  it('of a measure turns what the left hand strikes there, and only there', () => {
    const version = made([{ kind: 'inversion', at: { measure: 'm1' }, value: 1 }]);
    expect(pitches(version, 1, 2)).toEqual(['A3', 'C4', 'F4']);
    expect(pitches(version, 0, 2)).toEqual(['C3', 'E3', 'G3']);
    expect(struck(version, 1, 1)).toEqual(struck(plain, 1, 1));
  });
  it('wider than the hand waits', () => {
    const open = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C6:4',
      left: '[C3 G3 E4]:4',
      chords: 'C',
    });
    const before = made([], { reach: { right: 10, left: 10 } }, open);
    const turned = made(
      [{ kind: 'inversion', at: { measure: 'm0' }, value: 1 }],
      { reach: { right: 10, left: 10 } },
      open,
    );
    expect(turned.parked).toMatchObject([{ why: 'the hand does not reach this inversion' }]);
    expect(pitches(turned, 0, 2)).toEqual(pitches(before, 0, 2));
  });
  it('of a single note waits and says why', () => {
    const tune = noteOf(plain, 0, 1);
    expect(made([{ kind: 'inversion', at: { note: tune }, value: 1 }]).parked).toMatchObject([
      { why: 'no chord is played here' },
    ]);
  });
});

describe('voicing', () => {
  const voiced = (value: string): string[] =>
    pitches(made([{ kind: 'voicing', at: { measure: 'm1' }, value } as Decision]), 1, 2);
  it('strikes the tones that are chosen, near where the chord lay', () => {
    expect(voiced('root')).toEqual(['F3']);
    expect(voiced('octave')).toEqual(['F3', 'F4']);
    expect(voiced('fifth')).toEqual(['F3', 'C4']);
    expect(voiced('third')).toEqual(['F3', 'A3']);
    expect(voiced('close')).toEqual(['F3', 'A3', 'C4']);
  });
  it('wider than the hand waits', () => {
    const version = made([{ kind: 'voicing', at: { measure: 'm1' }, value: 'open' }], {
      reach: { right: 8, left: 8 },
    });
    expect(version.parked).toMatchObject([{ why: 'the hand does not reach this voicing' }]);
    expect(pitches(version, 1, 2)).toEqual(['F3', 'A3', 'C4']);
    expect(
      pitches(
        made([{ kind: 'voicing', at: { measure: 'm1' }, value: 'open' }], { reach: { right: 10, left: 10 } }),
        1,
        2,
      ),
    ).toEqual(['F3', 'C4', 'A4']);
  });
});

describe('rhythm of the left hand', () => {
  const rhythm = (value: string): string[] =>
    struck(made([{ kind: 'figure', at: { measure: 'm0' }, value } as Decision]), 0, 2).filter((t) =>
      t.startsWith('C3'),
    );
  it('strikes what is held at other places', () => {
    expect(rhythm('twice')).toEqual(['C3@0/2', 'C3@2/2']);
    expect(rhythm('beats')).toEqual(['C3@0/1', 'C3@1/1', 'C3@2/1', 'C3@3/1']);
    expect(rhythm('after')).toEqual(['C3@0.5/1', 'C3@1.5/1', 'C3@2.5/1', 'C3@3.5/0.5']);
    expect(rhythm('long')).toEqual(['C3@0/1.5', 'C3@1.5/0.5', 'C3@2/1.5', 'C3@3.5/0.5']);
    expect(rhythm('held')).toEqual(['C3@0/4']);
  });
  it('leaves what is held over from the measure before, and holds on over the barline what was', () => {
    const bare = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:4 | D5:4 | E5:4',
      left: 'C3:4 | C3:2 E3:2 | E3:4',
      chords: 'C | C | C',
    });
    const over: Record<string, 'start' | 'stop'> = {
      m0s2n0: 'start',
      m1s2n0: 'stop',
      m1s2n1: 'start',
      m2s2n0: 'stop',
    };
    const notes = bare.parts[0]!.notes.map((n) => (over[n.id] ? { ...n, tie: over[n.id]! } : n));
    const tied = { ...bare, parts: [{ ...bare.parts[0]!, notes }] };
    const at = (version: Version): string[] => [0, 1, 2].flatMap((m) => struck(version, m, 2));
    expect(at(made([], {}, tied))).toEqual(['C3@0/6', 'E3@2/6']);
    expect(at(made([{ kind: 'figure', at: { measure: 'm1' }, value: 'beats' }], {}, tied))).toEqual([
      'C3@0/6',
      'E3@2/1',
      'E3@3/5',
    ]);
  });
});

describe('notes', () => {
  it('are moved by steps of the scale and semitones, in every key alike', () => {
    const at = { note: noteOf(plain, 0, 1) };
    const moved = (steps: number, alter: number, key = 'C'): string =>
      pitches(made([{ kind: 'pitch', at, value: { steps, alter } }], { key }), 0, 1)[0]!;
    expect(moved(2, 0)).toBe('E5');
    expect(moved(-1, 0)).toBe('B4');
    expect(moved(0, 1)).toBe('C♯5');
    expect(moved(1, -1)).toBe('D♭5');
    expect(moved(-1, 0, 'D')).toBe('C♯5');
  });
  it('get company in the chord that sounds', () => {
    const at = { note: noteOf(plain, 0, 1) };
    const version = made([{ kind: 'add', at, value: [-2, 7] }]);
    expect(pitches(version, 0, 1).slice(0, 3)).toEqual(['A4', 'C5', 'C6']);
    expect(Object.keys(version.fingers)).toContain(`${at.note}p7`);
  });
  it('are put in where there is none, in the key of the version', () => {
    const value = [
      { hand: 'left' as const, at: 2 * TICKS_PER_QUARTER, duration: TICKS_PER_QUARTER, pitch: 'B3' },
    ];
    const version = made([{ kind: 'insert', at: { measure: 'm0' }, value }], { key: 'D' });
    expect(struck(version, 0, 2)).toContain('C♯4@2/1');
    expect(
      made([{ kind: 'insert', at: { measure: 'm0' }, value: [{ ...value[0]!, at: 9 * TICKS_PER_QUARTER }] }])
        .parked,
    ).toHaveLength(1);
  });
  it('are put in by words, in the key that is shown', () => {
    const at = (version: Version): Situation => ({
      measure: version.score.measures[0]!,
      level: 6,
      hasAccompaniment: true,
      melodyLines: [],
      isSingAlong: false,
      transposition: transpositionTo(version.sourceKey, version.key),
    });
    const inD = made([], { key: 'D' });
    const kind = allKinds().find((k) => k.id === 'insert')!;
    const value = kind.written!.read('left 3 C#4 1; r 1.5 f#5 0.5', at(inD));
    expect(value).toEqual([
      { hand: 'left', at: 2 * TICKS_PER_QUARTER, duration: TICKS_PER_QUARTER, pitch: 'B3' },
      { hand: 'right', at: TICKS_PER_QUARTER / 2, duration: TICKS_PER_QUARTER / 2, pitch: 'E5' },
    ]);
    expect(kind.written!.show(value!, at(inD))).toBe('left 3 C♯4 1; right 1.5 F♯5 0.5');
    for (const wrong of ['', 'left', 'left 9 C4 1', 'left 1 H4 1'])
      expect(kind.written!.read(wrong, at(inD))).toBeUndefined();
  });
  it('are tied, let go and held', () => {
    const first = noteOf(plain, 1, 1);
    expect(struck(made([{ kind: 'hold', at: { note: first }, value: 'tied' }]), 1, 1)).toEqual(['A5@0/4']);
    expect(struck(made([{ kind: 'hold', at: { note: first }, value: 'half' }]), 1, 1)).toEqual([
      'A5@0/1',
      'A5@2/2',
    ]);
    const tune = noteOf(plain, 0, 1);
    expect(made([{ kind: 'hold', at: { note: tune }, value: 'tied' }]).parked).toMatchObject([
      { why: 'the same key is not played after it' },
    ]);
  });
  it('held over a barline are let go there', () => {
    const bare = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:2 E5:2 | E5:4 | C5:4',
      left: 'C3:4 | C3:4 | C3:4',
      chords: 'C | C | C',
    });
    const joined = bare.parts[0]!.notes.map((n) =>
      pitchName(n.pitch) === 'E5'
        ? { ...n, tie: n.onset < 4 * TICKS_PER_QUARTER ? ('start' as const) : ('stop' as const) }
        : n,
    );
    const tied = { ...bare, parts: [{ ...bare.parts[0]!, notes: joined }] };
    const before = made([], {}, tied);
    const long = noteOf(before, 0, 1, 'E5');
    expect(struck(before, 0, 1)[1]).toBe('E5@2/6');
    expect(struck(made([{ kind: 'hold', at: { note: long }, value: 'barline' }], {}, tied), 0, 1)[1]).toBe(
      'E5@2/2',
    );
  });
});

describe('the stroke of a chord', () => {
  const at = { note: left };
  it('is rolled, or struck together', () => {
    const rolled = made([{ kind: 'strike', at, value: 'rolled' }]).score.parts[0]!.notes.filter(
      (n) => n.arpeggio,
    );
    expect(rolled.map((n) => pitchName(n.pitch))).toEqual(['C3', 'E3', 'G3']);
  });
  it('is broken, each key in its turn and the last one held', () => {
    expect(struck(made([{ kind: 'strike', at, value: 'broken' }]), 0, 2)).toEqual([
      'C3@0/1',
      'E3@1/1',
      'G3@2/2',
    ]);
  });
});

describe('touch and slurs', () => {
  it('stand on the note, or on every stroke of a measure, and are heard', () => {
    const version = made([{ kind: 'articulation', at: { measure: 'm2' }, value: 'staccato' }]);
    const short = version.score.parts[0]!.notes.filter((n) => n.articulations?.includes('staccato'));
    expect(new Set(short.map((n) => Math.floor(n.onset / (4 * TICKS_PER_QUARTER))))).toEqual(new Set([2]));
    const longest = (v: Version): number =>
      Math.max(
        ...perform(v.score, v.feel)
          .notes.filter((n) => n.id === noteOf(plain, 2, 1))
          .map((n) => n.duration),
      );
    expect(longest(version)).toBeLessThan(longest(plain));
  });
  it('a slur leads from note to note, and is taken away again', () => {
    const [from, to] = [noteOf(plain, 2, 1, 'G5'), noteOf(plain, 2, 1, 'E5')];
    const slurred: Decision = { kind: 'slur', at: { note: from }, value: { to } };
    const version = made([slurred]);
    const slurs = (v: Version) =>
      v.score.parts[0]!.notes.flatMap((n) => (n.slurs ?? []).map((s) => `${pitchName(n.pitch)} ${s.type}`));
    expect(slurs(version)).toEqual(['G5 start', 'E5 stop']);
    expect(
      slurs(realise(version.score, recipe, [{ kind: 'slur', at: { note: from }, value: 'none' }])),
    ).toEqual([]);
    expect(made([{ ...slurred, value: { to: left } } as Decision]).parked).toHaveLength(1);
  });
});

describe('what stands on the page', () => {
  it('dynamics and hairpins are written, and heard', () => {
    const [from, to] = [noteOf(plain, 0, 1), noteOf(plain, 3, 1)];
    const version = made([
      { kind: 'dynamic', at: { note: from }, value: 'pp' },
      { kind: 'hairpin', at: { note: from }, value: { type: 'crescendo', to } },
    ]);
    expect(version.score.parts[0]!.marks?.map((m) => m.kind)).toEqual(['dynamic', 'hairpin', 'hairpin']);
    const velocities = perform(version.score, 'straight')
      .notes.filter((n) => n.staff === 1)
      .map((n) => n.velocity);
    expect(velocities[0]).toBeLessThan(perform(plain.score, 'straight').notes[0]!.velocity);
    expect(velocities.at(-2)).toBeGreaterThan(velocities[0]!);
  });
  it('words at a note and words of the song stand there, syllables joined by hyphens', () => {
    const ids = soundingNotes(plain.score.parts[0]!.notes)
      .filter((n) => n.staff === 1)
      .map((n) => n.id);
    const sung = (note: string, text: string): Decision => ({
      kind: 'words',
      at: { note },
      value: [{ verse: 1, text }],
    });
    const version = made([
      sung(ids[0]!, 'pa-'),
      sung(ids[1]!, 'per'),
      sung(ids[2]!, 'kite'),
      { kind: 'technique', at: { note: ids[0]! }, value: 'cross over' },
    ]);
    const words = version.score.parts[0]!.notes.flatMap((n) =>
      (n.lyrics ?? []).filter((l) => l.line === 'words').map((l) => `${l.text} ${l.syllabic}`),
    );
    expect(words).toEqual(['pa begin', 'per end', 'kite single']);
    expect(version.score.parts[0]!.marks).toContainEqual(
      expect.objectContaining({ kind: 'words', text: 'cross over' }),
    );
    expect(version.fingers).toEqual(plain.fingers);
  });
  it('a note to the student and a hard measure change no note', () => {
    const version = made([
      { kind: 'advice', at: { range: ['m1', 'm2'] }, value: 'listen' },
      { kind: 'hard', at: { measure: 'm2' }, value: true },
    ]);
    expect(version.advice).toEqual([{ from: 1, to: 2, text: 'listen' }]);
    expect(version.difficulty.map((d) => d.isMarked === true)).toEqual([false, false, true, false]);
    expect(version.score.parts).toEqual(plain.score.parts);
  });
});

describe('the foot', () => {
  it('does at a note what is decided there', () => {
    const note = noteOf(plain, 2, 1, 'E5');
    const marks = (value: 'down' | 'change' | 'up' | 'none') =>
      made([{ kind: 'pedal mark', at: { note }, value }]).score.pedals.filter(
        (p) => p.onset === 10 * TICKS_PER_QUARTER,
      );
    expect(marks('change')).toMatchObject([{ type: 'change', because: 'your choice' }]);
    expect(marks('up')).toMatchObject([{ type: 'stop' }]);
    expect(marks('none')).toEqual([]);
    expect(
      made([
        { kind: 'pedal mark', at: { note }, value: 'up' },
        { kind: 'pedal', at: { version: true }, value: 'none' },
      ]).score.pedals,
    ).toEqual([]);
  });
});

describe('what is decided of the source', () => {
  it('chords of a measure are arranged, in the key that is shown', () => {
    const version = made([{ kind: 'chords', at: { measure: 'm1' }, value: 'Dm G7' }], { level: 2, key: 'G' });
    expect(version.chords.map((c) => c.chord && chordSymbol(c.chord))).toEqual(['G', 'Am', 'D7', 'D', 'G']);
    expect(pitches(version, 1, 2)[0]).toMatch(/^A/);
  });
  it('a measure is written with points for beats that stay', () => {
    const version = made([{ kind: 'chords', at: { measure: 'm0' }, value: '. . . G7' }]);
    expect(
      version.chords.slice(0, 2).map((c) => [c.onset / TICKS_PER_QUARTER, c.chord && chordSymbol(c.chord)]),
    ).toEqual([
      [0, null],
      [3, 'G7'],
    ]);
  });
  it('a section begins where it is said to, with its name and what it is for', () => {
    const version = made([
      { kind: 'section', at: { measure: 'm2' }, value: { name: 'Answer', role: 'chorus' } },
    ]);
    expect(version.form.sections.map((s) => [s.label, s.from, s.role?.role])).toContainEqual([
      'Answer',
      2,
      'chorus',
    ]);
    const again = realise({ ...song, sectionStarts: [{ measure: 0 }, { measure: 2 }] }, recipe, [
      { kind: 'section', at: { measure: 'm2' }, value: 'none' },
    ]);
    expect(again.form.sections).toHaveLength(1);
  });
  it('repeats are written out, the second time under names of its own', () => {
    const repeated = {
      ...song,
      measures: song.measures.map((m, i) => (i === 1 ? { ...m, repeatEnd: true } : m)),
    };
    const version = made([{ kind: 'repeats', at: { version: true }, value: 'written out' }], {}, repeated);
    expect(version.score.measures.map((m) => m.id)).toEqual(['m0', 'm1', 'm0~2', 'm1~2', 'm2', 'm3']);
    expect(version.score.measures.some((m) => m.repeatEnd)).toBe(false);
    expect(struck(version, 2, 1)).toEqual(struck(version, 0, 1));
    expect(version.form.newMeasures).toBe(4);
    const sounds = (v: Version) => perform(v.score, v.feel).notes.map((n) => [n.onset, n.midi]);
    expect(sounds(version)).toEqual(sounds(made([], {}, repeated)));
  });
});

describe('every kind', () => {
  const situation = (version: Version, measure: number): Situation => ({
    measure: version.score.measures[measure]!,
    note: undefined,
    level: recipe.level,
    hasAccompaniment: true,
    melodyLines: ['upper'],
    isSingAlong: false,
    hasRepeats: false,
  });
  /** A decision of any kind that can be made at a place of the version. */
  const anyDecision = fc
    .record({
      kind: fc.constantFrom(...allKinds()),
      measure: fc.nat(3),
      note: fc.nat(100),
      choice: fc.nat(30),
      scope: fc.nat(30),
    })
    .map(({ kind, measure, note, choice, scope }): Decision | undefined => {
      const choices = kind.choices?.(situation(plain, measure)) ?? [];
      const value = kind.written
        ? kind.written.read('G', situation(plain, measure))
        : choices.length > 0
          ? choices[choice % choices.length]![0]
          : kind.keys?.[choice % kind.keys.length]?.next(undefined, situation(plain, measure));
      const ids = Object.keys(plain.fingers);
      const until = `m${Math.min(3, measure + 1)}`;
      const places: Record<Scope, Anchor> = {
        note: { note: ids[note % ids.length]! },
        measure: { measure: `m${measure}` },
        range: { range: [`m${measure}`, until] },
        section: { section: [`m${measure}`, until] },
        version: { version: true },
      };
      const at = places[kind.scopes[scope % kind.scopes.length]!];
      const spanned =
        kind.spans && value !== undefined ? kind.spans(value, ids[(note + 3) % ids.length]!) : value;
      const checked = decisionSchema.safeParse({ kind: kind.id, at, value: spanned });
      return checked.success ? checked.data : undefined;
    });

  it('law: whatever is decided together, the version is written, read back the same, and what has no place is parked', () => {
    fc.assert(
      fc.property(fc.array(anyDecision, { minLength: 1, maxLength: 6 }), (list) => {
        const decisions = [
          ...new Map(
            list.filter((d) => d !== undefined).map((d) => [JSON.stringify([d.kind, d.at]), d]),
          ).values(),
        ];
        const version = made(decisions);
        const { score } = version;
        const end = score.measures.at(-1)!.start + score.measures.at(-1)!.length;
        for (const n of score.parts[0]!.notes) {
          expect(Number.isInteger(n.onset) && Number.isInteger(n.duration) && n.duration > 0).toBe(true);
          expect(n.onset + n.duration).toBeLessThanOrEqual(end);
        }
        const sounding = (notes: (typeof score.parts)[0]['notes']) =>
          soundingNotes(notes)
            .map((n) => [n.onset, n.duration, n.midi, n.staff])
            .sort();
        const back = readMusicXml(writeMusicXml(score)).score;
        expect(sounding(back.parts[0]!.notes)).toEqual(sounding(score.parts[0]!.notes));
        for (const n of soundingNotes(score.parts[0]!.notes)) expect(version.fingers[n.id]).toBeDefined();
        for (const { decision } of version.parked) expect(decisions).toContain(decision);
      }),
      { numRuns: 60 },
    );
  });
});

describe('modules of kinds', () => {
  it('have the names of the kinds', () => {
    const files = readdirSync('src/lib/core/decisions/kinds').filter((f) => !f.endsWith('.test.ts'));
    const camel = (id: string): string => id.replace(/ (\w)/g, (_, letter: string) => letter.toUpperCase());
    expect(files.sort()).toEqual(KINDS.map(({ id }) => `${camel(id)}.ts`).sort());
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LEVELS } from '../arrange/levels';
import { scoreFrom } from '../test/shorthand';
import { documentOf, documentSchema, listed } from '../version/document';
import { fromOlder } from '../version/older';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE } from '../version/recipe';
import { stagesRun, forgetStages } from '../pipeline/memo';
import { anchorText, scopeOf, WHOLE, type Anchor } from './anchor';
import { decide, giveBack, subjectOf } from './decide';
import { sectionAnchor, sectionDecision, sectionsHeld, valuesIn, type Layout } from './holds';
import { placeText } from './placeText';
import { allKinds, decisionSchema, decisionText, kindOf, type Decision } from './registry';

const bar = 'C5:1 D5:1 E5:2';
const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: Array(12).fill(bar).join(' | '),
  left: Array(12).fill('C3:4').join(' | '),
  chords: Array(12).fill('C').join(' | '),
});
const layout = (...starts: number[]): Layout => ({
  measures: song.measures,
  sections: starts.map((from, i) => ({ from, to: (starts[i + 1] ?? 12) - 1 })),
});
const before = layout(0, 4, 8);
const inSection = (index: number, value: 'takadimi' | 'pulses' = 'takadimi'): Decision => ({
  kind: 'counting',
  at: sectionAnchor(before, index),
  value,
});

describe('a decision', () => {
  it('about the same thing takes the place of the one before, at each of its scopes', () => {
    const anchors: Anchor[] = [{ measure: 'm1' }, { section: ['m0', 'm3'] }, WHOLE];
    const all = anchors.map((at): Decision => ({ kind: 'pedal', at, value: 'lifted' }));
    const decided = decide([], ...all);
    expect(decided).toHaveLength(3);
    expect(decide(decided, { kind: 'pedal', at: WHOLE, value: 'none' })).toHaveLength(3);
    expect(giveBack(decided, 'pedal', { measure: 'm1' })).toHaveLength(2);
    expect(anchors.map(scopeOf)).toEqual(['measure', 'section', 'version']);
    expect(new Set(anchors.map(anchorText)).size).toBe(3);
  });
  it('from outside is checked: its kind, its value, and that its kind has the scope', () => {
    const problems = (decision: unknown): string | undefined =>
      decisionSchema.safeParse(decision).error?.issues[0]!.message;
    expect(problems({ kind: 'finger', at: { note: 'x' }, value: 5 })).toBeUndefined();
    expect(problems({ kind: 'finger', at: WHOLE, value: 5 })).toBe('Finger can’t be set for a version.');
    expect(problems({ kind: 'wish', at: WHOLE, value: 5 })).toBe('There is no choice called wish.');
    expect(problems({ kind: 'texture', at: WHOLE, value: 'thunder' })).toContain('Left hand: ');
    expect(problems({ kind: 'finger', at: { note: 'x', measure: 'm1' }, value: 5 })).toBeDefined();
  });
  it('has a sentence in every kind, and the narrowest decision holds', () => {
    for (const kind of allKinds()) expect(kindOf(kind.id)).toBe(kind);
    expect(decisionText({ kind: 'finger', at: { note: 'x' }, value: 3 })).toBe('finger 3');
    const all: Decision[] = [
      { kind: 'texture', at: WHOLE, value: 'held-root' },
      { kind: 'texture', at: sectionAnchor(before, 1), value: 'block-chord' },
      { kind: 'texture', at: { measure: 'm5' }, value: 'pulse' },
      { kind: 'texture', at: { range: ['m6', 'm9'] }, value: 'octaves' },
    ];
    expect(valuesIn('texture', all, before)).toEqual([
      ...Array(4).fill('held-root'),
      'block-chord',
      'pulse',
      ...Array(4).fill('octaves'),
      ...Array(2).fill('held-root'),
    ]);
  });
  it('says where it is', () => {
    const version = realise(song, DEFAULT_RECIPE, []);
    expect(placeText({ note: 'm2s1n1' }, version)).toBe('measure 3, right hand, D5');
    expect(placeText({ measure: 'm4' }, version)).toBe('measure 5');
    expect(placeText({ range: ['m2', 'm4'] }, version)).toBe('measures 3 to 5');
    expect(placeText(WHOLE, version)).toBe('the whole version');
    expect(placeText({ note: 'gone' }, version)).toBe('note gone');
  });
});

describe('what is decided for a section', () => {
  const holdsIn = (decision: Decision, now: Layout): (string | undefined)[] =>
    now.sections.map(({ from }) => valuesIn('counting', [decision], now)[from]);
  it('goes with its section when the boundary moves a little, either way', () => {
    expect(holdsIn(inSection(1), layout(0, 5, 8))).toEqual([undefined, 'takadimi', undefined]);
    expect(holdsIn(inSection(1), layout(0, 2, 8))).toEqual([undefined, 'takadimi', undefined]);
    expect(holdsIn(inSection(1), layout(0, 4, 10))).toEqual([undefined, 'takadimi', undefined]);
  });
  it('stays in both halves of a section that is cut, and waits, shown, in one that swallowed it', () => {
    expect(holdsIn(inSection(1), layout(0, 4, 6, 8))).toEqual([undefined, 'takadimi', 'takadimi', undefined]);
    expect(sectionsHeld(['m4', 'm7'], layout(0))).toEqual([]);
    const whole = realise({ ...song, sectionStarts: [{ measure: 0 }] }, DEFAULT_RECIPE, [inSection(1)]);
    expect(whole.parked).toMatchObject([{ why: 'its measures are now the smaller part of another section' }]);
  });
  it('is found again for the section as it is now', () => {
    const moved = layout(0, 5, 8);
    expect(sectionDecision([inSection(1)], 'counting', moved, 1)?.value).toBe('takadimi');
    expect(sectionDecision([inSection(1)], 'counting', moved, 0)).toBeUndefined();
  });
  it('law: wherever boundaries go, it either holds somewhere or is parked', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 11 }), { maxLength: 6 }),
        fc.constantFrom(0, 1, 2),
        (cuts, index) => {
          const starts = [0, ...cuts.sort((a, b) => a - b)];
          const moved = { ...song, sectionStarts: starts.map((measure) => ({ measure })) };
          const decision = inSection(index);
          const version = realise(moved, DEFAULT_RECIPE, [decision]);
          const now = { measures: version.score.measures, sections: version.form.sections };
          const holds = valuesIn('counting', [decision], now).some((value) => value !== undefined);
          expect(holds).toBe(version.parked.length === 0);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('anchors name the source', () => {
  const decisions: Decision[] = [
    { kind: 'texture', at: { measure: 'm2' }, value: 'root-fifth' },
    { kind: 'pedal', at: { measure: 'm3' }, value: 'long' },
    { kind: 'finger', at: { note: 'Lm2-0-bass' }, value: 2 },
  ];
  it('so an introduction in front, another level or key carry everything along', () => {
    const sung = { ...DEFAULT_RECIPE, style: 'sing-along' as const };
    for (const recipe of [
      { ...DEFAULT_RECIPE, level: 3 },
      { ...DEFAULT_RECIPE, level: 3, key: 'A' },
      { ...sung, introduction: 2 as const },
      { ...sung, introduction: 4 as const },
    ]) {
      const version = realise(song, recipe, decisions);
      expect(version.parked).toEqual([]);
      const measure = version.score.measures.find((m) => m.id === 'm2')!;
      const bass = version.score.parts[0]!.notes.find((n) => n.id === 'Lm2-0-bass')!;
      expect(bass.onset).toBe(measure.start);
      expect(version.fingers[bass.id]).toEqual({ finger: 2, decided: true });
    }
  });
  it('and what was saved by places of the version is read once more', () => {
    const older = {
      ...DEFAULT_RECIPE,
      style: 'sing-along',
      introduction: 2,
      texture: 'held-root',
      tune: null,
      rhythm: 'beats',
      counting: 'numbers',
      pedal: 'none',
      sections: [{ measure: 2, counting: 'pulses' }],
    };
    const document = fromOlder(song, older, [
      { kind: 'finger', note: 'L4-0-bass', finger: 2 },
      { kind: 'hand', note: 'm1s1n0', hand: 'left' },
      { kind: 'count', measure: 5, words: 'a b' },
      { kind: 'pedal', measure: 1, style: 'long' },
      { kind: 'texture', measure: 7, texture: 'pulse' },
    ]);
    expect(listed(document).map((d) => [d.kind, anchorText(d.at), d.value])).toEqual([
      ['texture', '*', 'held-root'],
      ['rhythm', '*', 'beats'],
      ['pedal', '*', 'none'],
      ['counting', expect.stringMatching(/^m0\.\./), 'pulses'],
      ['finger', 'Lm2-0-bass', 2],
      ['hand', 'm1s1n0', 'left'],
      ['count', 'm3', 'a b'],
      ['pedal', 'i1', 'long'],
      ['texture', 'm5', 'pulse'],
    ]);
    expect(documentSchema.parse(JSON.parse(JSON.stringify(document)))).toEqual(document);
  });
  it('a document keeps each decision by what it is about', () => {
    const document = documentOf(DEFAULT_RECIPE, decisions);
    expect(Object.keys(document.decisions)).toEqual(decisions.map(subjectOf));
  });
});

describe('the stages run only for what they have not seen', () => {
  const run = (decisions: readonly Decision[], level = 3): string[] =>
    stagesRun(() => realise(song, { ...DEFAULT_RECIPE, level }, decisions, LEVELS));
  it('all of them at first, none for the same again', () => {
    forgetStages();
    expect(run([])).toEqual(
      expect.arrayContaining(['analyse', 'transpose', 'arrange', 'hands', 'fingers', 'counts', 'pedal']),
    );
    expect(run([])).toEqual([]);
  });
  it('a finger runs the fingers of its hand and what is written from them, and nothing before', () => {
    run([]);
    const stages = run([{ kind: 'finger', at: { note: 'm5s1n0' }, value: 5 }]);
    expect(stages).toEqual(['fingers', 'write', 'positions']);
  });
  it('a texture of one measure analyses nothing', () => {
    run([]);
    const stages = run([{ kind: 'texture', at: { measure: 'm5' }, value: 'root-fifth' }]);
    expect(stages).toContain('arrange');
    for (const stage of ['analyse', 'introduce', 'transpose']) expect(stages).not.toContain(stage);
  });
  it('words to count run no stage but writing; a pedal neither notes nor fingers', () => {
    run([]);
    expect(run([{ kind: 'count', at: { measure: 'm1' }, value: 'one two three (four)' }])).toEqual(['write']);
    const stages = run([{ kind: 'pedal', at: { measure: 'm1' }, value: 'none' }]);
    for (const stage of ['arrange', 'hands', 'fingers', 'counts']) expect(stages).not.toContain(stage);
  });
});

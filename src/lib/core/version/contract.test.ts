/**
 * Versions read back from what is written of them, and held against the table of the musical rules by a reader that knows
 * nothing of the arranger or of check.ts.
 */
import fc from 'fast-check';
import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { shareOf } from '../arrange/account';
import { TEXTURE_IDS } from '../arrange/textures';
import { scoreOfWhole } from '../difficulty/level';
import { readMusicXml } from '../io/musicxml/read';
import { writeMusicXml } from '../io/musicxml/write';
import { REACH_SEMITONES } from '../hands/register';
import { toMidi } from '../theory/pitch';
import { soundingNotes } from '../score/query';
import type { Score } from '../score/score';
import { anyScore } from '../test/randomScores';
import { realise } from './realise';
import { DEFAULT_RECIPE, type Recipe } from './recipe';

const LIMITS = {
  1: { right: 1, left: 1, span: 99, simple: 4, compound: 8, tuplets: 'none' },
  2: { right: 1, left: 2, span: 7, simple: 8, compound: 8, tuplets: 'none' },
  3: { right: 2, left: 3, span: 9, simple: 8, compound: 8, tuplets: '3:2' },
  4: { right: 3, left: 3, span: 12, simple: 16, compound: 16, tuplets: '3:2' },
  5: { right: 4, left: 4, span: 99, simple: 16, compound: 16, tuplets: 'any' },
} as const;

const TYPES: Readonly<Record<string, number>> = {
  whole: 1,
  half: 2,
  quarter: 4,
  eighth: 8,
  '16th': 16,
  '32nd': 32,
  '64th': 64,
};

/** Written values and tuplets, straight from the text of the file. */
const written = (xml: string): { type: number; tuplet: string }[] =>
  [...xml.matchAll(/<note[ >][\s\S]*?<\/note>/g)]
    .map(([note]) => note)
    .filter((note) => !/<rest|<grace/.test(note))
    .map((note) => {
      const type = /<type>([^<]+)</.exec(note)?.[1];
      const actual = /<actual-notes>(\d+)</.exec(note)?.[1];
      const normal = /<normal-notes>(\d+)</.exec(note)?.[1];
      return { type: type ? (TYPES[type] ?? 128) : 1, tuplet: actual ? `${actual}:${normal}` : '' };
    });

/** Keys down in one hand at each onset, and whether the left hand stays below the right. */
function hands(score: Score): { most: Record<1 | 2, number>; span: Record<1 | 2, number>; apart: boolean } {
  const notes = soundingNotes(score.parts[0]!.notes);
  const most = { 1: 0, 2: 0 };
  const span = { 1: 0, 2: 0 };
  let apart = true;
  for (const { onset } of notes) {
    const down = notes.filter((n) => n.onset <= onset && onset < n.onset + n.duration);
    for (const staff of [1, 2] as const) {
      const keys = down.filter((n) => n.staff === staff).map((n) => n.midi);
      if (keys.length === 0) continue;
      most[staff] = Math.max(most[staff], new Set(keys).size);
      span[staff] = Math.max(span[staff], Math.max(...keys) - Math.min(...keys));
    }
    const right = down.filter((n) => n.staff === 1).map((n) => n.midi);
    const left = down.filter((n) => n.staff === 2).map((n) => n.midi);
    if (right.length > 0 && left.length > 0 && Math.max(...left) >= Math.min(...right)) apart = false;
  }
  return { most, span, apart };
}

const recipe = (change: Partial<Recipe>): Recipe => ({ ...DEFAULT_RECIPE, ...change });
const level = fc.constantFrom(1, 2, 3, 4, 5) as fc.Arbitrary<keyof typeof LIMITS>;
const reach = fc.constantFrom(7, 8, 9, 10) as fc.Arbitrary<Recipe['reach']['left']>;

describe('any version of any source, read back', () => {
  it('law: keeps its contract, fills its measures, fingers every note, keeps every note on the beat', () => {
    fc.assert(
      fc.property(anyScore, level, reach, (source, at, hand) => {
        const made = realise(source, recipe({ level: at, reach: { right: hand, left: hand } }), []);
        const xml = writeMusicXml(made.score);
        const score = readMusicXml(xml).score;
        const limits = LIMITS[at];
        // The metre of sixteenths and the odd quavers of 7/8 are written in what they are made of.
        const { beatType, beats } = source.measures[0]!.time;
        const shortest =
          beatType === 8 || (beats % 3 === 0 && beatType > 8) ? limits.compound : limits.simple;
        for (const { type, tuplet } of written(xml)) {
          expect(type).toBeLessThanOrEqual(shortest);
          if (limits.tuplets !== 'any') expect(['', limits.tuplets]).toContain(tuplet);
        }
        const { most, span, apart } = hands(score);
        expect(most[1]).toBeLessThanOrEqual(limits.right);
        expect(most[2]).toBeLessThanOrEqual(limits.left);
        for (const staff of [1, 2] as const)
          expect(span[staff]).toBeLessThanOrEqual(Math.min(limits.span, REACH_SEMITONES[hand]));
        expect(apart).toBe(true);
        expect(score.measures.map((m) => m.length)).toEqual(source.measures.map((m) => m.length));
        for (const note of score.parts[0]!.notes) {
          if (note.tie !== 'stop' && note.tie !== 'both') expect(note.finger).toBeGreaterThan(0);
          expect(toMidi(note.pitch)).toBeGreaterThanOrEqual(36);
          expect(toMidi(note.pitch)).toBeLessThanOrEqual(96);
        }
        expect(shareOf(made.account.fidelity.beatNotes)).toBe(1);
        // Every breach of a limit that is left is a leap of the melody itself, and is said.
        expect(new Set(made.violations.map((v) => v.limit)).size).toBeLessThanOrEqual(1);
      }),
      { numRuns: 90 },
    );
  });

  it('law: whatever texture is asked for at whatever level, the contract is kept', () => {
    fc.assert(
      fc.property(anyScore, level, fc.constantFrom(...TEXTURE_IDS), (source, at, texture) => {
        const made = realise(source, recipe({ level: at }), [
          { kind: 'texture', at: { version: true }, value: texture },
        ]);
        for (const { limit } of made.violations) expect(limit).toBe('leap in semitones');
      }),
      { numRuns: 60 },
    );
  });

  it('law: as written, every note stays, in two hands that reach it', () => {
    fc.assert(
      fc.property(anyScore, reach, (source, hand) => {
        const made = realise(
          source,
          recipe({ level: 6, keyboard: 88, reach: { right: hand, left: hand } }),
          [],
        );
        const { span } = hands(readMusicXml(writeMusicXml(made.score)).score);
        const rolled = made.score.parts[0]!.notes.some((n) => n.arpeggio);
        if (!rolled)
          for (const staff of [1, 2] as const) expect(span[staff]).toBeLessThanOrEqual(REACH_SEMITONES[hand]);
        expect(made.account.melodyLeftOut).toBe(0);
      }),
      { numRuns: 40 },
    );
  });
});

describe('the demo pieces', () => {
  const pieces = readdirSync('demo-studio').filter((f) => f.endsWith('.musicxml'));
  it('are six', () => expect(pieces).toHaveLength(6));
  it.each(pieces)('%s: faithful at every level, and never easier from one to the next', (file) => {
    const source = readMusicXml(readFileSync(`demo-studio/${file}`, 'utf8')).score;
    const versions = [1, 2, 3, 4, 5, 6].map((at) => realise(source, recipe({ level: at }), []));
    for (const { account, violations } of versions) {
      expect(shareOf(account.fidelity.beatNotes)).toBeGreaterThanOrEqual(0.95);
      expect(shareOf(account.fidelity.basses)).toBeGreaterThanOrEqual(0.98);
      expect(shareOf(account.fidelity.contour)).toBe(1);
      for (const { limit } of violations) expect(limit).toBe('leap in semitones');
    }
    const hard = versions.map((v) => scoreOfWhole(v.difficulty));
    expect(hard).toEqual([...hard].sort((a, b) => a - b));
  });
});

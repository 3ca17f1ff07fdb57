import { describe, expect, it } from 'vitest';
import { LEVELS } from '../../arrange/levels';
import { accountText } from '../../arrange/account';
import { soundingNotes } from '../../score/query';
import type { Part, Score } from '../../score/score';
import { scoreFrom } from '../../test/shorthand';
import { realise } from '../../version/realise';
import { DEFAULT_RECIPE } from '../../version/recipe';
import { proposedParts, withParts } from '../parts';

const time = { beats: 4, beatType: 4 };
const player = (id: string, right: string, left: string): Score => {
  const score = scoreFrom({ key: 'C', time, right, left });
  const own = (p: Part): Part => ({
    ...p,
    id,
    name: id,
    notes: p.notes.map((n) => ({ ...n, id: id + n.id })),
  });
  return { ...score, parts: score.parts.map(own) };
};
const primo = player(
  'Primo',
  '[C6 E6]:2 D6:2 | E6:4 | G5:1 A5:1 B5:1 C6:1 | C6:4',
  '[E5 G5]:2 [F5 G5]:2 | [G5 C5]:4 | [E5 C5]:4 | [E5 G5]:4',
);
const secondo = player(
  'Secondo',
  '[E4 G4]:4 | [G4 C5]:4 | [F4 G4]:4 | [E4 C4]:4',
  'C3:2 G2:2 | C3:4 | G2:4 | [C2 C3]:4',
);
const duet: Score = { ...primo, parts: [...primo.parts, ...secondo.parts] };
const keyboard = () => withParts(duet).parts.find((p) => p.role === 'keyboard')!;
const at = (part: Part, onset: number, staff: number) =>
  soundingNotes(part.notes.filter((n) => n.staff === staff))
    .filter((n) => n.onset === onset)
    .map((n) => n.midi);

describe('two players in two hands', () => {
  it('are both proposed, and one alone by choice', () => {
    expect(proposedParts(duet).parts).toEqual({ Primo: 'piano', Secondo: 'piano' });
    const one = withParts(duet, { parts: { Primo: 'other', Secondo: 'piano' }, tune: [] });
    expect(one.parts.find((p) => p.role === 'keyboard')!.notes).toEqual(secondo.parts[0]!.notes);
  });
  it('keep the outer lines and the harmony, within what hands hold', () => {
    const part = keyboard();
    const onsets = [...new Set(soundingNotes(part.notes).map((n) => n.onset))];
    for (const onset of onsets)
      for (const staff of [1, 2]) {
        const keys = at(part, onset, staff);
        if (keys.length > 1) expect(Math.max(...keys) - Math.min(...keys)).toBeLessThanOrEqual(12);
        expect(keys.length).toBeLessThanOrEqual(4);
        expect(new Set(keys).size).toBe(keys.length);
      }
    const top = soundingNotes(part.notes.filter((n) => n.staff === 1));
    expect(Math.max(...at(part, 0, 1))).toBe(88);
    expect(Math.min(...at(part, 0, 2))).toBe(48);
    expect(top.map((n) => n.midi)).toEqual(expect.arrayContaining([86, 79, 81, 83, 84]));
    const last = duet.measures.at(-1)!.start;
    const heard = new Set([...at(part, last, 1), ...at(part, last, 2)].map((m) => m % 12));
    expect(heard).toEqual(new Set([0, 4, 7]));
  });
  it('strike a key together once', () => {
    const same = player('Secondo', 'E6:4 | r:4 | r:4 | r:4', 'C3:4 | C3:4 | C3:4 | C3:4');
    const part = withParts({ ...duet, parts: [...primo.parts, ...same.parts] }).parts.find(
      (p) => p.role === 'keyboard',
    )!;
    expect(at(part, 0, 1).filter((m) => m === 88)).toHaveLength(1);
  });
  it.each([2, 6])('say so in the account of level %i, and what it left out of both', (level) => {
    const version = realise(withParts(duet), { ...DEFAULT_RECIPE, level }, [], LEVELS);
    const text = accountText(version.account, [], false);
    expect(text).toContain('2 players in two hands');
    expect(text).not.toContain('every note kept');
    const all = duet.parts.flatMap((p) => soundingNotes(p.notes)).length;
    expect(version.account.sourceNotes).toBe(all);
    expect(version.account.leftOut).toBeGreaterThan(0);
  });
  it('count everybody of a band', () => {
    const singles = ['A', 'B', 'C'].map(
      (id, i) => scoreFrom({ key: 'C', time, right: i === 0 ? 'G4:1 A4:1 B4:2' : 'C3:4' }).parts[0]!,
    );
    const band: Score = {
      ...duet,
      measures: duet.measures.slice(0, 1),
      parts: singles.map((p, i) => ({
        ...p,
        id: `B${i}`,
        notes: p.notes.map((n) => ({ ...n, id: `${i}${n.id}` })),
      })),
    };
    const version = realise(withParts(band), { ...DEFAULT_RECIPE, level: 2 }, [], LEVELS);
    expect(version.account).toMatchObject({ players: 3, sourceNotes: 5 });
  });
});

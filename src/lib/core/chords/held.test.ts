import { describe, expect, it } from 'vitest';
import { realise } from '../version/realise';
import { DEFAULT_RECIPE } from '../version/recipe';
import { scoreFrom, type Line } from '../test/shorthand';
import { toMidi, pitchName } from '../theory/pitch';
import { heldChords, isChordal, movesText, namesOf, strokesText, type HeldChord } from './held';

const four = { beats: 4, beatType: 4 };
const line: Line = {
  key: 'C',
  time: four,
  right: '[E4 G4 C5]:2 [E4 G4 C5]:2 | [F4 A4 C5]:4 | [D4 G4 B4]:1 [D4 G4 B4]:1 [D4 G4 B4]:2 | [E4 G4 C5]:4',
  left: 'C3:4 | F3:2 C3:2 | G2:4 | C3:4',
  chords: 'C | F | G | C',
};
/** The source as it stands, at the level that leaves it alone. */
const version = realise(scoreFrom(line), { ...DEFAULT_RECIPE, level: 6 }, []);
const whole = { from: 0, to: 3 };
const chords = heldChords(version, whole);
const keysOf = (chord: HeldChord, hand: 'right' | 'left'): string =>
  chord.keys
    .filter((k) => k.hand === hand)
    .map((k) => pitchName(k.pitch))
    .join(' ');

describe('the chords of a version as its hands hold them', () => {
  it('are one after another, each with the keys of both hands', () => {
    expect(chords.map((c) => c.symbol)).toEqual(['C', 'F', 'G', 'C']);
    expect(chords.map((c) => c.measure)).toEqual([0, 1, 2, 3]);
    expect(keysOf(chords[0]!, 'right')).toBe('E4 G4 C5');
    expect(keysOf(chords[1]!, 'left')).toBe('C3 F3');
  });
  it('have a finger on every key that is struck', () => {
    for (const chord of chords)
      for (const key of chord.keys)
        expect(key.finger, `${chord.symbol} ${pitchName(key.pitch)}`).toBeGreaterThan(0);
  });
  it('say what stays and where the others go', () => {
    expect(movesText(undefined, chords[0]!, 'right')).toBe('begins here');
    expect(movesText(chords[0], chords[1]!, 'right')).toBe('C stays, E up to F, G up to A');
    expect(movesText(chords[2], chords[3]!, 'right')).toBe('G stays, D up to E, B up to C');
  });
  it('say that all stay where only the other hand moves', () => {
    const [c, a] = heldChords(
      realise(
        scoreFrom({ ...line, right: '[E4 G4 C5]:4 | [E4 G4 C5]:4', left: 'C3:4 | A2:4', chords: 'C | Am7' }),
        { ...DEFAULT_RECIPE, level: 6 },
        [],
      ),
      { from: 0, to: 1 },
    );
    expect(movesText(c, a!, 'right')).toBe('all stay');
    expect(movesText(c, a!, 'left')).toBe('C down to A');
  });
  it('say that all go the same way where they do', () => {
    const [c, d] = heldChords(
      realise(
        scoreFrom({ ...line, right: '[C4 E4 G4]:4 | [D4 F4 A4]:4', left: 'C3:4 | D3:4', chords: 'C | Dm' }),
        { ...DEFAULT_RECIPE, level: 6 },
        [],
      ),
      { from: 0, to: 1 },
    );
    expect(movesText(c, d!, 'right')).toBe('all go up a step');
    expect(movesText(c, d!, 'left')).toBe('C up to D');
  });
  it('are struck as often as the busier hand strikes', () => {
    expect(chords.map(strokesText)).toEqual([
      'played 2 times',
      'played 2 times',
      'played 3 times',
      'played once',
    ]);
  });
  it('are struck by the left hand alone where another version lends its right', () => {
    const tune = realise(
      scoreFrom({ ...line, right: 'C5:1 D5:1 E5:1 F5:1 | F5:4 | D5:4 | C5:4' }),
      { ...DEFAULT_RECIPE, level: 6 },
      [],
    );
    const lent = heldChords(tune, whole, version);
    expect(lent.map((c) => c.strokes)).toEqual(chords.map((c) => ({ right: 0, left: c.strokes.left })));
    expect(lent.map((c) => keysOf(c, 'right'))).toEqual(chords.map((c) => keysOf(c, 'right')));
  });
  it('that no hand plays yet are none: a pickup may stand under a chord', () => {
    const picked = realise(
      scoreFrom({
        ...line,
        pickup: 1,
        right: 'r:1 | C5:4 | C5:4',
        left: 'r:1 | C3:4 | C3:4',
        chords: 'G7 | C | C',
      }),
      { ...DEFAULT_RECIPE, level: 6 },
      [],
    );
    const held = heldChords(picked, { from: 0, to: 2 });
    expect(held.every((c) => c.keys.length > 0)).toBe(true);
    expect(held[0]!.symbol).toBe('C');
  });
  it('have their notes named from the root up', () => {
    expect(chords.map(namesOf)).toEqual(['C E G', 'F A C', 'G B D', 'C E G']);
  });
  it('are read from the sections that are asked for alone', () => {
    expect(heldChords(version, { from: 1, to: 2 }).map((c) => c.symbol)).toEqual(['F', 'G']);
    // What is held when a stretch begins comes from no chord before it.
    expect(heldChords(version, { from: 1, to: 1 })[0]!.keys.some((k) => k.stays)).toBe(false);
  });
  it('mark as staying exactly what the same hand had before', () => {
    chords.slice(1).forEach((chord, i) => {
      const before = new Set(chords[i]!.keys.map((k) => `${k.hand} ${toMidi(k.pitch)}`));
      for (const key of chord.keys) expect(key.stays).toBe(before.has(`${key.hand} ${toMidi(key.pitch)}`));
    });
  });
  it('tell a right hand of chords from one that has the tune', () => {
    expect(isChordal(version)).toBe(true);
    const tune = scoreFrom({ ...line, right: 'C5:1 D5:1 E5:2 | F5:4 | D5:4 | C5:4' });
    expect(isChordal(realise(tune, { ...DEFAULT_RECIPE, level: 3 }, []))).toBe(false);
  });
});

/** Every texture of the table, in its metres, as a teacher writes it. */
import { IDIOM_IDS } from '../analysis/idioms';
import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { melodyOf } from '../analysis/melody';
import { pitchName } from '../theory/pitch';
import { byOnset } from '../score/query';
import type { TimeSignature } from '../score/score';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { leftHand } from './private/leftHand';
import { levelNumbered } from './levels';
import { KEYBOARDS } from '../hands/register';
import { stretchesOf } from './private/stretches';
import { usualTextures } from './styles';
import { isForLevel, isForMetre, TEXTURE_IDS, TEXTURES, type TextureId } from './textures';

const time = (beats: number, beatType: number): TimeSignature => ({ beats, beatType });

/** The left hand of a progression under a high melody: "C3@0 E3+G3@1 …" in quarters, the ending left out. */
function played(
  texture: TextureId,
  metre: TimeSignature,
  chords: string,
  { level = 5, reach = 14, melody = 'C6' } = {},
): string {
  const bars = chords.split('|').length + 1;
  const quarters = (metre.beats * 4) / metre.beatType;
  const score = scoreFrom({
    key: 'C',
    time: metre,
    right: Array.from({ length: bars }, () => `${melody}:${quarters}`).join(' | '),
    chords: `${chords} | C`,
  });
  const contract = levelNumbered(level);
  const { notes } = leftHand(
    score.measures,
    stretchesOf(score.measures, chordsOf(score), contract),
    melodyOf(score),
    {
      contract,
      texturesIn: () => [texture],
      freshStarts: new Set([0]),
      reach,
      keyboard: KEYBOARDS[88],
    },
  );
  return byOnset(notes.filter((n) => n.onset < score.measures.at(-1)!.start))
    .map((g) => `${g.notes.map((n) => pitchName(n.pitch)).join('+')}@${g.onset / Q}`)
    .join(' ');
}

describe('textures as they are played', () => {
  it.each([
    ['held-root', time(4, 4), 'C', 'C3@0'],
    ['root-fifth', time(3, 4), 'C', 'C3+G3@0'],
    ['root-then-fifth', time(4, 4), 'C', 'C3@0 G3@2'],
    ['root-then-fifth', time(6, 8), 'C', 'C3@0 G3@1.5'],
    ['block-chord', time(4, 4), 'C | F', 'C3+E3+G3@0 C3+F3+A3@4'],
    ['waltz-bass', time(3, 4), 'C', 'C2+C3@0 E3+G3@1 E3+G3@2'],
    ['pulse', time(4, 4), 'C', 'C3+E3+G3@0 C3+E3+G3@1 C3+E3+G3@2 C3+E3+G3@3'],
    ['root-pulse-eighths', time(2, 4), 'C', 'C3@0 C3@0.5 C3@1 C3@1.5'],
    ['broken-chord', time(4, 4), 'C', 'C3@0 G3@0.5 E3@1 G3@1.5 C3@2 G3@2.5 E3@3 G3@3.5'],
    ['broken-chord-rising', time(2, 4), 'C', 'C3@0 E3@0.5 G3@1 E3@1.5'],
    ['broken-chord', time(6, 8), 'C', 'C3@0 E3@0.5 G3@1 C3@1.5 E3@2 G3@2.5'],
    ['broken-chord-rising', time(6, 8), 'C', 'C3@0 G3@0.5 E3@1 C3@1.5 G3@2 E3@2.5'],
    ['rocking', time(6, 8), 'C', 'C3@0 E3+G3@0.5 E3+G3@1 C3@1.5 E3+G3@2 E3+G3@2.5'],
    ['octaves', time(4, 4), 'C', 'C2+C3@0'],
    ['octaves-in-turn', time(2, 4), 'C', 'C2@0 C3@1'],
    ['open-tenth', time(2, 4), 'C', 'C3@0 G3@0.5 E4@1 G3@1.5'],
    ['pushed-bass', time(4, 4), 'C', 'C3@0 G3@1.5 G3@2 C3@3.5'],
    ['tango-bass', time(4, 4), 'C', 'C3@0 G3@1.5 E3+G3@2 E3+G3@3'],
    ['tango-bass', time(2, 4), 'C', 'C3@0 G3@0.75 E3+G3@1 E3+G3@1.5'],
    ['walking-bass', time(4, 4), 'C', 'C3@0 E3@1 G3@2 D3@3'],
  ] as const)('%s in %o', (texture, metre, chords, expected) => {
    expect(played(texture, metre, chords)).toBe(expected);
  });

  it('swing bass: low notes on strong beats, the fifth on the second if the chord stays', () => {
    const beats = played('swing-bass', time(4, 4), 'C', { level: 4 }).split(' ');
    expect(beats.map((b) => b.split('@')[0]!.includes('+'))).toEqual([false, true, false, true]);
    expect(beats[0]).toMatch(/^C[23]@0$/);
    expect(beats[2]).toMatch(/^G[23]@2$/);
  });
  it('bass line: roots joined by step where there is a beat to spare', () => {
    expect(played('bass-line', time(4, 4), 'C | F', { level: 4 })).toMatch(/^C3@0 D3@2 E3@3 F[23]@4/);
  });
  it('low octave, then the chord around middle C', () => {
    const [low, chord] = played('low-octave-chord', time(4, 4), 'F').split(' ');
    expect(low).toBe('F2+F3@0');
    expect(chord).toMatch(/^[AC]/);
  });
  it('a tenth together only for a hand that reaches it', () => {
    expect(played('tenth-together', time(4, 4), 'C', { reach: 16 })).toBe('C3+E4@0');
    expect(played('tenth-together', time(4, 4), 'C', { reach: 12 })).toBe('C3+G3@0');
  });
  it('chords change inside a measure, and a slash bass stays lowest', () => {
    expect(played('root-fifth', time(4, 4), 'C G/B')).toMatch(/^C3\+G3@0 B2\+/);
    expect(played('broken-chord', time(4, 4), 'C/E').split(' ')[0]).toMatch(/^E/);
  });
  it('a texture of another time signature or a higher level gives way', () => {
    expect(played('waltz-bass', time(4, 4), 'C', { level: 3 })).toBe('C3+G3@0');
    expect(played('octaves', time(4, 4), 'C', { level: 3 })).toBe('C3+G3@0');
  });
  it('under a melody that comes down the hand goes lower, or lets go', () => {
    for (const melody of ['G3', 'C3', 'E2']) {
      const first = played('root-fifth', time(4, 4), 'C', { melody }).split('@')[0]!;
      const lowest = played('held-root', time(4, 4), 'C', { melody });
      expect(first === '' || lowest.length > 0).toBe(true);
    }
    expect(played('held-root', time(4, 4), 'C', { melody: 'C3' })).toBe('C2@0');
  });
});

describe('what a level begins with', () => {
  it.each([1, 2, 3, 4, 5, 6])(
    'level %i has at least one texture in every time signature, all of its own',
    (level) => {
      for (const metre of [time(4, 4), time(3, 4), time(6, 8), time(5, 8), time(2, 2)])
        for (const idiom of IDIOM_IDS) {
          const usual = usualTextures(level, metre, idiom);
          expect(usual.length).toBeGreaterThan(0);
          for (const id of usual) expect(isForLevel(id, level, metre)).toBe(true);
        }
    },
  );
  it('never block chords, whose lowest note is not the bass', () => {
    for (const level of [1, 2, 3, 4, 5, 6])
      for (const idiom of IDIOM_IDS)
        expect(usualTextures(level, time(4, 4), idiom)).not.toContain('block-chord');
  });
  it.each([
    ['march', time(2, 4), 4, 'swing-bass'],
    ['rag', time(4, 4), 5, 'swing-bass'],
    ['dance', time(2, 2), 4, 'swing-bass'],
    ['swing', time(4, 4), 4, 'swing-bass'],
    ['waltz', time(3, 4), 5, 'waltz-bass'],
    ['plain', time(3, 4), 5, 'low-octave-chord'],
    ['ballad', time(4, 4), 4, 'broken-chord'],
    ['hymn', time(4, 4), 4, 'root-fifth'],
    ['march', time(4, 4), 3, 'swing-bass'],
    ['dance', time(4, 4), 3, 'root-then-fifth'],
    ['rag', time(2, 4), 3, 'swing-bass'],
    ['walking', time(4, 4), 3, 'root-then-fifth'],
    ['walking', time(4, 4), 4, 'walking-bass'],
    ['walking', time(4, 4), 5, 'walking-octaves'],
    ['bossa', time(4, 4), 3, 'pushed-bass'],
    ['tango', time(4, 4), 3, 'tango-bass'],
    ['tango', time(3, 4), 3, 'waltz-bass'],
    ['lullaby', time(6, 8), 3, 'rocking'],
    ['lullaby', time(3, 4), 3, 'broken-chord'],
  ] as const)('a %s begins with its own', (idiom, metre, level, texture) => {
    expect(usualTextures(level, metre, idiom)[0]).toBe(texture);
  });
  it('each texture is for the metres of the table', () => {
    const inMetre = (metre: TimeSignature) => TEXTURE_IDS.filter((id) => !isForMetre(id, metre));
    expect(inMetre(time(4, 4))).toEqual(['waltz-bass', 'rocking']);
    expect(inMetre(time(3, 4))).toEqual(['rocking', 'swing-bass', 'pushed-bass', 'tango-bass']);
    expect(inMetre(time(6, 8)).every((id) => TEXTURES[id].metres !== 'compound')).toBe(true);
  });
});

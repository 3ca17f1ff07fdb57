/**
 * What becomes of a style at each level, as the musical rules list it: from which level the source's own left hand is kept, how many
 * strokes to a beat of it are left, and what a left hand has where the source has none. Rows of one table; nothing of a style is said elsewhere.
 */
import type { Idiom } from '../analysis/idioms';
import { beatLength, isCompound, measureLength } from '../score/metre';
import type { TimeSignature } from '../score/score';
import type { LevelContract } from './levels';
import type { TextureId } from './textures';

/** The levels at which a style has its own form; the last is that of all above it. */
type Forms<T> = readonly [atThree: T, atFour: T, atFive: T];
type Textures = Forms<readonly TextureId[]>;

/** What the beats of a measure ask of a left hand. */
type Beats = 'compound' | 'three' | 'even' | 'uneven';

interface StyleFacts {
  /** From this level on the source's own left hand is kept and thinned. */
  readonly ownFrom: 1 | 3 | 4;
  /** Strokes to a beat that are left of it; null: as many as the level has. */
  readonly strokes: Forms<number | null>;
  /** Left hands for a source that has none, the preferred first; where there are none, those of plain music. */
  readonly textures: Readonly<Partial<Record<Beats, Textures>>>;
}

const always = (...textures: TextureId[]): Textures => [textures, textures, textures];

const ROCKING: Textures = [['rocking'], ['rocking'], ['open-tenth', 'broken-chord']];
const BROKEN: Textures = [['broken-chord'], ['broken-chord'], ['open-tenth', 'broken-chord']];
const WALKING: Textures = [['root-then-fifth'], ['walking-bass'], ['walking-octaves', 'walking-bass']];
const VOICES: Textures = [['root-fifth'], ['root-fifth'], ['tenth-together', 'root-fifth']];

/** What holds where a style says nothing else. */
const PLAIN: StyleFacts = { ownFrom: 4, strokes: [null, null, null], textures: {} };
/** The same for a style that is in the left hand of its source. */
const OWN: StyleFacts = { ...PLAIN, ownFrom: 3 };

const PLAIN_TEXTURES: Readonly<Record<Beats, Textures>> = {
  compound: [[], ['rocking', 'broken-chord'], ['open-tenth', 'broken-chord']],
  three: [['waltz-bass'], ['waltz-bass'], ['low-octave-chord', 'waltz-bass']],
  even: [['broken-chord'], ['broken-chord'], ['open-tenth', 'low-octave-chord']],
  uneven: [['broken-chord'], ['broken-chord'], ['open-tenth', 'low-octave-chord']],
};

const STYLES: Readonly<Record<Idiom, StyleFacts>> = {
  waltz: { ...PLAIN, textures: { three: always('waltz-bass') } },
  march: { ...PLAIN, textures: { even: always('swing-bass') } },
  rag: { ...PLAIN, textures: { even: always('swing-bass') } },
  swing: {
    ...PLAIN,
    textures: { even: [['broken-chord'], ['swing-bass', 'bass-line'], ['swing-bass', 'bass-line']] },
  },
  walking: {
    ...OWN,
    // Half notes, quarters, eighths.
    strokes: [0.5, 1, 2],
    textures: {
      compound: [['root-then-fifth'], ['walking-bass'], ['walking-bass']],
      three: WALKING,
      even: WALKING,
      uneven: WALKING,
    },
  },
  bossa: { ...OWN, textures: { even: always('pushed-bass'), compound: ROCKING } },
  tango: { ...OWN, textures: { even: always('tango-bass'), compound: ROCKING } },
  hymn: { ...PLAIN, textures: { three: VOICES, even: VOICES, uneven: VOICES } },
  voices: OWN,
  study: OWN,
  prelude: { ...OWN, strokes: [1, 2, 4] },
  ballad: {
    ...PLAIN,
    textures: { compound: [['rocking'], ['rocking', 'broken-chord'], ['open-tenth', 'broken-chord']] },
  },
  lullaby: { ...OWN, textures: { compound: ROCKING, three: BROKEN, even: BROKEN, uneven: BROKEN } },
  // A riff is the piece: thinned to its strong beats it stays one from the first level on.
  riff: { ...OWN, ownFrom: 1 },
  dance: { ...PLAIN, textures: { even: [[], ['swing-bass'], ['swing-bass']] } },
  plain: PLAIN,
};

const formAt = (level: number): 0 | 1 | 2 => (level < 4 ? 0 : level < 5 ? 1 : 2);

/** Whether a level keeps the source's own left hand, thinned: by its contract, or because the style is in it. */
export const keepsOwn = ({ accompaniment, level }: LevelContract, idiom: Idiom): boolean =>
  accompaniment !== 'replaced' || level >= STYLES[idiom].ownFrom;

/** Whether a style is in the left hand of its source, from the third level on or before. */
export const isStyleOwn = (idiom: Idiom): boolean => STYLES[idiom].ownFrom <= 3;

/** Strokes to a beat that are left of the source's left hand; Infinity for as many as the level has. */
export const strokesLeft = ({ level }: LevelContract, idiom: Idiom): number =>
  level >= 6 ? Infinity : (STYLES[idiom].strokes[formAt(level)] ?? Infinity);

/**
 * The textures that a level begins with in a metre, the busiest first: those of the idiom, then those of the level. All keep the bass
 * of each chord lowest: block chords in the nearest inversion do not, and are the teacher's to choose.
 */
export function usualTextures(level: number, time: TimeSignature, idiom: Idiom): readonly TextureId[] {
  if (level < 2) return ['held-root'];
  if (level < 3) return ['root-fifth', 'root-then-fifth', 'held-root'];
  const beats = beatsOf(time);
  const own = (STYLES[idiom].textures[beats] ?? PLAIN_TEXTURES[beats])[formAt(level)];
  return [...new Set([...own, 'root-then-fifth', 'root-fifth'] as const)];
}

function beatsOf(time: TimeSignature): Beats {
  if (isCompound(time)) return 'compound';
  const beats = measureLength(time) / beatLength(time);
  return beats === 3 ? 'three' : beats === 2 || beats === 4 ? 'even' : 'uneven';
}

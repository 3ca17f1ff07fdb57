/**
 * What becomes of a style at each level, as the musical rules list it: from which level the source's own left hand is kept, how many
 * strokes to a beat of it are left, and what stands for it where the source has none; and with what a level begins.
 */
import type { Idiom } from '../analysis/idioms';
import { beatLength, isCompound, measureLength } from '../score/metre';
import type { TimeSignature } from '../score/score';
import type { LevelContract } from './levels';
import { TEXTURES, type TextureId } from './textures';

/** The levels at which a style has a form of its own; the last is that of all above it. */
type Forms<T> = readonly [atThree: T, atFour: T, atFive: T];

interface StyleFacts {
  /** From this level on the source's own left hand is kept and thinned. */
  readonly ownFrom: 3 | 4;
  /** Strokes to a beat that are left of it; null: as many as the level has. */
  readonly strokes: Forms<number | null>;
  /** Left hands for a source that has none, by the beats of a measure: the preferred first. */
  readonly textures?: {
    readonly simple: Forms<readonly TextureId[]>;
    readonly compound: Forms<readonly TextureId[]>;
  };
}

const FULL: Forms<null> = [null, null, null];
/** Half notes, quarters, eighths. */
const WALKS: Forms<number> = [0.5, 1, 2];

const ROCKING: Forms<readonly TextureId[]> = [['rocking'], ['rocking'], ['open-tenth', 'broken-chord']];

export const STYLES: Readonly<Record<Idiom, StyleFacts>> = {
  waltz: { ownFrom: 4, strokes: FULL },
  march: { ownFrom: 4, strokes: FULL },
  rag: { ownFrom: 4, strokes: FULL },
  swing: { ownFrom: 4, strokes: FULL },
  walking: {
    ownFrom: 3,
    strokes: WALKS,
    textures: {
      simple: [['root-then-fifth'], ['walking-bass'], ['walking-octaves', 'walking-bass']],
      compound: [['root-then-fifth'], ['walking-bass'], ['walking-bass']],
    },
  },
  bossa: {
    ownFrom: 3,
    strokes: FULL,
    textures: {
      simple: [['pushed-bass'], ['pushed-bass'], ['pushed-bass']],
      compound: ROCKING,
    },
  },
  tango: {
    ownFrom: 3,
    strokes: FULL,
    textures: {
      simple: [['tango-bass'], ['tango-bass'], ['tango-bass']],
      compound: ROCKING,
    },
  },
  hymn: { ownFrom: 4, strokes: FULL },
  voices: { ownFrom: 3, strokes: FULL },
  study: { ownFrom: 3, strokes: FULL },
  prelude: { ownFrom: 3, strokes: [1, 2, 4] },
  ballad: { ownFrom: 4, strokes: FULL },
  lullaby: {
    ownFrom: 3,
    strokes: FULL,
    textures: {
      simple: [['broken-chord'], ['broken-chord'], ['open-tenth', 'broken-chord']],
      compound: ROCKING,
    },
  },
  riff: { ownFrom: 3, strokes: FULL },
  dance: { ownFrom: 4, strokes: FULL },
  plain: { ownFrom: 4, strokes: FULL },
};

const formAt = (level: number): 0 | 1 | 2 => (level < 4 ? 0 : level < 5 ? 1 : 2);

/** Whether a level keeps the source's own left hand, thinned: by its contract, or because the style is in it. */
export const keepsOwn = ({ accompaniment, level }: LevelContract, idiom: Idiom): boolean =>
  accompaniment !== 'replaced' || (level >= 3 && level >= STYLES[idiom].ownFrom);

/** Whether a style is in the left hand of its source, from the third level on. */
export const isStyleOwn = (idiom: Idiom): boolean => STYLES[idiom].ownFrom === 3;

/** Strokes to a beat that are left of the source's left hand; Infinity for as many as the level has. */
export const strokesLeft = ({ level }: LevelContract, idiom: Idiom): number =>
  level >= 6 ? Infinity : (STYLES[idiom].strokes[formAt(level)] ?? Infinity);

/** The left hands of a style at a level, the preferred first; undefined where it has none of its own. */
const texturesOfStyle = (
  idiom: Idiom,
  level: number,
  metre: 'simple' | 'compound',
): readonly TextureId[] | undefined =>
  level < 3 ? undefined : STYLES[idiom].textures?.[metre][formAt(level)];

/** Idioms whose left hand has low notes and chords in turn. */
const LOW_AND_CHORD: ReadonlySet<Idiom> = new Set(['march', 'rag', 'dance']);

/**
 * The textures that a level begins with in a metre, the busiest first: those of the idiom, then those of the level. All keep the bass
 * of each chord lowest: block chords in the nearest inversion do not, and are the teacher's to choose.
 */
export function usualTextures(level: number, time: TimeSignature, idiom: Idiom): readonly TextureId[] {
  if (level < 2) return ['held-root'];
  if (level < 3) return ['root-fifth', 'root-then-fifth', 'held-root'];
  const beats = measureLength(time) / beatLength(time);
  return [
    ...new Set([...ofIdiom(level, beats, isCompound(time), idiom), 'root-then-fifth', 'root-fifth'] as const),
  ];
}

function ofIdiom(level: number, beats: number, compound: boolean, idiom: Idiom): readonly TextureId[] {
  const own = texturesOfStyle(idiom, level, compound ? 'compound' : 'simple');
  const isEven = beats === 2 || beats === 4;
  if (own && (compound || isEven || !own.some((id) => TEXTURES[id].metres === 'even'))) return own;
  if (compound)
    return level < 4
      ? idiom === 'ballad'
        ? ['rocking']
        : []
      : level < 5
        ? ['rocking', 'broken-chord']
        : ['open-tenth', 'broken-chord'];
  if (idiom === 'hymn') return level < 5 ? ['root-fifth'] : ['tenth-together', 'root-fifth'];
  if (beats === 3)
    return level < 5 || idiom === 'waltz' ? ['waltz-bass'] : ['low-octave-chord', 'waltz-bass'];
  if (isEven && LOW_AND_CHORD.has(idiom)) return level < 4 && idiom === 'dance' ? [] : ['swing-bass'];
  if (level < 4) return ['broken-chord'];
  if (isEven && idiom === 'swing') return ['swing-bass', 'bass-line'];
  return level < 5 ? ['broken-chord'] : ['open-tenth', 'low-octave-chord'];
}

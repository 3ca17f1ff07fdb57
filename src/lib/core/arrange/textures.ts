/** What the left hand can play, as the musical rules list it. Facts only; patterns.ts makes strokes of them. */
import { inSentence } from '../capital';
import { isCompound, measureLength, beatLength } from '../score/metre';
import type { TimeSignature } from '../score/score';
import { isTeacherPattern, teacherPattern, type TeacherPatternText } from './teacherPattern';

interface TextureFacts {
  readonly name: string;
  readonly says: string;
  /** The first level that has it. */
  readonly from: number;
  readonly metres: 'all' | 'simple' | 'compound' | 'three' | 'even';
  /** Onsets to a beat, about: what makes a texture busier than another. */
  readonly perBeat: number;
}

export const TEXTURES = {
  'held-root': {
    name: 'Held root',
    says: 'the root of each chord, played once and held',
    from: 1,
    metres: 'all',
    perBeat: 0.25,
  },
  'root-fifth': {
    name: 'Root and fifth together',
    says: 'root and fifth together, once per chord',
    from: 2,
    metres: 'all',
    perBeat: 0.25,
  },
  'root-then-fifth': {
    name: 'Root, then fifth',
    says: 'the root, and the fifth half a measure later',
    from: 2,
    metres: 'all',
    perBeat: 0.5,
  },
  'block-chord': {
    name: 'Block chord',
    says: 'the whole chord in the voicing nearest to the one before',
    from: 3,
    metres: 'all',
    perBeat: 0.25,
  },
  'waltz-bass': {
    name: 'Waltz bass',
    says: 'a low note, from level 5 on with its octave, then the chord twice',
    from: 3,
    metres: 'three',
    perBeat: 1,
  },
  pulse: {
    name: 'Pulse of chords',
    says: 'the chord on each beat, in the voicing nearest to the one before',
    from: 3,
    metres: 'simple',
    perBeat: 1,
  },
  'pulse-eighths': {
    name: 'Pulse of chords in eighths',
    says: 'the chord on each eighth',
    from: 3,
    metres: 'simple',
    perBeat: 2,
  },
  'root-pulse': {
    name: 'Pulse of roots',
    says: 'the root on each beat',
    from: 3,
    metres: 'simple',
    perBeat: 1,
  },
  'root-pulse-eighths': {
    name: 'Pulse of roots in eighths',
    says: 'the root on each eighth',
    from: 3,
    metres: 'simple',
    perBeat: 2,
  },
  'broken-chord': {
    name: 'Broken chord, 1 5 3 5',
    says: 'the chord note by note: lowest, highest, middle, highest; in compound meter rising',
    from: 3,
    metres: 'all',
    perBeat: 2,
  },
  'broken-chord-rising': {
    name: 'Broken chord, 1 3 5 3',
    says: 'the chord note by note, up and down; in compound meter lowest, highest, middle',
    from: 3,
    metres: 'all',
    perBeat: 2,
  },
  rocking: {
    name: 'Rocking',
    says: 'the root, then the two upper notes twice, in each beat',
    from: 3,
    metres: 'compound',
    perBeat: 3,
  },
  'swing-bass': {
    name: 'Stride bass',
    says: 'a low note on strong beats, from level 5 on the first with its octave, the chord on weak ones',
    from: 3,
    metres: 'even',
    perBeat: 1,
  },
  'bass-line': {
    name: 'Bass line',
    says: 'roots joined by step where there is a beat to spare',
    from: 4,
    metres: 'all',
    perBeat: 1,
  },
  'walking-bass': {
    name: 'Walking bass',
    says: 'a chord note on each beat, the last one a step from the next root',
    from: 3,
    metres: 'all',
    perBeat: 1,
  },
  'walking-octaves': {
    name: 'Walking octaves',
    says: 'the walking bass, each note below and then above',
    from: 5,
    metres: 'simple',
    perBeat: 2,
  },
  'pushed-bass': {
    name: 'Pushed bass',
    says: 'the root for a beat and a half, then the fifth, and the same in the second half of the measure',
    from: 3,
    metres: 'even',
    perBeat: 1,
  },
  'tango-bass': {
    name: 'Tango bass',
    says: 'the root for a beat and a half, a short fifth, then the chord twice',
    from: 3,
    metres: 'even',
    perBeat: 1,
  },
  octaves: {
    name: 'Octaves',
    says: 'the root in octaves, held',
    from: 5,
    metres: 'all',
    perBeat: 0.25,
  },
  'octaves-in-turn': {
    name: 'Alternating octaves',
    says: 'the root below, then above',
    from: 5,
    metres: 'all',
    perBeat: 1,
  },
  'open-tenth': {
    name: 'Open tenth',
    says: 'root, fifth and tenth, one after another',
    from: 5,
    metres: 'all',
    perBeat: 2,
  },
  'tenth-together': {
    name: 'Open tenth together',
    says: 'root and tenth together, where the hand reaches it',
    from: 5,
    metres: 'all',
    perBeat: 0.25,
  },
  'low-octave-chord': {
    name: 'Low octave, then chord',
    says: 'an octave low, then the chord around middle C, the pedal holding both',
    from: 5,
    metres: 'all',
    perBeat: 0.5,
  },
  own: {
    name: 'As in the source',
    says: 'the accompaniment of the source, thinned to the level',
    from: 4,
    metres: 'all',
    perBeat: 1,
  },
} as const satisfies Record<string, TextureFacts>;

export type TextureId = keyof typeof TEXTURES;

export const TEXTURE_IDS = Object.keys(TEXTURES) as TextureId[];

/** What can be chosen for the left hand: a built-in texture, or a pattern that a teacher has written. */
export type Texture = TextureId | TeacherPatternText;

/** The name of a texture, as lists have it. */
export const textureName = (texture: Texture): string =>
  isTeacherPattern(texture) ? teacherPattern(texture).name : TEXTURES[texture].name;

/** The same within a sentence: "block chord", “Rolling”. */
export const textureText = (texture: Texture): string =>
  isTeacherPattern(texture) ? `“${textureName(texture)}”` : inSentence(textureName(texture));

/** Whether a texture is for a metre. */
export function isForMetre(id: TextureId, time: TimeSignature): boolean {
  const { metres } = TEXTURES[id];
  const beats = measureLength(time) / beatLength(time);
  if (metres === 'compound') return isCompound(time);
  if (metres === 'simple') return !isCompound(time);
  if (metres === 'three') return !isCompound(time) && beats === 3;
  if (metres === 'even') return !isCompound(time) && (beats === 2 || beats === 4);
  return true;
}

/** Onsets to a beat of a texture where a level plays it: broken chords go by the beat until patterns begin. */
export function onsetsPerBeat(id: TextureId, level: number, time: TimeSignature): number {
  const isBroken = id === 'broken-chord' || id === 'broken-chord-rising';
  if (isBroken) return isCompound(time) ? 3 : level < 4 ? 1 : 2;
  return id === 'open-tenth' && isCompound(time) ? 3 : TEXTURES[id].perBeat;
}

/** Whether a level and a metre have a texture. */
export const isForLevel = (id: TextureId, level: number, time: TimeSignature): boolean =>
  TEXTURES[id].from <= level && isForMetre(id, time);

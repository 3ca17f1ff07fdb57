/** What the left hand can play at levels 1 to 3. Facts only; leftHand.ts walks them. */
import type { LevelNumber } from './levels';

export const TEXTURES = {
  'held-root': {
    name: 'Held root',
    says: 'the root of each chord, struck once and held',
    from: 1,
  },
  'root-fifth': {
    name: 'Root and fifth together',
    says: 'root and fifth together, once per chord',
    from: 2,
  },
  'root-then-fifth': {
    name: 'Root, then fifth',
    says: 'the root, and the fifth half a measure later',
    from: 2,
  },
  'block-chord': {
    name: 'Block chord',
    says: 'the whole chord in the shape nearest to the one before',
    from: 3,
  },
} as const satisfies Record<string, { name: string; says: string; from: LevelNumber }>;

export type TextureId = keyof typeof TEXTURES;

export const TEXTURE_IDS = Object.keys(TEXTURES) as TextureId[];

/** The texture a level begins with. */
export const DEFAULT_TEXTURE: Readonly<Record<LevelNumber, TextureId>> = {
  1: 'held-root',
  2: 'root-fifth',
  3: 'block-chord',
};

/** The wanted texture if the level has it, else the level's own. */
export const textureFor = (level: LevelNumber, wanted: TextureId | null): TextureId =>
  wanted && TEXTURES[wanted].from <= level ? wanted : DEFAULT_TEXTURE[level];

/**
 * The faces of paper: which file has a letter of a style, and how wide it is. All of them come with the packages that the
 * application is installed with, so a page is the same on every machine.
 */
import { MONO, SANS, WORDS } from '$lib/engrave/look';
import { create, type Font } from 'fontkit';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { unpackedWoff } from './woff';

const FAMILIES = { sans: SANS, mono: MONO, words: WORDS } as const;
export type Family = keyof typeof FAMILIES;

/** The family as a page of the browser asks for it. */
export const cssFamily = (family: Family): string => FAMILIES[family];

/** A style of letters. */
export interface Face {
  readonly family: Family;
  readonly isBold: boolean;
  readonly isItalic: boolean;
}

const PACKAGES = {
  sans: 'atkinson-hyperlegible-next',
  mono: 'atkinson-hyperlegible-mono',
  words: 'tinos',
  signs: 'noto-music',
} as const;

/** Alphabets of the packages, the commonest first. */
const ALPHABETS = {
  sans: ['latin', 'latin-ext'],
  mono: ['latin', 'latin-ext'],
  words: ['latin', 'latin-ext', 'greek', 'greek-ext', 'cyrillic', 'cyrillic-ext', 'vietnamese', 'hebrew'],
  signs: ['music'],
} as const satisfies Record<keyof typeof PACKAGES, readonly string[]>;

/** Semibold reads as bold on paper and stays open at small sizes; the face of words has only one bold. */
const BOLD = { sans: 600, mono: 600, words: 700, signs: 400 } as const;

const resolve = createRequire(import.meta.url).resolve;

/** The files that are asked for a letter in turn: the face itself, the signs of music, and last the widest alphabets. */
function filesOf({ family, isBold, isItalic }: Face): string[] {
  const own = (kind: keyof typeof PACKAGES): string[] =>
    ALPHABETS[kind].map((alphabet) => {
      const weight = isBold ? BOLD[kind] : 400;
      const slant = isItalic && kind !== 'signs' ? 'italic' : 'normal';
      return `${PACKAGES[kind]}/files/${PACKAGES[kind]}-${alphabet}-${weight}-${slant}.woff`;
    });
  return [...own(family), ...own('signs'), ...(family === 'words' ? [] : own('words'))];
}

const pathOf = (file: string): string => {
  const [name = '', ...rest] = file.split('/');
  return join(dirname(resolve(`@fontsource/${name}/package.json`)), ...rest);
};

const loaded = new Map<string, Font>();
function fontIn(file: string): Font {
  const known = loaded.get(file);
  if (known) return known;
  const font = create(bytesOf(file)) as Font;
  loaded.set(file, font);
  return font;
}

const unpacked = new Map<string, Buffer>();

/** The bytes of a file of letters, unpacked once: every document embeds letters out of them. */
export function bytesOf(file: string): Buffer {
  const known = unpacked.get(file);
  if (known) return known;
  const bytes = unpackedWoff(readFileSync(pathOf(file)));
  unpacked.set(file, bytes);
  return bytes;
}

interface Letter {
  readonly file: string;
  /** Of the size. */
  readonly width: number;
}

const nameOf = (face: Face): string => `${face.family} ${face.isBold} ${face.isItalic}`;
const letters = new Map<string, Map<string, Letter>>();

/** The file that has a letter; undefined where none has. */
const fileWith = (code: number, face: Face): string | undefined =>
  filesOf(face).find((f) => fontIn(f).hasGlyphForCodePoint(code));

/** What stands for a letter of an alphabet that no face has. A white box would look like a fault of the printer. */
const NO_LETTER = '·';
const drawn = new Map<string, string>();

/** A text in letters that can be drawn: pictures are left out, letters of other alphabets become dots. */
function drawable(text: string, face: Face): string {
  const name = nameOf(face);
  let made = '';
  for (const letter of text) {
    const known = drawn.get(name + letter);
    if (known !== undefined) {
      made += known;
      continue;
    }
    const shown =
      fileWith(letter.codePointAt(0)!, face) !== undefined
        ? letter
        : /\p{L}|\p{N}/u.test(letter)
          ? NO_LETTER
          : /\s/u.test(letter)
            ? ' '
            : '';
    drawn.set(name + letter, shown);
    made += shown;
  }
  return made;
}

/** Where a letter is found, and how wide it is. */
function letterOf(letter: string, face: Face): Letter {
  const name = nameOf(face);
  const known = letters.get(name) ?? new Map<string, Letter>();
  letters.set(name, known);
  const found = known.get(letter);
  if (found) return found;
  const code = letter.codePointAt(0)!;
  const file = fileWith(code, face);
  if (file === undefined) throw new Error(`No face has “${letter}”: drawable() comes first.`);
  const font = fontIn(file);
  const made = { file, width: font.glyphForCodePoint(code).advanceWidth / font.unitsPerEm };
  known.set(letter, made);
  return made;
}

/** Width of a text of size 1. */
export function widthOf(text: string, face: Face): number {
  let width = 0;
  for (const letter of drawable(text, face)) width += letterOf(letter, face).width;
  return width;
}

/** A stretch of letters out of one file. */
interface Run {
  readonly text: string;
  readonly file: string;
  /** Signs of music, which are drawn small in their face. */
  readonly isSign: boolean;
}

/** A text as stretches that have one file each. Spaces stay with what is before them. */
export function runsOf(text: string, face: Face): Run[] {
  const runs: { text: string; file: string; isSign: boolean }[] = [];
  for (const letter of drawable(text, face)) {
    const last = runs.at(-1);
    const { file } = letter === ' ' && last ? last : letterOf(letter, face);
    if (last?.file === file) last.text += letter;
    else runs.push({ text: letter, file, isSign: file.startsWith(PACKAGES.signs) });
  }
  return runs;
}

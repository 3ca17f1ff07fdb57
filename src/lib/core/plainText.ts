/**
 * Text that people type or files bring, without signs that cannot be seen: control characters, and those that turn the direction of what
 * follows or hide between letters. What joins letters in some scripts stays.
 */
import { z } from 'zod';

const UNSEEN = /[\p{Cc}\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff\u2028\u2029]+/gu;
/** A line break is seen, and so is a tab. */
const UNSEEN_BUT_BREAKS = /(?:(?![\n\t])[\p{Cc}\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff])+/gu;

/** A line, such as a name: what is unseen between two words parts them. */
export const plainLine = (text: string): string => text.replace(UNSEEN, ' ').replace(/ {2,}/g, ' ').trim();

/** Several lines, such as notes. */
export const plainLines = (text: string): string =>
  text.replace(/\r\n?/g, '\n').replace(UNSEEN_BUT_BREAKS, '').trim();

/** A name or another line of text, as a field of a schema. */
export const lineText = (): z.ZodString => z.string().overwrite(plainLine);

/** Notes of several lines, as a field of a schema. */
export const linesText = (): z.ZodString => z.string().overwrite(plainLines);

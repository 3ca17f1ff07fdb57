/**
 * Where a decision holds. An anchor names notes and measures of the *source* by their ids, never a place in a version: an
 * introduction, another level or key, and a section that begins elsewhere carry it along.
 */
import { z } from 'zod';

export const SCOPES = ['note', 'measure', 'range', 'section', 'version'] as const;
export type Scope = (typeof SCOPES)[number];

const id = () => z.string().min(1).max(80);

/**
 * A note; a measure; a range of measures from the first to the last; a section, named by its first and last measure at the
 * time when it was decided; or the whole version.
 */
export const anchorSchema = z.union([
  z.strictObject({ note: id() }),
  z.strictObject({ measure: id() }),
  z.strictObject({ range: z.tuple([id(), id()]) }),
  z.strictObject({ section: z.tuple([id(), id()]) }),
  z.strictObject({ version: z.literal(true) }),
]);

export type Anchor = z.infer<typeof anchorSchema>;

/** Everywhere in a version. */
export const WHOLE: Anchor = { version: true };

export const scopeOf = (anchor: Anchor): Scope => SCOPES.find((scope) => scope in anchor)!;

/** An anchor as text: two anchors are the same place where their texts are the same. */
export const anchorText = (anchor: Anchor): string =>
  'note' in anchor
    ? anchor.note
    : 'measure' in anchor
      ? anchor.measure
      : 'range' in anchor
        ? anchor.range.join('–')
        : 'section' in anchor
          ? anchor.section.join('..')
          : '*';

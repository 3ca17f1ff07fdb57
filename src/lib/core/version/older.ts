/**
 * Versions as they were saved before decisions had anchors: settings with "other ways" for sections, and decisions that named a
 * measure by its place in the version. Read once more, by the migration of a studio's database and from recipe files.
 */
import { z } from 'zod';
import { WHOLE, type Anchor } from '../decisions/anchor';
import type { Layout } from '../decisions/holds';
import { decisionSchema, type Decision, type KindId } from '../decisions/registry';
import type { Score } from '../score/score';
import { measureId } from '../score/measureId';
import { analysed } from './analysed';
import { documentOf, type VersionDocument } from './document';
import { introductionOf } from './introduction';
import { recipeSchema } from './recipe';

const index = z.number().int().min(0);
const text = z.string();
const ways = {
  counting: text.optional(),
  pedal: text.optional(),
  texture: text.nullish(),
  tune: text.nullish(),
};

const olderRecipe = z.object({
  ...ways,
  rhythm: text.nullish(),
  sections: z.array(z.object({ ...ways, measure: index })).default([]),
});

const olderDecision = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('finger'), note: text, finger: z.number() }),
  z.object({ kind: z.literal('hand'), note: text, hand: text }),
  z.object({ kind: z.literal('count'), measure: index, words: text }),
  z.object({ kind: z.literal('pedal'), measure: index, style: text }),
  z.object({ kind: z.literal('texture'), measure: index, texture: text }),
]);

type Ways = { readonly [K in keyof typeof ways]?: string | null | undefined };

/** What a section or the whole was set to, where that differs from what was usual. */
const decidedBy = (
  set: Ways & { readonly rhythm?: string | null | undefined },
  at: Anchor,
  usual: Ways,
): Decision[] =>
  (
    [
      ['texture', set.texture, usual.texture],
      ['melody', set.tune, usual.tune],
      ['rhythm', set.rhythm, null],
      ['counting', set.counting, usual.counting],
      ['pedal', set.pedal, usual.pedal],
    ] as const
  ).flatMap(([kind, value, before]) =>
    value === undefined || value === null || value === before ? [] : checked(kind, at, value),
  );

const checked = (kind: KindId, at: Anchor, value: unknown): Decision[] => {
  const decision = decisionSchema.safeParse({ kind, at, value });
  return decision.success ? [decision.data] : [];
};

/** The names of notes that the arranger had made, which held the place of their measure in the version. */
const noteName = (note: string, { measures }: Layout): string =>
  note.replace(/^([LRF])(\d+)-/, (_all, role: string, at: string) => `${role}${idAt(measures, Number(at))}-`);

const idAt = (measures: Layout['measures'], at: number): string => measures[at]?.id ?? measureId(at);

/** Section, by the measure with which it begins. */
function sectionAt({ measures, sections }: Layout, measure: number): Anchor {
  const section = sections.find((s) => s.from <= measure && measure <= s.to);
  return { section: [idAt(measures, measure), idAt(measures, section?.to ?? measure)] };
}

/**
 * A document from what was saved. Settings and decisions that no longer mean anything are left out; what is neither is an error
 * of Zod's.
 */
export function fromOlder(source: Score, recipe: unknown, decisions: unknown): VersionDocument {
  const settings = recipeSchema.parse(recipe);
  const older = olderRecipe.parse(recipe);
  const { score, form } = analysed(source, introductionOf(source, settings));
  const layout = { measures: score.measures, sections: form.sections };
  const made = z.array(olderDecision).parse(decisions);
  return documentOf(settings, [
    ...decidedBy(older, WHOLE, { counting: 'numbers', pedal: 'harmony' }),
    ...older.sections.flatMap(({ measure, ...set }) => decidedBy(set, sectionAt(layout, measure), {})),
    ...made.flatMap((d): Decision[] =>
      d.kind === 'finger'
        ? checked('finger', { note: noteName(d.note, layout) }, d.finger)
        : d.kind === 'hand'
          ? checked('hand', { note: noteName(d.note, layout) }, d.hand)
          : checked(
              d.kind,
              { measure: idAt(layout.measures, d.measure) },
              d.kind === 'count' ? d.words : d.kind === 'pedal' ? d.style : d.texture,
            ),
    ),
  ]);
}

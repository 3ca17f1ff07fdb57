import { difficultyOf } from '$core/difficulty/difficulty';
import { hardestOf } from '$core/difficulty/level';
import { formOf } from '$core/analysis/form';
import { chordsOf } from '$core/analysis/harmony';
import { keyOf, keyReport, withHeardMode } from '$core/analysis/key';
import { disagreements, shapesOf } from '$core/analysis/shapes';
import { LEVELS } from '$core/arrange/levels';
import { WRITTEN_FORMATS } from '$core/io/writeScoreFile';
import { endOf } from '$core/score/metre';
import { PART_CHOICES, type PartChoices } from '$core/score/parts';
import { soundingNotes } from '$core/score/query';
import { chordSymbol, degree, isDiatonic, type Chord } from '$core/theory/chord';
import { fromFifths } from '$core/theory/fifths';
import { keyOptions } from '$core/theory/easyKeys';
import { keyCode, keyName, parseKey, scaleFifths, signatureNames, tonicFifths } from '$core/theory/key';
import { pitchClassName } from '$core/score/pitch';
import { partFacts } from '$lib/engrave/preview';
import { DEFAULT_RECIPE, recipeSchema } from '$core/version/recipe';
import { capital, measuresText, measureText } from '$ui/text';
import { db } from '$server/db';
import { findLearner, listLearners, recipeFor } from '$server/studio/learners';
import { findPiece, partsOf, RIGHTS, scoreOf, setParts, setRights, sourceScore } from '$server/studio/pieces';
import { addVersion, listVersions } from '$server/studio/versions';
import { holdersOf } from '$server/studio/assignments';
import { error, fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) => {
  const piece = findPiece(db(), params.id);
  if (!piece) error(404, 'There is no such piece.');
  const { score: source, warnings } = scoreOf(db(), piece.id);
  const score = withHeardMode(source);
  const key = keyOf(score);
  const form = formOf(score);
  const chordSpans = chordsOf(score);
  const spans = chordSpans.filter((s): s is typeof s & { chord: Chord } => s.chord !== null);
  const notes = score.parts.flatMap((p) => p.notes);
  const first = spans[0]?.chord;
  const numbers = score.measures.map((m) => m.number);
  const difficulty = difficultyOf(score);
  const { heard, passages } = keyReport(score);
  const startOf = (section: { from: number }): number => score.measures[section.from]!.start;
  return {
    piece,
    warnings,
    rights: RIGHTS,
    parts: { list: partFacts(sourceScore(db(), piece.id).score.parts), choices: partsOf(db(), piece.id) },
    formats: WRITTEN_FORMATS.map(({ ending, name }) => ({ ending, name })),
    facts: {
      key: keyName(key),
      signature: signatureNames(key),
      scale: scaleFifths(key).map((f) => pitchClassName(fromFifths(f))),
      time: score.measures[0]!.time,
      tempo: score.tempo,
      pickup: score.measures[0]!.beginsAt > 0,
      chordsFrom: spans[0]?.from ?? 'notes',
      /** Set where the piece does not begin on its home chord. */
      startsOn: first && first.root !== tonicFifths(key) ? chordSymbol(first) : null,
    },
    doubts: [
      ...(heard ? [`The signature says ${keyName(key)}, the notes speak for ${keyName(heard)}.`] : []),
      ...passages.map((p) => `${capital(measuresText(numbers, p.from, p.to))} in ${keyName(p.key)}.`),
      ...disagreements(score, chordSpans).map(
        (d) =>
          `${capital(measureText(numbers[d.measure]!))}: the symbol says ${d.symbol}, but ${d.sounds.join(' ')} sound.`,
      ),
    ],
    variants: form.sections.flatMap((section) => {
      const { variant } = section;
      if (!variant) return [];
      const original = form.sections[variant.of]!;
      return [
        {
          label: section.label,
          like: original.label,
          measures: measuresText(numbers, section.from, section.to),
          likeMeasures: measuresText(numbers, original.from, original.to),
          transposed: variant.transposed,
          differences: variant.differences.map((d) => ({
            measure: measureText(numbers[d.measure]!),
            now: d.now.join(' '),
            before: d.before.join(' '),
          })),
        },
      ];
    }),
    shapes: shapesOf(score, chordSpans).map(({ symbol, shapes }) => ({
      symbol,
      shapes: shapes.map((s) => ({ notes: s.notes, measures: s.measures.map((m) => numbers[m]!) })),
    })),
    hardest: hardestOf(difficulty).map((d) => ({
      measure: measureText(numbers[d.measure]!),
      reasons: d.reasons,
    })),
    form,
    numbers,
    difficulty: difficulty.map((d) => d.score),
    chords: form.sections.map((section) => ({
      label: section.label,
      list: spans
        // The chord that goes on from the section before is the first one heard in this one.
        .filter(
          (s) => s.onset < endOf(score.measures[section.to]!) && s.onset + s.duration > startOf(section),
        )
        .map(({ chord, onset }) => ({
          onset,
          symbol: chordSymbol(chord),
          degree: degree(chord, key),
          borrowed: !isDiatonic(chord, key),
        })),
    })),
    versions: listVersions(db(), piece.id).map(({ id, recipe, decisions }) => ({
      id,
      level: recipe.level,
      key: keyName(parseKey(recipe.key ?? keyCode(key)) ?? key),
      decisions: decisions.length,
      holders: holdersOf(db(), id).map((h) => h.name),
    })),
    keys: keyOptions(key.mode),
    sourceKeyCode: keyCode(key),
    levels: Object.values(LEVELS).map(({ level, name }) => ({ level, name })),
    learners: listLearners(db()).map(({ id, name, level }) => ({ id, name, level })),
  };
};

export const actions: Actions = {
  version: async ({ params, request }) => {
    const data = await request.formData();
    const piece = findPiece(db(), params.id);
    if (!piece) return fail(404, { message: 'This piece is no longer there.' });
    const learner = findLearner(db(), String(data.get('learner') ?? ''));
    const base = learner ? recipeFor(learner, null) : DEFAULT_RECIPE;
    const key = String(data.get('key') ?? '') || null;
    const sourceKey = keyCode(keyOf(scoreOf(db(), piece.id).score));
    const recipe = recipeSchema.safeParse({
      ...base,
      level: Number(data.get('level')) || base.level,
      key: key === sourceKey ? null : key,
    });
    if (!recipe.success) return fail(400, { message: 'Choose a level and a key from the lists.' });
    redirect(303, `/versions/${addVersion(db(), piece.id, recipe.data)}`);
  },
  parts: async ({ params, request }) => {
    const data = await request.formData();
    if (!findPiece(db(), params.id)) return fail(404, { message: 'This piece is no longer there.' });
    const choices: PartChoices = {};
    for (const { id } of sourceScore(db(), params.id).score.parts) {
      const choice = z.enum(PART_CHOICES).safeParse(data.get(`part ${id}`));
      if (choice.success) choices[id] = choice.data;
    }
    setParts(db(), params.id, choices);
    return {};
  },
  rights: async ({ params, request }) => {
    const rights = z.enum(RIGHTS).safeParse((await request.formData()).get('rights'));
    if (!rights.success) return fail(400, { message: 'Choose one of the rights offered.' });
    setRights(db(), params.id, rights.data);
    return {};
  },
};

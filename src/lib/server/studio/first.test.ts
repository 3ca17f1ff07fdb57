import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { proposedLocale, USUAL_LOCALE } from '$core/locale';
import type { Strength } from '$core/lessons/strengths';
import { testStudio, type TestStudio } from '../test/studio';
import { beginLesson } from './lessons';
import { addLearner, learnerSchema, usualLearner } from './learners';
import { firstSteps } from './firstSteps';
import { strengthsShown } from './learnerPage';
import { isLocaleChosen, languageAsked, localeOf, localeOffer, setLocale } from './locale';

let studio: TestStudio;
beforeEach(() => (studio = testStudio()));
afterEach(() => studio.end());

describe('the first steps', () => {
  it('begin with nothing, and end with a lesson', () => {
    const { db } = studio;
    expect(firstSteps(db)).toEqual({ piece: null, version: null, assigned: null, hasLesson: false });
    const id = addLearner(db, learnerSchema.parse({ ...usualLearner(2), name: 'Nora' }), '2026-12-01');
    expect(firstSteps(db).hasLesson).toBe(false);
    beginLesson(db, id);
    expect(firstSteps(db).hasLesson).toBe(true);
  });
});

describe('the locale of a studio', () => {
  it('is as usual until it is chosen, and proposed from the browser', () => {
    const { db } = studio;
    expect([localeOf(db), isLocaleChosen(db)]).toEqual([USUAL_LOCALE, false]);
    expect(languageAsked('de-AT,de;q=0.9,en;q=0.8')).toBe('de-AT');
    expect(localeOffer(db, 'de-AT,de;q=0.9').proposed).toEqual(proposedLocale('de-AT'));
    expect(localeOffer(db, null).proposed).toEqual(USUAL_LOCALE);
    setLocale(db, proposedLocale('en-US'));
    expect([localeOf(db), isLocaleChosen(db)]).toEqual([proposedLocale('en-US'), true]);
    setLocale(db, proposedLocale('fr-FR'));
    expect(localeOf(db).noteNames).toBe('solfege');
  });
});

describe('what stands out', () => {
  const of = (...grades: (number | null)[]): Strength[] =>
    (['leaps', 'chords', 'rhythm'] as const).map((strand, i) => ({
      strand: strand as Strength['strand'],
      grade: grades[i] ?? null,
    }));
  it('is nothing where all go alike', () => {
    expect(strengthsShown(of(3, 3.1, 3))).toEqual({ easy: [], hard: [] });
    expect(strengthsShown(of())).toEqual({ easy: [], hard: [] });
  });
  it('is what goes more easily, and what is harder than the rest', () => {
    expect(strengthsShown(of(3.9, 3, 2.1))).toEqual({ easy: ['leaps'], hard: ['rhythm'] });
  });
});

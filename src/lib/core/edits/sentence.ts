/** What an edit did, in words: "finger 3", "level 2 instead of 3", "gave back pedal: with each harmony". */
import { levelText } from '../arrange/levels';
import { decisionText, type Decision } from '../decisions/registry';
import { keyName, parseKey } from '../theory/key';
import type { VersionDocument } from '../version/document';
import { otherHandsText } from '../version/otherHands';
import type { Recipe } from '../version/recipe';

const value = (setting: keyof Recipe, at: unknown): string => {
  if (setting === 'key') {
    const key = typeof at === 'string' ? parseKey(at) : undefined;
    return key ? keyName(key) : 'the suggested key';
  }
  if (at === null) return 'suggested';
  if (setting === 'level') return levelText(Number(at));
  if (setting === 'reach') {
    const { right, left } = at as Recipe['reach'];
    return right === left ? String(right) : `${left} left, ${right} right`;
  }
  if (setting === 'taste') return 'updated';
  if (setting === 'otherHands') return otherHandsText(at as Recipe['otherHands']);
  return String(at);
};

const NAMES: Readonly<Record<keyof Recipe, string>> = {
  level: 'level',
  style: 'style:',
  key: '',
  introduction: 'introduction (measures):',
  reach: 'reach (white keys):',
  keyboard: 'keyboard (keys):',
  countFor: 'counting for:',
  cutTime: 'cut time in',
  feel: 'eighths:',
  idiom: 'kind of music:',
  taste: 'fingering preferences:',
  otherHands: '',
};

/** Most things named in one sentence. */
const MOST = 3;

/** From the documents before and after. */
export function editText(before: VersionDocument, after: VersionDocument): string {
  const settings = (Object.keys(after.recipe) as (keyof Recipe)[])
    .filter((key) => JSON.stringify(before.recipe[key]) !== JSON.stringify(after.recipe[key]))
    .map((key) => `${NAMES[key]} ${value(key, after.recipe[key])}`.trim());
  const made = changedIn(after.decisions, before.decisions).map(decisionText);
  const given = Object.keys(before.decisions)
    .filter((subject) => !(subject in after.decisions))
    .map((subject) => `reset ${decisionText(before.decisions[subject]!)}`);
  const all = [...settings, ...made, ...given];
  if (all.length === 0) return 'nothing';
  const more = all.length - MOST;
  return more > 0 ? `${all.slice(0, MOST).join(', ')} and ${more} more` : all.join(', ');
}

const changedIn = (
  now: Readonly<Record<string, Decision>>,
  then: Readonly<Record<string, Decision>>,
): Decision[] =>
  Object.entries(now).flatMap(([subject, decision]) =>
    JSON.stringify(then[subject]) === JSON.stringify(decision) ? [] : [decision],
  );

/** What was guessed about who plays what, in sentences for whoever brought the file. */
import { measuresText } from '../score/measureText';
import type { Score } from '../score/score';
import { tunePhrases, type PartChoices } from './parts';

/** Phrases that a sentence names; of more it says how many there are. */
const NAMED = 6;

/** Sentences about a source of several players; none for a piano, or a voice and a piano. */
export function saysOfPlayers(source: Score, choices: PartChoices): string[] {
  const nameOf = (id: string): string => source.parts.find((p) => p.id === id)?.name || id;
  const leading = Object.values(choices.parts).filter((c) => c === 'melody').length;
  const pianos = source.parts.filter((p) => p.staves >= 2 && choices.parts[p.id] === 'piano').length;
  const numbers = source.measures.map((m) => m.number);
  const hasPiano = Object.values(choices.parts).some((c) => c === 'piano' || c === 'right' || c === 'left');
  const phrases = leading > 0 && !hasPiano ? tunePhrases(source, choices) : [];
  const named = phrases
    .slice(0, NAMED)
    .map(({ from, to, part }) => `${nameOf(part)} in ${measuresText(numbers, from, to)}`);
  const more = phrases.length > NAMED ? `, and ${phrases.length - NAMED} more phrases` : '';
  return [
    ...(phrases.length > 0 ? [`Suggested melody: ${named.join(', ')}${more}.`] : []),
    ...(pianos > 1
      ? [`Two hands play ${pianos} keyboard parts: the outer lines and everyone’s harmony.`]
      : []),
  ];
}

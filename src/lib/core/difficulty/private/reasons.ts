/** Why a measure is hard, in the words of a teacher: from the terms that weigh most in it. */
import { intervalWord } from '../../theory/intervalWord';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import type { HandDemands, MeasureDemands } from './demands';
import type { Term } from './terms';

/** Points from which a term is worth a word. */
const WORTH_A_WORD = 3;
const MOST_REASONS = 3;
/** Strokes a second from which notes count as quick. */
const QUICK = 2.6;

/** At most three reasons, the biggest first, those of a hand together after its name; what both hands share is said once. */
export function reasonsOf(demands: MeasureDemands, terms: readonly Term[]): string[] {
  const said: { kind: string; text: string; hands: Set<string> }[] = [];
  for (const term of [...terms].sort((a, b) => b.points - a.points)) {
    if (term.points < WORTH_A_WORD) break;
    const text = textOf(demands, term);
    if (!text) continue;
    // The other hand's share of the same trouble is named only where it is the very same.
    const known = said.find((s) => s.kind === term.kind);
    if (!known) said.push({ kind: term.kind, text, hands: new Set(term.hand ? [term.hand] : []) });
    else if (known.text === text && term.hand) known.hands.add(term.hand);
  }
  const bothPlay = demands.right && demands.left;
  const byHand = new Map<string, string[]>();
  for (const { text, hands } of said.slice(0, MOST_REASONS)) {
    const hand =
      !bothPlay || hands.size === 0 ? '' : hands.size === 2 ? 'both hands' : `${[...hands][0]} hand`;
    byHand.set(hand, [...(byHand.get(hand) ?? []), text]);
  }
  return [...byHand].flatMap(([hand, texts]) => (hand ? [`${hand}: ${texts.join(', ')}`] : texts));
}

function textOf(demands: MeasureDemands, { kind, hand }: Term): string | null {
  if (kind === 'busy') return 'both hands are busy at once';
  if (kind === 'apart') return 'different rhythms in each hand';
  const own = hand && demands[hand];
  if (!own) return null;
  switch (kind) {
    case 'speed':
      return own.quickest < QUICK ? null : `fast ${valueName(own.shortest)}`;
    case 'leaps':
      return `leaps of ${articled(intervalWord(own.leap))}`;
    case 'chords':
      return `${Math.max(...own.notesAtOnce)} notes at once`;
    case 'stretch':
      return `a stretch of ${articled(intervalWord(own.span))}`;
    case 'moves':
      return 'frequent shifts';
    case 'rhythm':
      return rhythmText(own, demands.compound);
    case 'syncopation':
      return 'notes held over the beat';
    case 'voices':
      return 'one note held while others move';
    case 'accidentals':
      return `accidentals (${[...new Set(own.accidentals)].slice(0, 4).join(' ')})`;
    case 'signature':
      return `${own.bySignature.join(' ')} from the key signature`;
    case 'ledger lines':
      return `notes far ${own.ledgerSide} the staff`;
    case 'ornaments':
      return 'ornaments';
  }
}

const articled = (noun: string): string => `${/^(eighth|eleventh|octave)/.test(noun) ? 'an' : 'a'} ${noun}`;

const VALUES: readonly (readonly [quarters: number, name: string])[] = [
  [1, 'quarters'],
  [1 / 2, 'eighths'],
  [1 / 3, 'triplets'],
  [1 / 4, 'sixteenths'],
  [1 / 6, 'sextuplets'],
  [1 / 8, 'thirty-seconds'],
];

/** The nearest usual name of a length between two strokes. */
function valueName(length: Ticks): string {
  const exact = length / TICKS_PER_QUARTER;
  const byDistance = VALUES.map(([quarters, name]) => ({ name, off: Math.abs(Math.log(exact / quarters)) }));
  const nearest = byDistance.sort((a, b) => a.off - b.off)[0]!;
  return nearest.off < 0.05 || exact < 1 ? nearest.name : 'notes';
}

function rhythmText(own: HandDemands, compound: boolean): string {
  const names = own.divisions.flatMap((d) =>
    d === 1
      ? []
      : compound
        ? d === 3
          ? ['eighths']
          : d === 6
            ? ['sixteenths']
            : d === 2 || d === 4
              ? ['two in the time of three']
              : ['fine values']
        : d === 2
          ? ['eighths']
          : d === 3
            ? ['triplets']
            : d === 4
              ? ['sixteenths']
              : ['fine values'],
  );
  const values = [...new Set(names)];
  if (own.dotted) return values.length > 1 ? `dotted notes among ${values.at(-1)!}` : 'a dotted rhythm';
  return values.length > 1
    ? `${values.slice(0, -1).join(', ')} and ${values.at(-1)!}`
    : (values[0] ?? 'the rhythm');
}

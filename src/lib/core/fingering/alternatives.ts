/**
 * Other good fingerings of a measure, each the best of its kind, named by what it trades against the first: fewer moves of
 * the hand, stronger fingers, no thumb on black keys, less stretching.
 */
import type { Ticks } from '../score/ticks';
import { newCosts, RULES, type Costs, type Rule } from './cost';
import { FINGERS, type Finger } from './grips';
import { withFinger } from './explain';
import { costsOf, total, type Fingering, type Phrase } from './solve';

export interface FingeringAlternative {
  /** Fingers of the notes that are struck in the measure, by note id. */
  readonly fingers: ReadonlyMap<string, Finger>;
  /** How much dearer the line is with it than with the first. */
  readonly dearer: number;
  /** "stays in position, weak fourth finger" */
  readonly name: string;
}

const MOST = 3;
/** What is dearer by more is no fingering one would teach. */
const DEAREST = 14;

/**
 * The fingering of the notes struck from `from` to `to` (ticks), first, and up to two others. `count` gives more or fewer.
 */
export function alternativesIn(
  solved: Fingering,
  from: Ticks,
  to: Ticks,
  count = MOST,
): FingeringAlternative[] {
  const parts = solved.phrases.flatMap((phrase) => {
    const inside = phrase.events.flatMap((e) =>
      e.onset >= from && e.onset < to ? e.keys.filter((k) => k.struck).map((k) => k.id) : [],
    );
    return inside.length > 0 ? [{ phrase, inside }] : [];
  });
  if (parts.length === 0) return [];
  const first = new Map(
    parts.flatMap(({ inside }) => inside.map((id) => [id, solved.fingers.get(id)!] as const)),
  );
  const found = new Map<
    string,
    { fingers: Map<string, Finger>; costs: Costs; dearer: number; phrase: Phrase }
  >();
  for (const { phrase, inside } of parts)
    for (const id of inside)
      for (const finger of FINGERS) {
        if (finger === first.get(id)) continue;
        const path = withFinger(phrase, id, finger);
        if (!path) continue;
        const costs = costsOf(phrase.events, path, phrase.model);
        const dearer = total(costs) - phrase.cost;
        if (dearer > DEAREST) continue;
        const fingers = new Map(first);
        phrase.events.forEach((event, i) =>
          event.keys.forEach((key, k) => {
            if (key.struck && first.has(key.id)) fingers.set(key.id, path[i]![k]!);
          }),
        );
        const key = [...fingers.values()].join('');
        const known = found.get(key);
        if (!known || known.dearer > dearer) found.set(key, { fingers, costs, dearer, phrase });
      }
  const chosen: FingeringAlternative[] = [{ fingers: first, dearer: 0, name: '' }];
  const names = new Set<string>();
  const firstTrade: string[] = [];
  for (const { fingers, costs, dearer, phrase } of [...found.values()].sort((a, b) => a.dearer - b.dearer)) {
    if (chosen.length >= count) break;
    const before = costsOf(phrase.events, phrase.path, phrase.model);
    const name = tradeText(costs, before);
    // Two that trade the same are one to a teacher.
    if (names.has(name)) continue;
    names.add(name);
    if (firstTrade.length === 0) firstTrade.push(tradeText(before, costs));
    chosen.push({ fingers, dearer, name });
  }
  chosen[0] = { ...chosen[0]!, name: firstTrade[0] ?? 'the only one that lies well' };
  return chosen;
}

/** What is better and what is worse about a fingering than another, from the rules in which they differ. */
const BETTER: Readonly<Partial<Record<Rule, string>>> = {
  move: 'moves less',
  'far-move': 'moves less far',
  pass: 'no thumb under',
  weak: 'strong fingers',
  'three-four': 'strong fingers',
  'three-four-five': 'strong fingers',
  stretch: 'no stretch',
  wide: 'hand relaxed',
  cramped: 'fingers have room',
  'black-thumb': 'thumb on white keys',
  'black-fifth': 'little finger on white keys',
  'four-on-black': 'lies better on the black keys',
  'same-finger': 'joins every note',
  'change-on-repeat': 'one finger for one key',
  'quick-repeat': 'fingers change on the repeated key',
  'chord-shape': 'usual chord shape',
  cross: 'no crossing',
  convention: 'as method books have it',
  'same-figure': 'same fingers as elsewhere',
  'let-go': 'holds on',
};

const WORSE: Readonly<Partial<Record<Rule, string>>> = {
  move: 'moves once more',
  'far-move': 'moves further',
  pass: 'thumb passes under',
  weak: 'weaker fingers',
  'three-four': 'third and fourth in a row',
  'three-four-five': 'weak fingers in a row',
  stretch: 'a stretch',
  wide: 'hand opens wide',
  cramped: 'fingers close together',
  'black-thumb': 'thumb on a black key',
  'black-fifth': 'little finger on a black key',
  'four-on-black': 'fourth finger climbs onto a black key',
  'same-finger': 'one finger jumps',
  'change-on-repeat': 'changes on a repeated key',
  'quick-repeat': 'one finger repeats quickly',
  'chord-shape': 'an unusual chord shape',
  cross: 'fingers cross',
  convention: 'not as method books have it',
  'same-figure': 'other fingers than elsewhere',
  'let-go': 'lets a held note go',
};

const WORTH_A_WORD = 0.25;

function tradeText(costs: Costs, against: Costs): string {
  const difference = newCosts().map((_, i) => costs[i]! - against[i]!);
  // That a figure is fingered otherwise elsewhere is said where nothing else tells two ways apart.
  const by = RULES.map((rule, i) => ({ rule, by: difference[i]! })).filter(
    (d, _, all) => d.rule !== 'same-figure' || all.every((o) => o === d || Math.abs(o.by) <= WORTH_A_WORD),
  );
  const better = by.filter((d) => d.by < -WORTH_A_WORD).sort((a, b) => a.by - b.by)[0];
  const worse = by.filter((d) => d.by > WORTH_A_WORD).sort((a, b) => b.by - a.by)[0];
  const parts = [better && BETTER[better.rule], worse && WORSE[worse.rule]].filter((p): p is string =>
    Boolean(p),
  );
  return parts.length > 0 ? parts.join(', ') : 'as easy';
}

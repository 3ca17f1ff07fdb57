/**
 * Other good fingerings of a measure, each the best of its kind, named by what it trades against the first: fewer moves of
 * the hand, stronger fingers, no thumb on black keys, less stretching.
 */
import type { Ticks } from '../score/ticks';
import { RULES, type Costs, type Rule } from './cost';
import { FINGERS, type Finger } from './grips';
import type { Event, HeldKey } from './private/event';
import { withFinger, type OtherPath } from './explain';
import type { Fingering } from './solve';

interface FingeringAlternative {
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
  /** Ids of what an event strikes inside the measure, with a key that stands for each: repetitions may begin or end outside. */
  const struckInside = ({ keys, last }: Event): { key: HeldKey; ids: string[] }[] =>
    keys
      .filter((k) => k.struck)
      .map((key) => ({
        key,
        ids: [{ id: key.id, onset: last }, ...(key.twins ?? [])]
          .filter((t) => t.onset >= from && t.onset < to)
          .map((t) => t.id),
      }))
      .filter(({ ids }) => ids.length > 0);
  const parts = solved.phrases.flatMap((phrase) => {
    const places = phrase.events.flatMap((event, i) => {
      const struck = struckInside(event);
      return struck.length > 0 ? [{ event, i, struck }] : [];
    });
    return places.length > 0 ? [{ phrase, places }] : [];
  });
  if (parts.length === 0) return [];
  const first = new Map(
    parts.flatMap(({ places }) =>
      places.flatMap((p) =>
        p.struck.flatMap((s) => s.ids.map((id) => [id, solved.fingers.get(id)!] as const)),
      ),
    ),
  );
  const found = new Map<string, OtherPath & { readonly fingers: ReadonlyMap<string, Finger> }>();
  for (const { phrase, places } of parts) {
    for (const { i: at, key: asked } of places.flatMap((p) => p.struck.map(({ key }) => ({ i: p.i, key }))))
      for (const finger of FINGERS) {
        if (finger === solved.fingers.get(asked.id)) continue;
        const other = withFinger(phrase, at, asked.id, finger);
        if (!other || other.dearer > DEAREST) continue;
        const fingers = new Map(first);
        for (const { event, i, struck } of places) {
          const grip = other.near[i - other.first] ?? phrase.path[i]!;
          for (const { key, ids } of struck)
            for (const id of ids) fingers.set(id, grip[event.keys.indexOf(key)]!);
        }
        const key = [...fingers.values()].join('');
        const known = found.get(key);
        if (!known || known.dearer > other.dearer) found.set(key, { ...other, fingers });
      }
  }
  const chosen: FingeringAlternative[] = [{ fingers: first, dearer: 0, name: '' }];
  const names = new Set<string>();
  const firstTrade: string[] = [];
  for (const { fingers, dearer, by } of [...found.values()].sort((x, y) => x.dearer - y.dearer)) {
    if (chosen.length >= count) break;
    const name = tradeText(by);
    // Two that trade the same are one to a teacher.
    if (names.has(name)) continue;
    names.add(name);
    if (firstTrade.length === 0) firstTrade.push(tradeText(by.map((cost) => -cost)));
    chosen.push({ fingers, dearer, name });
  }
  chosen[0] = { ...chosen[0]!, name: firstTrade[0] ?? 'the only comfortable fingering' };
  return chosen;
}

/** What is better and what is worse about a fingering than another, from the rules in which they differ. */
const BETTER: Readonly<Partial<Record<Rule, string>>> = {
  move: 'fewer moves',
  'far-move': 'a shorter move',
  pass: 'no thumb under',
  weak: 'strong fingers',
  'three-four': 'strong fingers',
  'three-four-five': 'strong fingers',
  stretch: 'no stretch',
  wide: 'a relaxed hand',
  cramped: 'fingers less crowded',
  'black-thumb': 'thumb on white keys',
  'black-fifth': 'little finger on white keys',
  'four-on-black': 'fits the black keys better',
  'same-finger': 'connects every note',
  'change-on-repeat': 'one finger for one key',
  'quick-repeat': 'fingers change on the repeated key',
  'chord-shape': 'usual chord shape',
  cross: 'no crossing',
  convention: 'standard fingering',
  'same-figure': 'same fingers as elsewhere',
  touch: 'fingers you like',
  'let-go': 'holds the long note',
};

const WORSE: Readonly<Partial<Record<Rule, string>>> = {
  move: 'one more move',
  'far-move': 'a longer move',
  pass: 'a thumb under',
  weak: 'weaker fingers',
  'three-four': 'third and fourth in a row',
  'three-four-five': 'weak fingers in a row',
  stretch: 'a stretch',
  wide: 'a wider hand',
  cramped: 'fingers more crowded',
  'black-thumb': 'thumb on a black key',
  'black-fifth': 'little finger on a black key',
  'four-on-black': 'fourth finger up to a black key',
  'same-finger': 'one finger jumps',
  'change-on-repeat': 'changes on a repeated key',
  'quick-repeat': 'one finger repeats quickly',
  'chord-shape': 'an unusual chord shape',
  cross: 'a finger crossing',
  convention: 'less standard',
  'same-figure': 'different fingers elsewhere',
  touch: 'fingers you like less',
  'let-go': 'lets a held note go',
};

const WORTH_A_WORD = 0.25;

/** `difference` is what it costs more, rule by rule. */
function tradeText(difference: Costs): string {
  // That a figure is fingered otherwise elsewhere is said where nothing else tells two ways apart.
  const by = RULES.map((rule, i) => ({ rule, by: difference[i]! })).filter(
    (d, _, all) => d.rule !== 'same-figure' || all.every((o) => o === d || Math.abs(o.by) <= WORTH_A_WORD),
  );
  const better = by.filter((d) => d.by < -WORTH_A_WORD).sort((a, b) => a.by - b.by)[0];
  const worse = by.filter((d) => d.by > WORTH_A_WORD).sort((a, b) => b.by - a.by)[0];
  const [gain, cost] = [better && BETTER[better.rule], worse && WORSE[worse.rule]];
  return gain && cost ? `${gain}, but ${cost}` : (gain ?? cost ?? 'just as easy');
}

/**
 * Which hand plays which note. Staves are a strong hint and not the law: what a hand cannot reach, what both would strike
 * and what lies nearer to the other hand goes to the hand that can. The cheapest way over the whole piece, stroke by stroke:
 * a stroke is split between its notes, the lower ones to the left hand, or stays as its staves have it where the music
 * crosses.
 */
import { intervalOf } from '../theory/intervalWord';
import type { Hand } from '../fingering/events';
import { beatLength } from '../score/metre';
import { pitchName } from '../theory/pitch';
import { byOnset, measureAt, type SoundingNote } from '../score/query';
import type { Measure } from '../score/score';
import type { Ticks } from '../score/ticks';

export interface HandReach {
  /** Semitones that each hand holds. */
  readonly right: number;
  readonly left: number;
}

export interface HandProposal {
  readonly measure: number;
  readonly onset: Ticks;
  readonly hand: Hand;
  readonly kind: 'takes' | 'lets go' | 'leaves';
  readonly notes: readonly string[];
  readonly text: string;
}

interface AssignedHands {
  readonly hands: ReadonlyMap<string, Hand>;
  readonly proposals: readonly HandProposal[];
}

/** A note under a hand, and until when. */
interface Held {
  readonly note: SoundingNote;
  readonly hand: Hand;
}

/** The best way up to a stroke that ends in one split of it. */
interface Way {
  readonly cost: number;
  /** Notes of this stroke, in order from the lowest, by hand. */
  readonly hands: readonly Hand[];
  readonly held: readonly Held[];
  /** Where each hand was last, as a MIDI number, and when. */
  readonly at: Readonly<Record<Hand, { readonly midi: number; readonly until: Ticks } | undefined>>;
  readonly before: Way | undefined;
}

const OTHER_STAFF = 3;
const OTHER_VOICE = 0.8;
/** More keys than fingers, and wider than the hand: hard limits, cheaper only than each other. */
const TOO_MANY = 60;
const TOO_WIDE = 25;
/** A held note that has to be let go. */
const LET_GO = 5;
/** Both hands on one key, or one hand above the other. */
const SAME_KEY = 6;
const CROSSED = 2;
const LEAP = 12;
/** Keys below middle C are the left hand's where no staff says otherwise. */
const MIDDLE = 60;

/** Assigns every note of a part. `hasStaves` is false for a part on one staff, where the register is the hint. */
export function assignHands(
  notes: readonly SoundingNote[],
  measures: readonly Measure[],
  reach: HandReach,
  hasStaves: boolean,
): AssignedHands {
  const strokes = byOnset(notes).map(({ onset, notes: struck }) => ({
    onset,
    notes: [...struck].sort((a, b) => a.midi - b.midi || b.staff - a.staff),
  }));
  const hintOf = (note: SoundingNote): Hand =>
    hasStaves ? (note.staff === 1 ? 'right' : 'left') : note.midi >= MIDDLE ? 'right' : 'left';
  const context = { reach, hintOf, weight: hasStaves ? OTHER_STAFF : 0.6 };
  let remedies: Way[] = [
    { cost: 0, hands: [], held: [], at: { right: undefined, left: undefined }, before: undefined },
  ];
  let sounding: SoundingNote[] = [];
  for (const { onset, notes: struck } of strokes) {
    const beat = beatLength(measureAt(measures, onset).time);
    sounding = sounding.filter((n) => n.onset + n.duration > onset);
    const splits = liesWell(struck, sounding, reach, hintOf)
      ? [struck.map(hintOf)]
      : splitsOf(struck, hintOf);
    sounding.push(...struck);
    remedies = splits.map((hands) =>
      remedies
        .map((way) => extend(way, onset, struck, hands, beat, context))
        .reduce((a, b) => (b.cost < a.cost ? b : a)),
    );
  }
  const chain: Way[] = [];
  let last: Way | undefined = remedies.reduce((a, b) => (b.cost < a.cost ? b : a));
  while (last?.before) {
    chain.push(last);
    last = last.before;
  }
  chain.reverse();
  const hands = new Map<string, Hand>();
  chain.forEach((way, i) => strokes[i]!.notes.forEach((note, k) => hands.set(note.id, way.hands[k]!)));
  return { hands, proposals: proposalsFor(strokes, hands, measures, reach, hintOf) };
}

/** Whether a stroke, with all that sounds on, can be played just as the hints have it: then there is nothing to weigh. */
function liesWell(
  struck: readonly SoundingNote[],
  sounding: readonly SoundingNote[],
  reach: HandReach,
  hintOf: (note: SoundingNote) => Hand,
): boolean {
  const low = { right: Infinity, left: Infinity };
  const high = { right: -Infinity, left: -Infinity };
  const count = { right: 0, left: 0 };
  for (const notes of [struck, sounding])
    for (const note of notes) {
      const hand = hintOf(note);
      low[hand] = Math.min(low[hand], note.midi);
      high[hand] = Math.max(high[hand], note.midi);
      count[hand] += 1;
    }
  return (
    high.right - low.right <= reach.right &&
    high.left - low.left <= reach.left &&
    count.right <= 5 &&
    count.left <= 5 &&
    high.left < low.right
  );
}

/** As the hints have it, and every split into lower and upper notes. */
function splitsOf(struck: readonly SoundingNote[], hintOf: (note: SoundingNote) => Hand): Hand[][] {
  const asHinted = struck.map(hintOf);
  const splits = [asHinted];
  for (let lower = 0; lower <= struck.length; lower++) {
    const split = struck.map((_, i): Hand => (i < lower ? 'left' : 'right'));
    if (split.some((hand, i) => hand !== asHinted[i])) splits.push(split);
  }
  return splits;
}

interface Context {
  readonly reach: HandReach;
  readonly hintOf: (note: SoundingNote) => Hand;
  readonly weight: number;
}

function extend(
  way: Way,
  onset: Ticks,
  struck: readonly SoundingNote[],
  hands: readonly Hand[],
  beat: Ticks,
  { reach, hintOf, weight }: Context,
): Way {
  const stillOn = way.held.filter((h) => h.note.onset + h.note.duration > onset);
  let cost = way.cost;
  const held: Held[] = [];
  const at = { ...way.at };
  for (const hand of ['right', 'left'] as const) {
    const own = struck.filter((_, i) => hands[i] === hand);
    const holding = stillOn.filter((h) => h.hand === hand);
    if (own.length === 0) {
      held.push(...holding);
      continue;
    }
    const [low, high] = [own[0]!.midi, own.at(-1)!.midi];
    if (own.length > 5) cost += TOO_MANY * (own.length - 5);
    if (high - low > reach[hand]) cost += TOO_WIDE + 2 * (high - low - reach[hand]);
    for (const h of holding) {
      const fits = Math.max(high, h.note.midi) - Math.min(low, h.note.midi) <= reach[hand];
      if (fits && own.length + holding.length <= 5) held.push(h);
      else cost += LET_GO;
    }
    const last = at[hand];
    if (last) {
      const distance = Math.abs((low + high) / 2 - last.midi);
      const hurry = onset - last.until >= beat ? 0.3 : 1;
      cost += hurry * (0.03 * distance + 0.25 * Math.max(0, distance - LEAP));
    }
    for (const note of own) {
      held.push({ note, hand });
      if (hintOf(note) !== hand) cost += weight;
    }
    at[hand] = {
      midi: (low + high) / 2,
      until: Math.max(...own.map((n) => n.onset + n.duration)),
    };
  }
  struck.forEach((note, i) => {
    const hand = hands[i]!;
    for (const h of stillOn) {
      if (h.hand === hand) continue;
      if (h.note.midi === note.midi) cost += SAME_KEY;
      const crossed = hand === 'left' ? note.midi > h.note.midi : note.midi < h.note.midi;
      // Crossings are the music's where its staves have them.
      if (crossed && !(hintOf(note) === hand && hintOf(h.note) === h.hand)) cost += CROSSED;
    }
    for (let k = 0; k < i; k++) if (hands[k] !== hand && struck[k]!.midi === note.midi) cost += SAME_KEY;
    const before = way.held.find((h) => h.note.voice === note.voice && h.note.staff === note.staff);
    if (before && before.hand !== hand) cost += OTHER_VOICE;
  });
  return { cost, hands, held, at, before: way };
}

const names = (notes: readonly SoundingNote[]): string => notes.map((n) => pitchName(n.pitch)).join(' ');

/** Why a hand takes notes that stand in the staff of the other, by what speaks against that one. */
function whyTaken(
  taken: readonly SoundingNote[],
  hand: Hand,
  {
    notes,
    sounding,
    all,
    hands,
    reach,
    hintOf,
  }: {
    readonly notes: readonly SoundingNote[];
    readonly sounding: readonly SoundingNote[];
    readonly all: readonly SoundingNote[];
    readonly hands: ReadonlyMap<string, Hand>;
    readonly reach: HandReach;
    readonly hintOf: (note: SoundingNote) => Hand;
  },
): string {
  const other: Hand = hand === 'right' ? 'left' : 'right';
  const theirs = notes.filter((n) => hintOf(n) === other);
  const width = theirs.at(-1)!.midi - theirs[0]!.midi;
  if (width > reach[other])
    return `the ${other} hand would have to reach ${intervalOf(width)} (reach: ${intervalOf(reach[other])})`;
  if (theirs.length > 5) return `the ${other} hand has no finger left`;
  const isOn = (n: SoundingNote): boolean =>
    taken.some((t) => t.midi === n.midi && n.onset < t.onset + t.duration && t.onset < n.onset + n.duration);
  if (sounding.some((s) => hands.get(s.id) === hand && isOn(s))) return 'it is already on that key';
  if (all.some((n) => n.onset > taken[0]!.onset && hands.get(n.id) === hand && isOn(n)))
    return 'it plays that key again while it is held';
  const isFar = (s: SoundingNote): boolean => taken.some((t) => Math.abs(s.midi - t.midi) > reach[other]);
  if (sounding.some((s) => hands.get(s.id) === other && isFar(s)))
    return `the ${other} hand still holds a note too far away`;
  return `it is closer, and the ${other} hand moves less`;
}

/** What is otherwise than the staves have it, and where a hand has to let go, each with its reason. */
function proposalsFor(
  strokes: readonly { readonly onset: Ticks; readonly notes: readonly SoundingNote[] }[],
  hands: ReadonlyMap<string, Hand>,
  measures: readonly Measure[],
  reach: HandReach,
  hintOf: (note: SoundingNote) => Hand,
): HandProposal[] {
  const proposals: HandProposal[] = [];
  let sounding: SoundingNote[] = [];
  const all = strokes.flatMap((s) => s.notes);
  for (const { onset, notes } of strokes) {
    const measure = measureAt(measures, onset);
    const where = (onset - measure.start) * 2 >= measure.length ? ' towards the end of the measure' : '';
    sounding = sounding.filter((n) => n.onset + n.duration > onset);
    for (const hand of ['right', 'left'] as const) {
      const own = notes.filter((n) => hands.get(n.id) === hand);
      const other: Hand = hand === 'right' ? 'left' : 'right';
      const taken = own.filter((n) => hintOf(n) === other);
      if (taken.length > 0) {
        const because = whyTaken(taken, hand, { notes, sounding, all, hands, reach, hintOf });
        proposals.push({
          measure: measure.index,
          onset,
          hand,
          kind: 'takes',
          notes: taken.map((n) => n.id),
          text: `the ${hand} hand takes ${names(taken)}${where}: ${because}`,
        });
      }
      if (own.length === 0) continue;
      const [low, high] = [own[0]!.midi, own.at(-1)!.midi];
      const lost = sounding.filter(
        (s) => hands.get(s.id) === hand && Math.max(high, s.midi) - Math.min(low, s.midi) > reach[hand],
      );
      if (lost.length > 0)
        proposals.push({
          measure: measure.index,
          onset,
          hand,
          kind: 'lets go',
          notes: lost.map((n) => n.id),
          text: `the ${hand} hand lets go of ${names(lost)} early, to reach ${names(own)}`,
        });
      const shared = sounding.filter((s) => hands.get(s.id) !== hand && own.some((n) => n.midi === s.midi));
      if (shared.length > 0)
        proposals.push({
          measure: measure.index,
          onset,
          hand: other,
          kind: 'lets go',
          notes: shared.map((n) => n.id),
          text: `the ${other} hand lets go of ${names(shared)} early, because the ${hand} hand plays the same key`,
        });
    }
    const doubled = notes.filter((n, i) =>
      notes.some((m, k) => k < i && m.midi === n.midi && hands.get(m.id) !== hands.get(n.id)),
    );
    if (doubled.length > 0)
      proposals.push({
        measure: measure.index,
        onset,
        hand: hands.get(doubled[0]!.id)!,
        kind: 'leaves',
        notes: doubled.map((n) => n.id),
        text: `both hands have ${names(doubled)}: one plays it, the other leaves it out`,
      });
    sounding.push(...notes);
  }
  return proposals;
}

/**
 * Why this finger: the phrase is solved again with another finger on the note, and the rule that gets dearer by it, and the
 * note at which it does, give the sentence. So the reason is what decided, not a phrase that always fits.
 */
import { countWord } from '../plural';
import { pitchClassName, pitchName } from '../theory/pitch';
import type { SoundingNote } from '../score/query';
import { RULES, type Costs, type Rule } from './cost';
import { idsOf } from './private/event';
import { FINGERS, type Finger, type Grip } from './grips';
import { bestPath, costsByEvent, costsOf, total, type Fingering, type Passage } from './solve';

export interface FingerReason {
  readonly finger: Finger;
  /** The best other finger, and by how much the phrase gets dearer with it. */
  readonly other: Finger;
  readonly dearer: number;
  readonly text: string;
}

/** How far a note lies from the one that is asked about, in words: "after the barline", "two notes later". */
export type PlaceText = (from: SoundingNote, to: SoundingNote, steps: number) => string;

const FINGER_NAMES: Readonly<Record<Finger, string>> = {
  1: 'the thumb',
  2: 'the second finger',
  3: 'the third finger',
  4: 'the fourth finger',
  5: 'the little finger',
};

/** What is gained at a note by the chosen finger, by the rule that another finger would break there. */
interface Gain {
  readonly rule: Rule;
  /** The note where the other finger would cost more: the same note, or one before or after it. */
  readonly here: boolean;
  readonly note: string;
  readonly place: string;
  /** The finger that note has as chosen. */
  readonly finger: Finger;
  /** The finger it would have. */
  readonly instead: Finger;
  readonly other: Finger;
  readonly isBlack: boolean;
  readonly convention: string | undefined;
}

const at = ({ here, note, place }: Gain): string =>
  here ? 'here' : `for the ${note}${place ? ` ${place}` : ''}`;

/** Purposes, each true only where its rule decided. */
const SAYS: Readonly<Record<Rule, (gain: Gain) => string>> = {
  stretch: (g) => (g.here ? 'to avoid a stretch' : `to keep the ${g.note} ${g.place} within reach`),
  cramped: (g) => (g.here ? 'to avoid crowded fingers' : `to give the fingers room ${at(g)}`),
  wide: (g) => (g.here ? 'to keep the hand relaxed' : `to avoid opening wide ${at(g)}`),
  move: (g) => (g.here ? 'to keep the hand in place' : `to avoid a shift ${at(g)}`),
  'far-move': (g) => `to keep the shift small${g.here ? '' : ` ${at(g)}`}`,
  weak: (g) =>
    g.here
      ? `because ${FINGER_NAMES[g.other]} is weaker`
      : `to leave the ${g.note} ${g.place} to a stronger finger than ${g.instead}`,
  'three-four': (g) => `to avoid 3 and 4 in a row${g.here ? '' : ` ${at(g)}`}`,
  'three-four-five': () => 'to avoid weak fingers in a row',
  'black-thumb': (g) => `to keep the thumb off the black key${g.here ? '' : `, the ${g.note} ${g.place}`}`,
  'black-fifth': (g) =>
    `to keep the little finger off the black key${g.here ? '' : `, the ${g.note} ${g.place}`}`,
  'four-on-black': (g) => `to avoid 4 on a black key after 3${g.here ? '' : ` ${at(g)}`}`,
  pass: (g) => (g.here ? 'to avoid a thumb under' : `to avoid a thumb under ${at(g)}`),
  cross: (g) => `to avoid a finger crossing${g.here ? '' : ` ${at(g)}`}`,
  'same-finger': (g) =>
    g.here
      ? `because ${g.other} would have to jump from key to key`
      : `to free ${FINGER_NAMES[g.finger]} ${at(g)}`,
  'change-on-repeat': (g) =>
    g.here ? 'because the key repeats' : `to keep one finger on the repeated ${g.note}`,
  'quick-repeat': () => 'because a key that repeats this fast needs a new finger each time',
  'chord-shape': (g) => `because this is the usual shape of the chord${g.here ? '' : ` ${at(g)}`}`,
  'let-go': () => 'to keep holding the long note',
  convention: (g) => `the standard fingering of ${g.convention ?? 'the run'}`,
  'same-figure': () => 'to match the same figure elsewhere',
  touch: (g) => `as you like to finger ${g.isBlack ? 'black' : 'white'} keys`,
};

const HARDLY = 0.3;

/** Explains the finger of one note of a line by what the next best finger would cost, and where. */
export const explainFinger = (
  notes: readonly SoundingNote[],
  solved: Fingering,
  noteId: string,
  placeText: PlaceText = plainPlace,
): FingerReason | undefined => fingerExplainer(notes, solved, placeText)(noteId);

/** The same for many notes of one line: what all of them need is made once. */
export function fingerExplainer(
  notes: readonly SoundingNote[],
  solved: Fingering,
  placeText: PlaceText = plainPlace,
): (noteId: string) => FingerReason | undefined {
  const byId = new Map(notes.map((n) => [n.id, n]));
  const places = new Map<string, { phrase: Passage; at: number; keyId: string }>();
  for (const phrase of solved.phrases)
    phrase.events.forEach((event, at) => {
      for (const key of event.keys)
        if (key.struck) for (const id of idsOf(key)) places.set(id, { phrase, at, keyId: key.id });
    });
  return (noteId) => {
    const [note, place, finger] = [byId.get(noteId), places.get(noteId), solved.fingers.get(noteId)];
    if (!note || !place || !finger) return undefined;
    const { phrase, at, keyId } = place;
    const others = FINGERS.filter((f) => f !== finger).flatMap((other) => {
      const found = withFinger(phrase, at, keyId, other);
      return found ? [{ other, found }] : [];
    });
    const name = pitchName(note.pitch);
    const next = others.sort((x, y) => x.found.dearer - y.found.dearer)[0];
    if (!next)
      return {
        finger,
        other: finger,
        dearer: Infinity,
        text: `${finger} on ${name}: no other finger works.`,
      };
    const { dearer } = next.found;
    const gain = greatestGain(phrase, next.found, at, keyId, next.other, (id, steps) => {
      const other = byId.get(id);
      return other ? [pitchClassName(other.pitch), placeText(note, other, steps)] : ['', ''];
    });
    const text = !gain
      ? `${finger} on ${name}; ${next.other} works just as well.`
      : dearer < HARDLY
        ? `${finger} on ${name}, ${SAYS[gain.rule](gain)}; ${next.other} is nearly as good.`
        : `${finger} on ${name}, ${SAYS[gain.rule](gain)}.`;
    return {
      finger,
      other: next.other,
      dearer,
      text: text.replace(/\s+([.;,])/g, '$1').replace(/\s+/g, ' '),
    };
  };
}

/** Where a note lies from another by counting notes. */
export const plainPlace: PlaceText = (_from, _to, steps) =>
  steps === 1
    ? 'that follows'
    : steps === -1
      ? 'before it'
      : `${countWord(Math.abs(steps))} notes ${steps > 0 ? 'later' : 'before'}`;

/** How far a changed finger is followed: what lies further off keeps its fingers. */
const NEAR = 20;

/** A phrase fingered with another finger on one note: the grips that may differ, and what they cost more, by rule. */
export interface OtherPath {
  /** Index of the first event that may differ; from there on its grips. */
  readonly first: number;
  readonly near: Passage['path'];
  readonly dearer: number;
  readonly by: Costs;
}

/**
 * The best path of a phrase in which a key struck at event `at`, by its id there, has another finger, changed only so far around it;
 * undefined where none is possible in order.
 */
export function withFinger(
  { events, grips, model, path }: Passage,
  at: number,
  keyId: string,
  finger: Finger,
): OtherPath | undefined {
  // A key that is held on keeps its finger: everything up to its end is near.
  let last = at;
  while (last + 1 < events.length && events[last + 1]!.keys.some((k) => k.id === keyId)) last += 1;
  const first = Math.max(0, at - NEAR);
  last = Math.min(events.length - 1, last + NEAR);
  const narrowed: (readonly Grip[])[] = [];
  for (let i = first; i <= last; i++) {
    const place = events[i]!.keys.findIndex((k) => k.id === keyId);
    const isEdge = (first > 0 && i < first + 2) || (last < events.length - 1 && i > last - 2);
    narrowed.push(isEdge ? [path[i]!] : place < 0 ? grips[i]! : grips[i]!.filter((g) => g[place] === finger));
  }
  if (narrowed.some((g) => g.length === 0)) return undefined;
  const [own, around] = [path.slice(first, last + 1), events.slice(first, last + 1)];
  const near = bestPath(around, narrowed, model);
  // What lies outside, and the two events inside each edge, cost the same either way.
  const before = costsOf(around, own, model);
  const by = costsOf(around, near, model).map((cost, i) => cost - before[i]!);
  return { first, near, dearer: total(by), by };
}

/** Whether a finger on a key is what a rule speaks of. */
function breaks(rule: Rule, isBlack: boolean, finger: Finger): boolean {
  if (rule === 'black-thumb') return isBlack && finger === 1;
  if (rule === 'black-fifth') return isBlack && finger === 5;
  return rule === 'weak' && finger >= 4;
}

/** The rule, and the event, in which the other path is dearer by most. */
function greatestGain(
  phrase: Passage,
  { first, near, by }: OtherPath,
  asked: number,
  keyId: string,
  other: Finger,
  describe: (id: string, steps: number) => [note: string, place: string],
): Gain | undefined {
  const { model } = phrase;
  const events = phrase.events.slice(first, first + near.length);
  const path = phrase.path.slice(first, first + near.length);
  const [mine, theirs] = [costsByEvent(events, path, model), costsByEvent(events, near, model)];
  let best: { rule: Rule; event: number; by: number } | undefined;
  // A rule's cost can move from one note to the next: what counts is where, net of what it saves nearby.
  RULES.forEach((rule, r) => {
    if (by[r]! < 0.05) return;
    let event = asked - first;
    let most = -Infinity;
    mine.forEach((costs, i) => {
      const here = theirs[i]![r]! - costs[r]! - 0.001 * Math.abs(i + first - asked);
      if (here > most) [most, event] = [here, i];
    });
    // What the figure elsewhere says is only the reason where nothing in the hand itself is.
    const weight = rule === 'same-figure' ? by[r]! / 1000 : by[r]!;
    if (!best || weight > best.by) best = { rule, event, by: weight };
  });
  if (!best) return undefined;
  const { rule, event } = best;
  const { keys } = events[event]!;
  const key =
    keys.find((k) => k.struck && k.id === keyId) ??
    keys.find((k, i) => k.struck && breaks(rule, k.isBlack, near[event]![i]!)) ??
    keys.find((k) => k.struck)!;
  const place = keys.indexOf(key);
  const [note, placed] = describe(key.id, event + first - asked);
  return {
    rule,
    here: event + first === asked,
    note,
    place: placed,
    finger: path[event]![place]!,
    instead: near[event]![place]!,
    other,
    isBlack: key.isBlack,
    convention: model.conventions?.get(key.id)?.of,
  };
}

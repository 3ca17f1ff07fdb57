/** What one hand has to do, onset by onset, from the notes that it plays. */
import { isBlackKey } from '../theory/pitch';
import { byOnset, type SoundingNote } from '../score/query';
import { TICKS_PER_QUARTER, type Ticks } from '../score/ticks';
import { idsOf, type Event, type Hand, type HeldKey } from './private/event';
import { liftsIn } from './private/figureShapes';
import { scaleLifts } from './private/scaleRuns';

export { idsOf, type Event, type Hand, type HeldKey } from './private/event';

export interface HandLine {
  readonly hand: Hand;
  /** Semitones that the hand holds. */
  readonly reach: number;
  /** Ticks at which a new phrase begins. */
  readonly resets: ReadonlySet<Ticks>;
  /** Ticks at which a measure or a group of its beats begins, where they are known. */
  readonly groups?: ReadonlySet<Ticks>;
  /** Length of a beat, for judging rests. */
  readonly beat: Ticks;
  /** Quarter notes per minute; without it a hundred. */
  readonly tempo?: number;
  /** Fingers that are decided, by note id: a repetition with one of its own begins anew there. */
  readonly locks?: ReadonlyMap<string, number>;
}

const USUAL_TEMPO = 100;
/** Seconds between strokes of one key below which fingers change on it. */
const QUICK_REPEAT = 0.19;
/** Seconds between strokes below which a hand has no time to carry one finger far: eighths at 86. */
const QUICK = 0.35;
/** Notes may overlap by as much without being held: what a grace note takes from the note before. */
const OVERLAP = TICKS_PER_QUARTER / 32;
const MOST_KEYS = 5;

/** The notes of one hand that are struck together. */
interface Stroke {
  readonly onset: Ticks;
  readonly notes: readonly SoundingNote[];
}

/** The events of a hand, in order. */
export function eventsOf(notes: readonly SoundingNote[], line: HandLine): readonly Event[] {
  const strokes = byOnset(notes);
  const quick = quickRepeats(strokes, line);
  const events: Event[] = [];
  let sounding: readonly SoundingNote[] = [];
  let slurs = 0;
  for (let i = 0; i < strokes.length; i++) {
    const { onset, notes: struck } = strokes[i]!;
    const silentFrom = latestEnd(sounding);
    const stillOn = sounding.filter(
      (n) => n.onset + n.duration > onset + OVERLAP && struck.every((s) => s.midi !== n.midi),
    );
    const { held, letGo } = stillOn.length > 0 ? holdable(stillOn, struck, line.reach) : NOTHING_HELD;
    const keys = [...held.map((n) => toKey(n, line.hand, false)), ...struckKeys(struck, line.hand)];
    if (keys.length > 1) keys.sort(outwards);
    events.push({
      onset,
      last: onset,
      keys,
      legato: i === 0 ? 0 : bondOf(strokes[i - 1]!, strokes[i]!, onset - silentFrom, line),
      lifts: false,
      opensGroup: line.groups?.has(onset) ?? false,
      slurred: slurs > 0,
      quickRepeat: quick.has(onset),
      quick: i > 0 && onset - strokes[i - 1]!.onset < ticksIn(QUICK, line),
      letGo: letGo.map((n) => n.id),
    });
    slurs += slurChange(struck);
    sounding = held.length > 0 ? [...held, ...struck] : struck;
  }
  return withRepeatsJoined(withLifts(events, line.hand), line);
}

/** Marks where the hand leaves what it has played: at the beginning of a figure or a scale, and between a low note and its chord. */
function withLifts(events: readonly Event[], hand: Hand): readonly Event[] {
  const [lifted, scales] = [liftsIn(events, hand), new Set(scaleLifts(events))];
  if (lifted.size === 0 && scales.size === 0) return events;
  // For the fingers of a scale the hand goes any way.
  return events.map((e) =>
    scales.has(e) ? { ...e, lifts: true, quick: false } : lifted.has(e) ? { ...e, lifts: true } : e,
  );
}

/** Repetitions of a key or a chord as one event each. */
function withRepeatsJoined(events: readonly Event[], line: HandLine): Event[] {
  const joined: Event[] = [];
  for (const event of events) {
    const before = joined.at(-1);
    if (before && repeats(before, event, line))
      // Under the id of the last stroke, which is the one that may be held on.
      joined[joined.length - 1] = {
        ...before,
        last: event.onset,
        keys: event.keys.map((key, i): HeldKey => {
          const own = before.keys[i]!;
          const twins = [...(own.twins ?? []), { id: own.id, onset: before.last }, ...(key.twins ?? [])];
          return { ...key, twins };
        }),
      };
    else joined.push(event);
  }
  return joined;
}

/** Whether an event strikes what the one before it struck, with nothing that would let the hand change. */
function repeats(before: Event, event: Event, { resets, locks }: HandLine): boolean {
  const lockOf = (key: HeldKey): number | undefined =>
    idsOf(key)
      .map((id) => locks?.get(id))
      .find((f) => f !== undefined);
  return (
    event.legato > 0 &&
    !event.lifts &&
    !event.quickRepeat &&
    !resets.has(event.onset) &&
    event.keys.length === before.keys.length &&
    event.keys.every((key, i) => {
      const own = before.keys[i]!;
      return key.midi === own.midi && key.struck && own.struck;
    }) &&
    event.keys.every((key, i) => {
      const lock = locks?.size ? lockOf(key) : undefined;
      return !lock || lock === lockOf(before.keys[i]!);
    })
  );
}

const NOTHING_HELD = { held: [], letGo: [] } as const;
const outwards = (a: HeldKey, b: HeldKey): number => a.out - b.out;

function latestEnd(notes: readonly SoundingNote[]): Ticks {
  let end = -Infinity;
  for (const n of notes) end = Math.max(end, n.onset + n.duration);
  return end;
}

const ticksIn = (seconds: number, { tempo }: HandLine): Ticks =>
  (seconds * (tempo || USUAL_TEMPO) * TICKS_PER_QUARTER) / 60;

/** Onsets at which one key is struck again as part of a quick repetition of three strokes or more. */
function quickRepeats(strokes: readonly Stroke[], line: HandLine): Set<Ticks> {
  const gap = ticksIn(QUICK_REPEAT, line);
  const quick = new Set<Ticks>();
  let run = 1;
  for (let i = 1; i <= strokes.length; i++) {
    const [a, b] = [strokes[i - 1]!, strokes[i]];
    const goesOn =
      b?.notes.length === 1 &&
      a.notes.length === 1 &&
      a.notes[0]!.midi === b.notes[0]!.midi &&
      b.onset - a.onset < gap;
    if (goesOn) run += 1;
    else {
      if (run > 2) for (let k = i - run + 1; k < i; k++) quick.add(strokes[k]!.onset);
      run = 1;
    }
  }
  return quick;
}

/** What can be held on while other keys are struck: five keys in all, within reach. The furthest is let go first. */
function holdable(
  held: readonly SoundingNote[],
  struck: readonly SoundingNote[],
  reach: number,
): { held: readonly SoundingNote[]; letGo: readonly SoundingNote[] } {
  const kept = [...held].sort((a, b) => b.onset - a.onset);
  const letGo: SoundingNote[] = kept.splice(Math.max(0, MOST_KEYS - struck.length));
  const low = Math.min(...struck.map((n) => n.midi));
  const high = Math.max(...struck.map((n) => n.midi));
  const reachTo = (n: SoundingNote): number => Math.max(high, n.midi) - Math.min(low, n.midi);
  while (kept.length > 0) {
    const all = [...kept.map((n) => n.midi), low, high];
    if (Math.max(...all) - Math.min(...all) <= reach) break;
    const furthest = kept.reduce((a, b) => (reachTo(b) > reachTo(a) ? b : a));
    kept.splice(kept.indexOf(furthest), 1);
    letGo.push(furthest);
  }
  return { held: kept, letGo };
}

/** One key for each pitch that is struck. */
function struckKeys(struck: readonly SoundingNote[], hand: Hand): HeldKey[] {
  if (struck.length === 1) return [toKey(struck[0]!, hand, true)];
  const byMidi = new Map<number, SoundingNote[]>();
  for (const note of struck) {
    const same = byMidi.get(note.midi);
    if (same) same.push(note);
    else byMidi.set(note.midi, [note]);
  }
  return [...byMidi.values()].map(([first, ...others]) => ({
    ...toKey(first!, hand, true),
    ...(others.length > 0 ? { twins: others.map(({ id, onset }) => ({ id, onset })) } : {}),
  }));
}

const toKey = (note: SoundingNote, hand: Hand, struck: boolean): HeldKey => ({
  id: note.id,
  midi: note.midi,
  isBlack: isBlackKey(note.midi),
  out: hand === 'right' ? note.midi : -note.midi,
  struck,
});

const isStaccato = (notes: readonly SoundingNote[]): boolean =>
  notes.some((n) =>
    n.articulations.some((a) => a.startsWith('staccat') || a === 'breath-mark' || a === 'caesura'),
  );

const slurChange = (notes: readonly SoundingNote[]): number =>
  notes.some((n) => n.slurStop) ? -1 : notes.some((n) => n.slurStart) ? 1 : 0;

/** A leap is wider than a position. */
const LEAP = 7;

/** `rest` is the silence before the stroke, in ticks; negative where notes overlap. */
function bondOf(before: Stroke, here: Stroke, rest: Ticks, { beat, resets }: HandLine): number {
  if (rest >= beat) return 0;
  const staccato = isStaccato(before.notes);
  const newPhrase = resets.has(here.onset);
  const long = here.onset - before.onset >= 1.5 * beat;
  if (newPhrase && (rest > 0 || staccato || long || before.notes.some((n) => n.slurStop))) return 0;
  if (staccato && Math.abs(middle(here.notes) - middle(before.notes)) > LEAP) return 0;
  const phrase = newPhrase ? 0.6 : 1;
  if (rest > OVERLAP) return 0.5 * phrase;
  return (staccato ? 0.6 : 1) * phrase;
}

const middle = (notes: readonly SoundingNote[]): number =>
  notes.reduce((sum, n) => sum + n.midi, 0) / notes.length;

/**
 * A keyboard part as it is written, for a hand that cannot reach everything: each chord that is too wide is mended by the first
 * way that there is, in the order of the musical rules; a note that cannot be held on to is let go.
 */
import { intervalOf } from '../theory/intervalWord';
import type { Hand } from '../fingering/events';
import { assignHands } from '../hands/assign';
import { wideChords, type WideWay } from '../hands/wide';
import { beatLength } from '../score/metre';
import { notate } from '../score/notate';
import { pitchName, toMidi } from '../theory/pitch';
import { byOnset, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Part } from '../score/score';
import type { Ticks } from '../score/ticks';
import type { ArrangeReason, Loss } from './reason';

interface AsWrittenSettings {
  readonly measures: readonly Measure[];
  readonly reach: Readonly<Record<Hand, number>>;
  readonly keyboard: { readonly low: number; readonly high: number };
}

/** Most keys a hand holds. */
const FINGERS = 5;
const VISITING_VOICE = { right: 901, left: 905 } as const;

/** The notes of a part in two hands that can play them. */
export function asWritten(
  part: Part,
  settings: AsWrittenSettings,
): { notes: readonly Note[]; reasons: readonly ArrangeReason[] } {
  const first = mended(part, settings, true);
  if (first.reasons.length === 0 && part.staves >= 2) return first;
  // What one hand gave over can be too wide for the other: the second time nothing changes hands.
  const second = mended({ ...part, staves: 2, notes: first.notes }, settings, false);
  return { notes: second.notes, reasons: [...first.reasons, ...second.reasons] };
}

function mended(
  part: Part,
  { measures, reach, keyboard }: AsWrittenSettings,
  mayGive: boolean,
): { notes: Note[]; reasons: ArrangeReason[] } {
  const reasons: ArrangeReason[] = [];
  const say = (onset: Ticks, notes: readonly string[], reason: string, loss?: Loss): void =>
    void reasons.push({
      measure: measureAt(measures, onset).index,
      notes,
      reason,
      ...(loss ? { loss } : {}),
    });
  const placed = part.notes.map((n) =>
    onKeyboard(n, keyboard, (text) => say(n.onset, [n.id], text, 'off the keyboard')),
  );
  const sounding = soundingNotes(placed);
  if (sounding.length === 0) return { notes: placed, reasons };
  const { hands, proposals } = mayGive
    ? assignHands(sounding, measures, reach, part.staves >= 2)
    : { hands: new Map(sounding.map((n) => [n.id, staffHand(n.staff)] as const)), proposals: [] };
  for (const p of proposals) say(p.onset, p.notes, p.text);
  const handOf = new Map(hands);
  const changes = new Map<string, Change>();
  const wide = wideChords(sounding, (n) => handOf.get(n.id)!, { measures, reach, hasPedal: true });
  const rolled = new Set(placed.filter((n) => n.arpeggio).map((n) => n.id));
  for (const chord of wide) {
    // What is rolled already, by the source or the first time, may be wider than the hand.
    if (chord.notes.some((id) => rolled.has(id))) continue;
    const way = chord.remedies.find((w) => mayGive || w.kind === 're-voiced' || w.kind === 'thinned')!;
    apply(way, chord.notes, chord.hand, sounding, measures, handOf, changes);
    say(chord.onset, chord.notes, `${intervalOf(chord.span)} is wider than the hand: ${way.text}`);
  }
  for (const [note, at] of heldTooLong(sounding, handOf, changes, reach)) {
    changes.set(note.id, { ...changes.get(note.id), until: at });
    say(note.onset, [note.id], `${pitchName(note.pitch)} let go early: the hand cannot hold on to it`);
  }
  return { notes: written(placed, sounding, handOf, changes, measures), reasons };
}

const staffHand = (staff: number): Hand => (staff === 1 ? 'right' : 'left');

interface Change {
  readonly pitch?: Note['pitch'];
  readonly out?: boolean;
  readonly rolled?: boolean;
  /** Struck later than written. */
  readonly from?: Ticks;
  /** Let go earlier than written. */
  readonly until?: Ticks;
}

function onKeyboard(
  note: Note,
  { low, high }: AsWrittenSettings['keyboard'],
  say: (text: string) => void,
): Note {
  const midi = toMidi(note.pitch);
  const octaves =
    midi < low ? Math.ceil((low - midi) / 12) : midi > high ? -Math.ceil((midi - high) / 12) : 0;
  if (octaves === 0) return note;
  say(
    `${pitchName(note.pitch)} is not on the keyboard: ${octaves > 0 ? 'higher' : 'lower'} by ${Math.abs(octaves) === 1 ? 'an octave' : `${Math.abs(octaves)} octaves`}`,
  );
  return { ...note, pitch: { ...note.pitch, octave: note.pitch.octave + octaves } };
}

function apply(
  way: WideWay,
  notes: readonly string[],
  hand: Hand,
  sounding: readonly SoundingNote[],
  measures: readonly Measure[],
  hands: Map<string, Hand>,
  changes: Map<string, Change>,
): void {
  const set = (id: string, change: Change): void => void changes.set(id, { ...changes.get(id), ...change });
  if (way.kind === 're-voiced') for (const [id, pitch] of way.moved) set(id, { pitch });
  else if (way.kind === 'given over')
    for (const id of way.notes) hands.set(id, hand === 'right' ? 'left' : 'right');
  else if (way.kind === 'thinned') for (const id of way.left) set(id, { out: true });
  else if (way.kind === 'rolled') for (const id of notes) set(id, { rolled: true });
  else {
    const own = sounding.filter((n) => notes.includes(n.id)).sort((a, b) => a.midi - b.midi);
    const [low, ...others] = own as [SoundingNote, ...SoundingNote[]];
    const beat = beatLength(measureAt(measures, low.onset).time);
    const after = low.onset + Math.min(beat / 2, Math.min(...others.map((n) => n.duration)) / 2);
    set(low.id, { until: after });
    for (const n of others) set(n.id, { from: after });
  }
}

/** Notes that are still held when their hand strikes something that it cannot reach from there, and when. */
function heldTooLong(
  sounding: readonly SoundingNote[],
  hands: ReadonlyMap<string, Hand>,
  changes: ReadonlyMap<string, Change>,
  reach: Readonly<Record<Hand, number>>,
): [SoundingNote, Ticks][] {
  const result = new Map<SoundingNote, Ticks>();
  const pitchOf = (n: SoundingNote): number => {
    const moved = changes.get(n.id)?.pitch;
    return moved ? n.midi + 12 * (moved.octave - n.pitch.octave) : n.midi;
  };
  for (const hand of ['right', 'left'] as const) {
    let held: SoundingNote[] = [];
    const own = sounding.filter((n) => hands.get(n.id) === hand && !changes.get(n.id)?.out);
    for (const { onset, notes } of byOnset(own)) {
      held = held.filter((n) => (result.get(n) ?? n.onset + n.duration) > onset);
      const keys = notes.map(pitchOf);
      if (notes.some((n) => changes.get(n.id)?.rolled)) held = [];
      for (const n of [...held].sort((a, b) => a.onset - b.onset)) {
        const all = [...held.filter((h) => !result.has(h) || result.get(h)! > onset).map(pitchOf), ...keys];
        const low = Math.min(...keys, pitchOf(n));
        const high = Math.max(...keys, pitchOf(n));
        if (
          high - low > reach[hand] ||
          all.length > FINGERS ||
          Math.max(...all) - Math.min(...all) > reach[hand]
        )
          result.set(n, onset);
      }
      held = [...held.filter((n) => (result.get(n) ?? Infinity) > onset), ...notes];
    }
  }
  return [...result];
}

function written(
  notes: readonly Note[],
  sounding: readonly SoundingNote[],
  hands: ReadonlyMap<string, Hand>,
  changes: ReadonlyMap<string, Change>,
  measures: readonly Measure[],
): Note[] {
  const headOf = new Map(sounding.flatMap((s) => s.written.map((id) => [id, s] as const)));
  return notes.flatMap((note): Note[] => {
    const head = headOf.get(note.id);
    // Grace notes and cues go with their staff.
    if (!head) return [note];
    const hand = hands.get(head.id)!;
    const staff = hand === 'right' ? 1 : 2;
    const change = changes.get(head.id) ?? {};
    if (change.out) return [];
    const moved: Note = {
      ...note,
      ...(staff === (note.staff === 1 ? 1 : 2) ? { staff } : { staff, voice: VISITING_VOICE[hand] }),
      ...(change.pitch
        ? { pitch: { ...note.pitch, octave: note.pitch.octave + change.pitch.octave - head.pitch.octave } }
        : {}),
      ...(change.rolled && !note.arpeggio && note.id === head.id ? { arpeggio: 'up' as const } : {}),
    };
    if (change.from === undefined && change.until === undefined) return [moved];
    // Another length: written anew from the struck note, its tied pieces with it.
    if (note.id !== head.id) return [];
    const onset = change.from ?? head.onset;
    const end = Math.min(change.until ?? Infinity, head.onset + head.duration);
    const { tie: _tie, tuplet: _tuplet, brackets: _brackets, ...rest } = moved;
    return end > onset ? notate(measures, [{ ...rest, onset, duration: end - onset }]) : [];
  });
}

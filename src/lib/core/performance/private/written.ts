/**
 * What a written measure sounds like, before repeats are unfolded: struck notes with articulation, arpeggios broken, grace notes
 * before, on or after their note. Times are written ticks.
 */
import { toMidi } from '../../theory/pitch';
import { soundingNotes, type SoundingNote } from '../../score/query';
import type { Measure, Note, Part } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { articulated } from './articulation';
import { dynamicsOf } from '../dynamics';
import { ornamented } from './ornaments';
import type { PlayedNote } from '../played';

/** A note as it is struck, and where it is written. */
export interface Struck extends PlayedNote {
  /** Written place, by which its measure is known; `onset` may lie a little before or behind it. */
  readonly at: Ticks;
}

/** Between two notes of a rolled chord, unless the chord is short. */
const ROLL = TICKS_PER_QUARTER / 10;
/** What is brought out sounds louder by more than a dynamic step (dynamics.ts). */
const BROUGHT_OUT = 16;
/** A grace note that is as short as can be. */
const CRUSHED = TICKS_PER_QUARTER / 8;

/** Everything a part strikes, in order of time. `measures` say in which key the neighbours of an ornamented note stand. */
export function struckIn(part: Part, index: number, measures: readonly Measure[]): Struck[] {
  const loudness = dynamicsOf(part);
  const byId = new Map(part.notes.map((n) => [n.id, n]));
  const plain = soundingNotes(part.notes).map((note): Struck => {
    const { length, louder } = articulated(note.articulations);
    return {
      id: note.id,
      midi: note.midi,
      staff: note.staff,
      part: index,
      at: note.onset,
      onset: note.onset,
      duration: Math.max(1, Math.round(note.duration * length)),
      velocity: bounded(
        loudness(note.staff, note.onset) + louder + (byId.get(note.id)?.isBroughtOut ? BROUGHT_OUT : 0),
      ),
    };
  });
  const rolled = withRolls(plain, byId);
  const graces = part.notes.filter((n) => n.grace && !n.cue);
  const graced = graces.length === 0 ? rolled : withGraces(rolled, graces, part, index, loudness);
  const all = graced.flatMap((note) => {
    const written = byId.get(note.id);
    return written?.ornaments && !written.grace ? ornamented(note, written, measures) : [note];
  });
  return all.sort((a, b) => a.at - b.at || a.onset - b.onset || a.midi - b.midi);
}

const bounded = (velocity: number): number => Math.min(127, Math.max(1, velocity));

/** Rolled chords from the lowest key, or from the highest where they go down; all keys stay until the chord ends. */
function withRolls(notes: readonly Struck[], byId: ReadonlyMap<string, Note>): Struck[] {
  const wayOf = (note: Struck): Note['arpeggio'] => byId.get(note.id)?.arpeggio;
  const chords = new Map<Ticks, Struck[]>();
  for (const note of notes) {
    const way = wayOf(note);
    if (way && way !== 'bracket') chords.set(note.onset, [...(chords.get(note.onset) ?? []), note]);
  }
  if (chords.size === 0) return [...notes];
  const later = new Map<Struck, Ticks>();
  for (const chord of chords.values()) {
    const falls = chord.some((n) => wayOf(n) === 'down');
    const order = [...chord].sort((a, b) => (falls ? b.midi - a.midi : a.midi - b.midi));
    const shortest = Math.min(...chord.map((n) => n.duration));
    const step = Math.min(ROLL, Math.floor(shortest / (2 * chord.length)));
    order.forEach((note, i) => later.set(note, i * step));
  }
  return notes.map((note) => {
    const by = later.get(note) ?? 0;
    return by === 0 ? note : { ...note, onset: note.onset + by, duration: note.duration - by };
  });
}

/**
 * Grace notes. Struck through they come before the beat, and whoever sounds there goes on. Of others a single one takes half of its
 * main note (two thirds of a dotted one), several are quick notes on the beat; those after a note take its end. Where a source says how
 * long they are, they take that on the beat.
 */
function withGraces(
  notes: readonly Struck[],
  graces: readonly Note[],
  part: Part,
  index: number,
  loudness: (staff: number, tick: Ticks) => number,
): Struck[] {
  const sounding = new Map(soundingNotes(part.notes).map((n) => [n.id, n]));
  const changed = new Map<string, { onset: Ticks; duration: Ticks }>();
  const made: Struck[] = [];
  const places = new Map<Ticks, Struck[]>();
  for (const note of notes) places.set(note.at, [...(places.get(note.at) ?? []), note]);
  for (const group of groupsOf(graces)) {
    const first = group[0]!;
    const chord = mainOf(places.get(first.onset) ?? [], sounding, first);
    const main = chord[0];
    const count = Math.max(...group.map((n) => n.grace!.order)) + 1;
    const length = main ? sounding.get(main.id)!.duration : TICKS_PER_QUARTER;
    const place = room(group, main?.onset ?? first.onset, length, count);
    if (!place) continue;
    const { from, each } = place;
    if (from >= (main?.onset ?? first.onset))
      for (const note of chord)
        changed.set(
          note.id,
          first.grace!.after
            ? { onset: note.onset, duration: Math.min(note.duration, from - note.onset) }
            : { onset: note.onset + each * count, duration: Math.max(1, note.duration - each * count) },
        );
    for (const note of group)
      made.push({
        id: note.id,
        midi: toMidi(note.pitch),
        staff: note.staff,
        part: index,
        at: note.onset,
        onset: from + note.grace!.order * each,
        duration: Math.max(1, each),
        velocity: loudness(note.staff, note.onset),
      });
  }
  return [...notes.map((note) => ({ ...note, ...changed.get(note.id) })), ...made];
}

/** Grace notes that lead to one note. */
function groupsOf(graces: readonly Note[]): Note[][] {
  const groups = new Map<string, Note[]>();
  for (const note of graces) {
    const key = `${note.onset} ${note.staff} ${note.voice} ${note.grace!.after ? 'after' : ''}`;
    groups.set(key, [...(groups.get(key) ?? []), note]);
  }
  return [...groups.values()];
}

/** The note, or the chord, that a grace note leads to: in its voice, else on its staff. */
function mainOf(
  together: readonly Struck[],
  sounding: ReadonlyMap<string, SoundingNote>,
  grace: Note,
): readonly Struck[] {
  const here = together.filter((n) => n.staff === grace.staff);
  const own = here.filter((n) => sounding.get(n.id)?.voice === grace.voice);
  return own.length > 0 ? own : here;
}

/** Where a group of grace notes begins, and how long each is. Undefined where they would leave nothing of their note: how quick they are then is the player's. */
function room(
  group: readonly Note[],
  main: Ticks,
  length: Ticks,
  count: number,
): { readonly from: Ticks; readonly each: Ticks } | undefined {
  const { slash, short, after } = group[0]!.grace!;
  const said = Math.max(...group.map((n) => n.grace!.length ?? 0));
  if (said > 0 && !after) return said * count < length ? { from: main, each: said } : undefined;
  if (after) {
    const each = Math.min(CRUSHED, Math.floor(length / (2 * count)));
    return { from: main + length - each * count, each };
  }
  if (slash) return { from: main - CRUSHED * count, each: CRUSHED };
  if (short || count > 1)
    return { from: main, each: Math.min(CRUSHED, Math.floor((length * 2) / (3 * count))) };
  const isDotted = length % 3 === 0 && Number.isInteger(Math.log2(length / 3 / TICKS_PER_QUARTER));
  return { from: main, each: Math.floor((length * (isDotted ? 2 : 1)) / (isDotted ? 3 : 2)) };
}

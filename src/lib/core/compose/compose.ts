/** Writing a tune: what each stroke does to a sketch and to where one stands in it. Pure; the page keeps the states for undo. */
import { STEPS, toMidi, type Pitch, type Step } from '../theory/pitch';
import { spellMidi } from '../theory/fifths';
import { alterInKey, parseKey, spellInKey } from '../theory/key';
import { measureOf, onsetsOf, startOf, type Item, type Sketch } from './sketch';
import { isSung } from './toScore';

/** A sketch and where one stands: before the item `at`, with the length that the next note gets. */
export interface Desk {
  readonly sketch: Sketch;
  /** 0 before the first item, `items.length` behind the last. */
  readonly at: number;
  readonly value: Item['value'];
  readonly dots: Item['dots'];
  readonly triplet: boolean;
  /** The item at which what is chosen begins; null where nothing is. */
  readonly from: number | null;
}

export const deskOf = (sketch: Sketch): Desk => ({
  sketch,
  at: sketch.items.length,
  value: 4,
  dots: 0,
  triplet: false,
  from: null,
});

const withItems = (desk: Desk, items: readonly Item[], at: number): Desk => ({
  ...desk,
  sketch: { ...desk.sketch, items: [...items] },
  at,
  from: null,
});

/** MIDI number from which the first note is not far: B4. */
const MIDDLE = 71;

/** The item before the one at which one stands: what a stroke that changes something changes. */
const lastItem = ({ sketch, at }: Desk): Item | undefined => sketch.items[at - 1];

function put(desk: Desk, pitch: Pitch | null): Desk {
  const { sketch, at, value, dots, triplet } = desk;
  const item: Item = { pitch, value, dots, triplet, tie: false, words: [] };
  return withItems(desk, [...sketch.items.slice(0, at), item, ...sketch.items.slice(at)], at + 1);
}

/** Writes the note of a letter, as the key has it, in the octave nearest to the note before. */
export function writeLetter(desk: Desk, step: Step): Desk {
  const spelled = { step, alter: alterInKey(step, parseKey(desk.sketch.key)!) };
  const before = desk.sketch.items.slice(0, desk.at).findLast((i) => i.pitch)?.pitch;
  const near = before ? toMidi(before) : MIDDLE;
  const pitch = [3, 4, 5, 6, 7]
    .map((octave): Pitch => ({ ...spelled, octave }))
    .reduce((a, b) => (Math.abs(toMidi(b) - near) < Math.abs(toMidi(a) - near) ? b : a));
  return put(desk, pitch);
}

/** Writes the note of a key of the piano, spelled in the key of the piece. */
export const writeKey = (desk: Desk, midi: number): Desk =>
  put(desk, spellMidi(midi, spellInKey(((midi % 12) + 12) % 12, parseKey(desk.sketch.key)!)));

export const writeRest = (desk: Desk): Desk => put(desk, null);

/** Changes the item before. */
function change(desk: Desk, how: (item: Item) => Item): Desk {
  const item = lastItem(desk);
  if (!item) return desk;
  const items = desk.sketch.items.map((i, n) => (n === desk.at - 1 ? how(i) : i));
  return { ...desk, sketch: { ...desk.sketch, items } };
}

/** The note before, raised or lowered by semitones of its letter. */
export const alter = (desk: Desk, by: number): Desk =>
  change(desk, (item) =>
    item.pitch
      ? { ...item, pitch: { ...item.pitch, alter: Math.max(-2, Math.min(2, item.pitch.alter + by)) } }
      : item,
  );

/** The note before, moved by letters (1 a step, 7 an octave), as the key has them. */
export const moveNote = (desk: Desk, by: number): Desk =>
  change(desk, (item) => {
    if (!item.pitch) return item;
    const place = item.pitch.octave * 7 + STEPS.indexOf(item.pitch.step) + by;
    const step = STEPS[((place % 7) + 7) % 7]!;
    const octave = Math.floor(place / 7);
    if (octave < 1 || octave > 7) return item;
    if (by % 7 === 0) return { ...item, pitch: { ...item.pitch, octave } };
    return { ...item, pitch: { step, alter: alterInKey(step, parseKey(desk.sketch.key)!), octave } };
  });

/** The length of what comes next. */
export const setLength = (desk: Desk, length: Partial<Pick<Desk, 'value' | 'dots' | 'triplet'>>): Desk => ({
  ...desk,
  ...length,
});

export const toggleTie = (desk: Desk): Desk => change(desk, (item) => ({ ...item, tie: !item.tie }));

/** Takes away what is chosen, or the item before. */
export function remove(desk: Desk): Desk {
  const { items } = desk.sketch;
  const chosen = chosenItems(desk);
  const [from, to] = chosen ? [chosen.from, chosen.to] : [desk.at - 1, desk.at];
  if (from < 0) return desk;
  return withItems(desk, [...items.slice(0, from), ...items.slice(to)], from);
}

/** The items that are chosen: from the first to before the last. */
export function chosenItems({ at, from }: Desk): { readonly from: number; readonly to: number } | undefined {
  return from === null || from === at ? undefined : { from: Math.min(at, from), to: Math.max(at, from) };
}

/** Goes so many items on or back; chooses on the way where `choosing`. */
export function go(desk: Desk, by: number, choosing = false): Desk {
  const at = Math.max(0, Math.min(desk.sketch.items.length, desk.at + by));
  return { ...desk, at, from: choosing ? (desk.from ?? desk.at) : null };
}

/** Index of the measure in which one writes: that of the item before where one stands behind the last. */
export function measureAtDesk({ sketch, at }: Desk): number {
  const onsets = onsetsOf(sketch.items);
  const tick = onsets[at]!;
  return measureOf(sketch, at === sketch.items.length && at > 0 ? Math.max(0, tick - 1) : tick);
}

/** Goes to the beginning of the measure before or after. */
export function goMeasure(desk: Desk, by: 1 | -1, choosing = false): Desk {
  const onsets = onsetsOf(desk.sketch.items);
  const measure = measureOf(desk.sketch, onsets[desk.at]!);
  const here = startOf(desk.sketch, measure);
  const target =
    by > 0
      ? startOf(desk.sketch, measure + 1)
      : onsets[desk.at]! > here
        ? here
        : startOf(desk.sketch, Math.max(0, measure - 1));
  const at = by > 0 ? onsets.findIndex((o) => o >= target) : onsets.findLastIndex((o) => o <= target);
  const to = at < 0 ? desk.sketch.items.length : at;
  return { ...desk, at: to, from: choosing ? (desk.from ?? desk.at) : null };
}

/** What a copy holds: notes, and the chords of the measures from the first. */
export interface Copied {
  readonly items: readonly Item[];
  readonly chords: readonly (string | undefined)[];
}

/** What is chosen; without anything chosen the measure in which one stands. */
export function copied(desk: Desk): Copied {
  const { sketch } = desk;
  const onsets = onsetsOf(sketch.items);
  const whole = (): { from: number; to: number } => {
    const measure = measureAtDesk(desk);
    const [start, end] = [startOf(sketch, measure), startOf(sketch, measure + 1)];
    const from = onsets.findIndex((o) => o >= start);
    const to = onsets.findIndex((o) => o >= end);
    return { from, to: to < 0 ? sketch.items.length : to };
  };
  const { from, to } = chosenItems(desk) ?? whole();
  const [first, last] = [
    measureOf(sketch, onsets[from]!),
    measureOf(sketch, Math.max(onsets[from]!, onsets[to]! - 1)),
  ];
  const isFromStart = onsets[from] === startOf(sketch, first);
  return {
    items: sketch.items.slice(from, to),
    chords: isFromStart ? Array.from({ length: last - first + 1 }, (_, i) => sketch.chords[first + i]) : [],
  };
}

/** Puts a copy where one stands; its chords too where that is the beginning of a measure. */
export function paste(desk: Desk, { items, chords }: Copied): Desk {
  const { sketch, at } = desk;
  const tick = onsetsOf(sketch.items)[at]!;
  const measure = measureOf(sketch, tick);
  const isFromStart = tick === startOf(sketch, measure) && at === sketch.items.length;
  const rows = isFromStart
    ? Object.fromEntries(chords.flatMap((row, i) => (row === undefined ? [] : [[measure + i, row]])))
    : {};
  const made = withItems(
    desk,
    [...sketch.items.slice(0, at), ...items, ...sketch.items.slice(at)],
    at + items.length,
  );
  return { ...made, sketch: { ...made.sketch, chords: { ...sketch.chords, ...rows } } };
}

/** The chords of a measure; an empty row takes them away. */
export function setChords(sketch: Sketch, measure: number, row: string): Sketch {
  const { [measure]: _before, ...others } = sketch.chords;
  return { ...sketch, chords: row.trim() ? { ...others, [measure]: row.trim() } : others };
}

/** A section begins with a measure; without a name none does. */
export function nameSection(sketch: Sketch, measure: number, name: string): Sketch {
  const { [measure]: _before, ...others } = sketch.sections;
  return { ...sketch, sections: name.trim() ? { ...others, [measure]: name.trim() } : others };
}

/** Repeats the measures from the beginning of the section, or the last repeat, to this one; or takes that repeat away. */
export function toggleRepeat(sketch: Sketch, measure: number): Sketch {
  const { repeats } = sketch;
  if (repeats.some((r) => r.to === measure))
    return { ...sketch, repeats: repeats.filter((r) => r.to !== measure) };
  const begins = [
    sketch.pickup > 0 ? 1 : 0,
    ...repeats.map((r) => r.to + 1),
    ...Object.keys(sketch.sections).map(Number),
  ].filter((m) => m <= measure);
  return { ...sketch, repeats: [...repeats, { from: Math.max(...begins), to: measure }] };
}

/**
 * Lays a line of words below the notes from where one stands on: a word or syllable to each note that is sung. Syllables end with a
 * hyphen ("pa- per", "pa-per"), an underscore leaves a note without.
 */
export function setWords(sketch: Sketch, from: number, verse: number, line: string): Sketch {
  const syllables = line
    .trim()
    .split(/\s+/)
    .filter(Boolean)
    .flatMap((word) => word.split(/(?<=-)(?=[^-])/));
  let next = 0;
  const items = sketch.items.map((item, i): Item => {
    if (i < from || next >= syllables.length || !isSung(sketch.items, i)) return item;
    const syllable = syllables[next++]!;
    const words = Array.from({ length: Math.max(item.words.length, verse) }, (_, v) => item.words[v] ?? '');
    words[verse - 1] = syllable === '_' ? '' : syllable;
    return { ...item, words };
  });
  return { ...sketch, items };
}

/** The line of words below the notes from an item on, as it is typed. */
export const wordsFrom = (sketch: Sketch, from: number, verse: number): string =>
  sketch.items
    .flatMap((item, i) => (i >= from && isSung(sketch.items, i) ? [item.words[verse - 1] || '_'] : []))
    .join(' ')
    .replace(/( _)+$/, '')
    .replace(/^_$/, '')
    .replace(/- /g, '-');

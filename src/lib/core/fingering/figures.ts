/**
 * Same figure, same fingers: measures that are note for note alike in one hand are fingered alike. The line is solved
 * once freely; then each figure's most frequent fingering (a decided one before all) becomes its usual one, and the line
 * is solved again with departures from it costing.
 */
import type { SoundingNote } from '../score/query';
import type { Measure } from '../score/score';
import type { Finger } from './grips';
import { fingerLine, type Fingering, type FingeringSettings } from './solve';

/** Fingers a line with figures kept alike. `measures` say where a figure begins and ends. */
export function fingerWithFigures(
  notes: readonly SoundingNote[],
  measures: readonly Measure[],
  settings: FingeringSettings,
): { readonly fingering: Fingering; readonly settings: FingeringSettings } {
  const figures = figuresOf(notes, measures).filter((places) => places.length > 1);
  if (figures.length === 0) return { fingering: fingerLine(notes, settings), settings };
  const free = fingerLine(notes, settings);
  const usual = new Map<string, Finger>();
  for (const places of figures) {
    const fingers = usualFingers(places, free, settings.locks);
    for (const place of places) place.forEach((note, i) => usual.set(note.id, fingers[i]!));
  }
  const withUsual = { ...settings, usual };
  return { fingering: fingerLine(notes, withUsual), settings: withUsual };
}

/** The notes of each measure, grouped by figure: same pitches in the same rhythm. */
function figuresOf(notes: readonly SoundingNote[], measures: readonly Measure[]): SoundingNote[][][] {
  const figures = new Map<string, SoundingNote[][]>();
  let i = 0;
  for (const measure of measures) {
    const own: SoundingNote[] = [];
    while (i < notes.length && notes[i]!.onset < measure.start + measure.length) own.push(notes[i++]!);
    if (own.length === 0) continue;
    const key = own.map((n) => `${n.onset - measure.start}+${n.duration}=${n.midi}`).join(' ');
    figures.set(key, [...(figures.get(key) ?? []), own]);
  }
  return [...figures.values()];
}

function usualFingers(
  places: readonly SoundingNote[][],
  free: Fingering,
  locks: ReadonlyMap<string, Finger>,
): Finger[] {
  const decided = places.find((place) => place.some((n) => locks.has(n.id)));
  const fingersOf = (place: readonly SoundingNote[]): Finger[] => place.map((n) => free.fingers.get(n.id)!);
  if (decided) return fingersOf(decided);
  const votes = new Map<string, { count: number; fingers: Finger[] }>();
  for (const place of places) {
    const fingers = fingersOf(place);
    const vote = votes.get(fingers.join()) ?? { count: 0, fingers };
    vote.count += 1;
    votes.set(fingers.join(), vote);
  }
  // The earliest wins a tie: it is the one that is learned first.
  return [...votes.values()].reduce((a, b) => (b.count > a.count ? b : a)).fingers;
}

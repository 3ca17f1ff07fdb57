/** Two versions of a piece side by side: in which measures they differ, and in what. */
import { endOf } from '../score/metre';
import { pitchName } from '../score/pitch';
import { soundingNotes } from '../score/query';
import type { Measure, Note } from '../score/score';
import { chordSymbol } from '../theory/chord';
import type { Version } from './realise';

/** A measure in which two versions differ: where it is in each, and what differs, in words. */
export interface Difference {
  /** By index in the first version, and in the second. */
  readonly measure: number;
  readonly other: number | null;
  readonly says: readonly string[];
}

const HANDS = [
  { staff: 1, name: 'right hand' },
  { staff: 2, name: 'left hand' },
] as const;

const inside = (notes: readonly Note[], measure: Measure, staff: number) =>
  soundingNotes(notes).filter(
    (n) => n.staff === staff && n.onset >= measure.start && n.onset < endOf(measure),
  );

/** What the strokes of a hand are in a measure, apart from where it stands. */
const strokesText = (version: Version, measure: Measure, staff: number): string =>
  inside(version.score.parts[0]!.notes, measure, staff)
    .map((n) => `${n.onset - measure.start} ${n.duration} ${pitchName(n.pitch)}`)
    .join('|');

const fingersText = (version: Version, measure: Measure, staff: number): string =>
  inside(version.score.parts[0]!.notes, measure, staff)
    .map((n) => version.fingers[n.id]?.finger ?? '')
    .join(' ');

const chordsText = (version: Version, measure: Measure): string =>
  version.chords
    .filter((c) => c.onset < endOf(measure) && c.onset + c.duration > measure.start)
    .map((c) => (c.chord ? chordSymbol(c.chord) : 'none'))
    .join(' ');

const countsText = (version: Version, index: number): string =>
  (version.counts[index]?.counts ?? []).map((c) => c.say).join(' ');

const pedalText = (version: Version, measure: Measure): string =>
  version.score.pedals
    .filter((p) => p.onset >= measure.start && p.onset < endOf(measure))
    .map((p) => `${p.onset - measure.start} ${p.type}`)
    .join('|');

/** The differences of some measures of one version (first and last by index) against another of the same piece. */
export function differencesBetween(
  one: Version,
  two: Version,
  { from, to }: { readonly from: number; readonly to: number },
): Difference[] {
  const byId = new Map(two.score.measures.map((m) => [m.id, m]));
  return one.score.measures.slice(from, to + 1).flatMap((measure): Difference[] => {
    const other = byId.get(measure.id);
    if (!other) return [{ measure: measure.index, other: null, says: ['only in the first'] }];
    const says = [
      ...HANDS.flatMap(({ staff, name }) => {
        if (strokesText(one, measure, staff) !== strokesText(two, other, staff))
          return [`${name}: other notes`];
        const [a, b] = [fingersText(one, measure, staff), fingersText(two, other, staff)];
        return a === b ? [] : [`${name}: fingers ${a} and ${b}`];
      }),
      ...(chordsText(one, measure) === chordsText(two, other)
        ? []
        : [`chords ${chordsText(one, measure)} and ${chordsText(two, other)}`]),
      ...(countsText(one, measure.index) === countsText(two, other.index) ? [] : ['counted otherwise']),
      ...(pedalText(one, measure) === pedalText(two, other) ? [] : ['pedal otherwise']),
    ];
    return says.length > 0 ? [{ measure: measure.index, other: other.index, says }] : [];
  });
}

/** Two versions of a piece side by side: in which measures they differ, and in what. */
import { endOf } from '../score/metre';
import { pitchName } from '../theory/pitch';
import { soundingNotes } from '../score/query';
import type { Measure, Note } from '../score/score';
import { chordSymbol } from '../theory/chord';
import { transposeChord, transposeScore, transpositionTo, type Transposition } from '../transpose/transpose';
import type { Version } from './realise';

/** A measure in which two versions differ: where it is in each, and what differs, in words. */
interface Difference {
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

/** A version in the key of another, each note moved by what sets their keys apart: only what differs beside the key is a difference. */
function inKeyOf(one: Version, other: Version): Version {
  const [here, there] = [one, other].map((v) => transpositionTo(v.sourceKey, v.key)) as [
    Transposition,
    Transposition,
  ];
  const by = { semitones: here.semitones - there.semitones, fifths: here.fifths - there.fifths };
  if (by.semitones === 0 && by.fifths === 0) return other;
  return {
    ...other,
    score: transposeScore(other.score, by),
    chords: other.chords.map((c) => ({ ...c, chord: c.chord && transposeChord(c.chord, by.fifths) })),
  };
}

/** Neighboring measures that differ in the same way, as one: first and last index in the first version. */
interface DifferenceRun {
  readonly from: number;
  readonly to: number;
  readonly says: string;
}

const HAND_NOTE = /^(right|left) hand: different (notes)$/;

/** "different notes in both hands; different pedal": hands that share a difference are named once. */
function joined(says: readonly string[]): string {
  const inHands = says.flatMap((s) => HAND_NOTE.exec(s)?.slice(1, 2) ?? []);
  const hands = inHands.length === 2 ? 'both hands' : `the ${inHands[0]} hand`;
  return [
    ...(inHands.length > 0 ? [`different notes in ${hands}`] : []),
    ...says.filter((s) => !HAND_NOTE.test(s)),
  ].join(', ');
}

/** Differences measure by measure as runs of neighbors, in words. */
export function runsOf(differences: readonly Difference[]): DifferenceRun[] {
  const runs: DifferenceRun[] = [];
  for (const { measure, says } of differences) {
    const [last, text] = [runs.at(-1), joined(says)];
    if (last && last.to === measure - 1 && last.says === text)
      runs[runs.length - 1] = { ...last, to: measure };
    else runs.push({ from: measure, to: measure, says: text });
  }
  return runs;
}

/** The differences of some measures of one version (first and last by index) against another of the same piece. */
export function differencesBetween(
  one: Version,
  other: Version,
  { from, to }: { readonly from: number; readonly to: number },
): Difference[] {
  const two = inKeyOf(one, other);
  const byId = new Map(two.score.measures.map((m) => [m.id, m]));
  return one.score.measures.slice(from, to + 1).flatMap((measure): Difference[] => {
    const twin = byId.get(measure.id);
    if (!twin) return [{ measure: measure.index, other: null, says: ['only in the first version'] }];
    const says = [
      ...HANDS.flatMap(({ staff, name }) => {
        if (strokesText(one, measure, staff) !== strokesText(two, twin, staff))
          return [`${name}: different notes`];
        const [a, b] = [fingersText(one, measure, staff), fingersText(two, twin, staff)];
        return a === b ? [] : [`${name}: fingers ${a} in one, ${b} in the other`];
      }),
      ...(chordsText(one, measure) === chordsText(two, twin)
        ? []
        : [`chords ${chordsText(one, measure)} in one, ${chordsText(two, twin)} in the other`]),
      ...(countsText(one, measure.index) === countsText(two, twin.index) ? [] : ['different counting']),
      ...(pedalText(one, measure) === pedalText(two, twin) ? [] : ['different pedal']),
    ];
    return says.length > 0 ? [{ measure: measure.index, other: twin.index, says }] : [];
  });
}

/** What a version left out, changed and kept of its source, countable; and how true it is to it. */
import type { ChordSpan } from '../analysis/harmony';
import { capital } from '../capital';
import { plural } from '../plural';
import { beatLength, placeInMeasure } from '../score/metre';
import { byOnset, lowestOf, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Part } from '../score/score';
import type { Ticks } from '../score/ticks';
import { bassOf } from '../theory/chord';
import { pitchClass } from '../theory/fifths';
import type { Arranged } from './arranged';

export interface Share {
  readonly kept: number;
  readonly of: number;
}

export interface Fidelity {
  /** Notes of the melody on the beat that are there at their place, in any octave. */
  readonly beatNotes: Share;
  /** Changes of chord with the chord's root, or its named bass, lowest. */
  readonly basses: Share;
  /** Pairs of neighbouring notes of the melody that go the same way; folds at phrases are not counted. */
  readonly contour: Share;
}

export interface Account {
  /** Notes of the source: of everybody in it. */
  readonly sourceNotes: number;
  /** Who plays in the source, where they are more than a pianist and one who sings. */
  readonly players: number;
  readonly leftOut: number;
  readonly melodyNotes: number;
  readonly melodyLeftOut: number;
  /** Kept notes that are struck at another time or in another octave than in the source. */
  readonly moved: number;
  /** Of them those in another octave. */
  readonly movedOctaves: number;
  /** Measures in which the melody has another rhythm than in the source. */
  readonly rhythms: number;
  readonly ornamentsLeftOut: number;
  /** Notes that the source does not have: textures and fillings; of them those in the left hand. */
  readonly added: number;
  readonly addedLeft: number;
  /** The source is a melody and nothing else: what accompanies it is all the version's. */
  readonly isBareSource: boolean;
  readonly fidelity: Fidelity;
}

/** 1 where nothing was asked for. */
export const shareOf = ({ kept, of }: Share): number => (of === 0 ? 1 : kept / of);

/** Counts a version against its source. Both are in the same key; `notes` are the version's written notes. */
export function accountOf(
  arranged: Arranged,
  notes: readonly Note[],
  measures: readonly Measure[],
  chords: readonly ChordSpan[],
  /** The parts of the source, as they were chosen. */
  parts: readonly Part[] = [],
): Account {
  const sounding = soundingNotes(notes);
  const ids = new Set(sounding.map((n) => n.id));
  const isPlayed = (n: SoundingNote): boolean =>
    !arranged.sungMeasures.has(measureAt(measures, n.onset).index);
  const melody = arranged.isSingAlong ? [] : arranged.melody.notes.filter(isPlayed);
  const source = [...arranged.melody.notes, ...arranged.accompaniment];
  const sourceIds = new Set(source.map((n) => n.id));
  const added = sounding.filter((n) => !sourceIds.has(n.id));
  // A part that is made of what others have shares their notes.
  const elsewhere = new Set(parts.flatMap((p) => soundingNotes(p.notes).map((n) => n.id)));
  for (const id of sourceIds) elsewhere.delete(id);
  const players = parts.filter((p) => p.role === 'other' && p.notes.length > 0).length;
  const byId = new Map(sounding.map((n) => [n.id, n]));
  const kept = source.flatMap((n): (readonly [SoundingNote, SoundingNote])[] => {
    const own = byId.get(n.id);
    return own ? [[n, own]] : [];
  });
  const isRhythm = (kind: string): boolean => kind !== 'left-out';
  return {
    sourceNotes: source.length + elsewhere.size,
    players: players > 0 ? players + parts.filter((p) => p.role !== 'other' && !isMade(p, parts)).length : 0,
    leftOut: source.filter((n) => !ids.has(n.id)).length + [...elsewhere].filter((id) => !ids.has(id)).length,
    melodyNotes: melody.length,
    melodyLeftOut: melody.filter((n) => !ids.has(n.id)).length,
    moved: kept.filter(([from, to]) => from.onset !== to.onset || from.midi !== to.midi).length,
    movedOctaves: kept.filter(([from, to]) => from.midi !== to.midi).length,
    rhythms: new Set(arranged.melodyChanges.filter((c) => isRhythm(c.kind)).map((c) => c.measure)).size,
    ornamentsLeftOut: arranged.reasons.filter((r) => r.loss === 'ornament').length,
    added: added.length,
    addedLeft: added.filter((n) => n.staff === 2).length,
    // Chords that were heard are heard from voices that the version does not take over.
    isBareSource: arranged.accompaniment.length === 0 && chords.every((c) => c.from !== 'notes'),
    fidelity: {
      beatNotes: beatNotesKept(melody, sounding, measures),
      basses: bassesRight(sounding, measures, chords, arranged),
      contour: contourKept(
        melody,
        sounding,
        arranged.folds.map((f) => f.onset),
      ),
    },
  };
}

/** Whether a part is made of notes that other parts have. */
function isMade(part: Part, parts: readonly Part[]): boolean {
  const [first] = part.notes;
  return (
    first !== undefined &&
    parts.some((p) => p !== part && p.role === 'other' && p.notes.some((n) => n.id === first.id))
  );
}

function beatNotesKept(
  melody: readonly SoundingNote[],
  sounding: readonly SoundingNote[],
  measures: readonly Measure[],
): Share {
  const at = new Map(byOnset(sounding).map(({ onset, notes }) => [onset, notes]));
  const onBeat = melody.filter((n) => {
    const measure = measureAt(measures, n.onset);
    return placeInMeasure(measure, n.onset) % beatLength(measure.time) === 0;
  });
  const kept = onBeat.filter((n) =>
    at.get(n.onset)?.some((m) => m.pitch.step === n.pitch.step && m.pitch.alter === n.pitch.alter),
  );
  return { kept: kept.length, of: onBeat.length };
}

/** Judged where the chord begins; where the level lets it wait for the beat, at that beat. */
function bassesRight(
  sounding: readonly SoundingNote[],
  measures: readonly Measure[],
  chords: readonly ChordSpan[],
  arranged: Arranged,
): Share {
  const played = arranged.stretches.flatMap((m) => m.stretches);
  const inSource = lowestOf(
    [...arranged.melody.notes, ...arranged.accompaniment].sort((a, b) => a.onset - b.onset),
  );
  const inVersion = lowestOf(sounding);
  const changes = chords.filter((c) => {
    const first = measures[0];
    const inPickup = first && first.beginsAt > 0 && c.onset < first.start + first.length;
    if (c.chord === null || (inPickup && c.onset + c.duration <= first.start + first.length)) return false;
    // Where the source itself is silent a heard chord has no bass to keep.
    return c.from === 'symbol' || inSource(Math.max(c.onset, measures[0]!.start)) !== undefined;
  });
  const right = changes.filter((c) => {
    const from = Math.max(c.onset, measures[0]!.beginsAt > 0 ? measures[0]!.start + measures[0]!.length : 0);
    const at = played.find((s) => s.onset >= from && s.onset < c.onset + c.duration)?.onset ?? from;
    const lowest = inVersion(at);
    if (lowest === undefined) return false;
    // A chord that was only heard from the notes has the bass that the source has there.
    const own = c.from === 'notes' ? inSource(at) : undefined;
    return lowest % 12 === pitchClass(bassOf(c.chord!)) || (own !== undefined && lowest % 12 === own % 12);
  });
  return { kept: right.length, of: changes.length };
}

function contourKept(
  melody: readonly SoundingNote[],
  sounding: readonly SoundingNote[],
  folds: readonly Ticks[],
): Share {
  const byId = new Map(sounding.map((n) => [n.id, n]));
  const source = melody.filter((n) => byId.has(n.id));
  let kept = 0;
  let of = 0;
  for (let i = 1; i < source.length; i++) {
    const [a, b] = [source[i - 1]!, source[i]!];
    if (folds.some((f) => f > a.onset && f <= b.onset)) continue;
    of += 1;
    if (Math.sign(b.midi - a.midi) === Math.sign(byId.get(b.id)!.midi - byId.get(a.id)!.midi)) kept += 1;
  }
  return { kept, of };
}

/** "54 notes added (40 in the left hand)"; for a melody alone what it was enriched by. */
function addedText({ added, addedLeft, isBareSource, leftOut }: Account): string {
  const under = added - addedLeft;
  if (isBareSource)
    return `the melody enriched by ${[
      ...(addedLeft > 0 ? [`${plural(addedLeft, 'note')} in the left hand`] : []),
      ...(under > 0 ? [`${plural(under, 'note')} below it in the right hand`] : []),
    ].join(' and ')}`;
  // Right after the notes left out the noun is understood.
  const count = leftOut > 0 ? String(added) : plural(added, 'note');
  if (under === 0 || addedLeft === 0) return `${count} added (in the ${under === 0 ? 'left' : 'right'} hand)`;
  return `${count} added (${addedLeft} in the left hand)`;
}

/** "31 of 402 notes left out; 12 added (in the left hand); 4 rhythms simplified." `over` are sentences on limits that are broken. */
export function accountText(account: Account, over: readonly string[], isSingAlong = false): string {
  const parts = isSingAlong
    ? [
        account.sourceNotes > 0
          ? `${plural(account.added, 'accompaniment note')} instead of the source’s ${account.sourceNotes}`
          : plural(account.added, 'accompaniment note'),
      ]
    : [
        ...(account.players > 0 ? [`${account.players} players in two hands`] : []),
        account.leftOut > 0
          ? `${account.leftOut} of ${plural(account.sourceNotes, 'note')} left out`
          : 'every note kept',
        ...(account.movedOctaves > 0 ? [`${plural(account.movedOctaves, 'note')} in another octave`] : []),
        ...(account.added > 0 ? [addedText(account)] : []),
        ...(account.rhythms > 0 ? [`${plural(account.rhythms, 'rhythm')} simplified`] : []),
        ...(account.ornamentsLeftOut > 0 ? [`${plural(account.ornamentsLeftOut, 'ornament')} left out`] : []),
      ];
  return [capital(parts.join('; ')), ...over].map((sentence) => `${sentence}.`).join(' ');
}

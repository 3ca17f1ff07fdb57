/** The source's right hand within a level: what it plays besides its melody, and its chords where the left hand has the melody. */
import { toMidi } from '../../theory/pitch';
import { byMeasure, inOctave, type SoundingNote } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import type { ArrangeReason } from '../reason';
import type { LevelContract } from '../levels';
import type { OwnSettings } from './ownLeft';
import { readableOnsets, writtenEnd, type Piece } from './ownPieces';
import { forcedEnd } from './writable';

/** The chords of the source's right hand where its left hand has the melody: the highest note stays, the rest as it fits. */
export function ownUpper(
  notes: readonly SoundingNote[],
  { contract, reach, measures }: Pick<OwnSettings, 'contract' | 'reach' | 'measures'>,
): SoundingNote[] {
  const span = Math.min(reach, contract.span ?? reach);
  return byMeasure(measures, notes).flatMap((source, i) => {
    const measure = measures[i]!;
    return readableOnsets(source, measure, contract).flatMap(({ onset, notes: chord }) => {
      const sorted = [...chord].sort((a, b) => b.midi - a.midi);
      const top = sorted[0]!;
      const kept = sorted.filter((n) => top.midi - n.midi <= span).slice(0, contract.rightNotes);
      const end = Math.max(...kept.map((n) => writtenEnd({ ...n, source: n }, measure, measures, contract)));
      return kept.map((n) => ({ ...n, duration: end - onset }));
    });
  });
}

interface OwnRight {
  readonly notes: readonly Note[];
  readonly reasons: readonly ArrangeReason[];
}

interface InnerSettings {
  readonly contract: LevelContract;
  readonly reach: number;
  readonly measures: readonly Measure[];
  /** Lowest key that the left hand leaves free. */
  readonly floor: (from: Ticks, to: Ticks) => number;
}

/** Under this interval a tone rubs against the melody that it is to bear. */
const CLOSEST = 3;

/**
 * What the source's right hand plays besides its melody, as far as the hand and the level carry it: chord tones that are struck
 * with a melody note, chords where the melody rests, and, from four notes at once on, what moves under a held note.
 */
export function ownInner(
  inner: readonly SoundingNote[],
  melody: readonly SoundingNote[],
  { contract, reach, measures, floor }: InnerSettings,
): OwnRight {
  const span = Math.min(reach, contract.span ?? reach);
  const most = contract.rightNotes;
  const notes: Note[] = [];
  const line = [...melody].sort((a, b) => a.onset - b.onset);
  let at = 0;
  byMeasure(measures, inner).forEach((source, i) => {
    const measure = measures[i]!;
    for (const { onset, notes: struck } of readableOnsets(source, measure, contract)) {
      while (at < line.length && line[at]!.onset + line[at]!.duration <= onset) at += 1;
      const current = line[at];
      const top = current && current.onset <= onset ? current : undefined;
      const next = line[top ? at + 1 : at]?.onset ?? Infinity;
      const isJoined = top?.onset === onset;
      if (top && (most < 2 || (!isJoined && most < MOVES_UNDER_HELD))) continue;
      // Where nothing moves under the melody, its chord lasts as long as it does.
      const together = isJoined && most < MOVES_UNDER_HELD;
      const own = Math.max(
        ...struck.map((n) => writtenEnd({ ...n, source: n }, measure, measures, contract)),
      );
      const limit = top ? top.onset + top.duration : next;
      const cut = (): Ticks => forcedEnd(onset, limit, measure, measures, contract);
      const end = together ? limit : own <= limit ? own : cut();
      if (end <= onset) continue;
      const lowest = floor(onset, end);
      const held = notes
        .slice(-RECENT)
        .filter((n) => n.onset < onset && n.onset + n.duration > onset)
        .map((n) => toMidi(n.pitch));
      const free = most - (top ? 1 : 0) - held.length;
      const keys = (
        top
          ? keysBelow(struck, top, { span, most: free, lowest, level: contract.level })
          : ownChord(struck, { span, most: free, lowest })
      ).filter((n) => [...held, n.midi].every((h) => (top?.midi ?? h) - h <= span) && !held.includes(n.midi));
      notes.push(
        ...keys.map((n): Note => ({
          id: n.id,
          onset,
          duration: end - onset,
          pitch: n.pitch,
          staff: 1,
          voice: top && end !== top.onset + top.duration ? 2 : isJoined || !top ? 1 : 2,
          ...(n.articulations.length ? { articulations: n.articulations } : {}),
        })),
      );
    }
  });
  const reasons = byMeasure(measures, notes).flatMap((own, measure): ArrangeReason[] =>
    own.length === 0
      ? []
      : [
          {
            measure,
            notes: own.map((n) => n.id),
            reason: 'the rest of the right hand as in the source',
          },
        ],
  );
  return { notes, reasons };
}

/** More notes than a hand can still be holding. */
const RECENT = 16;
/** From so many notes at once on the right hand moves under a note that it holds. */
const MOVES_UNDER_HELD = 4;

interface Below {
  readonly span: number;
  readonly most: number;
  readonly lowest: number;
}

/** The notes of a chord under a melody note, the nearest first, brought nearer rather than lost. */
function keysBelow(
  chord: readonly SoundingNote[],
  top: SoundingNote,
  { span, most, lowest, level }: Below & { level: number },
): Piece[] {
  const under = chord
    .map((n): Piece => ({ ...n, source: n }))
    .map((n) => (n.midi >= top.midi ? inOctave(n, -Math.ceil((n.midi - top.midi + 1) / 12)) : n))
    .sort((a, b) => b.midi - a.midi);
  const kept: Piece[] = [];
  for (const note of under) {
    let placed = note;
    while (top.midi - placed.midi > span || placed.midi < lowest) placed = inOctave(placed, 1);
    if (placed.midi >= top.midi || kept.length === most) continue;
    if (top.midi - placed.midi < CLOSEST && level < 5) continue;
    if ((top.midi - placed.midi) % 12 === 0 && under.length > most) continue;
    if (kept.some((n) => n.midi === placed.midi)) continue;
    kept.push(placed);
  }
  return kept;
}

/** A chord of the right hand alone: its highest note and what lies in the hand below it. */
function ownChord(chord: readonly SoundingNote[], { span, most, lowest }: Below): Piece[] {
  const sorted = [...chord].sort((a, b) => b.midi - a.midi).map((n): Piece => ({ ...n, source: n }));
  let top = sorted[0]!;
  while (top.midi < lowest) top = inOctave(top, 1);
  const kept = [top];
  for (const note of sorted.slice(1)) {
    if (kept.length === most) break;
    if (top.midi - note.midi <= span && note.midi >= lowest && note.midi < top.midi) kept.push(note);
  }
  return kept;
}

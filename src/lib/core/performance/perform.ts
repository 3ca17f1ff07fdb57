/**
 * The piece as it sounds: repeats, endings and jumps unfolded, every event in its time. Sound, cursor, takes and the MIDI file
 * read this and nothing else.
 */
import { feelOf, type Feel } from '../counting/feel';
import { endOf } from '../score/metre';
import { byMeasure, measureAt } from '../score/query';
import type { Measure, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { playingOrder } from '../score/unfold';
import type { Performance, PlayedMeasure, PlayedNote, PlayedPedal, TempoPoint } from './played';
import { swung } from './private/swing';
import { struckIn, type Struck } from './private/written';

/** Quarter notes per minute where a source says nothing. */
export const USUAL_TEMPO = 96;

/** Under a fermata the beat takes so much longer. */
const HELD = 1.8;

/** Performs a score at its tempo. `feel` decides whether eighths swing; without it as the words above the music say. */
export function perform(score: Score, feel: Feel = feelOf(score)): Performance {
  const measures = passesOf(score.measures);
  const struck = score.parts.flatMap((part, index) => struckIn(part, index, score.measures));
  const beginnings = new Set(struck.map((n) => n.at));
  const inSwing = (measure: Measure, tick: Ticks): Ticks =>
    feel === 'swing' ? swung(measure, tick, beginnings) : tick;
  return {
    notes: playedNotes(score.measures, measures, struck, inSwing),
    measures,
    pedals: playedPedals(score, measures, inSwing),
    tempi: tempiOf(score, measures),
    end: measures.reduce((end, m) => Math.max(end, m.onset + m.length), 0),
  };
}

/** Where a written tick of a measure is played; where nothing swings, at its place. */
type InSwing = (measure: Measure, tick: Ticks) => Ticks;

/** The measures as they are played. */
function passesOf(measures: readonly Measure[]): PlayedMeasure[] {
  let onset = 0;
  return playingOrder(measures).map((index) => {
    const { length } = measures[index]!;
    const pass = { index, onset, length };
    onset += length;
    return pass;
  });
}

/** The end of the stretch that is played as it is written, from a pass on: what sounds over it is let go there. */
function stretchEnds(measures: readonly Measure[], passes: readonly PlayedMeasure[]): Ticks[] {
  const ends: Ticks[] = [];
  for (let i = passes.length - 1; i >= 0; i--) {
    const goesOn = passes[i + 1]?.index === passes[i]!.index + 1;
    ends[i] = goesOn ? ends[i + 1]! : endOf(measures[passes[i]!.index]!);
  }
  return ends;
}

function playedNotes(
  measures: readonly Measure[],
  passes: readonly PlayedMeasure[],
  struck: readonly Struck[],
  inSwing: InSwing,
): PlayedNote[] {
  const inMeasures = byMeasure(
    measures,
    struck.map((note) => ({ onset: note.at, note })),
  );
  const ends = stretchEnds(measures, passes);
  // The written end of a note may lie in a later measure, which swings by its own beats.
  const placed = (tick: Ticks): Ticks => {
    const measure = measureAt(measures, tick);
    return tick >= endOf(measure) ? tick : inSwing(measure, tick);
  };
  const notes = passes.flatMap((pass, i) => {
    const measure = measures[pass.index]!;
    const by = pass.onset - measure.start;
    return inMeasures[pass.index]!.map(({ note: { at: _at, ...note } }): PlayedNote => {
      const from = placed(note.onset);
      const to = Math.min(placed(note.onset + note.duration), ends[i]!);
      return { ...note, onset: Math.max(0, from + by), duration: Math.max(1, to - from) };
    });
  });
  return notes.sort((a, b) => a.onset - b.onset || a.midi - b.midi);
}

/** Pedal down and up. A change is up and down at once: up comes first. */
function playedPedals(score: Score, passes: readonly PlayedMeasure[], inSwing: InSwing): PlayedPedal[] {
  const { measures } = score;
  // The end of the piece belongs to its last measure.
  const inMeasures = byMeasure(measures, score.pedals);
  const isLast = (pass: PlayedMeasure): boolean => pass.index === measures.length - 1;
  return passes.flatMap((pass) => {
    const measure = measures[pass.index]!;
    return inMeasures[pass.index]!.filter((m) => m.onset < endOf(measure) || isLast(pass)).flatMap(
      ({ onset, type }): PlayedPedal[] => {
        const at = (onset < endOf(measure) ? inSwing(measure, onset) : onset) - measure.start + pass.onset;
        if (type === 'start') return [{ onset: at, down: true }];
        if (type === 'stop') return [{ onset: at, down: false }];
        return [
          { onset: at, down: false },
          { onset: at, down: true },
        ];
      },
    );
  });
}

/** Tempi as they come while the measures are played; slower for as long as a fermata holds. */
function tempiOf(score: Score, passes: readonly PlayedMeasure[]): TempoPoint[] {
  const written: TempoPoint[] = [
    { onset: 0, tempo: score.tempo || USUAL_TEMPO },
    ...[...(score.tempoChanges ?? [])].sort((a, b) => a.onset - b.onset),
  ];
  const holds = fermatas(score);
  const tempoAt = (tick: Ticks): number => {
    const { tempo } = written.findLast((t) => t.onset <= tick)!;
    return holds.some((h) => h.from <= tick && tick < h.to) ? tempo / HELD : tempo;
  };
  const changes = [
    ...new Set([...written.map((t) => t.onset), ...holds.flatMap((h) => [h.from, h.to])]),
  ].sort((a, b) => a - b);
  const points: TempoPoint[] = [];
  for (const { index, onset } of passes) {
    const { start, length } = score.measures[index]!;
    for (const tick of [start, ...changes.filter((c) => c > start && c < start + length)]) {
      const tempo = tempoAt(tick);
      if (points.at(-1)?.tempo !== tempo) points.push({ onset: onset + tick - start, tempo });
    }
  }
  return points.length > 0 ? points : [{ onset: 0, tempo: written[0]!.tempo }];
}

/** Stretches that a fermata holds: as long as the written notes that carry one. */
function fermatas(score: Score): { readonly from: Ticks; readonly to: Ticks }[] {
  return score.parts.flatMap((part) =>
    part.notes.filter((n) => n.fermata && !n.grace).map((n) => ({ from: n.onset, to: n.onset + n.duration })),
  );
}

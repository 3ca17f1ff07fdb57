/**
 * What a reader needs of a line of tempos. A performance has hundreds of them: of these the page has the tempo at the start, the changes
 * that last, and the ritardandi with their return; the rest only sounds. A file with a few deliberate changes keeps them as they are.
 */
import { beatLength, measureLength } from '../../score/metre';
import { measureAt } from '../../score/query';
import type { Measure, TempoMark } from '../../score/score';
import type { Ticks } from '../../score/ticks';

/** Where the tempos of a file lie in the music: `shift` ticks later than in the score, which ends at `end`. */
interface Placing {
  readonly measures: readonly Measure[];
  readonly shift: Ticks;
  readonly end: Ticks;
}

interface TempoLine {
  readonly tempo: number;
  readonly tempoChanges: readonly TempoMark[];
  /** What stands above the music for it: "rit.", "a tempo". */
  readonly words: readonly { readonly onset: Ticks; readonly text: string }[];
}

/** A change with what is said of it. */
interface Said extends TempoMark {
  readonly words?: string;
}

/** Changes apart from what is said of them. */
const lineOf = (tempo: number, said: readonly Said[]): TempoLine => ({
  tempo,
  tempoChanges: said.map(({ words: _words, ...mark }) => mark),
  words: said.flatMap(({ onset, words }) => (words ? [{ onset, text: words }] : [])),
});

/** Tempos nearer than this, in quarters a minute, are the same. */
const SAME = 0.5;
/** So many changes to a measure are those of a hand, not of an editor. */
const FREE = 0.25;
/** Fewest changes at which that is asked. */
const FEWEST_FREE = 5;

const whole = (tempo: number): number =>
  Math.abs(tempo - Math.round(tempo)) < 0.02 ? Math.round(tempo) : Math.round(tempo * 100) / 100;

/** The tempo of the start and the changes after it, for the page and for the ear. `tempos` in order of time. */
export function tempoLine(tempos: readonly TempoMark[], { measures, shift, end }: Placing): TempoLine {
  const start = tempos.filter((t) => t.onset <= shift).at(-1) ?? tempos[0];
  if (!start) return lineOf(0, []);
  let before = start.tempo;
  const changes = tempos.flatMap((mark): TempoMark[] => {
    const onset = mark.onset - shift;
    if (onset <= 0 || onset >= end || Math.abs(mark.tempo - before) < SAME) return [];
    before = mark.tempo;
    return [{ ...mark, onset }];
  });
  if (changes.length < FEWEST_FREE || changes.length < FREE * measures.length)
    return lineOf(whole(start.tempo), withRitardandi(start.tempo, changes, measures, end));
  return played([{ onset: 0, tempo: start.tempo }, ...changes], measures, end);
}

/** Steps that only go down, or only up, within so many measures are one gesture. */
const GESTURE_MEASURES = 2;
/** Fewest steps of it. */
const FEWEST_STEPS = 3;

/** Deliberate changes: quick steps down are a ritardando, quick steps up an accelerando; what they lead back to is "a tempo". */
function withRitardandi(
  first: number,
  changes: readonly TempoMark[],
  measures: readonly Measure[],
  end: Ticks,
): Said[] {
  const marks: Said[] = [];
  let settled = first;
  for (let i = 0; i < changes.length;) {
    const before = i === 0 ? first : changes[i - 1]!.tempo;
    const goesDown = changes[i]!.tempo < before;
    let to = i;
    const near = (k: number): boolean => {
      const full = measureLength(measureAt(measures, changes[k]!.onset).time);
      return changes[k + 1]!.onset - changes[k]!.onset < full;
    };
    while (
      to + 1 < changes.length &&
      near(to) &&
      changes[to + 1]!.tempo < changes[to]!.tempo === goesDown &&
      changes[to + 1]!.onset - changes[i]!.onset <=
        GESTURE_MEASURES * measureLength(measureAt(measures, changes[i]!.onset).time)
    )
      to += 1;
    const next = changes[to + 1];
    if (to - i + 1 >= FEWEST_STEPS) {
      marks.push({ ...changes[i]!, words: goesDown ? 'rit.' : 'accel.', isHeard: true });
      for (let k = i + 1; k <= to; k++) marks.push({ ...changes[k]!, isHeard: true });
      // Where it arrives and stays, the number is wanted.
      const stays =
        (next?.onset ?? end) - changes[to]!.onset >=
        2 * measureLength(measureAt(measures, changes[to]!.onset).time);
      if (stays) marks[marks.length - 1] = changes[to]!;
      if (next && Math.abs(next.tempo - settled) <= 0.03 * settled) {
        marks.push({ ...next, words: 'a tempo', isHeard: true });
        i = to + 2;
        continue;
      }
      if (stays) settled = changes[to]!.tempo;
    } else {
      for (let k = i; k <= to; k++) marks.push(changes[k]!);
      settled = changes[to]!.tempo;
    }
    i = to + 1;
  }
  return marks;
}

/** Cost of a change that lasts, in units of a beat's distance from its tempo; fewest beats that it must last. */
const CHANGE = 2.4;
const LASTS = 12;
/** Tempos that a reader tells apart: a tenth. */
const APART = 0.1;
/** A ritardando goes below this share of the tempo, begins where it is left, and ends where it is reached again. */
const SLOWED = 0.82;
const LEFT = 0.93;
const BACK = 0.9;

/** A free performance: its lasting tempos and its ritardandi for the page, a value for each beat for the ear. */
function played(line: readonly TempoMark[], measures: readonly Measure[], end: Ticks): TempoLine {
  const beats: { onset: Ticks; tempo: number }[] = [];
  let at = 0;
  for (const { start, length, time } of measures)
    for (let tick = start; tick < Math.min(end, start + length); tick += beatLength(time)) {
      const to = Math.min(end, start + length, tick + beatLength(time));
      while (at + 1 < line.length && line[at + 1]!.onset <= tick) at += 1;
      beats.push({ onset: tick, tempo: meanTempo(line, at, tick, to) });
    }
  const levels = lastingTempos(beats.map((b) => b.tempo));
  const marks: Said[] = [];
  let level = Math.round(levels[0]!.tempo);
  const first = level;
  levels.forEach(({ from, to, tempo }, i) => {
    const rounded = Math.round(tempo);
    const isNew = i > 0 && Math.abs(rounded - level) > APART * level;
    if (isNew) level = rounded;
    const own = beats.slice(from, to);
    const slowed = ritardandi(
      own.map((b) => b.tempo),
      level,
    );
    own.forEach(({ onset, tempo: heard }, k) => {
      const words = slowed.some((s) => s.from === k)
        ? 'rit.'
        : slowed.some((s) => s.to === k)
          ? 'a tempo'
          : undefined;
      if (k === 0 && isNew) marks.push({ onset, tempo: level });
      else if (from + k === 0) return;
      else marks.push({ onset, tempo: whole(heard), ...(words ? { words } : {}), isHeard: true });
    });
  });
  return lineOf(first, withoutEqual(first, marks));
}

/** The mean tempo between two ticks: by the time that it takes. `at` is the mark that holds at `from`. */
function meanTempo(line: readonly TempoMark[], at: number, from: Ticks, to: Ticks): number {
  let minutes = 0;
  for (let i = at, tick = from; tick < to; i++) {
    const until = Math.min(to, line[i + 1]?.onset ?? to);
    if (until > tick) minutes += (until - tick) / line[i]!.tempo;
    tick = Math.max(tick, until);
  }
  return (to - from) / minutes;
}

/** Marks that only sound and change nothing say nothing. */
function withoutEqual(first: number, marks: readonly Said[]): Said[] {
  let before = first;
  return marks.filter(({ tempo, words, isHeard }) => {
    if (isHeard && !words && Math.abs(tempo - before) < 1) return false;
    before = tempo;
    return true;
  });
}

interface Level {
  /** Beats, the second one not included. */
  readonly from: number;
  readonly to: number;
  readonly tempo: number;
}

/** The best way to cut the beats into stretches of one tempo each, by how far each beat is from the middle one of its stretch. */
function lastingTempos(tempos: readonly number[]): Level[] {
  const n = tempos.length;
  if (n < 2 * LASTS) return [{ from: 0, to: n, tempo: median(tempos) }];
  // Long pieces are looked at by groups of beats: a lasting tempo does not change within one.
  const step = Math.max(1, Math.ceil(n / 240), Math.floor(LASTS / 6));
  const points = Array.from({ length: Math.ceil(n / step) }, (_, i) =>
    median(tempos.slice(i * step, (i + 1) * step)),
  );
  const logs = points.map(Math.log);
  const least = Math.max(2, Math.floor(LASTS / step));
  const best: number[] = [0];
  const back: number[] = [0];
  for (let to = 1; to <= points.length; to++) {
    best[to] = Infinity;
    for (let from = 0; from <= to - least || from === 0; from++) {
      if (from > 0 && (from < least || best[from] === Infinity)) continue;
      const middle = median(logs.slice(from, to));
      let cost = best[from]! + (from > 0 ? CHANGE / step : 0);
      for (let i = from; i < to; i++) cost += Math.min(0.35, Math.abs(logs[i]! - middle));
      if (cost < best[to]!) [best[to], back[to]] = [cost, from];
      if (from === 0 && to < least) break;
    }
  }
  const levels: Level[] = [];
  for (let to = points.length; to > 0; to = back[to]!) {
    const from = back[to]!;
    levels.unshift({
      from: from * step,
      to: Math.min(n, to * step),
      tempo: median(tempos.slice(from * step, Math.min(n, to * step))),
    });
  }
  return levels;
}

/** Where playing slows down clearly, and where it is in tempo again; `to` lies beyond the beats where it never is. */
function ritardandi(tempos: readonly number[], level: number): { from: number; to: number }[] {
  const found: { from: number; to: number }[] = [];
  for (let i = 0; i < tempos.length; i++) {
    if (tempos[i]! >= SLOWED * level) continue;
    let from = i;
    while (from > 0 && tempos[from - 1]! < LEFT * level && tempos[from - 1]! > tempos[from]!) from -= 1;
    let to = i;
    while (to < tempos.length && tempos[to]! < BACK * level) to += 1;
    // A single late beat is a breath, not a ritardando.
    if (to - from >= 2) found.push({ from, to });
    i = to;
  }
  return found;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}

/**
 * A chart as a Score: chords on their beats, measures by barlines, slashes or, failing both, one chord each; key and
 * metre as given or guessed. The words stand at their chords. There is no melody: versions are sing-along.
 */
import { routeInWords } from '../../../score/routeWords';
import { homeOfChords } from '../../../analysis/home';
import { beatLength, measureLength } from '../../../score/metre';
import { pitchClassName } from '../../../theory/pitch';
import type { Mark, Score, TimeSignature, Route } from '../../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';
import type { Chord } from '../../../theory/chord';
import { fromFifths } from '../../../theory/fifths';
import { keyName, type Key } from '../../../theory/key';
import { InputError } from '../../inputError';
import { assembleScore } from '../assemble';
import type { ReadMeasure } from '../readMeasures';
import type { ReadResult } from '../../readResult';
import type { Chart, ChartItem, ChartSection } from '../../chart/chart';

/** One beat of the chart: the chord that begins on it (undefined: the one before goes on) and its words. */
interface Cell {
  readonly chord?: Chord | null;
  readonly words: string;
  readonly isBeat: boolean;
  /** First of a row of the chart: a measure that would become too long ends there. */
  readonly startsRow?: boolean;
}

interface Bar {
  readonly cells: readonly Cell[];
  /** Where it sends the player. */
  readonly route?: Route;
  /** A barline stands before it: what it holds is the whole measure. */
  readonly fenced: boolean;
  readonly repeatStart?: boolean;
  readonly repeatEnd?: boolean;
  readonly section?: string;
}

/** Makes the score. Throws InputError when the chart holds no chord. */
export function chartToScore(chart: Chart, warnings: string[]): ReadResult {
  const known = { ...chart, sections: chart.sections.map((s) => withKnownChords(s, warnings)) };
  return knownToScore(known, warnings);
}

/** Names that no known chord has, by what is known of them: the root, else one more beat of the chord before. */
const withKnownChords = (section: ChartSection, warnings: string[]): ChartSection => ({
  ...section,
  lines: section.lines.map((line) => ({
    ...line,
    items: line.items.map((item): ChartItem => {
      const { what } = item;
      if (what.kind !== 'unknown') return item;
      const kept =
        what.root === undefined ? 'its beat' : `its root, ${pitchClassName(fromFifths(what.root))},`;
      warnings.push(`Line ${line.line}: “${what.name}” isn’t a chord Key Path knows; ${kept} is kept.`);
      return what.root === undefined
        ? { ...item, what: { kind: 'beat' } }
        : { ...item, what: { kind: 'chord', chord: { root: what.root, kind: 'power' } } };
    }),
  })),
});

function knownToScore(chart: Chart, warnings: string[]): ReadResult {
  const items = chart.sections.flatMap((s) => s.lines.flatMap((l) => l.items));
  const chords = items.flatMap((i) => (i.what.kind === 'chord' && i.what.chord ? [i.what.chord] : []));
  if (chords.length === 0) throw new InputError('The chart holds no chords.');
  const hasSlashes = items.some((i) => i.what.kind === 'beat');
  const hasBars = items.some((i) => i.what.kind === 'bar');
  // How a section says how long its chords last: verses in words above, and a chorus in bars below, are one chart.
  const says = chart.sections.map(({ lines }) => {
    const own = lines.flatMap((l) => l.items);
    return {
      hasSlashes: own.some((i) => i.what.kind === 'beat'),
      hasBars: own.some((i) => i.what.kind === 'bar'),
    };
  });
  const sections = chart.sections.map((section, s) => barsOf(section, says[s]!.hasSlashes, says[s]!.hasBars));
  const time = chart.time ?? guessedTime(sections.flat(), hasSlashes, hasBars);
  if (!chart.time)
    warnings.push(
      `The chart has no time signature; ${time.beats}/${time.beatType} was taken from its beats.`,
    );
  const silent = chart.sections.filter(
    ({ lines }, s) =>
      !says[s]!.hasSlashes &&
      !says[s]!.hasBars &&
      lines.some((l) => l.items.some((i) => i.what.kind === 'chord')),
  );
  if (!hasSlashes && !hasBars) warnings.push('The chart gives no beats: each chord lasts a measure.');
  else if (silent.length > 0)
    warnings.push(
      `${silent.map((s) => (s.name ? `“${s.name}”` : 'A section')).join(', ')} ${silent.length === 1 ? 'gives' : 'give'} no beats: each chord lasts a measure there.`,
    );
  const key = chart.key ?? homeOfChords(chords);
  if (!chart.key) warnings.push(`The chart has no key; its chords suggest ${keyName(key)}.`);
  const measures = sections.flatMap((bars, s) =>
    measuresOf(bars, { time, ...says[s]!, beat: beatOf(sections.flat(), time) }).map((measure, i) =>
      i === 0 && chart.sections[s]!.name ? { ...measure, section: chart.sections[s]!.name } : measure,
    ),
  );
  const read = withPickups(measures, measureLength(time)).map((m, i, all) => toMeasure(m, i, all, time, key));
  const withTempo = read.map((m, i) =>
    i === 0 && chart.tempo > 0
      ? { ...m, tempos: [{ onset: 0, tempo: (chart.tempo * beatLength(time)) / TICKS_PER_QUARTER }] }
      : m,
  );
  const score = assembleScore(chart.title, chart.composer, [
    { id: 'P1', name: 'Piano', staves: 2, measures: withTempo },
  ]);
  return { score: closed({ ...score, ...(chart.rights ? { rights: chart.rights } : {}) }), warnings };
}

const closed = (score: Score): Score => ({
  ...score,
  measures: score.measures.map((m, i) =>
    i === score.measures.length - 1 && !m.repeatEnd ? { ...m, barline: 'final' } : m,
  ),
});

/** A section's items cut at its barlines. The end of a line closes nothing by itself. */
function barsOf(section: ChartSection, hasSlashes: boolean, hasBars: boolean): Bar[] {
  const bars: Bar[] = [];
  let cells: Cell[] = [];
  let fenced = false;
  let repeatStart = false;
  const close = (repeatEnd = false): void => {
    if (cells.length > 0)
      bars.push({
        cells,
        fenced,
        ...(repeatStart ? { repeatStart } : {}),
        ...(repeatEnd ? { repeatEnd } : {}),
      });
    else if (repeatEnd && bars.length > 0) bars[bars.length - 1] = { ...bars.at(-1)!, repeatEnd };
    if (cells.length > 0) repeatStart = false;
    cells = [];
  };
  for (const { items } of section.lines) {
    const fencedLine = items.some((i) => i.what.kind === 'bar');
    let startsRow = true;
    for (const item of items) {
      const { what, words } = item;
      switch (what.kind) {
        case 'bar':
          close(what.repeatEnd);
          fenced = true;
          repeatStart ||= what.repeatStart ?? false;
          if (words.trim() && bars.length > 0) addWords(bars, words);
          break;
        case 'same measure':
          // Beside chords the sign is the chord before once more, for as long as a chord there lasts.
          if (isBesideChords(items, item)) {
            const before = [...(bars.at(-1)?.cells ?? []), ...cells];
            const chord = before.findLast((c) => c.chord !== undefined)?.chord;
            cells = placed(
              cells,
              chord === undefined ? { kind: 'beat' } : { kind: 'chord', chord },
              words,
              startsRow,
            );
            startsRow = false;
            break;
          }
          cells.push(...(bars.at(-1)?.cells ?? []).map((c) => ({ ...c, words: '' })));
          break;
        case 'words only':
          if (Object.keys(routeInWords(words)).length > 0) {
            close();
            const last = bars.at(-1);
            if (last) bars[bars.length - 1] = { ...last, route: { ...last.route, ...routeInWords(words) } };
            break;
          }
          if (cells.length > 0) cells[cells.length - 1] = joined(cells.at(-1)!, words);
          else if (bars.length > 0) addWords(bars, words);
          else cells.push({ words, isBeat: false });
          break;
        default:
          cells = placed(cells, what, words, startsRow);
          startsRow = false;
          if (!hasBars && !hasSlashes) close();
      }
    }
    // Where barlines are used but no beats, a row ends with its last measure.
    if (fencedLine && !hasSlashes) close();
    if (fencedLine) fenced = cells.length === 0;
  }
  close();
  return bars;
}

/** Words before the first chord join the chord. */
function placed(cells: readonly Cell[], what: ChartItem['what'], words: string, startsRow: boolean): Cell[] {
  const last = cells.at(-1);
  const leading = last && !last.isBeat ? `${last.words}` : '';
  const before = leading ? cells.slice(0, -1) : cells;
  const cell: Cell = {
    ...(what.kind === 'chord' ? { chord: what.chord } : {}),
    words: leading + words,
    isBeat: true,
    ...(startsRow ? { startsRow } : {}),
  };
  return [...before, cell];
}

/** Whether something else stands with an item between the same two barlines. */
function isBesideChords(items: readonly ChartItem[], item: ChartItem): boolean {
  const at = items.indexOf(item);
  if (!items.some((i) => i.what.kind === 'bar')) return false;
  const isBar = (i: ChartItem): boolean => i.what.kind === 'bar';
  const from = items.slice(0, at).findLastIndex(isBar);
  const to = items.findIndex((i, k) => k > at && isBar(i));
  return items.slice(from + 1, to < 0 ? items.length : to).length > 1;
}

const joined = (cell: Cell, words: string): Cell => ({ ...cell, words: `${cell.words} ${words}` });

function addWords(bars: Bar[], words: string): void {
  const bar = bars.at(-1)!;
  const cells = [...bar.cells];
  cells[cells.length - 1] = joined(cells.at(-1)!, words);
  bars[bars.length - 1] = { ...bar, cells };
}

/** The number that occurs most often; the larger of two that tie. */
function mostCommon(numbers: readonly number[]): number | undefined {
  const count = new Map<number, number>();
  for (const n of numbers) count.set(n, (count.get(n) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0];
}

const beatsIn = (bar: Bar): number => bar.cells.filter((c) => c.isBeat).length;

/** The metre that the beats between barlines, or from chord to chord, speak for. */
function guessedTime(bars: readonly Bar[], hasSlashes: boolean, hasBars: boolean): TimeSignature {
  const metres: Readonly<Record<number, TimeSignature>> = {
    2: { beats: 2, beatType: 4 },
    3: { beats: 3, beatType: 4 },
    5: { beats: 5, beatType: 4 },
    6: { beats: 6, beatType: 8 },
    7: { beats: 7, beatType: 4 },
    12: { beats: 12, beatType: 8 },
  };
  const common: TimeSignature = { beats: 4, beatType: 4 };
  if (!hasSlashes) return common;
  if (hasBars)
    return metres[mostCommon(bars.filter((b) => b.cells.some(goesOn)).map(beatsIn)) ?? 4] ?? common;
  const runs = runsOf(bars.flatMap((b) => b.cells));
  const usual = mostCommon(runs) ?? 4;
  return usual % 3 === 0 ? (metres[usual] ?? metres[3]!) : common;
}

const goesOn = (cell: Cell): boolean => cell.isBeat && cell.chord === undefined;

/** Beats from each chord to the next. */
function runsOf(cells: readonly Cell[]): number[] {
  const runs: number[] = [];
  for (const cell of cells.filter((c) => c.isBeat))
    if (cell.chord === undefined && runs.length > 0) runs[runs.length - 1]! += 1;
    else runs.push(1);
  return runs;
}

/** What one slash is worth: the felt beat, or whatever fills a measure with as many as the chart usually has. */
function beatOf(bars: readonly Bar[], time: TimeSignature): Ticks {
  const full = measureLength(time);
  const usual = mostCommon(bars.filter((b) => b.cells.some(goesOn)).map(beatsIn));
  const felt = full / beatLength(time);
  return usual === time.beats || usual === felt ? full / usual : beatLength(time);
}

interface TimedCell {
  readonly chord?: Chord | null;
  readonly words: string;
  readonly length: Ticks;
}

interface TimedBar {
  readonly cells: readonly TimedCell[];
  readonly length: Ticks;
  readonly repeatStart?: boolean;
  readonly repeatEnd?: boolean;
  readonly route?: Route;
  readonly section?: string;
  /** Set where the bar is short and leads into the next one. */
  readonly pickup?: boolean;
  /** Set where the bar completes the short one before it. */
  readonly completes?: boolean;
}

interface Beats {
  readonly time: TimeSignature;
  readonly hasSlashes: boolean;
  readonly hasBars: boolean;
  readonly beat: Ticks;
}

/** Bars with lengths. In a chart of slashes every sign is a beat; otherwise the chords of a bar share it. */
function measuresOf(bars: readonly Bar[], beats: Beats): TimedBar[] {
  const full = measureLength(beats.time);
  return bars.flatMap((bar, i): TimedBar[] => {
    const cells = bar.cells.filter((c) => c.isBeat);
    const marks = {
      ...(bar.repeatStart ? { repeatStart: true } : {}),
      ...(bar.repeatEnd ? { repeatEnd: true } : {}),
      ...(bar.route ? { route: bar.route } : {}),
    };
    if (cells.length === 0) return [];
    const inBeats = cells.length * beats.beat;
    const row = cells.findIndex((c, k) => k > 0 && c.startsRow);
    if (inBeats > full && row > 0) {
      const [first, second] = [cells.slice(0, row), cells.slice(row)];
      const { repeatStart: _start, ...after } = bar;
      const { repeatEnd: _end, route: _route, ...until } = bar;
      return measuresOf(
        [
          { ...until, cells: first, fenced: bar.fenced || i > 0 },
          { ...after, cells: second, fenced: true },
        ],
        beats,
      );
    }
    // "C | F / / |" begins with a pickup, "| C | F / / |" with a whole measure of C.
    const counted =
      beats.hasSlashes &&
      (bar.cells.some(goesOn) || inBeats >= full || (!bar.fenced && (i === 0 || i === bars.length - 1)));
    if (!counted) {
      const shares = sharesOf(cells.length, beats);
      return [{ cells: cells.map((c, k) => ({ ...c, length: shares[k]! })), length: full, ...marks }];
    }
    const timed = cells.map((c) => ({ ...c, length: beats.beat }));
    if (inBeats <= full) return [{ cells: timed, length: inBeats, ...marks }];
    // Rows without barlines, and bars with a beat too many: a measure at a time.
    const perMeasure = Math.max(1, Math.round(full / beats.beat));
    return Array.from({ length: Math.ceil(timed.length / perMeasure) }, (_, k): TimedBar => {
      const own = timed.slice(k * perMeasure, (k + 1) * perMeasure);
      return { cells: own, length: own.length * beats.beat };
    }).map((b, k, all) => ({
      ...b,
      ...(k === 0 && marks.repeatStart ? { repeatStart: true } : {}),
      ...(k === all.length - 1 && marks.repeatEnd ? { repeatEnd: true } : {}),
      ...(k === all.length - 1 && marks.route ? { route: marks.route } : {}),
    }));
  });
}

/** How the chords of one bar share it: whole beats, the earlier ones longer. */
function sharesOf(count: number, { time }: Beats): Ticks[] {
  const full = measureLength(time);
  const beat = beatLength(time);
  const inBeats = full / beat;
  if (count > inBeats) return Array.from({ length: count }, () => full / count);
  // Powers of two split evenly; otherwise what is left over goes to the first.
  if (inBeats % count === 0) return Array.from({ length: count }, () => full / count);
  const each = Math.floor(inBeats / count);
  return Array.from({ length: count }, (_, i) => (i === 0 ? inBeats - each * (count - 1) : each) * beat);
}

/** Short bars: one that follows a short bar and fills it up completes it; any other leads into the bar after it. */
function withPickups(bars: readonly TimedBar[], full: Ticks): TimedBar[] {
  const result: TimedBar[] = [];
  bars.forEach((bar, i) => {
    const before = result.at(-1);
    const isShort = bar.length < full;
    const completes =
      isShort && !!before && before.length < full && !before.completes && before.length + bar.length === full;
    const begins = i === 0 || bars[i - 1]!.length === full;
    const leads =
      isShort && !completes && i < bars.length - 1 && (bar.section !== undefined || i === 0) && begins;
    // The beat that a section borrows stands at the end of the section before: the new section begins with it.
    const borrowed =
      isShort &&
      !leads &&
      !completes &&
      bar.section === undefined &&
      bars[i + 1]?.section !== undefined &&
      bars[i + 1]!.length === full &&
      isTail(bars, i);
    if (borrowed) {
      const { section } = bars[i + 1]!;
      result.push({ ...bar, pickup: true, ...(section ? { section } : {}) });
      return;
    }
    const takenOver = bar.section !== undefined && before?.pickup && before.section === bar.section;
    const { section: _taken, ...rest } = bar;
    result.push({
      ...(takenOver ? rest : bar),
      ...(completes ? { completes: true } : {}),
      ...(leads ? { pickup: true } : {}),
    });
  });
  return result;
}

/** Whether a short bar is what was left over of a bar with beats too many, rather than a short last measure. */
const isTail = (bars: readonly TimedBar[], i: number): boolean =>
  i > 0 &&
  bars[i - 1]!.length > 0 &&
  !!bars[i]!.cells[0] &&
  bars[i]!.cells[0].chord !== undefined &&
  bars[i]!.cells.length * 2 <= bars[i - 1]!.cells.length;

function toMeasure(
  bar: TimedBar,
  index: number,
  all: readonly TimedBar[],
  time: TimeSignature,
  key: Key,
): ReadMeasure {
  let onset: Ticks = 0;
  const symbols: ReadMeasure['symbols'][number][] = [];
  const marks: Mark[] = [];
  for (const cell of bar.cells) {
    if (cell.chord !== undefined) symbols.push({ onset, chord: cell.chord });
    const text = cell.words.replace(/\s+/g, ' ').trim();
    if (text) marks.push({ kind: 'lyrics', onset, staff: 1, above: false, text });
    onset += cell.length;
  }
  const numbered = all.slice(0, index + 1).filter((b) => !b.pickup && !b.completes).length;
  return {
    number: bar.pickup
      ? index === 0
        ? '0'
        : `X${numbered}`
      : bar.completes
        ? `X${numbered}`
        : String(numbered),
    implicit: bar.length < measureLength(time),
    pickup: bar.pickup ?? false,
    content: bar.length,
    time,
    key,
    changes: [],
    notes: [],
    symbols,
    pedals: [],
    clefs: [],
    marks,
    tempos: [],
    frame: {
      ...(bar.repeatStart ? { repeatStart: true } : {}),
      ...(bar.repeatEnd ? { repeatEnd: true } : {}),
      ...(bar.route ? { route: bar.route } : {}),
    },
    ...(bar.section ? { section: bar.section } : {}),
  };
}

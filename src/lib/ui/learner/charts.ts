/** A learner's charts: what they draw, and the same in words. */
import type { TimeSignature } from '$core/score/score';
import { plural, shortDate, toBeats } from '$ui/text';
import type { EChartsCoreOption } from 'echarts/core';

interface Week {
  readonly monday: string;
  readonly measures: number;
  readonly reviews: number;
  readonly set: number | null;
  readonly practised: number | null;
}
export interface TempoLine {
  readonly title: string;
  readonly time: TimeSignature;
  readonly goal: number;
  readonly points: readonly { readonly day: string; readonly tempo: number }[];
}
export interface ChartText {
  readonly title: string;
  readonly words: string;
  readonly option: EChartsCoreOption;
}

/** Measured by the chart itself, which does not know the page's style. */
const FONT = 'Atkinson Hyperlegible Next Variable, sans-serif';
const INK = '#1a2238';
const QUIET = '#565d73';
const LINE = '#d9d6cd';
/** Lines tell themselves apart by their marks as well as by their colour. */
const LINES = [
  { color: INK, symbol: 'circle', type: 'solid' },
  { color: '#1f5199', symbol: 'rect', type: 'dashed' },
  { color: '#7a2362', symbol: 'triangle', type: 'dotted' },
  { color: '#3f5a23', symbol: 'diamond', type: 'solid' },
] as const;

const axis = {
  axisTick: { show: false },
  axisLine: { lineStyle: { color: LINE } },
  axisLabel: { color: QUIET, fontSize: 12, hideOverlap: true },
};
const common = (words: string) => ({
  animation: false,
  aria: { enabled: true, label: { description: words } },
  textStyle: { fontFamily: FONT, color: QUIET },
  grid: { left: 34, right: 12, top: 26, bottom: 22 },
  tooltip: {
    trigger: 'axis' as const,
    confine: true,
    backgroundColor: 'var(--color-paper)',
    borderColor: 'var(--color-hairline)',
    textStyle: { color: 'var(--color-ink)', fontSize: 13 },
  },
});
const legend = {
  top: 0,
  left: 28,
  itemWidth: 16,
  itemHeight: 8,
  itemGap: 16,
  textStyle: { color: QUIET, fontSize: 12 },
};
const yAxis = {
  type: 'value' as const,
  splitLine: { lineStyle: { color: LINE, opacity: 0.6 } },
  axisLabel: { color: QUIET, fontSize: 12 },
  minInterval: 1,
};

const sum = (values: readonly (number | null)[]): number => values.reduce<number>((a, b) => a + (b ?? 0), 0);

/** The best tempo of each lesson with both hands, a line a piece, in beats a minute. */
export function tempoChart(lines: readonly TempoLine[]): ChartText {
  const words = lines
    .map(({ title, time, goal, points }) => {
      const [first, last] = [points[0]!, points.at(-1)!];
      const best = Math.max(...points.map((p) => p.tempo));
      return `${title}: ${toBeats(time, first.tempo)} on ${shortDate(first.day)}, ${toBeats(time, last.tempo)} on ${shortDate(last.day)}, at best ${toBeats(time, best)} of ${toBeats(time, goal)}.`;
    })
    .join(' ');
  return {
    title: 'Tempo hands together',
    words,
    option: {
      ...common(words),
      legend,
      xAxis: { type: 'time' as const, ...axis, splitLine: { show: false } },
      yAxis: { ...yAxis, scale: true },
      series: lines.map(({ title, time, points }, i) => ({
        name: title,
        type: 'line' as const,
        data: points.map((p) => [p.day, toBeats(time, p.tempo)]),
        symbol: LINES[i]!.symbol,
        symbolSize: 6,
        lineStyle: { color: LINES[i]!.color, width: 2, type: LINES[i]!.type },
        itemStyle: { color: LINES[i]!.color },
      })),
    },
  };
}

const weekNames = (weeks: readonly Week[]): string[] => weeks.map((w) => shortDate(w.monday));

function barChart(
  weeks: readonly Week[],
  title: string,
  words: string,
  series: readonly {
    readonly name: string;
    readonly color: string;
    readonly values: readonly (number | null)[];
  }[],
): ChartText {
  return {
    title,
    words,
    option: {
      ...common(words),
      ...(series.length > 1 ? { legend } : {}),
      xAxis: { type: 'category' as const, data: weekNames(weeks), ...axis },
      yAxis,
      series: series.map(({ name, color, values }) => ({
        name,
        type: 'bar' as const,
        data: [...values],
        barMaxWidth: 12,
        itemStyle:
          color === 'outlined' ? { color: 'transparent', borderColor: INK, borderWidth: 1 } : { color },
      })),
    },
  };
}

/** New measures that came to both hands, by week. */
export function measuresChart(weeks: readonly Week[]): ChartText {
  const all = sum(weeks.map((w) => w.measures));
  const best = weeks.reduce((a, b) => (b.measures > a.measures ? b : a));
  const words =
    all === 0
      ? `No measures learned in ${plural(weeks.length, 'week')}.`
      : `${plural(all, 'measure learned', 'measures learned')} in ${plural(weeks.length, 'week')}, ${(all / weeks.length).toFixed(1)} a week; most in the week of ${shortDate(best.monday)}: ${best.measures}.`;
  return barChart(weeks, 'Measures learned', words, [
    { name: 'measures learned', color: INK, values: weeks.map((w) => w.measures) },
  ]);
}

/** Minutes that were set, beside those that were practised as the learner says. */
export function minutesChart(weeks: readonly Week[]): ChartText {
  const told = weeks.filter((w) => w.practised !== null && w.set !== null);
  const [set, done] = [sum(told.map((w) => w.set)), sum(told.map((w) => w.practised))];
  const words =
    told.length === 0
      ? 'No practice minutes yet.'
      : `${done} of ${set} assigned minutes in ${plural(told.length, 'week')}: ${Math.round((100 * done) / Math.max(1, set))}%.`;
  return barChart(weeks, 'Minutes assigned and practiced', words, [
    { name: 'assigned', color: 'outlined', values: weeks.map((w) => w.set) },
    { name: 'practiced', color: INK, values: weeks.map((w) => w.practised) },
  ]);
}

/** How often something learned was played again. */
export function reviewsChart(weeks: readonly Week[]): ChartText {
  const all = sum(weeks.map((w) => w.reviews));
  const words =
    all === 0 ? 'No reviews yet.' : `Reviews: ${plural(all, 'time')} in ${plural(weeks.length, 'week')}.`;
  return barChart(weeks, 'Reviews', words, [
    { name: 'reviews', color: INK, values: weeks.map((w) => w.reviews) },
  ]);
}

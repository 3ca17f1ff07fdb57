import { describe, expect, it } from 'vitest';
import {
  measuresChart,
  minutesChart,
  reviewsChart,
  tempoChart,
  type ChartText,
  type TempoLine,
} from './charts';
import { csvOf } from './csv';

type Week = Parameters<typeof measuresChart>[0][number];
const week = (monday: string, facts: Partial<Week> = {}): Week => ({
  monday,
  measures: 0,
  reviews: 0,
  set: null,
  practised: null,
  ...facts,
});
interface Series {
  readonly name: string;
  readonly data: readonly unknown[];
  readonly symbol?: string;
  readonly lineStyle?: { readonly type: string; readonly color: string };
}
const seriesOf = ({ option }: ChartText): readonly Series[] => option.series as Series[];
/** What a screen reader is told. */
const toldOf = ({ option }: ChartText): unknown =>
  (option.aria as { label: { description: string } }).label.description;

describe('charts of a student say in words what they draw', () => {
  const weeks = [
    week('2026-11-02', { measures: 4, reviews: 2, set: 75, practised: 60 }),
    week('2026-11-09', { measures: 8, reviews: 1, set: 75, practised: null }),
    week('2026-11-16', { measures: 0, reviews: 0, set: 100, practised: 40 }),
    week('2026-11-23', { measures: 3, reviews: 1 }),
  ];
  it('new measures: how many, how many a week, and the best week', () => {
    const chart = measuresChart(weeks);
    expect(chart.words).toBe('15 measures learned in 4 weeks, 3.8 a week; most in the week of 9 Nov: 8.');
    expect(seriesOf(chart)[0]!.data).toEqual([4, 8, 0, 3]);
    expect((chart.option.xAxis as { data: string[] }).data).toEqual(['2 Nov', '9 Nov', '16 Nov', '23 Nov']);
    // One series needs no names beside it.
    expect(chart.option.legend).toBeUndefined();
  });
  it('no new measure is said so', () => {
    expect(measuresChart([week('2026-11-02')]).words).toBe('No measures learned in 1 week.');
    expect(reviewsChart([week('2026-11-02')]).words).toBe('No reviews yet.');
  });
  it('minutes: only weeks of which both are known are compared', () => {
    const chart = minutesChart(weeks);
    expect(chart.words).toBe('100 of 175 assigned minutes in 2 weeks: 57%.');
    expect(seriesOf(chart).map((s) => [s.name, s.data])).toEqual([
      ['assigned', [75, 75, 100, null]],
      ['practiced', [60, null, 40, null]],
    ]);
    expect(chart.option.legend).toBeDefined();
    expect(minutesChart([week('2026-11-02', { set: 75 })]).words).toBe('No practice minutes yet.');
  });
  it('what was played again is counted', () =>
    expect(reviewsChart(weeks).words).toBe('Reviews: 4 times in 4 weeks.'));
  const line = (title: string, facts: Partial<TempoLine> = {}): TempoLine => ({
    title,
    time: { beats: 4, beatType: 4 },
    goal: 96,
    points: [
      { day: '2026-11-03', tempo: 50 },
      { day: '2026-11-10', tempo: 72 },
      { day: '2026-11-17', tempo: 66 },
    ],
    ...facts,
  });
  it('tempi: the first, the last, the best and the goal', () =>
    expect(tempoChart([line('Mill Song')]).words).toBe(
      'Mill Song: 50 on 3 Nov, 66 on 17 Nov, at best 72 of 96.',
    ));
  it('tempi are told in the beat of the time signature: a dotted quarter in six eighths', () => {
    const jig = line('Jig', {
      time: { beats: 6, beatType: 8 },
      goal: 90,
      points: [{ day: '2026-11-03', tempo: 60 }],
    });
    const chart = tempoChart([jig]);
    expect(chart.words).toBe('Jig: 40 on 3 Nov, 40 on 3 Nov, at best 40 of 60.');
    expect(seriesOf(chart)[0]!.data).toEqual([['2026-11-03', 40]]);
  });
  it('lines of several pieces differ by mark and stroke, not by colour alone', () => {
    const chart = tempoChart(['A', 'B', 'C', 'D'].map((title) => line(title)));
    const series = seriesOf(chart);
    expect(new Set(series.map((s) => `${s.symbol} ${s.lineStyle!.type}`)).size).toBe(4);
    expect(new Set(series.map((s) => s.lineStyle!.color)).size).toBe(4);
  });
  it('who hears a chart is told what stands beside it, and nothing moves', () => {
    for (const chart of [
      measuresChart(weeks),
      minutesChart(weeks),
      reviewsChart(weeks),
      tempoChart([line('A')]),
    ]) {
      expect(toldOf(chart)).toBe(chart.words);
      expect(chart.option.animation).toBe(false);
    }
  });
});

describe('rows for a spreadsheet', () => {
  it('are parted by commas and lines, and quoted where they must be', () =>
    expect(
      csvOf([
        ['name', 'note', 'minutes'],
        ['Nora', 'said "well", twice', 15],
        ['Ole', 'two\nlines', null],
      ]),
    ).toBe('name,note,minutes\r\nNora,"said ""well"", twice",15\r\nOle,"two\nlines",\r\n'));
  it.each(['=1+1', '+4', '-2', '@cell', '\tx'])('%j is no formula there', (text) =>
    expect(csvOf([[text]])).toBe(`'${text}\r\n`),
  );
  it('a number below nought stays a number', () => expect(csvOf([[-2]])).toBe('-2\r\n'));
});

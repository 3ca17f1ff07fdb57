import { describe, expect, it } from 'vitest';
import { heardHistory } from './heardHistory';
import type { LessonEvent } from './events';
import type { Heard } from './heard';

let id = 0;
const event = (
  day: string,
  measures: Heard['measures'] | undefined,
  withdraws: number | null = null,
): LessonEvent => ({
  id: ++id,
  chunk: 'm4..m5',
  step: 'both',
  hand: 'both',
  counting: false,
  tempo: 60,
  grade: 3,
  by: 'ear',
  at: `${day}T10:00:00Z`,
  day,
  withdraws,
  ...(measures ? { heard: { grade: 3, right: 1, tempo: 60, stops: 0, from: 'keyboard', measures } } : {}),
});
const measure = (
  at: string,
  number: string,
  right: number,
  ...slips: string[]
): Heard['measures'][number] => ({
  id: at,
  number,
  right,
  slips,
});

describe('what was heard over the weeks', () => {
  it('is the last take of each week, measure by measure', () => {
    const history = heardHistory([
      event('2026-11-03', [measure('m5', '6', 0.5, 'F♯, not F'), measure('m4', '5', 1)]),
      event('2026-11-04', [measure('m5', '6', 0.8, 'F♯, not F')]),
      event('2026-11-11', [measure('m5', '6', 1)]),
    ])!;
    expect(history.weeks).toEqual(['2026-11-02', '2026-11-09']);
    expect(history.measures).toEqual([
      { id: 'm4', number: '5', byWeek: [1, null] },
      { id: 'm5', number: '6', byWeek: [0.8, 1] },
    ]);
    expect(history.takes).toBe(3);
  });
  it('names what keeps going wrong, and only that', () => {
    const takes = [
      event('2026-11-03', [measure('m5', '6', 0.5, 'F♯, not F', 'C is missing')]),
      event('2026-11-10', [measure('m5', '6', 0.8, 'F♯, not F')]),
      event('2026-11-11', [measure('m5', '6', 1)]),
    ];
    expect(heardHistory(takes)!.slips).toEqual([{ number: '6', slip: 'F♯, not F', times: 2, of: 3 }]);
  });
  it('is nothing where nothing was heard, or all of it was taken back', () => {
    const one = event('2026-11-03', [measure('m5', '6', 1)]);
    expect(heardHistory([event('2026-11-03', undefined)])).toBeUndefined();
    expect(heardHistory([one, event('2026-11-03', undefined, one.id)])).toBeUndefined();
  });
});

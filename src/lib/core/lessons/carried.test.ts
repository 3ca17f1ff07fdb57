import { describe, expect, it } from 'vitest';
import { scoreFrom } from '../test/shorthand';
import { carriedFrom, carriedText, handsByMeasure, type HandsOfVersion } from './carried';
import type { LessonEvent } from './events';

const four = { beats: 4, beatType: 4 };
const versionOf = (right: string, left: string): HandsOfVersion => {
  const score = scoreFrom({ key: 'C', time: four, right, left });
  return { ids: score.measures.map((m) => m.id), hands: handsByMeasure(score) };
};
const TUNE = 'E4:2 G4:2 | F4:4 | D4:2 F4:2 | C4:4';
const basic = versionOf(TUNE, 'C3:4 | F3:4 | G3:4 | C3:4');
/** The same melody; its left hand is another in the second and third measure. */
const fuller = versionOf(TUNE, 'C3:4 | F3:2 C4:2 | G3:2 D4:2 | C3:4');
const event = (id: number, chunk: string, more: Partial<LessonEvent> = {}): LessonEvent => ({
  id,
  chunk,
  step: 'right',
  hand: 'right',
  counting: false,
  tempo: 60,
  grade: 3,
  by: 'teacher',
  at: '2026-03-02T15:00:00Z',
  day: '2026-03-02' as LessonEvent['day'],
  withdraws: null,
  ...more,
});
const chunks = (events: readonly LessonEvent[]): string[] =>
  carriedFrom(events, basic, fuller).map((e) => `${e.step} ${e.chunk}`);

describe('what is known of another version', () => {
  it('is a hand wherever it has the same notes', () => {
    expect(chunks([event(1, 'm0..m3')])).toEqual(['right m0..m3']);
    expect(chunks([event(1, 'm0..m3', { step: 'left', hand: 'left' })])).toEqual([
      'left m0..m0',
      'left m3..m3',
    ]);
  });
  it('is both hands only where both are the same', () => {
    expect(chunks([event(1, 'm0..m1', { step: 'both', hand: 'both' })])).toEqual(['both m0..m0']);
    expect(chunks([event(1, 'm1..m2', { step: 'ladder', hand: 'both' })])).toEqual([]);
  });
  it('keeps tempo, grade, day and who saw it', () => {
    const [carried] = carriedFrom([event(7, 'm0..m1', { by: 'ear', tempo: 72 })], basic, fuller);
    expect(carried).toMatchObject({ id: 7, by: 'ear', tempo: 72, grade: 3, day: '2026-03-02' });
  });
  it('is nothing that was not gained, was unchecked, is only heard or depends on the chunks', () => {
    expect(chunks([event(1, 'm0..m3', { grade: 1 })])).toEqual([]);
    expect(chunks([event(1, 'm0..m3'), event(2, 'm0..m3', { withdraws: 1 })])).toEqual([]);
    expect(chunks([event(1, 'm0..m3', { step: 'hear', hand: null })])).toEqual([]);
    expect(chunks([event(1, 'm2..m3', { step: 'join', hand: 'both' })])).toEqual([]);
  });
  it('keeps beats at the ends of a chunk, and goes by measures that both have', () => {
    expect(chunks([event(1, 'm0:3..m2:2')])).toEqual(['right m0:3..m2:2']);
    expect(chunks([event(1, 'm0:3..m2:2', { step: 'left', hand: 'left' })])).toEqual(['left m0:3..m0']);
    const led: HandsOfVersion = {
      ids: ['i0', ...fuller.ids.slice(1)],
      hands: { right: ['', ...fuller.hands.right.slice(1)], left: ['', ...fuller.hands.left.slice(1)] },
    };
    expect(carriedFrom([event(1, 'm0..m3')], basic, led).map((e) => e.chunk)).toEqual(['m1..m3']);
  });
  it('is nothing in another key, and nothing where the hand rests', () => {
    const higher = versionOf('F4:2 A4:2 | G4:4 | E4:2 G4:2 | D4:4', 'C3:4 | F3:4 | G3:4 | C3:4');
    expect(carriedFrom([event(1, 'm0..m3')], basic, higher)).toEqual([]);
    const silent = versionOf('r:4 | F4:4', 'C3:4 | F3:4');
    expect(carriedFrom([event(1, 'm0..m1')], silent, silent).map((e) => e.chunk)).toEqual(['m1..m1']);
  });
  it('is said hand by hand, by its measures, run by run', () => {
    const said = (...all: LessonEvent[]): string => carriedText(all, basic.ids, ['1', '2', '3', '4']);
    expect(said(event(1, 'm0..m1'), event(2, 'm1..m2'))).toBe('right hand, measures 1 to 3');
    expect(
      said(
        event(1, 'm3..m3'),
        event(2, 'm0..m1'),
        event(3, 'm0..m0', { hand: 'left' }),
        event(4, 'm2..m3', { hand: 'both' }),
      ),
    ).toBe('right hand, measures 1 to 2, measure 4; left hand, measure 1; hands together, measures 3 to 4');
  });
});

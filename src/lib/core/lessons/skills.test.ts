import { describe, expect, it } from 'vitest';
import { STRANDS, strandsOf } from '../difficulty/strands';
import { scoreFrom } from '../test/shorthand';
import { historyOf } from './history';
import { learnedIn } from './progress';
import { strandSums, strengthsOf } from './strengths';
import { strandTotals, suiting, suitingText } from './suits';
import { chunksBy, GOAL, MUSIC, recorder } from '../test/lessonPiece';

const did = recorder();
/** Twelve measures: the first four ask for leaps, the next four for rhythm. */
const strands = MUSIC.ids.map((_, i) => STRANDS.map((s) => (s === (i < 4 ? 'leaps' : 'rhythm') ? 20 : 0)));
const placed = (chunk: string, grade: 1 | 2 | 3 | 4 | null) => ({
  ...did({ chunk, grade }),
  from: chunk === 'm0..m3' ? 0 : 4,
  to: chunk === 'm0..m3' ? 3 : 7,
});
const gradeIn = (strand: string, events: ReturnType<typeof placed>[]) =>
  strengthsOf([strandSums({ events, strands })]).find((s) => s.strand === strand)!.grade;

describe('what comes easily', () => {
  it('is what the measures ask for whose grades are good', () => {
    const events = [placed('m0..m3', 4), placed('m0..m3', 4), placed('m4..m7', 1), placed('m4..m7', 2)];
    expect(gradeIn('leaps', events)!).toBeGreaterThan(3.5);
    expect(gradeIn('rhythm', events)!).toBeLessThan(2.2);
  });
  it('is said of nothing that was hardly graded, and ungraded ticks say nothing', () => {
    expect(gradeIn('chords', [placed('m0..m3', 4)])).toBeNull();
    expect(gradeIn('leaps', [placed('m0..m3', null)])).toBeNull();
  });
  it('is asked by music for what it has: leaps, or chords', () => {
    const of = (right: string) =>
      strandsOf(scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left: 'C3:4' }))[0]!;
    const [leaping, stepping] = [of('C4:1 C6:1 C4:1 C6:1'), of('C4:1 D4:1 C4:1 D4:1')];
    expect(leaping[STRANDS.indexOf('leaps')]!).toBeGreaterThan(stepping[STRANDS.indexOf('leaps')]!);
    const chords = of('[C4 E4 G4]:1 [C4 E4 G4]:1 [C4 E4 G4]:2');
    expect(chords[STRANDS.indexOf('chords')]!).toBeGreaterThan(stepping[STRANDS.indexOf('chords')]!);
  });
});

describe('what suits', () => {
  const of = (leaps: number, rhythm: number) => strandTotals([[leaps, rhythm, 5, 5, 5, 5]]);
  const found = (weak: readonly ('leaps' | 'rhythm')[] = []) =>
    suiting(
      of(10, 10),
      [
        { id: 'same', totals: of(10, 10) },
        { id: 'leaps', totals: of(15, 10) },
        { id: 'rhythm', totals: of(10, 15) },
        { id: 'far', totals: of(60, 60) },
        { id: 'easy', totals: of(1, 1) },
      ],
      new Set(weak),
    );
  it('is a step up, neither far nor easy, and less so what asks more of what is weak', () => {
    expect(found().map((s) => s.id)).toEqual(['leaps', 'rhythm', 'same']);
    expect(found(['leaps'])[0]!.id).toBe('rhythm');
    expect(suiting(strandTotals([]), [{ id: 'a', totals: of(1, 1) }], new Set())).toEqual([]);
  });
  it('says what it asks more and less of', () => {
    expect(suitingText(found()[0]!)).toBe('a step up; harder: leaps');
    expect(suitingText({ id: '', step: 1, more: ['rhythm', 'chords'], less: ['leaps'] })).toBe(
      'about as hard; harder: rhythm and chords; easier: leaps',
    );
  });
});

describe('a history', () => {
  it('counts a measure in the week in which it came to both hands, a pickup never', () => {
    const events = [
      did({ step: 'right', day: '2026-11-02' }),
      did({ step: 'left', day: '2026-11-10' }),
      did({ chunk: 'm4..m7', step: 'ladder', tempo: 70, day: '2026-11-17' }),
      did({ chunk: 'm4..m7', step: 'review', hand: 'both', tempo: null, day: '2026-11-24' }),
      did({ chunk: 'm4..m7', step: 'ladder', tempo: 74, grade: 1, day: '2026-11-24' }),
    ];
    const made = historyOf(
      chunksBy('front to back'),
      learnedIn(MUSIC.ids, events),
      MUSIC.form,
      strands,
      (i) => i !== 0,
      GOAL,
    );
    expect(made.weeks.map((w) => [w.monday, w.measures])).toEqual([
      ['2026-11-02', 0],
      ['2026-11-09', 3],
      ['2026-11-16', 4],
    ]);
    expect(made.tempi).toEqual([{ day: '2026-11-17', tempo: 70 }]);
    expect(made.reviews).toEqual([{ monday: '2026-11-23', count: 1 }]);
    expect(made.learned.measures).toBe(8);
  });
});

import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { readChart } from '../io/chart/read';
import { byOnset } from '../score/query';
import { toMidi } from '../score/pitch';
import { LEVELS } from './levels';
import { rightHandChords } from './rightHandChords';

const { score } = readChart('Time: 4/4\nC / / / | F / / / | G7 / / / | Am7 / D/F# / | C / / / |');
const hand = (level: 1 | 2 | 3) =>
  rightHandChords(score.measures, chordsOf(score), {
    contract: LEVELS[level],
    reach: 14,
    keyboard: { low: 36, high: 96 },
  });

describe('chords to sing to', () => {
  it.each([1, 2, 3] as const)(
    'level %i has no more notes at once than its contract, and no wider',
    (level) => {
      for (const { notes } of byOnset(hand(level).notes)) {
        expect(notes).toHaveLength(LEVELS[level].rightNotes);
        const midi = notes.map((n) => toMidi(n.pitch)).sort((a, b) => a - b);
        expect(midi.at(-1)! - midi[0]!).toBeLessThanOrEqual(LEVELS[level].span ?? 14);
      }
    },
  );
  it('takes the third, and the seventh where there are two notes', () => {
    const names = byOnset(hand(3).notes).map(({ notes }) =>
      notes
        .map((n) => n.pitch.step)
        .sort()
        .join(''),
    );
    expect(names).toEqual(['EG', 'AC', 'BF', 'CG', 'AD', 'EG']);
  });
  it('says what stays', () => {
    const near = readChart('Time: 4/4\nC / / / | Em / / / |').score;
    const { reasons } = rightHandChords(near.measures, chordsOf(near), {
      contract: LEVELS[3],
      reach: 14,
      keyboard: { low: 36, high: 96 },
    });
    expect(reasons[1]!.reason).toBe('Em as G B; G stays');
  });
  it('leaves a measure without a chord silent', () => {
    const silent = readChart('Time: 4/4\nC / / / | N.C. / / / | C / / / |').score;
    const notes = rightHandChords(silent.measures, chordsOf(silent), {
      contract: LEVELS[3],
      reach: 14,
      keyboard: { low: 36, high: 96 },
    }).notes;
    expect(new Set(notes.map((n) => n.onset))).toEqual(new Set([0, 2 * silent.measures[1]!.start]));
  });
});

import { describe, expect, it } from 'vitest';
import { chordsOf } from '../analysis/harmony';
import { readChart } from '../io/chart/read';
import { byOnset } from '../score/query';
import { toMidi } from '../theory/pitch';
import { levelNumbered } from './levels';
import { singAlong } from './singAlong';
import { stretchesOf } from './private/stretches';

const { score } = readChart('Time: 4/4\nC / / / | F / / / | G7 / / / | Am7 / D/F# / | C / / / |');
const hand = (level: number) =>
  singAlong(score.measures, stretchesOf(score.measures, chordsOf(score), levelNumbered(level)), {
    contract: levelNumbered(level),
    rhythmIn: () => 'held',
    freshStarts: new Set(),
    reach: 14,
    keyboard: { low: 36, high: 96 },
  });

describe('chords to sing to', () => {
  it.each([1, 2, 3] as const)(
    'level %i has no more notes at once than its contract, and no wider',
    (level) => {
      for (const { notes } of byOnset(hand(level).notes)) {
        expect(notes).toHaveLength(levelNumbered(level).rightNotes);
        const midi = notes.map((n) => toMidi(n.pitch)).sort((a, b) => a - b);
        expect(midi.at(-1)! - midi[0]!).toBeLessThanOrEqual(levelNumbered(level).span ?? 14);
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
    const { reasons } = singAlong(
      near.measures,
      stretchesOf(near.measures, chordsOf(near), levelNumbered(3)),
      {
        contract: levelNumbered(3),
        rhythmIn: () => 'held',
        freshStarts: new Set(),
        reach: 14,
        keyboard: { low: 36, high: 96 },
      },
    );
    expect(reasons[1]!.reason).toBe('Em as G B; G stays; held: the last chord');
  });
  it('leaves a measure without a chord silent', () => {
    const silent = readChart('Time: 4/4\nC / / / | N.C. / / / | C / / / |').score;
    const inMeasures = stretchesOf(silent.measures, chordsOf(silent), levelNumbered(3));
    const notes = singAlong(silent.measures, inMeasures, {
      contract: levelNumbered(3),
      rhythmIn: () => 'held',
      freshStarts: new Set(),
      reach: 14,
      keyboard: { low: 36, high: 96 },
    }).notes;
    expect(new Set(notes.map((n) => n.onset))).toEqual(new Set([0, 2 * silent.measures[1]!.start]));
  });
  it('stays around its home: a single note never leaps from phrase to phrase, and the same phrase is set the same', () => {
    const line = 'D/F# / / / | Em / / / | A7sus4 / / / | A7 / / / |';
    const song = readChart(`Time: 4/4\n${line}\n${line}\n${line}`).score;
    const tops = singAlong(song.measures, stretchesOf(song.measures, chordsOf(song), levelNumbered(2)), {
      contract: levelNumbered(2),
      rhythmIn: () => 'held',
      freshStarts: new Set([0, 4, 8]),
      reach: 14,
      keyboard: { low: 36, high: 96 },
    }).notes.map((n) => toMidi(n.pitch));
    expect(Math.max(...tops.slice(1).map((midi, i) => Math.abs(midi - tops[i]!)))).toBeLessThan(8);
    expect(tops.slice(4, 8)).toEqual(tops.slice(0, 4));
    expect(tops.slice(8)).toEqual(tops.slice(0, 4));
  });
});

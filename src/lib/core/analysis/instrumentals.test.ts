import { describe, expect, it } from 'vitest';
import { TICKS_PER_QUARTER } from '../score/ticks';
import { scoreFrom, withVoice } from '../test/shorthand';
import { chordSymbol } from '../theory/chord';
import { formOf } from './form';
import { chordsOf } from './harmony';
import { inInstrumental, instrumentals } from './instrumentals';

const four = { beats: 4, beatType: 4 };
const RIFF = 'A2:1 A2:1 C3:1 D3:1';
/** Twelve measures of a band that plays on; the singer has the fifth to the eighth and the last two. */
const piano = scoreFrom({
  key: 'Am',
  time: four,
  right: Array.from({ length: 12 }, () => '[A3 C4 E4]:4').join(' | '),
  left: Array.from({ length: 12 }, () => RIFF).join(' | '),
});
const sung = 'E4:1 E4:1 G4:1 A4:1';
const voice = (measures: Record<number, string>): string =>
  Array.from({ length: 12 }, (_, i) => measures[i + 1] ?? 'r:4').join(' | ');
const song = withVoice(piano, voice({ 5: sung, 6: sung, 7: sung, 8: 'A4:4', 11: sung, 12: 'A4:4' }));

describe('instrumentals', () => {
  it('lie before, between and after what is sung', () => {
    expect(instrumentals(song)).toEqual([
      { from: 0, to: 3 },
      { from: 8, to: 9 },
    ]);
    expect([3, 4, 9].map((m) => inInstrumental(instrumentals(song), m))).toEqual([true, false, true]);
  });
  it('have the measure in which the singer leads in, and not one that is still held', () => {
    const led = withVoice(piano, voice({ 4: 'r:3 E4:1', 5: sung, 6: 'A4:4' }));
    expect(instrumentals(led)[0]).toEqual({ from: 0, to: 3 });
    const short = withVoice(piano, voice({ 1: sung, 2: 'A4:4', 6: sung }));
    const until = (quarters: number) => ({
      ...short,
      parts: short.parts.map((p) => ({
        ...p,
        notes: p.notes.map((n) =>
          n.id.startsWith('vm1') ? { ...n, duration: quarters * TICKS_PER_QUARTER } : n,
        ),
      })),
    });
    expect(instrumentals(until(5))[0]).toEqual({ from: 2, to: 4 });
    const held = until(7);
    expect(instrumentals(held)[0]).toEqual({ from: 3, to: 4 });
  });
  it('are longer than a breath', () => {
    const breath = withVoice(piano, voice({ 1: sung, 2: sung, 4: sung, 5: sung }));
    expect(instrumentals(breath)).toEqual([{ from: 5, to: 11 }]);
  });
  it('are none where nobody plays beside the singer, and none where nobody sings', () => {
    expect(instrumentals(piano)).toEqual([]);
    expect(instrumentals({ ...song, parts: song.parts.filter((p) => p.id === 'V') })).toEqual([]);
  });
  it('are sections of their own', () => {
    expect(formOf(song).sections.map((s) => [s.from, s.to])).toEqual([
      [0, 3],
      [4, 7],
      [8, 9],
      [10, 11],
    ]);
    expect(formOf(song).sections[0]!.role?.role).toBe('intro');
  });
  it('are no verse for the word with which the singer leads out of them', () => {
    const led = withVoice(
      piano,
      voice({ 4: 'r:3 E4:1', 5: sung, 6: sung, 7: sung, 8: 'A4:4', 10: 'r:3 E4:1', 11: sung, 12: sung }),
    );
    expect(formOf(led).sections.map((s) => [s.from, s.role?.role])).toEqual([
      [0, 'intro'],
      [4, 'verse'],
      [8, undefined],
      [10, 'chorus'],
    ]);
  });
  it('have the chords that are heard where symbols stand over the verses alone', () => {
    const named = {
      ...song,
      chordSymbols: [
        { onset: song.measures[4]!.start, chord: { root: 3, kind: 'minor' as const } },
        { onset: song.measures[6]!.start, chord: { root: 1, kind: 'major' as const } },
        { onset: song.measures[10]!.start, chord: { root: 3, kind: 'minor' as const } },
      ],
    };
    const spans = chordsOf(named);
    expect(spans.map((s) => [s.onset / song.measures[1]!.start, s.chord && chordSymbol(s.chord)])).toEqual([
      [0, 'Am'],
      [6, 'G'],
      [8, 'Am'],
    ]);
    expect(spans[0]!.from).toBe('notes');
  });
});

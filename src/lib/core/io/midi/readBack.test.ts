/**
 * The bytes of a MIDI file, read by a reader of its own that knows the standard and nothing of ours: what it finds is the performance,
 * stroke for stroke.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { perform } from '../../performance/perform';
import { TICKS_PER_QUARTER } from '../../score/ticks';
import type { Score } from '../../score/score';
import { scoreFrom } from '../../test/shorthand';
import { readAbc } from '../abc/read';
import { writeMidi } from '../private/midi/write';

interface Stroke {
  readonly midi: number;
  /** In quarters. */
  readonly onset: number;
  readonly length: number;
  readonly velocity: number;
  readonly track: number;
}
interface Read {
  readonly strokes: Stroke[];
  readonly pedals: { readonly onset: number; readonly down: boolean }[];
  readonly tempi: { readonly onset: number; readonly tempo: number }[];
  readonly metres: { readonly onset: number; readonly beats: number; readonly beatType: number }[];
  readonly fifths: number[];
  /** Keys that were struck and never let go. */
  readonly hanging: number;
}

/** Reads a file of type 1, byte by byte. Throws where it is none. */
function read(bytes: Uint8Array): Read {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const tag = (at: number): string => String.fromCharCode(...bytes.slice(at, at + 4));
  if (tag(0) !== 'MThd' || view.getUint16(8) !== 1) throw new Error('This is no file of type 1.');
  const division = view.getUint16(12);
  const found: Read = { strokes: [], pedals: [], tempi: [], metres: [], fifths: [], hanging: 0 };
  let hanging = 0;
  let at = 14;
  let track = 0;
  for (; at < bytes.length; track += 1) {
    if (tag(at) !== 'MTrk') throw new Error(`At ${at} no track begins.`);
    const end = at + 8 + view.getUint32(at + 4);
    at += 8;
    let [tick, status, isEnded] = [0, 0, false];
    const open = new Map<number, { onset: number; velocity: number }[]>();
    const number = (): number => {
      for (let value = 0; ;) {
        const byte = bytes[at++]!;
        value = value * 128 + (byte & 127);
        if (byte < 128) return value;
      }
    };
    while (at < end) {
      tick += number();
      if (bytes[at]! >= 128) status = bytes[at++]!;
      const onset = tick / division;
      if (status === 0xff) {
        const type = bytes[at++]!;
        const data = bytes.slice(at + 1, at + 1 + bytes[at]!);
        at += 1 + data.length;
        if (type === 0x51)
          found.tempi.push({ onset, tempo: 60e6 / ((data[0]! << 16) | (data[1]! << 8) | data[2]!) });
        if (type === 0x58) found.metres.push({ onset, beats: data[0]!, beatType: 2 ** data[1]! });
        if (type === 0x59) found.fifths.push((data[0]! << 24) >> 24);
        if (type === 0x2f) isEnded = true;
        continue;
      }
      const kind = status >> 4;
      const first = bytes[at++]!;
      const second = kind === 0xc || kind === 0xd ? 0 : bytes[at++]!;
      if (kind === 0xb && first === 64) found.pedals.push({ onset, down: second >= 64 });
      const key = (status & 15) * 128 + first;
      if (kind === 9 && second > 0) open.set(key, [...(open.get(key) ?? []), { onset, velocity: second }]);
      else if (kind === 8 || kind === 9) {
        const struck = open.get(key)?.shift();
        if (!struck) throw new Error(`At ${onset} a key comes up that is not down.`);
        found.strokes.push({ midi: first, ...struck, length: onset - struck.onset, track });
      }
    }
    if (!isEnded || at !== end) throw new Error('A track does not end where it says.');
    hanging += [...open.values()].flat().length;
  }
  if (track !== view.getUint16(10)) throw new Error('There are other tracks than it says.');
  return { ...found, hanging };
}

/** Every stroke as text, by time and key; a key that is struck while it sounds is let go first, so lengths are left out there. */
const heard = (strokes: readonly Pick<Stroke, 'midi' | 'onset' | 'velocity'>[]): string[] =>
  strokes.map(({ midi, onset, velocity }) => `${onset.toFixed(2).padStart(8)} ${midi} ${velocity}`).sort();

const performed = (score: Score): string[] =>
  heard(perform(score).notes.map((n) => ({ ...n, onset: n.onset / TICKS_PER_QUARTER })));

const length = fc.constantFrom(0.5, 1, 1.5, 2);
const note = fc.tuple(
  fc.constantFrom(...'CDEFGAB'),
  fc.constantFrom('', '#', 'b'),
  fc.integer({ min: 3, max: 5 }),
  length,
);
/** A staff of three measures of four quarters. */
const staff = fc
  .array(fc.array(note, { minLength: 1, maxLength: 8 }), { minLength: 3, maxLength: 3 })
  .map((measures) =>
    measures
      .map((notes) => {
        let left = 4;
        const tokens = notes.flatMap(([step, alter, octave, wanted]) => {
          const own = Math.min(wanted, left);
          left -= own;
          return own > 0 ? [`${step}${alter}${octave}:${own}`] : [];
        });
        return [...tokens, ...(left > 0 ? [`r:${left}`] : [])].join(' ');
      })
      .join(' | '),
  );

describe('a MIDI file, read by the standard', () => {
  it('law: holds every stroke of the performance, no other, and lets every key go', () =>
    fc.assert(
      fc.property(staff, staff, fc.constantFrom('C', 'Bb', 'F#m', 'Eb'), (right, left, key) => {
        const score = scoreFrom({ key, time: { beats: 4, beatType: 4 }, right, left });
        const file = read(writeMidi(score));
        expect(heard(file.strokes)).toEqual(performed(score));
        expect(file.hanging).toBe(0);
        for (const stroke of file.strokes) expect(stroke.length).toBeGreaterThan(0);
      }),
      { numRuns: 60 },
    ));
  it('law: hands are tracks of their own, the right one first', () =>
    fc.assert(
      fc.property(staff, staff, (right, left) => {
        const score = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right, left });
        const { strokes } = read(writeMidi(score));
        const hand = (staffNumber: number): string[] =>
          heard(
            perform(score)
              .notes.filter((n) => n.staff === staffNumber)
              .map((n) => ({ ...n, onset: n.onset / TICKS_PER_QUARTER })),
          );
        expect(heard(strokes.filter((s) => s.track === 1))).toEqual(hand(1));
        expect(heard(strokes.filter((s) => s.track === 2))).toEqual(hand(2));
      }),
      { numRuns: 30 },
    ));
  const tune = (body: string): Score => readAbc(`X:1\nT:T\nM:3/4\nL:1/4\nQ:1/4=90\nK:Eb\n${body}\n`).score;
  it('says time signature, key and tempo where they hold', () => {
    const file = read(writeMidi(tune('E2 F | [M:4/4] G4 | [Q:1/4=60] B4 |]')));
    expect(file.metres).toEqual([
      { onset: 0, beats: 3, beatType: 4 },
      { onset: 3, beats: 4, beatType: 4 },
    ]);
    expect(file.fifths[0]).toBe(-3);
    expect(file.tempi.map((t) => [t.onset, Math.round(t.tempo)])).toEqual([
      [0, 90],
      [7, 60],
    ]);
  });
  it('plays repeats and their endings, and a tie as one stroke', () => {
    const { strokes } = read(writeMidi(tune('|: E2 F |1 G3 :|2 B3- | B3 |]')));
    expect(strokes.map((s) => [s.midi, s.onset, Math.round(s.length)])).toEqual([
      [63, 0, 2],
      [65, 2, 1],
      [67, 3, 3],
      [63, 6, 2],
      [65, 8, 1],
      [70, 9, 6],
    ]);
  });
  it('presses the pedal and lifts it, up before down where it changes', () => {
    const plain = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C4:4 | D4:4',
      left: 'C3:4 | G2:4',
    });
    const measure = 4 * TICKS_PER_QUARTER;
    const pedals = [
      { onset: 0, type: 'start' as const },
      { onset: measure, type: 'change' as const },
      { onset: 2 * measure, type: 'stop' as const },
    ];
    expect(read(writeMidi({ ...plain, pedals })).pedals).toEqual([
      { onset: 0, down: true },
      { onset: 4, down: false },
      { onset: 4, down: true },
      { onset: 8, down: false },
    ]);
  });
});

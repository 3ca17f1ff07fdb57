/** From likelihoods to keystrokes: by likelihoods made up as the model makes them, overtones and echoes included. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { perform } from '../performance/perform';
import { scoreFrom } from '../test/shorthand';
import { expectationOf } from './expectation';
import { keystrokesHeard, type Sound } from './hearing';
import { judge } from './judge';
import { pretendToPlay, type Habits } from './pretendPlayer';

const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C5:1 D5:1 E5:1 F5:1 | G5:1 F5:1 E5:1 D5:1 | E5:1 G5:1 B5:1 A5:1 | G5:4',
  left: 'C3:4 | G2:4 | C3:4 | C3:4',
});
const expectation = expectationOf(perform(song), { from: 0, to: 3, tempo: 80 });

const FRAME = 256 / 22050;
const SILENCE = 0.12;
const AT = 1;

interface Struck {
  readonly midi: number;
  readonly onset: number;
  /** How likely the model makes it. */
  readonly value?: number;
}

/** What a model would make of keys that are struck: each a peak of a few frames, its octave above a weaker one. */
function soundOf(struck: readonly Struck[], overtone = 0.4): Sound {
  const frames = Math.ceil((Math.max(...struck.map((k) => k.onset)) + AT + 3) / FRAME);
  const onsets = new Float32Array(frames * 88).fill(SILENCE);
  const loudness = new Float32Array(frames).fill(0.001);
  const put = (midi: number, frame: number, value: number): void => {
    if (midi < 21 || midi > 108) return;
    [0.4, 0.8, 1, 0.7, 0.3].forEach((share, i) => {
      const at = (frame + i - 2) * 88 + midi - 21;
      onsets[at] = Math.max(onsets[at]!, value * share);
    });
  };
  for (const { midi, onset, value = 0.85 } of struck) {
    const frame = Math.round((onset + AT) / FRAME);
    put(midi, frame, value);
    put(midi + 12, frame, value * overtone);
    put(midi + 19, frame, value * overtone * 0.8);
    for (let i = 0; i < 60 && frame + i < frames; i++) loudness[frame + i] = 0.1 * 0.97 ** i;
  }
  return { onsets, loudness, frame: FRAME };
}
const take = (sound: Sound) => judge(expectation, keystrokesHeard(sound, expectation), true);
const verdicts = (sound: Sound): string[] =>
  take(sound).measures.flatMap((m) =>
    m.notes
      .filter((n) => n.verdict !== 'right')
      .map((n) => `${n.note.midi} ${n.verdict} ${n.played ?? ''}`.trim()),
  );
const played = (habits: Partial<Habits> = {}): Struck[] =>
  pretendToPlay(expectation, { seed: 3, ...habits }).keystrokes.map(({ midi, onset }) => ({ midi, onset }));

describe('what a microphone hears', () => {
  it('is every note, whatever sounds above it', () => {
    expect(verdicts(soundOf(played()))).toEqual([]);
    expect(take(soundOf(played(), 0.7)).measures.flatMap((m) => m.extra)).toEqual([]);
  });

  it('names the key beside, and the note that never came', () => {
    const wrong = played().map((k) => (k.midi === 83 ? { ...k, midi: 82 } : k));
    expect(verdicts(soundOf(wrong))).toEqual(['83 other 82']);
    expect(verdicts(soundOf(played().filter((k) => k.midi !== 83)))).toEqual(['83 missed']);
  });

  it('calls what lies between the thresholds unsure, and nobody wrong', () => {
    const faint = played().map((k) => (k.midi === 83 ? { ...k, value: 0.38 } : k));
    expect(verdicts(soundOf(faint))).toEqual(['83 unsure']);
  });

  it('hears another key at the very end, after which nothing can be followed', () => {
    const last = played();
    const end = Math.max(...last.map((k) => k.onset));
    const wrong = last.map((k) => (k.midi === 79 && k.onset === end ? { ...k, midi: 77 } : k));
    expect(verdicts(soundOf(wrong)).filter((v) => v.startsWith('79'))).toEqual(['79 other 77']);
  });

  it('hears it there although no other key is struck with it', () => {
    const right = expectationOf(perform(song), { from: 0, to: 3, tempo: 80, hand: 'right' });
    const { keystrokes } = pretendToPlay(right, { seed: 3 });
    const wrong = keystrokes.map(({ midi, onset }, i) => ({
      midi: i === keystrokes.length - 1 ? midi - 2 : midi,
      onset,
      // Too faint to be a key too many.
      value: i === keystrokes.length - 1 ? 0.6 : 0.85,
    }));
    const heard = judge(right, keystrokesHeard(soundOf(wrong), right), true);
    const slips = heard.measures.flatMap((m) => m.notes.filter((n) => n.verdict !== 'right'));
    expect(slips.map((n) => [n.note.midi, n.verdict, n.played])).toEqual([[79, 'other', 77]]);
  });

  it('takes nothing of silence for keys, however likely the model finds it', () => {
    const { onsets, loudness, frame } = soundOf(played());
    for (let f = 0; f < 40; f++) onsets[f * 88 + 60 - 21] = 0.9;
    expect(take({ onsets, loudness, frame }).measures.flatMap((m) => m.extra)).toEqual([]);
  });

  it('hears a key too many that nothing explains', () => {
    const more = [...played(), { midi: 66, onset: 2.2 }];
    expect(take(soundOf(more)).measures.flatMap((m) => m.extra.map((e) => e.midi))).toEqual([66]);
  });

  it('hears one stroke in two beginnings of a key that follow at once, whichever is the note', () => {
    const right = played();
    for (const by of [-0.25, 0.25])
      for (const { midi, onset } of right) {
        const heard = take(soundOf([...right, { midi, onset: onset + by }]));
        expect(heard.measures.flatMap((m) => m.extra)).toEqual([]);
        expect(heard.right).toBe(1);
      }
  });

  it('hears no key twice at once where everything that sounds begins once more, whatever passes that makes', () => {
    const right = played();
    for (const by of [0.1, 0.2, 0.3])
      for (const { onset } of right) {
        const sounding = right.filter((k) => k.onset <= onset && k.onset > onset - 2.5);
        const again = sounding.map(({ midi }) => ({ midi, onset: onset + by }));
        const strokes = keystrokesHeard(soundOf([...right, ...again]), expectation);
        const twice = strokes.filter((k) =>
          strokes.some((o) => o !== k && o.midi === k.midi && Math.abs(o.onset - k.onset) < 0.4),
        );
        expect(twice).toEqual([]);
      }
  });

  it('is empty for music without notes, and for no sound', () => {
    expect(
      keystrokesHeard(
        { onsets: new Float32Array(0), loudness: new Float32Array(0), frame: FRAME },
        expectation,
      ),
    ).toEqual([]);
    expect(keystrokesHeard(soundOf(played()), { onsets: [], notes: [], tempo: 60 })).toEqual([]);
  });

  it('accuses nobody who plays right, in whatever time', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.double({ min: 0, max: 0.12, noNaN: true }),
        fc.double({ min: 0, max: 0.03, noNaN: true }),
        fc.double({ min: 0.1, max: 0.6, noNaN: true }),
        (seed, drift, jitter, overtone) => {
          expect(verdicts(soundOf(played({ seed, drift, jitter }), overtone))).toEqual([]);
        },
      ),
      { numRuns: 40 },
    );
  });
});

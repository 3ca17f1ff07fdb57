/** A plain synthesised voice for counting aloud: a pulse and some hiss through the resonances of a mouth. Of our own making. */
import { LETTERS, PHONEMES, WORDS, type Phoneme, type PhonemeId } from './phonemes';

/** The sounds of a word. */
export function phonemesOf(word: string): PhonemeId[] {
  const text = word.toLowerCase();
  const known = WORDS[text];
  if (known) return known.split(' ') as PhonemeId[];
  const sounds: PhonemeId[] = [];
  for (let at = 0; at < text.length;) {
    const found = LETTERS.find(([letters]) => text.startsWith(letters, at));
    if (found) sounds.push(...(found[1].split(' ') as PhonemeId[]));
    at += found?.[0].length ?? 1;
  }
  return sounds;
}

const WIDTHS = [70, 90, 140] as const;
/** The voice begins and ends at these pitches, in hertz. */
const PITCH = { from: 205, to: 165 } as const;
/** Seconds in which a word rises and dies away. */
const EDGE = 0.012;
/** Loudest sample. */
const LOUD = 0.8;

/** One resonance: what comes in rings at its frequency. Two samples are remembered. */
class Resonance {
  #before = 0;
  #earlier = 0;
  pass(value: number, frequency: number, width: number, rate: number): number {
    const r = Math.exp((-Math.PI * width) / rate);
    const b = 2 * r * Math.cos((2 * Math.PI * frequency) / rate);
    const made = (1 - b + r * r) * value + b * this.#before - r * r * this.#earlier;
    this.#earlier = this.#before;
    this.#before = made;
    return made;
  }
}

/** What the mouth does at each moment of a word. */
interface Moment {
  readonly formants: readonly [number, number, number];
  readonly voice: number;
  readonly hiss: readonly [number, number];
}

const NO_HISS = [0, 1000] as const;
const SILENT: Moment = { formants: [500, 1500, 2500], voice: 0, hiss: NO_HISS };

function* momentsOf(sounds: readonly Phoneme[], pace: number, rate: number): Generator<Moment> {
  for (const { length, from, to = from, voice, hiss = NO_HISS, closed = 0 } of sounds) {
    for (let i = 0; i < closed * pace * rate; i++) yield { ...SILENT, formants: from };
    const samples = Math.round(length * pace * rate);
    for (let i = 0; i < samples; i++) {
      const share = i / samples;
      const at = (n: 0 | 1 | 2): number => from[n] + (to[n] - from[n]) * share;
      yield { formants: [at(0), at(1), at(2)], voice, hiss };
    }
  }
}

/**
 * A word as sound, one channel. `most` is the room that it has, in seconds: a longer word is spoken faster. The same word is the same
 * samples each time.
 */
export function spoken(word: string, rate: number, most = Infinity): Float32Array<ArrayBuffer> {
  const sounds = phonemesOf(word).map((id): Phoneme => PHONEMES[id]);
  const easy = sounds.reduce((sum, s) => sum + s.length + (s.closed ?? 0), 0);
  const pace = Math.min(1, most / Math.max(easy, 0.001));
  const moments = [...momentsOf(sounds, pace, rate)];
  const resonances = WIDTHS.map(() => new Resonance());
  const mouth = new Resonance();
  // The mouth moves; it does not jump.
  const slow = 1 - Math.exp(-1 / (0.012 * rate));
  const now: { formants: [number, number, number]; voice: number; hiss: number } = {
    formants: [...(moments[0]?.formants ?? SILENT.formants)],
    voice: 0,
    hiss: 0,
  };
  let [phase, seed, flow] = [0, 1, 0];
  const samples = Float32Array.from(moments, ({ formants, voice, hiss }, i) => {
    formants.forEach((f, n) => (now.formants[n] = now.formants[n]! + (f - now.formants[n]!) * slow));
    now.voice += (voice - now.voice) * slow;
    now.hiss += (hiss[0] - now.hiss) * slow * 2;
    phase += (PITCH.from + ((PITCH.to - PITCH.from) * i) / moments.length) / rate;
    const pulse = phase >= 1 ? 1 : 0;
    phase %= 1;
    // The cords open softly: a pulse through a low pass.
    flow += (pulse * 18 - flow) * Math.min(1, 5500 / rate);
    seed = (seed * 16_807) % 2_147_483_647;
    const noise = (seed / 2_147_483_647) * 2 - 1;
    const voiced = resonances.reduce(
      (value, resonance, n) => resonance.pass(value, now.formants[n]!, WIDTHS[n]!, rate),
      flow * now.voice,
    );
    return voiced + mouth.pass(noise * now.hiss * 3, hiss[1], hiss[1] / 4, rate);
  });
  return shaped(samples, rate);
}

/** Without clicks at its edges, as loud as any other word. */
function shaped(samples: Float32Array<ArrayBuffer>, rate: number): Float32Array<ArrayBuffer> {
  const loudest = samples.reduce((most, v) => Math.max(most, Math.abs(v)), 1e-6);
  const edge = EDGE * rate;
  return samples.map((v, i) => {
    const rim = Math.min(1, i / edge, (samples.length - 1 - i) / edge);
    return ((v * LOUD) / loudest) * rim;
  });
}

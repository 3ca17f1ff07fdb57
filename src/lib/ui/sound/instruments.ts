/** What sounds: the recorded grand once it is loaded, a synthesised stand-in until then, and a click. By Tone.js, loaded when wanted. */
import type * as ToneModule from 'tone';
import type { Click, HeardNote, Program, SpokenWord } from '$core/performance/program';
import { spoken } from './speech/voice';
import { recordingOfKey } from './recordings';
import { RECORDED_KEYS } from './samples';

export type Tone = typeof ToneModule;

/** Tone.js, fetched when it is first wanted; it would write its name into the console. */
export function toneLibrary(): Promise<Tone> {
  Object.assign(globalThis, { TONE_SILENCE_LOGGING: true });
  return import('tone');
}

/** Seconds of a recording that are kept: longer no note of a learner lasts, and memory is dear. */
const LONGEST = 12;
/** Seconds in which a key falls silent when it is let go. */
const RELEASE = 0.35;

export interface Piano {
  readonly node: ToneModule.ToneAudioNode;
  strike(note: Pick<HeardNote, 'midi' | 'velocity'>, from: number, to: number): void;
  silence(): void;
}

let loading: Promise<Record<string, AudioBuffer>> | undefined;

/** The recordings, asked for once. Rejects where they cannot be had, and asks anew the next time. */
function recordings(context: BaseAudioContext): Promise<Record<string, AudioBuffer>> {
  loading ??= (async () => {
    const entries = await Promise.all(
      RECORDED_KEYS.map(async (key) => {
        const whole = await context.decodeAudioData(await recordingOfKey(key));
        return [key, shortened(context, whole)] as const;
      }),
    );
    return Object.fromEntries(entries);
  })();
  loading.catch(() => (loading = undefined));
  return loading;
}

/** The beginning of a recording, in one channel, from where it is first heard. */
function shortened(context: BaseAudioContext, whole: AudioBuffer): AudioBuffer {
  const data = whole.getChannelData(0);
  // The hammer, not the key that moves before it: a sixth of the loudest of the attack, and a millisecond before.
  const attack = data.subarray(0, Math.round(0.5 * whole.sampleRate));
  const loudest = attack.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
  const struck = attack.findIndex((v) => Math.abs(v) > loudest / 6);
  const start = Math.max(0, struck - Math.round(whole.sampleRate / 1000));
  const length = Math.min(data.length - start, Math.round(LONGEST * whole.sampleRate));
  const buffer = context.createBuffer(1, length, whole.sampleRate);
  buffer.copyToChannel(data.subarray(start, start + length), 0);
  return buffer;
}

/** The grand. */
export async function grand(tone: Tone, context: BaseAudioContext): Promise<Piano> {
  const buffers = await recordings(context);
  const sampler = new tone.Sampler({
    urls: Object.fromEntries(
      Object.entries(buffers).map(([key, buffer]) => [key, new tone.ToneAudioBuffer(buffer)]),
    ),
    release: RELEASE,
  });
  return pianoFrom(tone, sampler);
}

/** A plain tone that dies away, for as long as the grand is not there. */
export function standIn(tone: Tone): Piano {
  const synth = new tone.PolySynth(tone.Synth, {
    oscillator: { type: 'triangle' },
    envelope: { attack: 0.004, decay: 1.6, sustain: 0.08, release: RELEASE },
    volume: -10,
  });
  synth.maxPolyphony = 48;
  return pianoFrom(tone, synth);
}

const pianoFrom = (tone: Tone, instrument: ToneModule.Sampler | ToneModule.PolySynth): Piano => ({
  node: instrument,
  strike: ({ midi, velocity }, from, to) =>
    instrument.triggerAttackRelease(tone.Frequency(midi, 'midi').toFrequency(), to - from, from, velocity),
  silence: () => instrument.releaseAll(),
});

/** Frequencies of the click, by what it stands on. */
const CLICKS: Readonly<Record<Click['weight'], number>> = { measure: 1760, group: 1320, beat: 990 };

export interface Clicker {
  readonly node: ToneModule.ToneAudioNode;
  click(click: Pick<Click, 'weight'>, at: number): void;
}

export function clicker(tone: Tone): Clicker {
  const synth = new tone.Synth({
    oscillator: { type: 'square' },
    envelope: { attack: 0.001, decay: 0.035, sustain: 0, release: 0.01 },
    volume: -14,
  });
  return {
    node: synth,
    click: ({ weight }, at) =>
      synth.triggerAttackRelease(CLICKS[weight], 0.04, at, weight === 'measure' ? 1 : 0.6),
  };
}

export interface Counter {
  say(word: Pick<SpokenWord, 'text' | 'room' | 'isSoft'>, at: number): void;
  silence(): void;
}

/** Rate at which words are made, in hertz: nothing of a voice lies above half of it. */
const VOICE_RATE = 22_050;
/** A word ends a little before the next. */
const BREATH = 0.9;

/** The voice that counts; each word is made once. */
export function counter(context: BaseAudioContext): Counter {
  const made = new Map<string, AudioBuffer>();
  const speaking = new Set<AudioBufferSourceNode>();
  const loud = context.createGain();
  loud.gain.value = 0.55;
  loud.connect(context.destination);
  const soft = context.createGain();
  soft.gain.value = 0.22;
  soft.connect(context.destination);
  const bufferOf = (text: string, room: number): AudioBuffer => {
    const most = Math.round(room * BREATH * 20) / 20;
    const name = `${text} ${most}`;
    const known = made.get(name);
    if (known) return known;
    const samples = spoken(text, VOICE_RATE, Math.max(0.08, most));
    const buffer = context.createBuffer(1, Math.max(1, samples.length), VOICE_RATE);
    buffer.copyToChannel(samples, 0);
    made.set(name, buffer);
    return buffer;
  };
  return {
    say({ text, room, isSoft }, at) {
      const source = context.createBufferSource();
      source.buffer = bufferOf(text, room);
      source.connect(isSoft ? soft : loud);
      source.onended = () => speaking.delete(source);
      speaking.add(source);
      source.start(at);
    },
    silence() {
      for (const source of speaking) source.stop();
      speaking.clear();
    },
  };
}

/** Seconds that ring on after the last note. */
const AFTER = 1.5;

/** A program as a recording, of one channel: what the live graph plays, rendered without a device. */
export async function recordingOf(
  tone: Tone,
  program: Program,
  pianoOn: (context: BaseAudioContext) => Promise<Piano>,
): Promise<AudioBuffer> {
  const buffer = await tone.Offline(
    async ({ rawContext }) => {
      const instrument = await pianoOn(rawContext as unknown as BaseAudioContext);
      instrument.node.toDestination();
      const clicks = clicker(tone);
      clicks.node.toDestination();
      for (const note of program.notes) instrument.strike(note, note.at, note.until);
      for (const click of program.clicks) clicks.click(click, click.at);
      const voice = counter(rawContext as unknown as BaseAudioContext);
      for (const word of program.words) voice.say(word, word.at);
    },
    program.ends + AFTER,
    1,
    44_100,
  );
  return buffer.get()!;
}

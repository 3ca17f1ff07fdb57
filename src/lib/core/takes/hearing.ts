/**
 * From what a pitch model makes of sound to keystrokes. The model alone takes overtones for keys; asked about the music that is expected it
 * is far surer. So it is asked twice: first for what surely began, which is followed through the music; then, where each note must have
 * come, whether it did, or a neighbour in its place. What stays between the thresholds is unsure, and never a mistake.
 */
import { judge, type JudgedNote, type Take } from './judge';
import type { Expectation } from './expectation';
import type { Keystroke } from './keystroke';

/** How likely each of 88 keys (from A0) begins in each frame: a row of 88 for every frame; and how loud each frame is. */
export interface Sound {
  readonly onsets: Float32Array;
  /** Root mean square of its samples. */
  readonly loudness: Float32Array;
  /** Seconds of one frame. */
  readonly frame: number;
}

const KEYS = 88;
const LOWEST = 21;

/** Least likelihood with which a key of the music, and any other key, surely began. */
const [BEGAN, STRANGE] = [0.5, 0.6];
/** Where a note is awaited: from here on it came, below here it did not. What a model makes of silence is about 0.12. */
const [CAME, DID_NOT] = [0.42, 0.33];
/** A neighbour took its place from here on, where it is so much likelier and the note itself is not beyond doubt. */
const [INSTEAD, LIKELIER, BEYOND_DOUBT] = [0.35, 0.15, 0.57];
/** As likely as keys are that were struck. */
const AS_KEY = 0.8;
/** Overtones, in semitones above a key: octave, twelfth, and so on up to the eighth partial. */
const OVERTONES = [12, 19, 24, 28, 31, 34, 36];
/** A key above another that begins with it came from this share of the other on, and did not below that; else it may be its overtone. */
const [OVER_CAME, OVER_DID_NOT] = [0.62, 0.5];
/** A strange key is no more than an overtone up to this share of the key below. */
const AS_OVERTONE = 1.1;
/** Frames that are hardly louder than the quietest tenth, or than a fiftieth of the loudest, are silence: no key begins there. */
const [OVER_FLOOR, OF_LOUDEST] = [1.6, 0.02];
/** A key too many began at least so surely; and was not struck so many seconds before, nor so soon after. */
const [TOO_MANY, ECHO, AGAIN] = [0.75, 3, 0.4];
/** Frames after a beginning in which its loudness is looked for. */
const ATTACK = 8;
/** Seconds around a place in which a note is looked for. */
const AROUND = 0.16;
/** Frames within which two beginnings are one. */
const SAME = 4;
/** How sure a key is that is heard between the thresholds: not sure enough to be called anything. */
const UNSURE = 0.3;

const likelihood = ({ onsets }: Sound, midi: number, frame: number): number =>
  midi < LOWEST || midi >= LOWEST + KEYS ? 0 : (onsets[frame * KEYS + midi - LOWEST] ?? 0);

interface Peak {
  readonly midi: number;
  readonly frame: number;
  readonly value: number;
}

/** Frames in which something sounds. */
function soundingFrames({ loudness }: Sound): (frame: number) => boolean {
  const sorted = [...loudness].sort((a, b) => a - b);
  const floor = sorted[Math.floor(sorted.length / 10)] ?? 0;
  const least = Math.max(floor * OVER_FLOOR, (sorted.at(-1) ?? 0) * OF_LOUDEST);
  return (frame) => {
    for (let i = Math.max(0, frame - SAME); i < frame + ATTACK; i++)
      if ((loudness[i] ?? 0) >= least) return true;
    return false;
  };
}

/** The beginnings of a key: local maxima above a threshold, a few frames apart. */
function peaksOf(sound: Sound, midi: number, least: number): Peak[] {
  const frames = sound.onsets.length / KEYS;
  const peaks: Peak[] = [];
  for (let frame = 0; frame < frames; frame++) {
    const value = likelihood(sound, midi, frame);
    if (value < least) continue;
    if (value < likelihood(sound, midi, frame - 1) || value <= likelihood(sound, midi, frame + 1)) continue;
    const last = peaks.at(-1);
    if (last && frame - last.frame <= SAME) {
      if (value > last.value) peaks[peaks.length - 1] = { midi, frame, value };
    } else peaks.push({ midi, frame, value });
  }
  return peaks;
}

/** The loudest beginning of a key within some frames. */
function loudest(sound: Sound, midi: number, from: number, to: number): { value: number; frame: number } {
  let best = { value: 0, frame: Math.round((from + to) / 2) };
  for (let frame = Math.max(0, from); frame <= to; frame++) {
    const value = likelihood(sound, midi, frame);
    if (value > best.value) best = { value, frame };
  }
  return best;
}

/** Whether a beginning is explained as an overtone of another key that begins with it. */
const isOvertone = (sound: Sound, { midi, frame, value }: Peak): boolean =>
  OVERTONES.some((up) => {
    const under = loudest(sound, midi - up, frame - SAME, frame + SAME).value;
    return under >= BEGAN && value <= under * AS_OVERTONE;
  });

/** What surely began: keys of the music, and strange keys that no overtone explains. */
function surely(sound: Sound, music: ReadonlySet<number>): Peak[] {
  const keys = [...music];
  const sounds = soundingFrames(sound);
  const [low, high] = [Math.min(...keys) - 4, Math.max(...keys) + 4];
  const peaks: Peak[] = [];
  for (let midi = Math.max(LOWEST, low); midi <= high; midi++) {
    const isOwn = music.has(midi);
    const own = peaksOf(sound, midi, isOwn ? BEGAN : STRANGE);
    peaks.push(...(isOwn ? own : own.filter((peak) => !isOvertone(sound, peak))));
  }
  return peaks.filter((p) => sounds(p.frame)).sort((a, b) => a.frame - b.frame);
}

/** The keystrokes of a take as a microphone hears it, in order of time; seconds from the beginning of the sound. */
export function keystrokesHeard(sound: Sound, expectation: Expectation): Keystroke[] {
  const music = new Set(expectation.notes.map((n) => n.midi));
  if (music.size === 0) return [];
  const sure = surely(sound, music);
  const asKeys = sure.map(({ midi, frame }): Keystroke => ({ midi, onset: frame * sound.frame }));
  const take = judge(expectation, asKeys, false);
  return asked(sound, expectation, take, sure);
}

/** When the onsets of a pass came, in seconds: as they were heard, and between and beyond them as they would have. */
function timesOf(
  notes: readonly JudgedNote[],
  { onsets }: Expectation,
  onsetOf: ReadonlyMap<number, number>,
): ReadonlyMap<number, number> {
  const heard = new Map<number, number[]>();
  for (const { note, verdict, at } of notes) {
    if (verdict !== 'right' || at === undefined) continue;
    const onset = onsetOf.get(note.index)!;
    heard.set(onset, [...(heard.get(onset) ?? []), at]);
  }
  const known = [...heard]
    .map(([onset, at]) => ({
      time: onsets[onset]!.time,
      at: at.sort((a, b) => a - b)[Math.floor(at.length / 2)]!,
      onset,
    }))
    .sort((a, b) => a.onset - b.onset);
  const times = new Map(known.map(({ onset, at }) => [onset, at] as const));
  if (known.length < 2) return times;
  for (const onset of new Set(notes.map((n) => onsetOf.get(n.note.index)!))) {
    if (times.has(onset)) continue;
    // Between two that were heard; before the first and after the last in the tempo of the two nearest.
    const after = Math.min(
      known.length - 1,
      Math.max(1, known.findIndex((k) => k.onset > onset) + (known.at(-1)!.onset < onset ? known.length : 0)),
    );
    const [one, two] = [known[after - 1]!, known[after]!];
    const share = (onsets[onset]!.time - one.time) / (two.time - one.time);
    times.set(onset, one.at + share * (two.at - one.at));
  }
  return times;
}

/** Where a note is awaited: frames, and the keys that are awaited with it and near it. */
interface Awaited {
  readonly from: number;
  readonly to: number;
  readonly with: ReadonlySet<number>;
  readonly near: readonly { readonly midi: number; readonly frame: number }[];
  /** The frame in which it must have come. */
  readonly middle: number;
}

/** The key that came where a note is awaited: itself, a neighbour in its place, perhaps itself, or none. */
function heardAt(
  sound: Sound,
  midi: number,
  { from, to, with: together, near, middle }: Awaited,
): { readonly midi: number; readonly frame: number; readonly isSure: boolean } | undefined {
  const own = loudest(sound, midi, from, to);
  const other = [-2, -1, 1, 2]
    .map((by) => midi + by)
    .map((key) => ({ midi: key, ...loudest(sound, key, from, to) }))
    // A key that is itself awaited, and as near to its own place, stands for that.
    .filter(
      (key) =>
        !near.some(
          (n) => n.midi === key.midi && Math.abs(n.frame - key.frame) <= Math.abs(middle - key.frame) + SAME,
        ),
    )
    // An overtone of another key is no neighbour, unless it is as loud as a key and the note itself is not there.
    .filter((key) => (own.value < DID_NOT && key.value >= AS_KEY) || !isOvertone(sound, key))
    .sort((a, b) => b.value - a.value)[0];
  if (other && own.value < BEYOND_DOUBT && other.value >= INSTEAD && other.value - own.value >= LIKELIER)
    return { ...other, isSure: true };
  // Of a key that begins with it below, it may be no more than an overtone.
  const under = Math.max(
    0,
    ...OVERTONES.filter((up) => together.has(midi - up)).map(
      (up) => loudest(sound, midi - up, from, to).value,
    ),
  );
  const came = Math.max(CAME, under * OVER_CAME);
  const didNot = Math.max(DID_NOT, under * OVER_DID_NOT);
  if (own.value >= came) return { midi, frame: own.frame, isSure: true };
  return own.value >= didNot ? { midi, frame: own.frame, isSure: false } : undefined;
}

/**
 * Keys too many: what began so surely that nothing else explains it. A key that was struck shortly before, or is struck at once, is one
 * stroke that was heard twice.
 */
function extraKeys(
  sound: Sound,
  sure: readonly Peak[],
  taken: ReadonlySet<Peak>,
  struck: readonly Keystroke[],
): Keystroke[] {
  const echoes = (midi: number, at: number): boolean =>
    struck.some((k) => k.midi === midi && at - k.onset < ECHO && k.onset - at < AGAIN);
  return sure
    .filter((peak) => peak.value >= TOO_MANY && !taken.has(peak) && !isOvertone(sound, peak))
    .map(({ midi, frame }) => ({ midi, onset: frame * sound.frame }))
    .filter(({ midi, onset }) => !echoes(midi, onset));
}

/** Each note is looked for where it must have come. */
function asked(sound: Sound, expectation: Expectation, take: Take, sure: readonly Peak[]): Keystroke[] {
  const taken = new Set<Peak>();
  const peakAt = (midi: number, frame: number): Peak | undefined =>
    sure.find((p) => p.midi === midi && Math.abs(p.frame - frame) <= SAME && !taken.has(p));
  const result: Keystroke[] = [];
  /** Strokes of the pass in hand; a stroke that was heard twice may have made two passes of one. */
  let ofPass: Keystroke[] = [];
  const strike = (midi: number, frame: number, certainty?: number): void => {
    const peak = peakAt(midi, frame);
    if (peak) taken.add(peak);
    const onset = frame * sound.frame;
    if (result.some((k) => k.midi === midi && Math.abs(k.onset - onset) < AGAIN)) return;
    ofPass.push({ midi, onset, ...(certainty === undefined ? {} : { certainty }) });
  };
  const onsetOf = new Map(expectation.onsets.flatMap((o, i) => o.notes.map((n) => [n.index, i] as const)));
  for (const pass of take.passes) {
    const times = timesOf(pass.notes, expectation, onsetOf);
    const awaited = pass.notes.flatMap(({ note, verdict, at }) => {
      const time = verdict === 'right' ? at : times.get(onsetOf.get(note.index)!);
      // Nothing around it was heard: it cannot be asked for.
      return time === undefined ? [] : [{ midi: note.midi, onset: onsetOf.get(note.index)!, time }];
    });
    for (const one of awaited) {
      const near = awaited.filter((o) => Math.abs(o.time - one.time) <= 2 * AROUND);
      // Another stroke on the same key is not this one.
      const own = near.filter((o) => o.midi === one.midi && o.onset !== one.onset).map((o) => o.time);
      const from = Math.max(
        one.time - AROUND,
        ...own.filter((t) => t < one.time).map((t) => (t + one.time) / 2),
      );
      const to = Math.min(
        one.time + AROUND,
        ...own.filter((t) => t > one.time).map((t) => (t + one.time) / 2),
      );
      const heard = heardAt(sound, one.midi, {
        from: Math.round(from / sound.frame),
        to: Math.round(to / sound.frame),
        with: new Set(near.filter((o) => o.onset === one.onset).map((o) => o.midi)),
        near: near.map((o) => ({ midi: o.midi, frame: Math.round(o.time / sound.frame) })),
        middle: Math.round(one.time / sound.frame),
      });
      if (heard) strike(heard.midi, heard.frame, heard.isSure ? undefined : UNSURE);
    }
    result.push(...ofPass);
    ofPass = [];
  }
  result.push(...extraKeys(sound, sure, taken, result));
  return result.sort((a, b) => a.onset - b.onset || a.midi - b.midi);
}

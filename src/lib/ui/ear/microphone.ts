/** The microphone: what it hears of a take, as keystrokes. The sound stays in this browser and is forgotten. */
import type { Expectation } from '$core/takes/expectation';
import type { Keystroke } from '$core/takes/keystroke';
import { wrap, type Remote } from 'comlink';
import { captureModule, hearWorker } from './parts';
import type { HearService } from './service';

let service: Remote<HearService> | undefined;
const hearing = (): Remote<HearService> => (service ??= wrap<HearService>(hearWorker()));

/** Loads the model, before it is wanted. */
export const prepareMicrophone = (): Promise<void> => hearing().prepare();

/** Why it cannot be heard, in a sentence. */
class NoMicrophone extends Error {
  override readonly name = 'NoMicrophone';
}

/** Nothing is changed in what it hears: a phone's own cleaning takes a piano for noise. */
const AS_IT_SOUNDS = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

export interface Listened {
  /** Hears silence for so many seconds from now: what the program itself plays before the take. */
  readonly hush: (seconds: number) => void;
  /** The take is over: all keystrokes. */
  readonly end: () => Promise<readonly Keystroke[]>;
  /** Nobody wants to know any more. */
  readonly stop: () => void;
}

/** Listens to a take; `onheard` is told all keystrokes so far. Rejects with NoMicrophone. */
export async function listenToRoom(
  expectation: Expectation,
  onheard: (keystrokes: readonly Keystroke[]) => void,
): Promise<Listened> {
  // Without a secure page there is none; what is declared to be there is not.
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices)
    throw new NoMicrophone(
      location.protocol === 'file:'
        ? 'This browser doesn’t let a file use the microphone. Open the file in another browser.'
        : 'The microphone needs a secure page (https).',
    );
  const context = new AudioContext();
  let stream: MediaStream | undefined;
  const stop = (): void => {
    for (const track of stream?.getTracks() ?? []) track.stop();
    void context.close();
  };
  try {
    await context.audioWorklet.addModule(captureModule());
    await hearing().begin(expectation, context.sampleRate);
    stream = await devices.getUserMedia({ audio: AS_IT_SOUNDS }).catch(() => {
      throw new NoMicrophone('The browser wasn’t allowed to use the microphone.');
    });
  } catch (error) {
    stop();
    throw error;
  }
  let hushedUntil = 0;
  const capture = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 0 });
  capture.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
    void hearing()
      .add(context.currentTime < hushedUntil ? new Float32Array(data.length) : data)
      .then((keystrokes) => {
        if (keystrokes) onheard(keystrokes);
      });
  };
  context.createMediaStreamSource(stream).connect(capture);
  return {
    hush: (seconds) => (hushedUntil = context.currentTime + seconds),
    end: async () => {
      stop();
      return hearing().end();
    },
    stop,
  };
}

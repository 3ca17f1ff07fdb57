/** Keys that are struck on an instrument: by WebMidi where the browser has it, or by a simulated instrument that ships for tests. */

export interface Instrument {
  /** What is played on: "a MIDI keyboard", with its name. */
  readonly name: string;
  readonly stop: () => void;
}

/** Why there is none, in a sentence. */
class NoInstrument extends Error {
  override readonly name = 'NoInstrument';
}

/** The simulated instrument strikes a key by this event of the window, its MIDI number in `detail`. */
const SIMULATED_KEY = 'keypath:key';

/** Listens to every MIDI keyboard that is there. Rejects with NoInstrument. */
export async function listenToKeys(onkey: (midi: number) => void, simulated: boolean): Promise<Instrument> {
  if (simulated) {
    const strike = (event: Event): void => onkey((event as CustomEvent<number>).detail);
    window.addEventListener(SIMULATED_KEY, strike);
    return { name: 'a simulated keyboard', stop: () => window.removeEventListener(SIMULATED_KEY, strike) };
  }
  if (!('requestMIDIAccess' in navigator))
    throw new NoInstrument('This browser doesn’t support MIDI keyboards.');
  const { WebMidi } = await import('webmidi');
  try {
    await WebMidi.enable();
  } catch {
    throw new NoInstrument('The browser wasn’t allowed to use MIDI keyboards.');
  }
  if (WebMidi.inputs.length === 0) {
    await WebMidi.disable();
    throw new NoInstrument('No MIDI keyboard is connected.');
  }
  for (const input of WebMidi.inputs) input.addListener('noteon', ({ note }) => onkey(note.number));
  return {
    name: WebMidi.inputs.map((input) => input.name).join(', '),
    stop: () => void WebMidi.disable(),
  };
}

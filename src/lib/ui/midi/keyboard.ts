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

/** A key as an instrument strikes it. `at`: seconds on the page's clock; `velocity`: 1 to 127. */
interface StruckKey {
  readonly midi: number;
  readonly at: number;
  readonly velocity?: number;
}

/** The simulated instrument strikes a key by this event of the window, its MIDI number in `detail`. */
const SIMULATED_KEY = 'keypath:key';

/** Strikes a key of the simulated instrument. */
export const strikeSimulated = (midi: number): void => {
  window.dispatchEvent(new CustomEvent(SIMULATED_KEY, { detail: midi }));
};

/** Listens to every MIDI keyboard that is there. Rejects with NoInstrument. */
export async function listenToKeys(onkey: (key: StruckKey) => void, simulated: boolean): Promise<Instrument> {
  if (simulated) {
    const strike = (event: Event): void =>
      onkey({ midi: (event as CustomEvent<number>).detail, at: event.timeStamp / 1000 });
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
  for (const input of WebMidi.inputs)
    input.addListener('noteon', ({ note, timestamp }) =>
      onkey({ midi: note.number, at: timestamp / 1000, velocity: note.rawAttack }),
    );
  return {
    name: WebMidi.inputs.map((input) => input.name).join(', '),
    stop: () => void WebMidi.disable(),
  };
}

/** The device's own voice, where it has one; nothing leaves the device. */

export const canSpeak = (): boolean => typeof speechSynthesis !== 'undefined';

/** Signs as they are said. */
const SAID: readonly (readonly [sign: string, said: string])[] = [
  ['♯', ' sharp'],
  ['♭', ' flat'],
  ['♮', ' natural'],
  ['♩. =', 'dotted quarter note'],
  ['♩ =', 'quarter note'],
];

/** Says something, in place of what is being said. */
export function speak(text: string): void {
  if (!canSpeak()) return;
  speechSynthesis.cancel();
  const said = SAID.reduce((now, [sign, word]) => now.replaceAll(sign, word), text);
  const words = new SpeechSynthesisUtterance(said);
  words.lang = 'en';
  speechSynthesis.speak(words);
}

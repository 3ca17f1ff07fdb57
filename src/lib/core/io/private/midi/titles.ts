/** What a MIDI file says of its music: its title, who made it, whose it is. */
import { asTitle, isAboutRights, namedComposer } from '../titles';
import type { MidiFile } from '../../midi/events';

/** The title: what a track is called that only conducts, or the only one that plays. */
export function titleOf({ names, players }: MidiFile): string {
  const single = players.length === 1 ? [players[0]!.name] : [];
  // Hands that are called the same name are called after the piece.
  const shared = players.length === 2 && players[0]!.name === players[1]!.name ? [players[0]!.name] : [];
  return [...names, ...single, ...shared].map(asTitle).find((title) => title !== '') ?? '';
}

/** Whom the file names as the composer; empty where it names nobody. */
export const composerOf = ({ words, names }: MidiFile): string =>
  [...words.filter((w) => w.kind !== 'marker').map((w) => w.text), ...names]
    .map(namedComposer)
    .find((name) => name !== undefined) ?? '';

/** The line about rights. */
export function rightsOf({ words }: MidiFile): { readonly rights?: string } {
  const line =
    words.find((w) => w.kind === 'copyright')?.text ?? words.find((w) => isAboutRights(w.text))?.text;
  return line ? { rights: line } : {};
}

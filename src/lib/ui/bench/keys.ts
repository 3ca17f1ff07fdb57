/** The keyboard of the bench as data: what a key means, and how the list of keys names it. Kinds of decisions bring their own. */
import { allKinds } from '$core/decisions/registry';
import type { Intent } from './commands';

export interface KeyMeaning {
  /** As a key event names it, modifiers first: "Ctrl+Shift+z". */
  readonly press: string;
  readonly does: string;
  readonly intent: Intent;
}

const OWN: readonly KeyMeaning[] = [
  { press: 'ArrowLeft', does: 'the note before', intent: { do: 'move', move: 'previous' } },
  { press: 'ArrowRight', does: 'the note after', intent: { do: 'move', move: 'next' } },
  { press: 'ArrowUp', does: 'up through a chord, and to the right hand', intent: { do: 'move', move: 'up' } },
  {
    press: 'ArrowDown',
    does: 'down through a chord, and to the left hand',
    intent: { do: 'move', move: 'down' },
  },
  { press: 'Shift+ArrowLeft', does: 'a measure back', intent: { do: 'move', move: 'previous-measure' } },
  { press: 'Shift+ArrowRight', does: 'a measure on', intent: { do: 'move', move: 'next-measure' } },
  { press: ' ', does: 'play from here, or stop', intent: { do: 'play' } },
  {
    press: 'h',
    does: 'hear this measure in this hand, then the other ways to finger it',
    intent: { do: 'hear' },
  },
  { press: 'l', does: 'the phrase in hand round and round, or not', intent: { do: 'loop' } },
  { press: '-', does: 'slower', intent: { do: 'slower' } },
  { press: '+', does: 'faster', intent: { do: 'faster' } },
  { press: '0', does: 'give back what was decided about the note', intent: { do: 'give note back' } },
  { press: 'c', does: 'other words to count this measure', intent: { do: 'write', kind: 'count' } },
  { press: 'Ctrl+z', does: 'undo', intent: { do: 'undo' } },
  { press: 'Ctrl+Shift+z', does: 'redo', intent: { do: 'redo' } },
  { press: 'Ctrl+y', does: 'redo', intent: { do: 'redo' } },
];

/** Every key, the bench's own and those of the kinds of decisions. */
export const KEYS: readonly KeyMeaning[] = [
  ...OWN,
  ...allKinds().flatMap(({ id, keys }) =>
    (keys ?? []).map(({ press, does }): KeyMeaning => ({
      press,
      does,
      intent: { do: 'decide by key', kind: id, press },
    })),
  ),
];

const byPress = new Map(KEYS.map((key) => [key.press, key]));

export type KeyPress = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;

/** What a key press means; undefined for keys that mean nothing here. */
export function meaningOf(event: KeyPress): Intent | undefined {
  if (event.altKey) return undefined;
  // Whether a plus needs Shift is the keyboard's matter.
  const isShifted = event.shiftKey && event.key !== '+';
  const modifiers = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${isShifted ? 'Shift+' : ''}`;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return byPress.get(modifiers + key)?.intent;
}

const SHOWN: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ' ': 'Space',
};

/** A key as it is printed: "Ctrl Shift Z". */
export const keyText = (press: string): string =>
  press
    .replace(/^\+$/, 'Plus')
    .split('+')
    .map((part) => SHOWN[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' ');

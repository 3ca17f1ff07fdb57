/** The keyboard of the bench as data: what a key means, and how the list of keys names it. Kinds of decisions bring their own. */
import { allKinds } from '$core/decisions/registry';
import { pressOf, type KeyPress } from '$ui/form/press';
import type { Intent } from './commands';

interface KeyMeaning {
  /** As a key event names it, modifiers first: "Ctrl+Shift+z". */
  readonly press: string;
  readonly does: string;
  readonly intent: Intent;
}

const OWN: readonly KeyMeaning[] = [
  { press: 'ArrowLeft', does: 'previous note', intent: { do: 'move', move: 'previous' } },
  { press: 'ArrowRight', does: 'next note', intent: { do: 'move', move: 'next' } },
  {
    press: 'ArrowUp',
    does: 'up through a chord, then to the right hand',
    intent: { do: 'move', move: 'up' },
  },
  {
    press: 'ArrowDown',
    does: 'down through a chord, then to the left hand',
    intent: { do: 'move', move: 'down' },
  },
  { press: 'Ctrl+ArrowLeft', does: 'previous measure', intent: { do: 'move', move: 'previous-measure' } },
  { press: 'Ctrl+ArrowRight', does: 'next measure', intent: { do: 'move', move: 'next-measure' } },
  { press: 'PageUp', does: 'previous measure', intent: { do: 'move', move: 'previous-measure' } },
  { press: 'PageDown', does: 'next measure', intent: { do: 'move', move: 'next-measure' } },
  {
    press: 'Shift+ArrowLeft',
    does: 'extend the selection to the previous note',
    intent: { do: 'extend', move: 'previous' },
  },
  {
    press: 'Shift+ArrowRight',
    does: 'extend the selection to the next note',
    intent: { do: 'extend', move: 'next' },
  },
  {
    press: 'Shift+ArrowUp',
    does: 'extend the selection up through a chord',
    intent: { do: 'extend', move: 'up' },
  },
  {
    press: 'Shift+ArrowDown',
    does: 'extend the selection down through a chord',
    intent: { do: 'extend', move: 'down' },
  },
  {
    press: 'Ctrl+Shift+ArrowLeft',
    does: 'extend the selection by a measure back',
    intent: { do: 'extend', move: 'previous-measure' },
  },
  {
    press: 'Ctrl+Shift+ArrowRight',
    does: 'extend the selection by a measure',
    intent: { do: 'extend', move: 'next-measure' },
  },
  { press: 'Enter', does: 'everything you can change here', intent: { do: 'choose' } },
  { press: 's', does: 'another chord for this measure', intent: { do: 'choose', kind: 'chords' } },
  { press: 'v', does: 'another voicing of the chord', intent: { do: 'choose', kind: 'voicing' } },
  { press: 'w', does: 'a note to the student', intent: { do: 'choose', kind: 'advice' } },
  { press: ' ', does: 'play from here, or stop', intent: { do: 'play' } },
  {
    press: 'h',
    does: 'listen to this measure in this hand, then to other fingerings',
    intent: { do: 'hear' },
  },
  {
    press: 'Shift+t',
    does: 'listen to the phrase with the next left-hand pattern',
    intent: { do: 'try', what: 'texture' },
  },
  {
    press: 'Shift+v',
    does: 'listen to the phrase in other inversions',
    intent: { do: 'try', what: 'inversion' },
  },
  { press: 'Shift+l', does: 'listen to the phrase at the next level', intent: { do: 'try', what: 'level' } },
  { press: 'Shift+k', does: 'listen to the phrase in the next key', intent: { do: 'try', what: 'key' } },
  { press: 'Shift+Enter', does: 'use what you just heard', intent: { do: 'take' } },
  { press: 'l', does: 'loop the selection or phrase', intent: { do: 'loop' } },
  { press: 'k', does: 'speak the counts', intent: { do: 'speak' } },
  { press: '-', does: 'slower', intent: { do: 'slower' } },
  { press: '+', does: 'faster', intent: { do: 'faster' } },
  { press: '0', does: 'reset the note', intent: { do: 'give note back' } },
  { press: 'c', does: 'change the counting words', intent: { do: 'write', kind: 'count' } },
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

/** What a key press means; undefined for keys that mean nothing here. */
export const meaningOf = (event: KeyPress): Intent | undefined => byPress.get(pressOf(event))?.intent;

/** The keyboard of the bench, as data: what a key does, and how the help lists it. */
import type { Bench } from './bench.svelte';
import type { DecisionOf } from '$core/version/recipe';

type Command = (bench: Bench) => void;

const MOVES: Readonly<Record<string, Command>> = {
  ArrowRight: (b) => b.move('next'),
  ArrowLeft: (b) => b.move('previous'),
  ArrowUp: (b) => b.move('up'),
  ArrowDown: (b) => b.move('down'),
  'Shift+ArrowRight': (b) => b.move('next-measure'),
  'Shift+ArrowLeft': (b) => b.move('previous-measure'),
  '0': (b) => b.giveBack(),
  x: (b) => b.otherHand(),
  p: (b) => b.nextPedal(),
  t: (b) => b.nextTexture(),
  c: () => document.getElementById('count-words')?.focus(),
  'Ctrl+z': (b) => b.undo(),
  'Ctrl+y': (b) => b.redo(),
  'Ctrl+Shift+z': (b) => b.redo(),
};

/** The command of a key press; undefined for keys that mean nothing here. */
export function commandFor(
  event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>,
): Command | undefined {
  if (event.altKey) return undefined;
  const modifiers = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.shiftKey ? 'Shift+' : ''}`;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  if (modifiers === '' && /^[1-5]$/.test(key))
    return (b) => b.decide(Number(key) as DecisionOf<'finger'>['finger']);
  return MOVES[modifiers + key];
}

export const SHORTCUT_HELP: readonly { readonly keys: string; readonly does: string }[] = [
  { keys: '← →', does: 'the note before, the note after' },
  { keys: '↑ ↓', does: 'through a chord, and to the other hand' },
  { keys: 'Shift ← →', does: 'a measure back, a measure on' },
  { keys: '1 … 5', does: 'decide the finger' },
  { keys: '0', does: 'give the finger and the hand back' },
  { keys: 'X', does: 'the other hand plays this note' },
  { keys: 'C', does: 'other words to count this measure' },
  { keys: 'P', does: 'the next pedal for this measure' },
  { keys: 'T', does: 'the next left-hand texture for this measure' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: '?', does: 'this list' },
];

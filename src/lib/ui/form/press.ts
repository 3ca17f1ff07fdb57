/** Key presses as text: "Ctrl+Shift+z", and as they are printed: "Ctrl Shift Z". */

export type KeyPress = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;

/** Signs for which Shift is the keyboard's matter. */
const isSign = (key: string): boolean => key.length === 1 && !/[a-z ]/i.test(key);

/** A key press by its name, modifiers first; letters small. */
export function pressOf(event: KeyPress): string {
  const isShifted = event.shiftKey && !isSign(event.key);
  const modifiers = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.altKey ? 'Alt+' : ''}${isShifted ? 'Shift+' : ''}`;
  return modifiers + (event.key.length === 1 ? event.key.toLowerCase() : event.key);
}

const SHOWN: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  ' ': 'Space',
  PageUp: 'Page ↑',
  PageDown: 'Page ↓',
};

/** A key as it is printed: "Ctrl Shift Z". */
export const keyText = (press: string): string =>
  press
    .replace(/^\+$/, 'Plus')
    .split('+')
    .map((part) => SHOWN[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' ');

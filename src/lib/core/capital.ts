/** A sentence begins with a capital. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A built-in label in the middle of a sentence: only its first letter turns. Names that people gave stay as they are. */
export const inSentence = (label: string): string => label.charAt(0).toLowerCase() + label.slice(1);

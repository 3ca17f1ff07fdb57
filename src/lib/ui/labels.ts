/** What stored values are called on screens. The values themselves are ids: a label can change, what is stored stays. */

/** Of a table that has it; a value that nobody knows is shown as it is. */
export const labelOf = (labels: Readonly<Record<string, string>>, id: string): string => labels[id] ?? id;

export const RIGHTS_LABELS: Readonly<Record<string, string>> = {
  'own work': 'My own work',
  'public domain': 'Public domain',
  licensed: 'Licensed',
  'not known': 'Unknown',
};

export const METHOD_LABELS: Readonly<Record<string, string>> = {
  'front to back': 'Front to back',
  'hardest first': 'Hardest first',
  'both hands from the start': 'Hands together from the start',
};

export const THEME_LABELS: Readonly<Record<string, string>> = {
  light: 'Light',
  dark: 'Dark',
  'as the device': 'System',
};

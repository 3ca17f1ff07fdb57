import { lineText } from '../../plainText';
import { defineKind } from '../kind';

/** A word to the learner about a place; it stands below the music. */
export const advice = defineKind({
  id: 'advice',
  name: 'Note to the student',
  words: 'remark reminder text',
  value: lineText().min(1).max(300),
  scopes: ['measure', 'range', 'section', 'version'],
  says: (value) => `to the student: “${value}”`,
  written: { hint: 'listen for the bass', read: (text) => text.trim() || undefined, show: (value) => value },
});

import { lineText } from '../../plainText';
import { defineKind } from '../kind';

/** What is said in a measure, a word for each place in order. Waits while the number of words is not that of the places. */
export const count = defineKind({
  id: 'count',
  name: 'Counting words',
  stands: { measure: 'field' },
  words: 'count say',
  value: lineText().min(1).max(200),
  scopes: ['measure'],
  says: (value) => `counted “${value}”`,
});

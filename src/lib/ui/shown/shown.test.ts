import { describe, expect, it } from 'vitest';
import { sheetWish, shownFrom, USUAL } from './shown';

describe('what is shown', () => {
  it('comes from the cookie, and is as usual where that says nothing that can be taken', () => {
    expect(shownFrom(undefined)).toEqual(USUAL);
    expect(shownFrom('{nonsense')).toEqual(USUAL);
    expect(shownFrom(JSON.stringify({ ...USUAL, zoom: 17, words: 2, theme: 'dark' }))).toEqual({
      ...USUAL,
      words: 2,
      theme: 'dark',
    });
  });
  it('larger notes have less room in a line', () => {
    expect(sheetWish(USUAL).width).toBe(980);
    expect(sheetWish({ ...USUAL, zoom: 130 }).width).toBe(754);
  });
});

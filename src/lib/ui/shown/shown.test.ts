import { describe, expect, it } from 'vitest';
import { roomIn, sheetWish, shownFrom, USUAL } from './shown';

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
  it('a narrow screen has lines of two measures, a telephone before it has said so', () => {
    expect(sheetWish({ ...USUAL, room: roomIn(390) })).toMatchObject({ width: 432, perLine: 2 });
    expect(sheetWish({ ...USUAL, room: roomIn(820) }).perLine).toBeUndefined();
    expect(sheetWish({ ...USUAL, room: roomIn(820) }).width).toBe(909);
    expect(roomIn(900)).toBe(0);
    expect(shownFrom(undefined, 'Somebody/1.0 (Mobile)').room).toBe(380);
    expect(shownFrom(JSON.stringify(USUAL), 'Somebody/1.0 (Mobile)').room).toBe(0);
  });
  it('larger notes have less room in a line', () => {
    expect(sheetWish(USUAL).width).toBe(980);
    expect(sheetWish({ ...USUAL, zoom: 130 }).width).toBe(754);
  });
});

/** How wide words are, in the face by whose widths the engraver gives them room; what ships is as wide, letter by letter. */

/** Thousandths of the size, from the space (32) to the tilde (126). */
// prettier-ignore
const WIDTHS = [
  250, 333, 408, 500, 500, 833, 778, 180, 333, 333, 500, 564, 250, 333, 250, 278, 500, 500, 500, 500, 500, 500, 500, 500,
  500, 500, 278, 278, 564, 564, 564, 444, 921, 722, 667, 667, 722, 611, 556, 722, 722, 333, 389, 722, 611, 889, 722, 722,
  556, 722, 667, 556, 611, 722, 722, 944, 722, 722, 611, 333, 278, 333, 469, 500, 333, 444, 500, 444, 500, 444, 333, 500,
  500, 278, 278, 500, 278, 778, 500, 500, 500, 500, 333, 389, 278, 500, 500, 722, 500, 500, 444, 480, 200, 480, 541,
];
/** Letters with marks are as wide as without; what is not in the table, as most letters are. */
const USUAL = 500;

/** Width of a text of size 1. */
export const wordWidth = (text: string): number =>
  [...text.normalize('NFD').replace(/\p{M}/gu, '')].reduce(
    (sum, letter) => sum + (WIDTHS[letter.codePointAt(0)! - 32] ?? USUAL),
    0,
  ) / 1000;

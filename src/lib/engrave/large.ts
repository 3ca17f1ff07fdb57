/** A stretch of music as large as it can be read from a bench: on one system where it fits, else in two halves of like length. */
import type { Places } from '$core/score/places';
import type { WrittenVersion } from '$core/version/realise';
import { fitsOnOneSystem } from './fits';
import { sheetOf, type Sheet, type SheetWish } from './sheet';

/** Widths at scale 1 that are tried, the largest notes first, in CSS pixels. */
const LARGE_WIDTHS = [660, 780] as const;

/** What a lesson shows: the largest width that fits, or one of its own. */
export type LargeWish = Omit<SheetWish, 'width'> & { readonly width?: number };

/** The sheets of some measures (by index), largest notes first; one that fits on no system is halved. */
export function largeSheets(version: WrittenVersion, places: Places, wish: LargeWish): Sheet[] {
  const { from, to } = places;
  // On a small screen lines are as short as they have to be.
  const { width: own } = wish;
  if (own !== undefined) return [sheetOf(version, places, { ...wish, width: own })];
  for (const width of LARGE_WIDTHS) {
    const sheet = sheetOf(version, places, { ...wish, width });
    if (fitsOnOneSystem(sheet) || from === to) return [sheet];
  }
  // A pickup is hardly a measure.
  const isPickup = version.score.measures[from]?.number === '0';
  const middle = Math.ceil((from + to + (isPickup ? 1 : 0)) / 2);
  return [
    ...largeSheets(version, { ...places, to: middle - 1, toBeat: undefined }, wish),
    ...largeSheets(version, { ...places, from: middle, fromBeat: undefined }, wish),
  ];
}

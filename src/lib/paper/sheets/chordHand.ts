/** Whose right hand holds the chords of a sheet. */
import { isChordal, type Chorded } from '$core/chords/held';
import { keyCode, type Key } from '$core/theory/key';
import type { Version } from '$core/version/realise';
import type { Source } from '../source';

/**
 * The version itself where it carries the harmony; otherwise the same piece in the same key as a sing-along, at the lowest level that
 * holds whole chords.
 */
export const chordHandOf = (
  { otherwise, chordLevel }: Source,
  version: Version,
  key: Key = version.key,
): Chorded =>
  version.isSingAlong || isChordal(version)
    ? version
    : otherwise({ key: keyCode(key), style: 'sing-along', introduction: 0, level: chordLevel });

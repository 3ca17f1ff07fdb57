/** Words of a song in syllables: how they are typed, and how they are joined. */
import type { Lyric } from './score';

/** Whether a syllable leads on to the next one: "pa-". */
export const leadsOn = (syllable: string): boolean => syllable.endsWith('-');

/** A typed syllable as it stands below a note; `isInside` where the one before leads on to it. */
export function lyricOf(typed: string, verse: number, isInside: boolean): Lyric {
  const syllabic = leadsOn(typed) ? (isInside ? 'middle' : 'begin') : isInside ? 'end' : 'single';
  return { line: 'words', verse, text: typed.replace(/-$/, ''), syllabic };
}

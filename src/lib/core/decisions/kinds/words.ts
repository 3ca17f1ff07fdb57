import { lineText } from '../../plainText';
import { z } from 'zod';
import type { Note } from '../../score/score';
import { leadsOn, lyricOf } from '../../score/syllables';
import { defineKind } from '../kind';

/** Most verses that stand under one another. */
const MOST_VERSES = 9;

/** What is sung at a note, verse by verse; a syllable that goes on ends with a hyphen. An empty text takes the words away. */
export const words = defineKind({
  id: 'words',
  name: 'Lyrics',
  isOfOneNote: true,
  words: 'words syllables sing text',
  value: z
    .array(z.strictObject({ verse: z.number().int().min(1).max(MOST_VERSES), text: lineText().max(80) }))
    .min(1)
    .max(MOST_VERSES),
  scopes: ['note'],
  says: (value) => `sung “${value.map((v) => v.text).join(' / ')}”`,
  written: {
    hint: 'syl- la- ble; separate verses with /',
    read: (text) =>
      text
        .split('/')
        .map((verse, i) => ({ verse: i + 1, text: verse.trim() }))
        .slice(0, MOST_VERSES),
    show: (value) =>
      [...value]
        .sort((a, b) => a.verse - b.verse)
        .map((v) => v.text)
        .join(' / '),
  },
  mark(part, held) {
    const notes = part.notes.map((note): Note => {
      const decided = held.notes.get(note.id);
      if (!decided) return note;
      const verses = new Set(decided.map((d) => d.verse));
      const kept = (note.lyrics ?? []).filter((l) => l.line !== 'words' || !verses.has(l.verse));
      const made = decided
        .filter((d) => d.text !== '')
        .map(({ verse, text }) => lyricOf(text, verse, isInside(part.notes, held.notes, note, verse)));
      const { lyrics: _lyrics, ...rest } = note;
      const all = [...kept, ...made];
      return all.length > 0 ? { ...rest, lyrics: all } : rest;
    });
    return { ...part, notes };
  },
});

type Words = readonly { readonly verse: number; readonly text: string }[];

/** Whether the syllable before, of the same hand and verse, leads on to a note. */
function isInside(
  notes: readonly Note[],
  decided: ReadonlyMap<string, Words>,
  note: Note,
  verse: number,
): boolean {
  const goesOn = (n: Note): boolean | undefined => {
    const own = decided.get(n.id)?.find((d) => d.verse === verse);
    if (own) return own.text === '' ? undefined : leadsOn(own.text);
    const lyric = n.lyrics?.find((l) => l.line === 'words' && l.verse === verse);
    return lyric && (lyric.syllabic === 'begin' || lyric.syllabic === 'middle');
  };
  const before = notes.findLast(
    (n) => n.staff === note.staff && n.onset < note.onset && goesOn(n) !== undefined,
  );
  return before !== undefined && goesOn(before) === true;
}

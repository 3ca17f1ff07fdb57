/** The melody as written notes, with the words, ornaments and slurs of the source that a level keeps. */
import { toMidi } from '../../theory/pitch';
import { measureAt, type SoundingNote } from '../../score/query';
import type { Lyric, Note, Score, Slur } from '../../score/score';
import { levelText, type LevelContract } from '../levels';
import type { Reason } from '../reason';

/** The words of a melody by the notes that are kept: the syllable of a note that is left out is sung on the note before it. */
export function wordsOf(
  melody: readonly SoundingNote[],
  kept: readonly SoundingNote[],
  source: Score,
): Map<string, readonly Lyric[]> {
  const written = new Map(source.parts.flatMap((p) => p.notes).map((n) => [n.id, n]));
  const ids = new Set(kept.map((n) => n.id));
  const result = new Map<string, readonly Lyric[]>();
  let carrier: string | undefined;
  let waiting: readonly Lyric[] = [];
  for (const { id } of melody) {
    const own = (written.get(id)?.lyrics ?? []).filter((l) => l.line === 'words');
    if (ids.has(id)) {
      carrier = id;
      const all = joined(waiting, own);
      if (all.length > 0) result.set(id, all);
      waiting = [];
    } else if (carrier) {
      const all = joined(result.get(carrier) ?? [], own);
      if (all.length > 0) result.set(carrier, all);
    } else waiting = joined(waiting, own);
  }
  return result;
}

/** The notes of a source that bear words, by their ids. */
export const sungIn = ({ parts }: Score): ReadonlySet<string> =>
  new Set(
    parts.flatMap((p) => p.notes.filter((n) => n.lyrics?.some((l) => l.line === 'words')).map((n) => n.id)),
  );

/** Syllables of two notes on one, verse by verse. */
function joined(first: readonly Lyric[], second: readonly Lyric[]): readonly Lyric[] {
  if (first.length === 0) return second;
  const verses = new Map(first.map((l) => [l.verse, l]));
  for (const after of second) {
    const before = verses.get(after.verse);
    if (!before) {
      verses.set(after.verse, after);
      continue;
    }
    const inWord = before.syllabic === 'begin' || before.syllabic === 'middle';
    const begins = before.syllabic === 'begin' || before.syllabic === 'single';
    const goesOn = after.syllabic === 'begin' || after.syllabic === 'middle';
    verses.set(after.verse, {
      ...after,
      text: inWord ? before.text + after.text : `${before.text} ${after.text}`,
      syllabic: begins ? (goesOn ? 'begin' : 'single') : goesOn ? 'middle' : 'end',
    });
  }
  return [...verses.values()];
}

/** The melody as written notes of staff 1; words stay with the note that carries them, ornaments where the level has them. */
export function writtenMelody(
  melody: readonly SoundingNote[],
  words: ReadonlyMap<string, readonly Lyric[]>,
  source: Score,
  ornaments: boolean,
  reasons: Reason[],
  contract: LevelContract,
): Note[] {
  const all = source.parts.flatMap((p) => p.notes);
  const written = new Map(all.map((n) => [n.id, n]));
  const graces = new Map<string, Note[]>();
  for (const n of all)
    if (n.grace && !n.cue) {
      const place = `${n.onset}:${n.voice}`;
      graces.set(place, [...(graces.get(place) ?? []), n]);
    }
  return melody.flatMap((n): Note[] => {
    const original = written.get(n.id);
    const by = original ? n.pitch.octave - original.pitch.octave : 0;
    const own =
      original && n.onset === original.onset ? (graces.get(`${n.onset}:${original.voice}`) ?? []) : [];
    const ornamented = own.length > 0 || (original?.ornaments?.length ?? 0) > 0;
    if (ornamented && !ornaments)
      reasons.push({
        measure: measureAt(source.measures, n.onset).index,
        about: 'melody',
        notes: [n.id],
        text: `${own.length > 0 ? 'grace notes' : 'an ornament'} left out at level ${levelText(contract.level)}`,
        loss: 'ornament',
      });
    const keepsLength = original && original.duration === n.duration && original.onset === n.onset;
    const note: Note = {
      id: n.id,
      onset: n.onset,
      duration: n.duration,
      pitch: n.pitch,
      staff: 1,
      voice: 1,
      ...(keepsLength && original.tuplet ? { tuplet: original.tuplet } : {}),
      ...(n.articulations.length ? { articulations: n.articulations } : {}),
      ...(ornaments && original?.ornaments ? { ornaments: original.ornaments } : {}),
      ...(words.has(n.id) ? { lyrics: words.get(n.id)! } : {}),
      ...(original?.fermata ? { fermata: true } : {}),
    };
    if (!ornaments) return [note];
    // Of a chord of grace notes the highest goes with the line.
    const top = own.filter(
      (g) => !own.some((o) => o.grace!.order === g.grace!.order && toMidi(o.pitch) > toMidi(g.pitch)),
    );
    return [
      ...top.map((g): Note => ({
        ...g,
        staff: 1,
        voice: 1,
        pitch: { ...g.pitch, octave: g.pitch.octave + by },
      })),
      note,
    ];
  });
}

/** The slurs of the source that still have both their ends. */
export function withSlurs(notes: readonly Note[], source: Score): Note[] {
  const kept = new Set(notes.map((n) => n.id));
  const result = new Map<string, Slur[]>();
  for (const part of source.parts) {
    const open = new Map<string, Note>();
    for (const note of part.notes)
      for (const slur of note.slurs ?? []) {
        const name = `${slur.number}:${note.voice}`;
        const start = open.get(name);
        if (slur.type === 'start') open.set(name, note);
        else if (start) {
          open.delete(name);
          if (!kept.has(start.id) || !kept.has(note.id)) continue;
          result.set(start.id, [...(result.get(start.id) ?? []), { type: 'start', number: slur.number }]);
          result.set(note.id, [...(result.get(note.id) ?? []), slur]);
        }
      }
  }
  return notes.map((n) => (result.has(n.id) ? { ...n, slurs: result.get(n.id)! } : n));
}

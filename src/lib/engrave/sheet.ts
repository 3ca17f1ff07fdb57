/**
 * What a phrase needs to be drawn: MusicXML for the engraver, and beside it what the engraver does not know: which
 * fingers are decided, when each note sounds, and the counts with their held beats and rests.
 */
import { writeMusicXml } from '$core/io/musicxml/write';
import type { Phrase } from '$core/analysis/form';
import { ticksOf, type Places } from '$core/score/places';
import { countText } from '$core/counting/count';
import { excerpt } from '$core/score/excerpt';
import { endOf } from '$core/score/metre';
import { pitchClassName, toMidi } from '$core/theory/pitch';
import type { Ticks } from '$core/score/ticks';
import type { Lyric, Measure, Note, PedalMark } from '$core/score/score';
import { degree } from '$core/theory/chord';
import type { WrittenVersion } from '$core/version/realise';
import { z } from 'zod';
import { degreesByNote, namesByNote, NOTHING_SUNG, sungIn } from './below';
import { fingersShown } from './fingersShown';
import { shortLines } from './fits';

export const sheetOptionsSchema = z.object({
  /** Width of the page in CSS pixels at scale 1. */
  width: z.number().min(200).max(4000),
  /** All of them, only where a chord is not struck again as it was, or only where the hand takes a new position. */
  fingers: z.union([z.boolean(), z.enum(['once', 'positions'])]),
  counts: z.boolean(),
  chords: z.boolean(),
  /** Roman numerals beside the chords. */
  degrees: z.boolean().default(false),
  pedal: z.boolean().default(true),
  /** Which verse stands below the notes: all of them, none, or one. */
  words: z.union([z.enum(['all', 'none']), z.number().int().min(1).max(9)]).default('all'),
  /** Names of the notes, below them or in their heads; or the melody below them as degrees of the key or as tones of its chords. */
  names: z.union([z.boolean(), z.enum(['heads', 'degrees', 'tones'])]).default(false),
  /** The metre is printed also where it is not new: the phrase stands by itself. */
  metre: z.boolean().default(false),
  /** Decided fingers look as proposed ones. */
  alike: z.boolean().default(false),
  /** Rests of the upper staff are not drawn: there is room to write. */
  bare: z.boolean().default(false),
  /** Measures (by index) that begin a line; without any the engraver breaks lines as it likes. */
  breaks: z.array(z.number().int().min(0)).default([]),
  /** Most measures of a line, where lines are to be short: fewer stand on one where they have no room. */
  perLine: z.number().int().min(1).max(8).optional(),
});
/** The options as whoever draws gives them: what is not said is as usual. */
export type SheetWish = Readonly<z.input<typeof sheetOptionsSchema>>;

export const sheetSchema = z.object({
  xml: z.string(),
  width: z.number().min(200).max(4000),
  measures: z.array(
    z.object({
      index: z.number(),
      number: z.string(),
      start: z.number(),
      end: z.number(),
      /** A repeat sign stands at its beginning; a repeat sign, or a double barline, at its end. */
      repeatStart: z.literal(true).optional(),
      thickEnd: z.literal(true).optional(),
    }),
  ),
  /** Notes by their names in the MusicXML. */
  notes: z.record(
    z.string(),
    z.object({
      /** The note's own id. */
      id: z.string(),
      onset: z.number(),
      midi: z.number(),
      hand: z.enum(['right', 'left']),
      finger: z.number().optional(),
      decided: z.boolean(),
      /** What stands in its head. */
      name: z.string().optional(),
    }),
  ),
  alike: z.literal(true).optional(),
  /** Its lines are broken where the MusicXML says. */
  isBroken: z.literal(true).optional(),
  /** Beside each chord in turn: its degree, where degrees are shown. */
  degrees: z.array(z.string()).optional(),
  /** Degrees stand in place of the names of chords. */
  namesNoChords: z.literal(true).optional(),
  /** Words of a chart, each at its beat. */
  sung: z.array(z.object({ tick: z.number(), text: z.string() })).optional(),
  counts: z.array(
    z.object({
      tick: z.number(),
      measure: z.number(),
      text: z.string(),
      kind: z.enum(['onset', 'held', 'rest']),
    }),
  ),
});

/** One phrase ready to be sent to the engraver. */
export type Sheet = z.infer<typeof sheetSchema>;

/**
 * Notes under names that count them within the sheet. A phrase that comes again is the same MusicXML then, and is engraved once.
 */
export const sheetNames = (notes: readonly Note[]): { readonly name: string; readonly note: Note }[] =>
  notes.map((note, i) => ({ name: `n${i}`, note }));

/** Where measures stand, for marks and clicks. */
export const sheetMeasures = (measures: readonly Measure[]): Sheet['measures'] =>
  measures.map((m) => ({
    index: m.index,
    number: m.number,
    start: m.start,
    end: endOf(m),
    ...(m.repeatStart ? { repeatStart: true as const } : {}),
    ...(m.repeatEnd || m.barline ? { thickEnd: true as const } : {}),
  }));

/** What the engraver does not know of a note. */
export const sheetNote = (
  { id, onset, pitch, staff }: Note,
  finger: { readonly finger: number; readonly decided: boolean } | undefined,
): Sheet['notes'][string] => ({
  id,
  onset,
  midi: toMidi(pitch),
  hand: staff === 1 ? 'right' : 'left',
  ...(finger ? { finger: finger.finger } : {}),
  decided: finger?.decided ?? false,
});

/** Each phrase is engraved by itself, but the metre is printed only where it is new. */
function withoutRepeatedMetre(xml: string, version: WrittenVersion, from: number): string {
  const [before, first] = [version.score.measures[from - 1], version.score.measures[from]];
  const isNew = before?.time.beats !== first?.time.beats || before?.time.beatType !== first?.time.beatType;
  return isNew ? xml : xml.replace('<time', '<time print-object="no"');
}

/** The engraver draws no line after a change of pedal: it gets the up and the down as two marks. */
const asStopAndStart = (mark: PedalMark): PedalMark[] =>
  mark.type === 'change'
    ? [
        { ...mark, type: 'stop' },
        { ...mark, type: 'start' },
      ]
    : [mark];

/** Written for every finger: all badges are of one size, so a picture does not depend on which finger it is. */
const PLACE_OF_A_FINGER = 1;

export const NEW_LINE = '<print new-system="yes"/>';

/** New lines where they are wanted: measures of a sheet are numbered from 1, but for a pickup. */
function withBreaks(xml: string, measures: readonly Measure[], breaks: readonly number[]): string {
  const begins = new Set(breaks);
  let place = -1;
  return xml.replaceAll(/<measure [^>]*>/g, (tag) => {
    place += 1;
    return place > 0 && begins.has(measures[place]!.index) ? tag + NEW_LINE : tag;
  });
}

/** The upper staff without its rests. */
const withBareStaff = (xml: string): string =>
  xml.replaceAll(
    /<note\b([^>]*)>(<rest[^>]*>(?:(?!<\/note>)[\s\S])*<staff>1<\/staff>)/g,
    '<note$1 print-object="no">$2',
  );

/** The counts of some places. */
function countsIn({ score: { measures }, counts }: WrittenVersion, places: Places): WrittenVersion['counts'] {
  const { start, end } = ticksOf(measures, places);
  return counts.slice(places.from, places.to + 1).map(({ measure, counts: own }) => {
    const inside = own.filter(({ at }) => {
      const tick = measures[measure]!.start + at;
      return tick >= start && tick < end;
    });
    return { measure, counts: inside };
  });
}

/** Cuts a phrase out of a version and prepares it for the engraver. */
export function sheetOf(version: WrittenVersion, phrase: Places, wish: SheetWish): Sheet {
  const options = sheetOptionsSchema.parse(wish);
  const part = excerpt(version.score, phrase);
  const counts = options.counts ? countsIn(version, phrase) : [];
  // Only the spoken onset goes into the engraver's lyric line, to keep its place; held beats are drawn between.
  const spoken = new Map<Ticks, string>();
  for (const { measure, counts: list } of counts)
    for (const count of list)
      if (count.kind === 'onset') spoken.set(version.score.measures[measure]!.start + count.at, count.say);
  const versesShown =
    options.words === 'all'
      ? Math.max(
          0,
          ...part.parts[0]!.notes.flatMap((n) =>
            (n.lyrics ?? []).flatMap((l) => (l.line === 'words' ? l.verse : [])),
          ),
        )
      : options.words === 'none'
        ? 0
        : 1;
  const sung = options.words === 'none' ? NOTHING_SUNG : sungIn(part);
  // What is sung over a chart has a line of its own, which names stand below.
  const linesShown = Math.max(versesShown, sung.carriers.size > 0 ? 1 : 0);
  const names =
    options.names === true
      ? namesByNote(part.parts[0]!.notes, linesShown + 1)
      : options.names === 'degrees' || options.names === 'tones'
        ? degreesByNote(part, options.names, version.key, linesShown + 1)
        : new Map<string, Lyric>();
  const fingered = fingersShown(version, part.parts[0]!.notes, options.fingers, options.breaks);
  const notes = part.parts[0]!.notes.map((note): Note => {
    const { finger, lyrics, ...rest } = note;
    const lines = [...(lyrics ?? []), sung.carriers.get(note.id) ?? [], names.get(note.id) ?? []]
      .flat()
      .flatMap((l): Lyric[] => {
        if (l.line === 'names' || l.line === 'sung') return [l];
        if (l.line === 'words')
          return options.words === 'all' ? [l] : l.verse === options.words ? [{ ...l, verse: 1 }] : [];
        const say = spoken.get(note.onset);
        return say ? [{ ...l, text: say }] : [];
      });
    return {
      ...rest,
      // The engraver keeps the room; which finger it is stands in the badge.
      ...(finger && fingered(note) ? { finger: PLACE_OF_A_FINGER } : {}),
      ...(lines.length ? { lyrics: lines } : {}),
    };
  });
  const named = sheetNames(notes);
  const score = {
    ...part,
    tempo: 0,
    measures: part.measures.map(({ section: _section, ...m }, i) => ({
      ...m,
      number: m.number === '0' ? '0' : `${i + 1}`,
    })),
    parts: [
      {
        ...part.parts[0]!,
        ...(part.parts[0]!.marks ? { marks: part.parts[0]!.marks.filter((m) => !sung.marks.has(m)) } : {}),
        name: '',
        notes: named.map(({ name, note }) => ({ ...note, id: name })),
      },
    ],
    pedals: options.pedal ? part.pedals.flatMap(asStopAndStart) : [],
    chordSymbols: options.chords || options.degrees ? part.chordSymbols : [],
  };
  const xml = withNamesOnce(writeMusicXml({ ...score, title: '', composer: '' }));
  const bared = options.bare ? withBareStaff(xml) : xml;
  const measures = sheetMeasures(part.measures);
  const sheetNotes = Object.fromEntries(
    named.map(({ name, note }) => [
      name,
      {
        ...sheetNote(note, version.fingers[note.id]),
        ...(options.names === 'heads' ? { name: pitchClassName(note.pitch) } : {}),
      },
    ]),
  );
  const lines = options.perLine
    ? shortLines({ xml: bared, width: options.width, measures, notes: sheetNotes }, options.perLine)
    : { breaks: options.breaks, width: options.width };
  const isBroken = lines.breaks.length > 0 || options.perLine !== undefined;
  const broken = lines.breaks.length > 0 ? withBreaks(bared, part.measures, lines.breaks) : bared;
  return {
    xml: options.metre ? broken : withoutRepeatedMetre(broken, version, phrase.from),
    ...(isBroken ? { isBroken: true as const } : {}),
    ...(options.alike ? { alike: true as const } : {}),
    width: lines.width,
    measures,
    notes: sheetNotes,
    ...(sung.words.length > 0 ? { sung: [...sung.words] } : {}),
    ...(options.degrees
      ? {
          degrees: [...part.chordSymbols]
            .sort((a, b) => a.onset - b.onset)
            .map(({ chord }) => (chord ? degree(chord, version.key) : '')),
        }
      : {}),
    ...(options.degrees && !options.chords ? { namesNoChords: true as const } : {}),
    counts: counts.flatMap(({ measure, counts: list }) =>
      list.map((count) => ({
        tick: version.score.measures[measure]!.start + count.at,
        measure,
        text: countText(count),
        kind: count.kind,
      })),
    ),
  };
}

let lastObject = 0;
const objects = new WeakMap<object, number>();
const nameOf = (object: object): number => {
  const known = objects.get(object) ?? ++lastObject;
  objects.set(object, known);
  return known;
};

/**
 * Names everything that the picture of a phrase depends on, without making it: notes are the same objects as long as nothing about
 * them has changed (writeMarks.ts). Good within one thread.
 */
export function pictureKey(
  version: WrittenVersion,
  { from, to }: Pick<Phrase, 'from' | 'to'>,
  options: SheetWish,
): string {
  const { measures, parts, pedals, chordSymbols } = version.score;
  const [start, end] = [measures[from]!.start, endOf(measures[to]!)];
  const inside = ({ onset }: { onset: Ticks }): boolean => onset >= start && onset <= end;
  const notes = parts[0]!.notes
    .filter((n) => n.onset >= start && n.onset < end)
    .map((n) => `${nameOf(n)}${version.fingers[n.id]?.decided ? '!' : ''}`)
    .join(' ');
  const around = measures.slice(Math.max(0, from - 1), to + 1).map((m) => [m.number, m.time, m.key, m.start]);
  return `${notes}|${JSON.stringify([
    options,
    around,
    parts[0]!.marks?.filter(inside),
    pedals.filter(inside).map(({ onset, type }) => [onset, type]),
    pedals.findLast((p) => p.onset < start)?.type,
    chordSymbols.filter(inside),
    options.counts ? version.counts.slice(from, to + 1) : [],
    options.degrees || options.names === 'degrees' ? version.key : null,
  ])}`;
}

/** The engraver adds the degrees of a chord to its name, which has them already. */
export const withNamesOnce = (xml: string): string => xml.replace(/<degree\b[\s\S]*?<\/degree>/g, '');

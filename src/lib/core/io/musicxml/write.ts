/**
 * A Score as MusicXML 4.0 (score-partwise). Counts are lyric line 1 named "counts", words follow named "words";
 * every note has its id, so that whoever draws the file can lead a click back to the note.
 */
import { beatLength, endOf, measureLength } from '../../score/metre';
import { toMidi } from '../../theory/pitch';
import type { ClefMark, Mark, Measure, Part, PedalMark, Score } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import {
  clefXml,
  endingStopsOf,
  harmonyXml,
  keyXml,
  leftBarline,
  markXml,
  pedalXml,
  rehearsalXml,
  rightBarline,
  routeAtEnd,
  routeAtStart,
  timeXml,
} from '../private/musicxml/writeMarks';
import { writeNotes, type AmongNotes, type PartContext } from '../private/musicxml/writeNotes';
import { Cursor, escape, heardTempo, metronome, xmlId } from '../private/musicxml/writeXml';

/** Writes a whole score. */
export function writeMusicXml(score: Score): string {
  const divisions = divisionsOf(score);
  const countsAbove = score.parts.some((p) =>
    p.notes.some((n) => n.lyrics?.some((l) => l.line === 'counts')),
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">',
    '<score-partwise version="4.0">',
    `<work><work-title>${escape(score.title)}</work-title></work>`,
    `<identification>${score.composer ? `<creator type="composer">${escape(score.composer)}</creator>` : ''}${score.rights ? `<rights>${escape(score.rights)}</rights>` : ''}<encoding><software>Key Path</software></encoding></identification>`,
    '<part-list>',
    ...score.parts.map(
      (p) => `<score-part id="${xmlId(p.id)}"><part-name>${escape(p.name)}</part-name></score-part>`,
    ),
    '</part-list>',
    ...score.parts.map((part, i) =>
      writePart(score, part, i === 0, {
        prefix: i === 0 ? '' : `p${i + 1}-`,
        staves: part.staves,
        divisions,
        countsAbove,
      }),
    ),
    '</score-partwise>',
    '',
  ].join('\n');
}

/** The fewest divisions of a quarter in which every onset and duration is whole. */
function divisionsOf(score: Score): number {
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
  // An eighth at the least, so that rests between notes are whole as well.
  let common = TICKS_PER_QUARTER / 4;
  const take = (ticks: Ticks): void => void (common = gcd(common, ticks));
  for (const m of score.measures) {
    [m.length, beatLength(m.time), m.start].forEach(take);
    m.changes?.forEach((c) => take(c.onset));
  }
  for (const part of score.parts) {
    for (const note of part.notes) {
      take(note.onset);
      take(note.duration);
    }
    part.marks?.forEach((m) => take(m.onset));
    part.clefs?.forEach((c) => take(c.onset));
  }
  for (const item of [...score.chordSymbols, ...score.pedals, ...(score.tempoChanges ?? [])])
    take(item.onset);
  return TICKS_PER_QUARTER / common;
}

function writePart(score: Score, part: Part, isFirst: boolean, context: PartContext): string {
  const { measures } = score;
  const notes = groupByMeasure(measures, part.notes);
  const beside = groupByMeasure(measures, besideNotes(score, part, isFirst));
  const among = groupByMeasure(measures, amongNotes(score, part));
  const endingStops = endingStopsOf(measures);
  const has = {
    hasFine: measures.some((m) => m.route?.fine),
    hasCoda: measures.some((m) => m.route?.toCoda),
  };
  const out = [`<part id="${xmlId(part.id)}">`];
  measures.forEach((measure, i) => {
    const short = measure.length < measureLength(measure.time);
    out.push(`<measure number="${escape(measure.number)}"${short ? ' implicit="yes"' : ''}>`);
    out.push(attributes(measure, measures[i - 1], part, context));
    out.push(leftBarline(measure));
    if (isFirst && measure.section) out.push(rehearsalXml(measure.section));
    if (isFirst && i === 0 && score.tempo > 0) out.push(metronome(beatLength(measure.time), score.tempo));
    if (isFirst && measure.route) out.push(...routeAtStart(measure.route));
    const cursor = new Cursor(measure.start, context.divisions, out);
    const [early, late] = [beside[i]!.filter((b) => !b.afterNotes), beside[i]!.filter((b) => b.afterNotes)];
    for (const item of early) {
      cursor.moveTo(item.onset);
      out.push(item.xml);
    }
    writeNotes(measure, notes[i]!, cursor, context, out, among[i]!);
    for (const item of late) {
      cursor.moveTo(item.onset);
      out.push(item.xml);
    }
    cursor.moveTo(endOf(measure));
    if (isFirst && measure.route) out.push(...routeAtEnd(measure.route, has));
    out.push(rightBarline(measure, endingStops.get(i)));
    out.push('</measure>');
  });
  out.push('</part>');
  return out.filter((line) => line !== '').join('\n');
}

/** What stands at a place in time beside the notes, ready as text. */
interface Beside {
  readonly onset: Ticks;
  readonly xml: string;
  /** Ends something: at a barline it belongs to the measure that ends there. */
  readonly ends?: boolean;
  /** Written after the notes of the measure, as engravers expect of pedals. */
  readonly afterNotes?: boolean;
}

function besideNotes(score: Score, part: Part, isFirst: boolean): Beside[] {
  const items: Beside[] = [
    ...score.measures.flatMap((m) =>
      (m.changes ?? []).map(({ onset, key, time }) => ({
        onset,
        xml: `<attributes>${key ? keyXml(key) : ''}${time ? timeXml(time) : ''}</attributes>`,
      })),
    ),
    ...(part.marks ?? [])
      .filter((mark) => mark.kind !== 'octave shift')
      .map((mark) => ({ onset: mark.onset, xml: markXml(mark), ends: endsHere(mark) })),
  ];
  if (!isFirst) return items;
  return [
    ...items,
    ...score.chordSymbols.map((symbol) => ({ onset: symbol.onset, xml: harmonyXml(symbol) })),
    ...(score.tempoChanges ?? []).map(({ onset, tempo, isHeard }) => ({
      onset,
      xml: isHeard ? heardTempo(tempo) : metronome(beatLength(measureOf(score.measures, onset).time), tempo),
    })),
    ...score.pedals.map((pedal) => ({
      onset: pedal.onset,
      xml: pedalXml(pedal, part.staves),
      ends: pedal.type === 'stop',
      afterNotes: true,
    })),
  ];
}

/** Clefs inside measures and octave signs: they hold for what comes after them in the text, staff by staff. */
function amongNotes({ measures }: Score, { clefs = [], marks = [], staves }: Part): AmongNotes[] {
  const starts = new Set(measures.map((m) => m.start));
  return [
    ...clefs
      .filter((clef) => !starts.has(clef.onset))
      .map((clef) => ({
        onset: clef.onset,
        staff: clef.staff,
        xml: `<attributes>${clefXml(clef, staves)}</attributes>`,
        ends: false,
      })),
    ...marks
      .filter((mark) => mark.kind === 'octave shift')
      .map((mark) => ({
        onset: mark.onset,
        staff: mark.staff,
        xml: markXml(mark),
        ends: mark.type === 'stop',
      })),
  ];
}

const endsHere = (mark: Mark | PedalMark): boolean => 'type' in mark && mark.type === 'stop';

const measureOf = (measures: readonly Measure[], tick: Ticks): Measure =>
  measures.findLast((m) => m.start <= tick) ?? measures[0]!;

/** Items by measure, in order of time. What ends at a barline belongs to the measure before it. */
function groupByMeasure<T extends { readonly onset: Ticks; readonly ends?: boolean }>(
  measures: readonly Measure[],
  items: readonly T[],
): T[][] {
  const groups: T[][] = measures.map(() => []);
  let i = 0;
  for (const item of [...items].sort((a, b) => a.onset - b.onset)) {
    while (i < measures.length - 1 && item.onset >= measures[i + 1]!.start) i += 1;
    const before = item.ends && item.onset === measures[i]?.start && i > 0;
    groups[before ? i - 1 : i]?.push(item);
  }
  return groups;
}

/** A staff that lies wholly on the other side of middle C gets the other clef. */
function clefFor(part: Part, staff: number): Omit<ClefMark, 'onset'> {
  const pitches = part.notes.filter((n) => n.staff === staff).map((n) => toMidi(n.pitch));
  const usual = staff === 1 ? 'G' : 'F';
  const sign =
    pitches.length === 0
      ? usual
      : staff === 1
        ? Math.max(...pitches) <= 59
          ? 'F'
          : 'G'
        : Math.min(...pitches) >= 60
          ? 'G'
          : 'F';
  return { staff, sign, line: sign === 'G' ? 2 : 4 };
}

function attributes(
  measure: Measure,
  before: Measure | undefined,
  part: Part,
  { staves, divisions }: PartContext,
): string {
  // What held at the end of the measure before, changes inside it included.
  const keyBefore = before?.changes?.findLast((c) => c.key)?.key ?? before?.key;
  const timeBefore = before?.changes?.findLast((c) => c.time)?.time ?? before?.time;
  const { key, time } = measure;
  const newKey = !keyBefore || keyBefore.fifths !== key.fifths || keyBefore.mode !== key.mode;
  const newTime = !timeBefore || timeBefore.beats !== time.beats || timeBefore.beatType !== time.beatType;
  const given = (part.clefs ?? []).filter((c) => c.onset === measure.start);
  const clefs = before
    ? given
    : Array.from({ length: staves }, (_, i) => given.find((c) => c.staff === i + 1) ?? clefFor(part, i + 1));
  const body = [
    before ? '' : `<divisions>${divisions}</divisions>`,
    newKey ? keyXml(key) : '',
    newTime ? timeXml(time) : '',
    before || staves === 1 ? '' : `<staves>${staves}</staves>`,
    ...clefs.map((clef) => clefXml(clef, staves)),
  ].join('');
  return body ? `<attributes>${body}</attributes>` : '';
}

/**
 * A Score as MusicXML 4.0 (score-partwise). Counts are lyric line 1 named "counts", words follow named "words";
 * every note has its id, so that whoever draws the file can lead a click back to the note.
 */
import { shownAccidentals } from '../../score/accidentals';
import { beatLength, endOf, measureLength } from '../../score/metre';
import { writtenValue, type WrittenValue } from '../../score/notate';
import { toMidi, type Pitch } from '../../score/pitch';
import type { ChordSymbol, Measure, Note, Part, Route, Score } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { CHORD_KINDS } from '../../theory/chordKinds';
import { fromFifths } from '../../theory/fifths';
import { beams } from './beams';
import { lanesOf, withRests, type WrittenEvent } from './events';

/** Writes a whole score. */
export function writeMusicXml(score: Score): string {
  const divisions = divisionsOf(score);
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">',
    '<score-partwise version="4.0">',
    `<work><work-title>${escape(score.title)}</work-title></work>`,
    `<identification>${score.composer ? `<creator type="composer">${escape(score.composer)}</creator>` : ''}<encoding><software>Key Path</software></encoding></identification>`,
    '<part-list>',
    ...score.parts.map(
      (p) => `<score-part id="${escape(p.id)}"><part-name>${escape(p.name)}</part-name></score-part>`,
    ),
    '</part-list>',
    ...score.parts.map((part, i) => writePart(score, part, i === 0, divisions)),
    '</score-partwise>',
    '',
  ].join('\n');
}

const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** The fewest divisions of a quarter in which every onset and duration is whole. */
function divisionsOf(score: Score): number {
  const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));
  const values = [
    ...score.measures.flatMap((m) => [m.length, beatLength(m.time)]),
    ...score.parts.flatMap((p) => p.notes.flatMap((n) => [n.duration, n.onset])),
    ...score.chordSymbols.map((s) => s.onset),
    ...score.pedals.map((p) => p.onset),
    ...score.measures.map((m) => m.start),
  ];
  // An eighth at the least, so that rests between notes are whole as well.
  return TICKS_PER_QUARTER / values.reduce(gcd, TICKS_PER_QUARTER / 4);
}

function writePart(score: Score, part: Part, isFirst: boolean, divisions: number): string {
  const inMeasure = groupByMeasure(score.measures, part.notes);
  const clefs = Array.from({ length: part.staves }, (_, i) => clefFor(part, i + 1));
  const endingStops = endingStopsOf(score.measures);
  const out = [`<part id="${escape(part.id)}">`];
  score.measures.forEach((measure, i) => {
    const before = score.measures[i - 1];
    const short = measure.length < measureLength(measure.time);
    out.push(`<measure number="${escape(measure.number)}"${short ? ' implicit="yes"' : ''}>`);
    out.push(attributes(measure, before, part.staves, clefs, divisions));
    out.push(leftBarline(measure));
    if (isFirst) {
      if (measure.section)
        out.push(direction('above', `<rehearsal>${escape(measure.section)}</rehearsal>`, 1));
      if (i === 0 && score.tempo > 0) out.push(tempoMark(measure, score.tempo));
    }
    if (isFirst && measure.route) out.push(...routeAtStart(measure.route));
    const cursor = new Cursor(measure.start, divisions, out);
    if (isFirst)
      for (const symbol of score.chordSymbols)
        if (symbol.onset >= measure.start && symbol.onset < endOf(measure)) {
          cursor.moveTo(symbol.onset);
          out.push(harmony(symbol));
        }
    writeNotes(measure, part.staves, inMeasure[i]!, cursor, divisions, out);
    if (isFirst)
      for (const pedal of score.pedals) {
        const isLast = i === score.measures.length - 1;
        if (pedal.onset < measure.start || pedal.onset > endOf(measure)) continue;
        if (pedal.onset === endOf(measure) && !(isLast || pedal.type === 'stop')) continue;
        if (pedal.onset === measure.start && pedal.type === 'stop' && i > 0) continue;
        cursor.moveTo(pedal.onset);
        out.push(direction('below', `<pedal type="${pedal.type}" line="yes"/>`, part.staves));
      }
    cursor.moveTo(endOf(measure));
    if (isFirst && measure.route) out.push(...routeAtEnd(measure.route));
    out.push(rightBarline(measure, endingStops.get(i)));
    out.push('</measure>');
  });
  out.push('</part>');
  return out.filter((line) => line !== '').join('\n');
}

function groupByMeasure(measures: readonly Measure[], notes: readonly Note[]): Note[][] {
  const groups: Note[][] = measures.map(() => []);
  let i = 0;
  for (const note of [...notes].sort((a, b) => a.onset - b.onset)) {
    while (i < measures.length - 1 && note.onset >= measures[i + 1]!.start) i += 1;
    groups[i]?.push(note);
  }
  return groups;
}

/** A staff that lies wholly on the other side of middle C gets the other clef. */
function clefFor(part: Part, staff: number): 'G' | 'F' {
  const pitches = part.notes.filter((n) => n.staff === staff).map((n) => toMidi(n.pitch));
  if (pitches.length === 0) return staff === 1 ? 'G' : 'F';
  if (staff === 1) return Math.max(...pitches) <= 59 ? 'F' : 'G';
  return Math.min(...pitches) >= 60 ? 'G' : 'F';
}

function attributes(
  measure: Measure,
  before: Measure | undefined,
  staves: number,
  clefs: readonly ('G' | 'F')[],
  divisions: number,
): string {
  const { key, time } = measure;
  const newKey = !before || before.key.fifths !== key.fifths || before.key.mode !== key.mode;
  const newTime = !before || before.time.beats !== time.beats || before.time.beatType !== time.beatType;
  const body = [
    before ? '' : `<divisions>${divisions}</divisions>`,
    newKey ? `<key><fifths>${key.fifths}</fifths><mode>${key.mode}</mode></key>` : '',
    newTime
      ? `<time${time.symbol ? ` symbol="${time.symbol}"` : ''}><beats>${time.beats}</beats><beat-type>${time.beatType}</beat-type></time>`
      : '',
    before || staves === 1 ? '' : `<staves>${staves}</staves>`,
    before
      ? ''
      : clefs
          .map(
            (sign, i) =>
              `<clef${staves > 1 ? ` number="${i + 1}"` : ''}><sign>${sign}</sign><line>${sign === 'G' ? 2 : 4}</line></clef>`,
          )
          .join(''),
  ].join('');
  return body ? `<attributes>${body}</attributes>` : '';
}

const direction = (placement: 'above' | 'below', content: string, staff: number): string =>
  `<direction placement="${placement}"><direction-type>${content}</direction-type><staff>${staff}</staff></direction>`;

const routeMark = (content: string, sound: string): string =>
  `<direction placement="above"><direction-type>${content}</direction-type><sound ${sound}/></direction>`;

const routeAtStart = (route: Route): string[] => [
  ...(route.segno ? [routeMark('<segno/>', 'segno="segno"')] : []),
  ...(route.coda ? [routeMark('<coda/>', 'coda="coda"')] : []),
];

const routeAtEnd = (route: Route): string[] => [
  ...(route.toCoda ? [routeMark('<words>To Coda</words>', 'tocoda="coda"')] : []),
  ...(route.fine ? [routeMark('<words>Fine</words>', 'fine="yes"')] : []),
  ...(route.jump === 'da capo' ? [routeMark('<words>D.C.</words>', 'dacapo="yes"')] : []),
  ...(route.jump === 'dal segno' ? [routeMark('<words>D.S.</words>', 'dalsegno="segno"')] : []),
];

function tempoMark(measure: Measure, quartersPerMinute: number): string {
  const beat = beatLength(measure.time);
  const value = writtenValue(beat);
  const perMinute = Math.round((quartersPerMinute * TICKS_PER_QUARTER) / beat);
  const unit = `<beat-unit>${TYPE_NAMES[value?.type ?? 4]}</beat-unit>${value?.dots ? '<beat-unit-dot/>' : ''}`;
  return `<direction placement="above"><direction-type><metronome>${unit}<per-minute>${perMinute}</per-minute></metronome></direction-type><staff>1</staff><sound tempo="${quartersPerMinute}"/></direction>`;
}

/** Writes backups and forwards so that the next element stands at a given tick. */
class Cursor {
  constructor(
    private at: Ticks,
    private readonly divisions: number,
    private readonly out: string[],
  ) {}
  moveTo(tick: Ticks): void {
    const units = Math.round(((tick - this.at) * this.divisions) / TICKS_PER_QUARTER);
    if (units > 0) this.out.push(`<forward><duration>${units}</duration></forward>`);
    if (units < 0) this.out.push(`<backup><duration>${-units}</duration></backup>`);
    this.at = tick;
  }
  passed(ticks: Ticks): void {
    this.at += ticks;
  }
}

function writeNotes(
  measure: Measure,
  staves: number,
  notes: readonly Note[],
  cursor: Cursor,
  divisions: number,
  out: string[],
): void {
  const accidentals = shownAccidentals(measure, notes);
  for (let staff = 1; staff <= staves; staff++) {
    const lanes = lanesOf(notes.filter((n) => n.staff === staff));
    lanes.forEach((lane, laneIndex) => {
      const voice = (staff - 1) * 4 + laneIndex + 1;
      cursor.moveTo(measure.start);
      const events = laneIndex === 0 ? withRests(measure, lane, `${staff}`) : lane;
      const beamed = beams(measure, events);
      const tuplets = tupletBrackets(measure, events);
      for (const event of events) {
        cursor.moveTo(event.onset);
        const written = writtenValue(event.duration, event.notes[0]?.tuplet ?? event.tuplet);
        const position = { voice, staff: staves > 1 ? staff : 0, divisions, written };
        if (event.notes.length === 0) out.push(restXml(event, position, tuplets.get(event) ?? ''));
        event.notes.forEach((note, i) => {
          const chordMember = i > 0;
          out.push(
            noteXml(note, position, {
              chordMember,
              accidental: accidentals.has(note.id),
              beam: chordMember ? '' : (beamed.get(event) ?? ''),
              tuplet: chordMember ? '' : (tuplets.get(event) ?? ''),
            }),
          );
        });
        cursor.passed(event.duration);
      }
    });
  }
}

const TYPE_NAMES: Readonly<Record<number, string>> = {
  0.5: 'breve',
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
  64: '64th',
  128: '128th',
  256: '256th',
};

interface Position {
  readonly voice: number;
  /** 0 where the part has one staff only. */
  readonly staff: number;
  readonly divisions: number;
  readonly written: WrittenValue | undefined;
}

const duration = (ticks: Ticks, divisions: number): string =>
  `<duration>${Math.round((ticks * divisions) / TICKS_PER_QUARTER)}</duration>`;

const valueXml = ({ written }: Position): string =>
  written ? `<type>${TYPE_NAMES[written.type]}</type>${'<dot/>'.repeat(written.dots)}` : '';

const tupletXml = ({ written }: Position): string =>
  written?.tuplet
    ? `<time-modification><actual-notes>${written.tuplet.actual}</actual-notes><normal-notes>${written.tuplet.normal}</normal-notes></time-modification>`
    : '';

const staffXml = ({ staff }: Position): string => (staff ? `<staff>${staff}</staff>` : '');

function restXml(event: WrittenEvent, at: Position, tuplet: string): string {
  const measure = event.fullMeasure ? ' measure="yes"' : '';
  return `<note id="${event.id ?? ''}"><rest${measure}/>${duration(event.duration, at.divisions)}<voice>${at.voice}</voice>${event.fullMeasure ? '' : valueXml(at)}${tupletXml(at)}${staffXml(at)}${tuplet ? `<notations>${tuplet}</notations>` : ''}</note>`.replace(
    ' id=""',
    '',
  );
}

const pitchXml = ({ step, alter, octave }: Pitch): string =>
  `<pitch><step>${step}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${octave}</octave></pitch>`;

const ACCIDENTALS: Readonly<Record<number, string>> = {
  [-2]: 'flat-flat',
  [-1]: 'flat',
  0: 'natural',
  1: 'sharp',
  2: 'double-sharp',
};

function noteXml(
  note: Note,
  at: Position,
  marks: { chordMember: boolean; accidental: boolean; beam: string; tuplet: string },
): string {
  const ties = note.tie === 'both' ? ['stop', 'start'] : note.tie ? [note.tie] : [];
  const notations = [
    ...ties.map((t) => `<tied type="${t}"/>`),
    note.slurStop ? '<slur type="stop" number="1"/>' : '',
    note.slurStart ? '<slur type="start" number="1"/>' : '',
    marks.tuplet,
    note.finger
      ? `<technical><fingering placement="${at.staff === 2 ? 'below' : 'above'}">${note.finger}</fingering></technical>`
      : '',
    note.articulations?.length
      ? `<articulations>${note.articulations.map((a) => `<${a}/>`).join('')}</articulations>`
      : '',
    note.fermata ? '<fermata/>' : '',
  ].join('');
  const lyrics = (note.lyrics ?? []).map((l) => {
    const number = l.line === 'counts' ? 1 : l.verse + 1;
    return `<lyric number="${number}" name="${l.line}"><syllabic>${l.syllabic}</syllabic><text>${escape(l.text)}</text></lyric>`;
  });
  return [
    `<note id="${note.id}">`,
    note.grace ? '<grace/>' : '',
    marks.chordMember ? '<chord/>' : '',
    pitchXml(note.pitch),
    note.grace ? '' : duration(note.duration, at.divisions),
    ...ties.map((t) => `<tie type="${t}"/>`),
    `<voice>${at.voice}</voice>`,
    note.grace ? '<type>eighth</type>' : valueXml(at),
    marks.accidental ? `<accidental>${ACCIDENTALS[note.pitch.alter]}</accidental>` : '',
    tupletXml(at),
    staffXml(at),
    marks.beam,
    notations ? `<notations>${notations}</notations>` : '',
    ...lyrics,
    '</note>',
  ].join('');
}

/** Where tuplet brackets begin and end: a run of one ratio is closed whenever it fills whole eighths. */
function tupletBrackets(measure: Measure, events: readonly WrittenEvent[]): Map<WrittenEvent, string> {
  const marks = new Map<WrittenEvent, string>();
  let open: { first: WrittenEvent; filled: Ticks; unit: Ticks } | undefined;
  for (const event of events) {
    const value = writtenValue(event.duration, event.notes[0]?.tuplet ?? event.tuplet);
    if (!value?.tuplet || event.duration === 0) {
      open = undefined;
      continue;
    }
    if (!open) {
      const unit = ((event.duration * value.tuplet.actual) / value.tuplet.normal) * value.tuplet.normal;
      open = { first: event, filled: 0, unit: Math.min(unit, beatLength(measure.time)) };
    }
    open.filled += event.duration;
    if (open.filled % open.unit === 0) {
      marks.set(open.first, '<tuplet type="start" number="1"/>');
      marks.set(event, `${marks.get(event) ?? ''}<tuplet type="stop" number="1"/>`);
      open = undefined;
    }
  }
  return marks;
}

function harmony({ chord }: ChordSymbol): string {
  if (!chord) return '<harmony><root><root-step>C</root-step></root><kind text="N.C.">none</kind></harmony>';
  const named = (fifths: number, tag: string): string => {
    const { step, alter } = fromFifths(fifths);
    return `<${tag}><${tag}-step>${step}</${tag}-step>${alter ? `<${tag}-alter>${alter}</${tag}-alter>` : ''}</${tag}>`;
  };
  const kind = CHORD_KINDS[chord.kind];
  return `<harmony>${named(chord.root, 'root')}<kind text="${kind.symbol}">${kind.musicxml}</kind>${chord.bass === undefined ? '' : named(chord.bass, 'bass')}</harmony>`;
}

function leftBarline(measure: Measure): string {
  if (!measure.repeatStart && !measure.ending) return '';
  const ending = measure.ending ? `<ending number="${escape(measure.ending)}" type="start"/>` : '';
  const style = measure.repeatStart ? '<bar-style>heavy-light</bar-style>' : '';
  const repeat = measure.repeatStart ? '<repeat direction="forward"/>' : '';
  return `<barline location="left">${style}${ending}${repeat}</barline>`;
}

function rightBarline(measure: Measure, ending: string | undefined): string {
  const style =
    measure.repeatEnd || measure.barline === 'final' ? 'light-heavy' : measure.barline ? 'light-light' : '';
  if (!style && !ending) return '';
  const endingXml = ending ? `<ending number="${escape(ending)}" type="stop"/>` : '';
  const repeat = measure.repeatEnd ? '<repeat direction="backward"/>' : '';
  return `<barline location="right">${style ? `<bar-style>${style}</bar-style>` : ''}${endingXml}${repeat}</barline>`;
}

/** Measures (by index) at whose end a numbered ending closes, with its number. */
function endingStopsOf(measures: readonly Measure[]): Map<number, string> {
  const stops = new Map<number, string>();
  let open: string | undefined;
  measures.forEach((measure, i) => {
    open = measure.ending ?? open;
    if (
      open &&
      (measure.endingEnd || measure.repeatEnd || measures[i + 1]?.ending || i === measures.length - 1)
    ) {
      stops.set(i, open);
      open = undefined;
    }
  });
  return stops;
}

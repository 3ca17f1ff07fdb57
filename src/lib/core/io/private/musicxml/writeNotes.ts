/** The notes of one measure of a part as MusicXML: voice after voice, with beams, brackets and marks. */
import { shownAccidentals } from '../../../score/accidentals';
import { beatLength } from '../../../score/metre';
import { writtenValue, type WrittenValue } from '../../../score/notate';
import type { Pitch } from '../../../theory/pitch';
import type { Measure, Note, Ornament, TupletBracket } from '../../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';
import { beams } from './beams';
import { lanesOf, withRests, type WrittenEvent } from './events';
import { escape, TYPE_NAMES, xmlId, type Cursor } from './writeXml';

export interface PartContext {
  /** Before the ids of rests, so that they are unique in the document. */
  readonly prefix: string;
  readonly staves: number;
  readonly divisions: number;
  /** Counts take the first line of lyrics, so words begin at the second. */
  readonly countsAbove: boolean;
}

/** What a reader takes as holding from where it stands among the notes of a staff: clefs and octave signs. */
export interface AmongNotes {
  readonly onset: Ticks;
  readonly staff: number;
  readonly xml: string;
  /** Ends something: it stands in the last voice of its staff, so that all voices are under it until there. */
  readonly ends: boolean;
}

/** Writes the notes and rests of a measure; the cursor stands at the end of the last voice afterwards. */
export function writeNotes(
  measure: Measure,
  notes: readonly Note[],
  cursor: Cursor,
  context: PartContext,
  out: string[],
  among: readonly AmongNotes[] = [],
): void {
  const accidentals = shownAccidentals(measure, notes);
  const begun = new Set<number>();
  const lanes = lanesOf(notes, context.staves);
  for (const [place, { voice, staff, events: lane }] of lanes.entries()) {
    const isLast = !lanes.slice(place + 1).some((l) => l.staff === staff);
    cursor.moveTo(measure.start);
    const isFirst = !begun.has(staff);
    begun.add(staff);
    const events = isFirst ? withRests(measure, lane, `${context.prefix}${staff}`) : lane;
    const beamed = beams(measure, events);
    const tuplets = tupletBrackets(measure, events);
    const own = among
      .filter((a) => a.staff === staff && (a.ends ? isLast : isFirst))
      .sort((a, b) => a.onset - b.onset || Number(b.ends) - Number(a.ends));
    let next = 0;
    for (const event of events) {
      const isAfter = event.notes[0]?.grace?.after;
      if (!isAfter) cursor.moveTo(event.onset);
      for (; own[next] && own[next]!.onset <= event.onset; next++) out.push(own[next]!.xml);
      const grace = event.notes[0]?.grace;
      const written: WrittenValue | undefined = grace
        ? { type: grace.type, dots: 0 }
        : writtenValue(event.duration, event.notes[0]?.tuplet ?? event.tuplet);
      const position = { voice, staff, context, written };
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
    for (; own[next]; next++) {
      cursor.moveTo(own[next]!.onset);
      out.push(own[next]!.xml);
    }
  }
}

interface Position {
  readonly voice: number;
  readonly staff: number;
  readonly context: PartContext;
  readonly written: WrittenValue | undefined;
}

const duration = (ticks: Ticks, divisions: number): string =>
  `<duration>${Math.round((ticks * divisions) / TICKS_PER_QUARTER)}</duration>`;

const typeXml = ({ written }: Position): string =>
  written ? `<type>${TYPE_NAMES[written.type]}</type>${'<dot/>'.repeat(written.dots)}` : '';

const tupletXml = ({ written }: Position): string =>
  written?.tuplet
    ? `<time-modification><actual-notes>${written.tuplet.actual}</actual-notes><normal-notes>${written.tuplet.normal}</normal-notes></time-modification>`
    : '';

const staffXml = (staff: number, { staves }: PartContext): string =>
  staves > 1 ? `<staff>${staff}</staff>` : '';

function restXml(event: WrittenEvent, at: Position, tuplet: string): string {
  const measure = event.fullMeasure ? ' measure="yes"' : '';
  const id = event.id ? ` id="${event.id}"` : '';
  return `<note${id}><rest${measure}/>${duration(event.duration, at.context.divisions)}<voice>${at.voice}</voice>${event.fullMeasure ? '' : typeXml(at)}${tupletXml(at)}${staffXml(at.staff, at.context)}${tuplet ? `<notations>${tuplet}</notations>` : ''}</note>`;
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

function accidentalXml({ pitch, reminder }: Note, needed: boolean): string {
  const name = ACCIDENTALS[pitch.alter];
  if (!name || (!needed && !reminder)) return '';
  const inBrackets = reminder === 'brackets' ? ' cautionary="yes" parentheses="yes"' : '';
  return `<accidental${inBrackets}>${name}</accidental>`;
}

function noteXml(
  note: Note,
  at: Position,
  marks: { chordMember: boolean; accidental: boolean; beam: string; tuplet: string },
): string {
  const ties = note.tie === 'both' ? ['stop', 'start'] : note.tie ? [note.tie] : [];
  const notations = notationsXml(note, marks.tuplet);
  const lyrics = (note.lyrics ?? []).map((l) => {
    const number = l.line === 'counts' ? 1 : l.verse + (at.context.countsAbove ? 1 : 0);
    return `<lyric number="${number}" name="${l.line}"><syllabic>${l.syllabic}</syllabic><text>${escape(l.text)}</text>${l.extend ? '<extend/>' : ''}</lyric>`;
  });
  return [
    `<note id="${xmlId(note.id)}">`,
    note.grace
      ? `<grace${note.grace.slash ? ' slash="yes"' : ''}${note.grace.short || note.grace.length ? ' steal-time-following="12"' : ''}/>`
      : '',
    note.cue ? '<cue/>' : '',
    marks.chordMember ? '<chord/>' : '',
    pitchXml(note.pitch),
    note.grace ? '' : duration(note.duration, at.context.divisions),
    // Cue notes make no sound, so they have notation of ties only.
    ...(note.cue ? [] : ties.map((t) => `<tie type="${t}"/>`)),
    `<voice>${at.voice}</voice>`,
    typeXml(at),
    accidentalXml(note, marks.accidental),
    tupletXml(at),
    staffXml(note.staff, at.context),
    marks.beam,
    notations ? `<notations>${notations}</notations>` : '',
    ...lyrics,
    '</note>',
  ].join('');
}

function notationsXml(note: Note, tuplet: string): string {
  const ties = note.tie === 'both' ? ['stop', 'start'] : note.tie ? [note.tie] : [];
  const fingers = note.finger
    ? `<technical><fingering placement="${note.staff === 2 ? 'below' : 'above'}">${note.finger}</fingering>${note.substitution ? `<fingering substitution="yes">${note.substitution}</fingering>` : ''}</technical>`
    : '';
  return [
    ...ties.map((t) => `<tied type="${t}"/>`),
    ...(note.slurs ?? []).map((s) => `<slur type="${s.type}" number="${s.number}"/>`),
    tuplet,
    note.ornaments?.length ? `<ornaments>${note.ornaments.map(ornamentXml).join('')}</ornaments>` : '',
    fingers,
    note.articulations?.length
      ? `<articulations>${note.articulations.map((a) => `<${a}/>`).join('')}</articulations>`
      : '',
    note.fermata ? '<fermata/>' : '',
    note.arpeggio === 'bracket'
      ? '<non-arpeggiate type="bottom"/>'
      : note.arpeggio
        ? `<arpeggiate${note.arpeggio === 'plain' ? '' : ` direction="${note.arpeggio}"`}/>`
        : '',
  ].join('');
}

function ornamentXml({ kind, type, beams: count, alter }: Ornament): string {
  const attribute = type ? ` type="${type}"` : kind === 'wavy-line' ? ' type="start"' : '';
  const body = kind === 'tremolo' ? `>${count ?? 3}</tremolo>` : '/>';
  const accidental =
    alter === undefined ? '' : `<accidental-mark>${ACCIDENTALS[alter] ?? 'natural'}</accidental-mark>`;
  return `<${kind}${attribute}${body}${accidental}`;
}

/** Brackets as the source has them, or else where they follow from the values. */
function tupletBrackets(measure: Measure, events: readonly WrittenEvent[]): Map<WrittenEvent, string> {
  const given = events.some((e) => e.notes.some((n) => n.brackets?.length));
  if (!given) return bracketsByValue(measure, events);
  return new Map(
    events.map((event) => {
      const brackets = event.notes.flatMap((n) => n.brackets ?? []);
      return [event, brackets.map(bracketXml).join('')];
    }),
  );
}

function bracketXml({ type, number, ratio }: TupletBracket): string {
  if (!ratio || type === 'stop') return `<tuplet type="${type}" number="${number}"/>`;
  return `<tuplet type="start" number="${number}"><tuplet-actual><tuplet-number>${ratio.actual}</tuplet-number></tuplet-actual><tuplet-normal><tuplet-number>${ratio.normal}</tuplet-number></tuplet-normal></tuplet>`;
}

/** A run of one ratio is closed whenever it fills as many of its values as the ratio says. */
function bracketsByValue(measure: Measure, events: readonly WrittenEvent[]): Map<WrittenEvent, string> {
  const marks = new Map<WrittenEvent, string>();
  let open: { first: WrittenEvent; filled: Ticks; unit: Ticks } | undefined;
  for (const event of events) {
    if (event.notes[0]?.grace) continue;
    const value = writtenValue(event.duration, event.notes[0]?.tuplet ?? event.tuplet);
    if (!value?.tuplet || event.duration === 0) {
      open = undefined;
      continue;
    }
    if (!open) {
      const unit = event.duration * value.tuplet.actual;
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

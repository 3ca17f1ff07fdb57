/**
 * A Score as ABC: one voice per staff, further voices of a staff laid over it with `&`. Every accidental that the measure
 * needs is written, and one more where a reader would carry it to another octave.
 */
import { shownAccidentals } from '../../../score/accidentals';
import { beatLength, endOf } from '../../../score/metre';
import { staffPosition, type Pitch } from '../../../theory/pitch';
import type { Mark, Measure, Note, Part, Route, Score, Tuplet } from '../../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../../score/ticks';
import { chordSymbol } from '../../../theory/chord';
import { keyCode } from '../../../theory/key';
import { lanesOf, withRests, type WrittenEvent } from '../musicxml/events';
import { GRACE, signsBefore } from './signs';

/** The length that a letter without a number has: an eighth. */
const UNIT = TICKS_PER_QUARTER / 2;
const MEASURES_IN_LINE = 4;

/** Writes the text of a score. */
export function writeAbc(score: Score): string {
  const first = score.measures[0]!;
  const voices = score.parts.flatMap((part, p) =>
    Array.from({ length: part.staves }, (_, s) => ({ part, staff: s + 1, name: `V${p + 1}${'ab'[s] ?? s}` })),
  );
  const joined = score.parts.map((part) => {
    const names = voices.filter((v) => v.part === part).map((v) => v.name);
    return names.length > 1 ? `{${names.join(' ')}}` : names[0]!;
  });
  const header = [
    'X:1',
    `T:${oneLine(score.title)}`,
    ...(score.composer ? [`C:${oneLine(score.composer)}`] : []),
    `M:${metre(first)}`,
    'L:1/8',
    ...(score.tempo > 0 ? [`Q:${tempoText(first, score.tempo)}`] : []),
    ...(voices.length > 1 ? [`%%score ${joined.join(' ')}`] : []),
    ...(voices.length > 1
      ? voices.map(({ part, staff, name }) => {
          const named = staff === 1 && part.name ? ` name="${oneLine(part.name).replace(/"/g, "'")}"` : '';
          return `V:${name} clef=${clefOf(part, staff)}${named}`;
        })
      : []),
    `K:${keyCode(first.key)}`,
  ];
  const lines = voices.flatMap(({ part, staff, name }, v) =>
    voiceLines(score, part, staff, v === 0).flatMap((line) => [
      voices.length > 1 ? `[V:${name}] ${line.music}` : line.music,
      ...line.words.map((words) => `w: ${words}`),
    ]),
  );
  return `${[...header, ...lines].join('\n')}\n`;
}

const oneLine = (text: string): string => text.replace(/[\r\n%]+/g, ' ').trim();

const metre = ({ time }: Measure): string =>
  time.symbol === 'cut' ? 'C|' : time.symbol === 'common' ? 'C' : `${time.beats}/${time.beatType}`;

function tempoText(measure: Measure, quarters: number): string {
  const beat = beatLength(measure.time);
  const [top, bottom] = fraction(beat, 4 * TICKS_PER_QUARTER);
  return `${top}/${bottom}=${Math.round(((quarters * TICKS_PER_QUARTER) / beat) * 100) / 100}`;
}

function clefOf(part: Part, staff: number): string {
  const own = part.notes.filter((n) => n.staff === staff);
  const mean = own.reduce((sum, n) => sum + staffPosition(n.pitch), 0) / Math.max(1, own.length);
  const given = part.clefs?.find((c) => c.staff === staff)?.sign;
  if (given) return { G: 'treble', F: 'bass', C: 'alto' }[given];
  return own.length === 0 ? (staff === 1 ? 'treble' : 'bass') : mean < 28 ? 'bass' : 'treble';
}

interface Line {
  readonly music: string;
  readonly words: readonly string[];
}

/** The lines of one staff, some measures in each, with its words below. */
function voiceLines(score: Score, part: Part, staff: number, isFirst: boolean): Line[] {
  const notes = part.notes.filter((n) => n.staff === staff);
  const verses = Math.max(
    0,
    ...notes.flatMap((n) => (n.lyrics ?? []).filter((l) => l.line === 'words').map((l) => l.verse)),
  );
  const lines: Line[] = [];
  const joining = new Array<boolean>(verses).fill(false);
  for (let from = 0; from < score.measures.length; from += MEASURES_IN_LINE) {
    const measures = score.measures.slice(from, from + MEASURES_IN_LINE);
    const sung: Note[][] = [];
    const music = measures
      .map((measure, i) => {
        const index = from + i;
        const inMeasure = notes.filter((n) => n.onset >= measure.start && n.onset < endOf(measure));
        const [main, ...others] = lanesOf(
          inMeasure.map((n) => ({ ...n, staff: 1 })),
          1,
        );
        const events = withRests(measure, main!.events, '');
        sung.push(...events.filter((e) => e.notes.length > 0 && !e.notes[0]!.grace).map((e) => [...e.notes]));
        const symbols = isFirst ? score.chordSymbols.filter((c) => inside(measure, c.onset)) : [];
        const onNotes = symbols.every((c) => events.some((e) => e.onset === c.onset && e.duration > 0));
        const lanes = [events, ...others.map((lane) => filled(measure, lane.events))];
        // Chords that change under a held note stand in a silent voice of their own.
        if (!onNotes) lanes.push(silentLane(measure, symbols));
        const text = lanes
          .map((list, lane) =>
            laneText(score, part, measure, list, inMeasure, {
              symbols: isFirst && lane === (onNotes ? 0 : lanes.length - 1),
              frame: isFirst && lane === 0,
              staff: lane === 0 ? staff : 0,
            }),
          )
          .join(' & ');
        return `${beginning(score.measures, index, isFirst)}${text} ${barAfter(score.measures, index)}`;
      })
      .join(' ');
    const words = Array.from({ length: verses }, (_, v) =>
      sung.map((chord) => {
        const lyric = chord
          .flatMap((n) => n.lyrics ?? [])
          .find((l) => l.line === 'words' && l.verse === v + 1);
        if (!lyric) return joining[v] ? '_' : '*';
        joining[v] = lyric.extend ?? false;
        const goesOn = lyric.syllabic === 'begin' || lyric.syllabic === 'middle';
        return syllable(lyric.text) + (goesOn ? '-' : '');
      }),
    ).map((list) => (list.some((w) => !/^[*_]$/.test(w)) ? list.join(' ') : ''));
    const last = words.findLastIndex((w) => w !== '');
    lines.push({ music, words: words.slice(0, last + 1).map((w) => w || '*') });
  }
  return lines;
}

/** A syllable in which no sign of the lyric line is left. */
const syllable = (text: string): string =>
  text
    .replace(/[\s\u203f]+/g, '~')
    .replace(/([-_*|\\])/g, '\\$1')
    .replace(/%/g, '') || '*';

/** A further voice with invisible rests where it is silent. */
function filled(measure: Measure, events: readonly WrittenEvent[]): WrittenEvent[] {
  const result: WrittenEvent[] = [];
  let at = measure.start;
  for (const event of events) {
    if (event.onset > at) result.push({ onset: at, duration: event.onset - at, notes: [], id: 'x' });
    result.push(event);
    at = Math.max(at, event.onset + event.duration);
  }
  if (at < endOf(measure)) result.push({ onset: at, duration: endOf(measure) - at, notes: [], id: 'x' });
  return result;
}

const inside = (measure: Measure, tick: Ticks): boolean => tick >= measure.start && tick < endOf(measure);

/** Invisible rests from one item to the next. */
function silentLane(measure: Measure, items: readonly { readonly onset: Ticks }[]): WrittenEvent[] {
  const onsets = [...new Set([measure.start, ...items.map((i) => i.onset), endOf(measure)])].sort(
    (a, b) => a - b,
  );
  return onsets
    .slice(0, -1)
    .map((onset, i) => ({ onset, duration: onsets[i + 1]! - onset, notes: [], id: 'x' }));
}

/** What stands before the notes of a measure: a repeat, an ending, a section, new metre, key and tempo. */
function beginning(measures: readonly Measure[], index: number, isFirst: boolean): string {
  const measure = measures[index]!;
  const before = measures[index - 1];
  const fields: string[] = [];
  if (isFirst && measure.section) fields.push(`[P:${oneLine(measure.section).replace(/[[\]]/g, '')}]`);
  if (before && metre(before) !== metre(measure)) fields.push(`[M:${metre(measure)}]`);
  if (before && keyCode(before.key) !== keyCode(measure.key)) fields.push(`[K:${keyCode(measure.key)}]`);
  const opens = index === 0 && measure.repeatStart ? '|:' : '';
  const ending = measure.ending && index === 0 ? `[${endingText(measure)} ` : '';
  return `${opens}${ending}${fields.join('')}`;
}

const endingText = (measure: Measure): string => (measure.ending ?? '').replace(/\s+/g, '');

/** The bar that ends a measure, with the repeat and the ending that the next one begins. */
function barAfter(measures: readonly Measure[], index: number): string {
  const measure = measures[index]!;
  const next = measures[index + 1];
  const ends = measure.repeatEnd;
  const begins = next?.repeatStart;
  const bar =
    ends && begins
      ? '::'
      : ends
        ? ':|'
        : begins
          ? '|:'
          : measure.barline === 'final' || !next
            ? '|]'
            : measure.barline === 'double' || measure.endingEnd
              ? '||'
              : '|';
  return next?.ending ? `${bar}[${endingText(next)}` : bar;
}

const routeSigns = (route: Route, atStart: boolean): string =>
  atStart
    ? `${route.segno ? '!segno!' : ''}${route.coda ? '!coda!' : ''}`
    : `${route.toCoda ? '!dacoda!' : ''}${route.fine ? '!fine!' : ''}${route.jump === 'da capo' ? '!D.C.!' : route.jump === 'dal segno' ? '!D.S.!' : ''}`;

function laneText(
  score: Score,
  part: Part,
  measure: Measure,
  events: readonly WrittenEvent[],
  inMeasure: readonly Note[],
  /** What this voice carries beside its notes; `staff` 0 for no marks. */
  carries: { readonly symbols: boolean; readonly frame: boolean; readonly staff: number },
): string {
  const accidentals = accidentalsToWrite(measure, inMeasure);
  const onsets = events.filter((e) => e.duration > 0);
  const out: string[] = [];
  let tuplet: { ratio: Tuplet; left: number } | undefined;
  events.forEach((event) => {
    if (event.notes[0]?.grace) {
      const { slash, length } = event.notes[0].grace;
      const before = out.at(-1);
      const own = chordText(event, accidentals, length ? lengthText(length / GRACE, undefined) : '');
      // Grace notes in a row stand in one pair of braces.
      if (before?.startsWith('{') && before.endsWith('}'))
        out[out.length - 1] = `${before.slice(0, -1)}${own}}`;
      else out.push(`{${slash ? '/' : ''}${own}}`);
      return;
    }
    const ratio = event.notes[0]?.tuplet;
    let before = '';
    if (ratio && (!tuplet || tuplet.left === 0)) {
      const count = notesInTuplet(onsets, onsets.indexOf(event), ratio);
      tuplet = { ratio, left: count };
      before += `(${ratio.actual}:${ratio.normal}:${count}`;
    } else if (!ratio) tuplet = undefined;
    if (tuplet) tuplet.left -= 1;
    const to = event.onset + event.duration;
    if (carries.frame) before += frameText(score, measure, event.onset, to);
    if (carries.symbols) before += symbolText(score, event.onset, to);
    if (carries.staff > 0) before += markText(part.marks ?? [], carries.staff, event.onset, to);
    if (carries.frame && measure.route && to === endOf(measure)) before += routeSigns(measure.route, false);
    const length = lengthText(event.duration, ratio);
    if (event.notes.length === 0) out.push(`${before}${event.id === 'x' ? 'x' : 'z'}${length}`);
    else out.push(before + chordText(event, accidentals, length));
  });
  return out.join(' ').replace(/\} /g, '}');
}

/** How many events of a tuplet stand before its values are used up. */
function notesInTuplet(events: readonly WrittenEvent[], from: number, ratio: Tuplet): number {
  const unit = events[from]!.duration * ratio.actual;
  let filled = 0;
  let count = 0;
  for (let i = from; i < events.length && events[i]!.notes[0]?.tuplet?.actual === ratio.actual; i++) {
    filled += events[i]!.duration;
    count += 1;
    if (filled % (unit / gcd(ratio.actual, ratio.normal)) === 0) break;
  }
  return count;
}

/** Tempo and signs of the way from one onset to the next. */
function frameText(score: Score, measure: Measure, from: Ticks, to: Ticks): string {
  const tempo = score.tempoChanges?.find((t) => t.onset >= from && t.onset < to);
  return [
    tempo ? `[Q:${tempoText(measure, tempo.tempo)}]` : '',
    measure.route && from === measure.start ? routeSigns(measure.route, true) : '',
  ].join('');
}

/** The chord symbol of an onset. */
function symbolText(score: Score, from: Ticks, to: Ticks): string {
  const symbol = score.chordSymbols.find((s) => s.onset >= from && s.onset < to);
  return symbol ? `"${symbol.chord ? plainSymbol(chordSymbol(symbol.chord)) : 'N.C.'}"` : '';
}

const plainSymbol = (symbol: string): string =>
  symbol.replace(/♯/g, '#').replace(/♭/g, 'b').replace(/𝄪/g, '##').replace(/𝄫/g, 'bb');

function markText(marks: readonly Mark[], staff: number, from: Ticks, to: Ticks): string {
  return marks
    .filter((m) => m.staff === staff && m.onset >= from && m.onset < to)
    .map((mark) => {
      switch (mark.kind) {
        case 'dynamic':
          return `!${mark.value}!`;
        case 'hairpin':
          return { crescendo: '!<(!', diminuendo: '!>(!', stop: '!<)!' }[mark.type];
        case 'words':
        case 'lyrics':
          return `"${mark.above === false ? '_' : '^'}${oneLine(mark.text).replace(/"/g, "'")}"`;
        case 'octave shift':
          return '';
      }
    })
    .join('');
}

function chordText(event: WrittenEvent, accidentals: ReadonlySet<string>, length: string): string {
  const { notes } = event;
  const first = notes[0]!;
  const fingers = notes.map((n) => (n.finger ? `!${n.finger}!` : '')).join('');
  const signs = notes.map(signsBefore).join('');
  const opens = notes.flatMap((n) => n.slurs ?? []).filter((s) => s.type === 'start').length;
  const closes = notes.flatMap((n) => n.slurs ?? []).filter((s) => s.type === 'stop').length;
  const heads = notes.map((n) => {
    const tie = notes.length > 1 && (n.tie === 'start' || n.tie === 'both') ? '-' : '';
    return pitchText(n.pitch, accidentals.has(n.id)) + tie;
  });
  const tie = notes.length === 1 && (first.tie === 'start' || first.tie === 'both') ? '-' : '';
  const body = notes.length > 1 ? `[${heads.join('')}]` : heads[0]!;
  return `${'('.repeat(opens)}${signs}${fingers}${body}${length}${tie}${')'.repeat(closes)}`;
}

const SIGN: Readonly<Record<number, string>> = { [-2]: '__', [-1]: '_', 0: '=', 1: '^', 2: '^^' };

/** Middle C is C, the octave above c, then c' and so on; below C, and C,, */
function pitchText({ step, alter, octave }: Pitch, accidental: boolean): string {
  const letter = octave >= 5 ? step.toLowerCase() : step;
  const marks = octave >= 5 ? "'".repeat(octave - 5) : ','.repeat(Math.max(0, 4 - octave));
  return (accidental ? (SIGN[alter] ?? '') : '') + letter + marks;
}

/** Accidentals that the page shows, and those of a letter that was altered in another octave of the measure. */
function accidentalsToWrite(measure: Measure, notes: readonly Note[]): Set<string> {
  const result = shownAccidentals(measure, notes);
  const altered = new Set(notes.filter((n) => result.has(n.id)).map((n) => n.pitch.step));
  for (const note of notes) {
    const tiedOver = note.tie === 'stop' || note.tie === 'both';
    if (altered.has(note.pitch.step) && !tiedOver) result.add(note.id);
  }
  return result;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

function fraction(top: number, bottom: number): [number, number] {
  const divisor = gcd(top, bottom) || 1;
  return [top / divisor, bottom / divisor];
}

/** A length in eighths: nothing for one, 2, 3/2, /2. Inside a tuplet the written value counts. */
function lengthText(duration: Ticks, tuplet: Tuplet | undefined): string {
  const written = tuplet ? Math.round((duration * tuplet.actual) / tuplet.normal) : duration;
  const [top, bottom] = fraction(written, UNIT);
  if (bottom === 1) return top === 1 ? '' : String(top);
  return `${top === 1 ? '' : top}/${bottom}`;
}

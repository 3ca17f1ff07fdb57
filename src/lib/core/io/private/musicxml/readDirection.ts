/** Directions, sounds and barlines: what stands beside the notes. */
import { routeInWords } from '../../../score/routeWords';
import type { ClefMark, Mark, Measure, PedalMark, Route } from '../../../score/score';
import { child, childrenOf, numberOf, textOf, type XmlElement } from './xml';

/** Kinds of note values by name; 4 is a quarter note. */
export const NOTE_TYPES: Readonly<Record<string, number>> = {
  maxima: 0.125,
  long: 0.25,
  breve: 0.5,
  whole: 1,
  half: 2,
  quarter: 4,
  eighth: 8,
  '16th': 16,
  '32nd': 32,
  '64th': 64,
  '128th': 128,
  '256th': 256,
};

/** Omit that keeps the members of a union apart. */
type Unplaced<T> = T extends unknown ? Omit<T, 'onset' | 'staff'> : never;

interface Direction {
  readonly section?: string;
  /** Quarter notes per minute; 0 where the direction names no tempo. */
  readonly tempo: number;
  /** The tempo is for the ear alone: no number is printed. */
  readonly isHeard: boolean;
  readonly pedal?: PedalMark['type'];
  readonly route: Route;
  readonly marks: readonly Unplaced<Mark>[];
}

const DYNAMIC_TEXT = /^(p{1,6}|f{1,6}|m[pf]|sf|sfp|sfpp|fp|rf|rfz|sfz|sffz|fz|n|pf|sfzp)$/;

/** Reads a `<direction>`. */
export function readDirection(element: XmlElement): Direction {
  const types = childrenOf(element, 'direction-type').flatMap((t) => t.children);
  const above = element.attributes.placement === 'above';
  const below = element.attributes.placement === 'below';
  const place = above ? { above } : below ? { above: false } : {};
  const sound = child(element, 'sound');
  const soundTempo = Number(sound?.attributes.tempo) || 0;
  const route = { ...routeOfWords(types), ...routeOfSound(sound) };
  const marks: Unplaced<Mark>[] = [];
  let section: string | undefined;
  let pedal: PedalMark['type'] | undefined;
  let tempo = 0;
  for (const type of types) {
    const kind = type.attributes.type ?? '';
    const number = Number(type.attributes.number) || 1;
    const text = type.text.trim();
    switch (type.name) {
      case 'rehearsal':
        section ??= text || undefined;
        break;
      case 'words':
        if (text && Object.keys(routeOfWords([type])).length === 0)
          marks.push({ kind: 'words', text, ...place });
        break;
      case 'dynamics':
        for (const value of type.children) {
          const name = value.name === 'other-dynamics' ? value.text.trim() : value.name;
          if (DYNAMIC_TEXT.test(name)) marks.push({ kind: 'dynamic', value: name, ...place });
          else if (name) marks.push({ kind: 'words', text: name, ...place });
        }
        break;
      case 'wedge':
        if (kind === 'crescendo' || kind === 'diminuendo' || kind === 'stop')
          marks.push({ kind: 'hairpin', type: kind, number, ...place });
        break;
      case 'octave-shift':
        if (kind === 'up' || kind === 'down' || kind === 'stop')
          marks.push({
            kind: 'octave shift',
            type: kind,
            size: Number(type.attributes.size) || 8,
            number,
            ...place,
          });
        break;
      case 'pedal':
        if (kind === 'start' || kind === 'change' || kind === 'stop') pedal ??= kind;
        break;
      case 'metronome':
        tempo ||= metronomeTempo(type);
        break;
    }
  }
  return {
    tempo: soundTempo || tempo,
    isHeard: tempo === 0,
    route,
    marks,
    ...(section ? { section } : {}),
    ...(pedal ? { pedal } : {}),
  };
}

/** Quarter notes per minute of a metronome mark; 0 where it gives no number ("♩ = ♪"). */
function metronomeTempo(metronome: XmlElement): number {
  const perMinute = parseFloat(textOf(metronome, 'per-minute')?.replace(/^\D+/, '') ?? '');
  const unit = NOTE_TYPES[textOf(metronome, 'beat-unit') ?? ''];
  const dots = childrenOf(metronome, 'beat-unit-dot').length;
  return perMinute > 0 && unit ? (perMinute * 4 * (2 - 1 / 2 ** dots)) / unit : 0;
}

/** Route marks of a `<sound>` element. */
export function routeOfSound(sound: XmlElement | undefined): Route {
  const at = sound?.attributes ?? {};
  return {
    ...(at.segno ? { segno: true } : {}),
    ...(at.coda ? { coda: true } : {}),
    ...(at.fine ? { fine: true } : {}),
    ...(at.tocoda ? { toCoda: true } : {}),
    ...(at.dacapo === 'yes'
      ? { jump: 'da capo' as const }
      : at.dalsegno
        ? { jump: 'dal segno' as const }
        : {}),
  };
}

/** Route marks that a program wrote as words or signs only. */
function routeOfWords(types: readonly XmlElement[]): Route {
  const words = types
    .filter((t) => t.name === 'words')
    .map((w) => w.text)
    .join(' ');
  return {
    ...(types.some((t) => t.name === 'segno') ? { segno: true } : {}),
    ...(types.some((t) => t.name === 'coda') ? { coda: true } : {}),
    ...routeInWords(words),
  };
}

type BarlineMarks = Pick<
  Measure,
  'barline' | 'repeatStart' | 'repeatEnd' | 'repeatTimes' | 'ending' | 'endingEnd'
>;

/** Reads a `<barline>`. */
export function readBarline(element: XmlElement): BarlineMarks {
  const style = textOf(element, 'bar-style');
  const repeat = child(element, 'repeat');
  const direction = repeat?.attributes.direction;
  const times = Number(repeat?.attributes.times);
  const ending = child(element, 'ending');
  const isRight = element.attributes.location !== 'left';
  return {
    ...(isRight && style === 'light-light' ? { barline: 'double' } : {}),
    ...(isRight && style === 'light-heavy' && !direction ? { barline: 'final' } : {}),
    ...(direction === 'forward' ? { repeatStart: true } : {}),
    ...(direction === 'backward' ? { repeatEnd: true } : {}),
    ...(direction === 'backward' && times > 2 && times < 100 ? { repeatTimes: Math.round(times) } : {}),
    ...(ending?.attributes.type === 'start'
      ? { ending: ending.attributes.number || ending.text.trim() || '1' }
      : {}),
    ...(ending?.attributes.type === 'stop' || ending?.attributes.type === 'discontinue'
      ? { endingEnd: true }
      : {}),
  };
}

/** A clef, or the staff that is written as tablature. */
type ReadClef = Omit<ClefMark, 'onset'> | { readonly tablature: number };

/** Clefs of an `<attributes>` element, without their place in time. */
export function readClefs(attributes: XmlElement): ReadClef[] {
  return childrenOf(attributes, 'clef').flatMap((clef): ReadClef[] => {
    const sign = textOf(clef, 'sign');
    const staff = Number(clef.attributes.number) || 1;
    if (sign === 'TAB') return [{ tablature: staff }];
    if (sign !== 'G' && sign !== 'F' && sign !== 'C') return [];
    const octaves = numberOf(clef, 'clef-octave-change');
    return [
      {
        staff,
        sign,
        line: numberOf(clef, 'line') ?? { G: 2, F: 4, C: 3 }[sign],
        ...(octaves ? { octaves } : {}),
      },
    ];
  });
}

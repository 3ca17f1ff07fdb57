/** Everything of a measure that is no note: attributes, chord symbols, directions, barlines, the way through the piece. */
import { jumpText } from '../../../score/routeWords';
import type {
  ChordSymbol,
  ClefMark,
  Mark,
  Measure,
  PedalMark,
  Route,
  TimeSignature,
} from '../../../score/score';
import { kindText } from '../../../theory/chord';
import { CHORD_KINDS } from '../../../theory/chordKinds';
import { fromFifths } from '../../../theory/fifths';
import type { Key } from '../../../theory/key';
import { escape } from './writeXml';

export const keyXml = (key: Key): string =>
  `<key><fifths>${key.fifths}</fifths><mode>${key.mode}</mode></key>`;

export const timeXml = (time: TimeSignature): string =>
  `<time${time.symbol ? ` symbol="${time.symbol}"` : ''}><beats>${time.beats}</beats><beat-type>${time.beatType}</beat-type></time>`;

export const clefXml = (clef: Omit<ClefMark, 'onset'>, staves: number): string =>
  `<clef${staves > 1 ? ` number="${clef.staff}"` : ''}><sign>${clef.sign}</sign><line>${clef.line}</line>${clef.octaves ? `<clef-octave-change>${clef.octaves}</clef-octave-change>` : ''}</clef>`;

const direction = (placement: 'above' | 'below' | undefined, content: string, staff: number): string =>
  `<direction${placement ? ` placement="${placement}"` : ''}><direction-type>${content}</direction-type><staff>${staff}</staff></direction>`;

export const rehearsalXml = (name: string): string =>
  direction('above', `<rehearsal>${escape(name)}</rehearsal>`, 1);

export const pedalXml = (pedal: PedalMark, staff: number): string =>
  direction('below', `<pedal type="${pedal.type}" line="yes"/>`, staff);

const PLAIN_DYNAMICS = new Set(
  'p pp ppp pppp ppppp pppppp f ff fff ffff fffff ffffff mp mf sf sfp sfpp fp rf rfz sfz sffz fz n pf sfzp'.split(
    ' ',
  ),
);

export function markXml(mark: Mark): string {
  const placement = mark.above === undefined ? undefined : mark.above ? 'above' : 'below';
  const content = ((): string => {
    switch (mark.kind) {
      case 'dynamic':
        return `<dynamics>${PLAIN_DYNAMICS.has(mark.value) ? `<${mark.value}/>` : `<other-dynamics>${escape(mark.value)}</other-dynamics>`}</dynamics>`;
      case 'hairpin':
        return `<wedge type="${mark.type}" number="${mark.number}"/>`;
      case 'words':
        return `<words>${escape(mark.text)}</words>`;
      case 'lyrics':
        return `<words font-style="normal" font-size="9">${escape(mark.text)}</words>`;
      case 'octave shift':
        return `<octave-shift type="${mark.type}" size="${mark.size}" number="${mark.number}"/>`;
    }
  })();
  return direction(placement, content, mark.staff);
}

const routeMark = (content: string, sound: string): string =>
  `<direction placement="above"><direction-type>${content}</direction-type><sound ${sound}/></direction>`;

export const routeAtStart = (route: Route): string[] => [
  ...(route.segno ? [routeMark('<segno/>', 'segno="segno"')] : []),
  ...(route.coda ? [routeMark('<coda/>', 'coda="coda"')] : []),
];

export const routeAtEnd = (
  route: Route,
  has: { readonly hasFine: boolean; readonly hasCoda: boolean },
): string[] => [
  ...(route.toCoda ? [routeMark('<words>To Coda</words>', 'tocoda="coda"')] : []),
  ...(route.fine ? [routeMark('<words>Fine</words>', 'fine="yes"')] : []),
  ...(route.jump
    ? [
        routeMark(
          `<words>${jumpText(route.jump, has)}</words>`,
          route.jump === 'da capo' ? 'dacapo="yes"' : 'dalsegno="segno"',
        ),
      ]
    : []),
];

export function harmonyXml({ chord }: ChordSymbol): string {
  if (!chord) return '<harmony><root><root-step>C</root-step></root><kind text="N.C.">none</kind></harmony>';
  const named = (fifths: number, tag: string): string => {
    const { step, alter } = fromFifths(fifths);
    return `<${tag}><${tag}-step>${step}</${tag}-step>${alter ? `<${tag}-alter>${alter}</${tag}-alter>` : ''}</${tag}>`;
  };
  const degrees = (chord.altered ?? []).map(
    ({ type, degree, alter }) =>
      `<degree print-object="no"><degree-value>${degree}</degree-value><degree-alter>${alter}</degree-alter><degree-type>${type === 'leave out' ? 'subtract' : type}</degree-type></degree>`,
  );
  return `<harmony>${named(chord.root, 'root')}<kind text="${escape(kindText(chord))}">${CHORD_KINDS[chord.kind].musicxml}</kind>${chord.bass === undefined ? '' : named(chord.bass, 'bass')}${degrees.join('')}</harmony>`;
}

/** Numbers of an ending as the format wants them: "1, 2". */
const endingNumbers = (ending: string): string => (ending.match(/[1-9]\d*/g) ?? ['1']).join(', ');

export function leftBarline(measure: Measure): string {
  if (!measure.repeatStart && !measure.ending) return '';
  const ending = measure.ending ? `<ending number="${endingNumbers(measure.ending)}" type="start"/>` : '';
  const style = measure.repeatStart ? '<bar-style>heavy-light</bar-style>' : '';
  const repeat = measure.repeatStart ? '<repeat direction="forward"/>' : '';
  return `<barline location="left">${style}${ending}${repeat}</barline>`;
}

export function rightBarline(measure: Measure, ending: string | undefined): string {
  const style =
    measure.repeatEnd || measure.barline === 'final' ? 'light-heavy' : measure.barline ? 'light-light' : '';
  if (!style && !ending) return '';
  const endingXml = ending ? `<ending number="${endingNumbers(ending)}" type="stop"/>` : '';
  const times = measure.repeatTimes ? ` times="${measure.repeatTimes}"` : '';
  const repeat = measure.repeatEnd ? `<repeat direction="backward"${times}/>` : '';
  return `<barline location="right">${style ? `<bar-style>${style}</bar-style>` : ''}${endingXml}${repeat}</barline>`;
}

/** Measures (by index) at whose end a numbered ending closes, with its number. */
export function endingStopsOf(measures: readonly Measure[]): Map<number, string> {
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

/** Beyond the page: the same left hand with an empty staff above it, tones and rhythms to try over it, and other ways to play its chords. */
import { isForLevel, TEXTURE_IDS, TEXTURES } from '$core/arrange/textures';
import { fiveTones, rhythmsFor, threeTones } from '$core/chords/improvise';
import { WHOLE } from '$core/decisions/anchor';
import type { Decision } from '$core/decisions/registry';
import { measuresText } from '$core/score/measureText';
import { pitchClassName, toMidi } from '$core/theory/pitch';
import { byOnset } from '$core/score/query';
import type { Measure, Note, Score } from '$core/score/score';
import type { Ticks } from '$core/score/ticks';
import { chordSymbol, chordTones, type Chord } from '$core/theory/chord';
import { fromFifths, nearestPitch, pitchClass, type Fifths } from '$core/theory/fifths';
import { keyName } from '$core/theory/key';
import type { Version } from '$core/version/realise';
import { engrave } from '$lib/engrave/engrave';
import { sourceSheet } from '$lib/engrave/sourceSheet';
import {
  block,
  columns,
  columnWidth,
  heading,
  moved,
  NEVER,
  paragraph,
  smallHeading,
  TEXT,
  SMALL,
  type Block,
} from '../block';
import { keyboardPicture, keyRange } from '../keyboard';
import type { Frame, Source } from '../source';
import { engravedWidth, SIZES, systemsIn, systemsOf } from '../systems';
import { fitting, textAt, textWidth, type TextStyle } from '../text';
import { goalText, head, levelLine } from './head';
import { shownOf } from './score';

const NAME: TextStyle = { size: 13, isBold: true };
const COLUMNS = 3;
const GUTTER = 18;
const HOME = 66;
/** Other left hands that are shown, and measures of each. */
const MOST_TEXTURES = 3;

/** The pages beyond. */
export async function beyondSheet(source: Source, { width }: Frame): Promise<Block[]> {
  const { version } = source;
  const phrase = firstPhrase(version);
  const numbers = version.score.measures.map((m) => m.number);
  return [
    head(source, width, `Beyond the page, ${levelLine(source)}, goal ${goalText(source)}`),
    heading('Keep this left hand', width),
    paragraph(
      `Play ${measuresText(numbers, phrase.from, phrase.to)} over and over with the left hand alone. Then make up a right-hand tune; write down what you want to keep.`,
      width,
      TEXT,
      { gap: 8, endsPage: NEVER },
    ),
    ...(await leftHandAlone(source, version, phrase, width)),
    heading('With these notes', width),
    paragraph(
      'Filled: three notes to start with over each chord. Ringed: the other chord notes.',
      width,
      SMALL,
      {
        gap: 6,
        endsPage: NEVER,
      },
    ),
    ...tonesBlocks(version, width),
    ...(await rhythmBlocks(version, width)),
    ...(await otherHands(source, phrase, width)),
  ];
}

interface Places {
  readonly from: number;
  readonly to: number;
}

/** The first phrase whose left hand plays. */
function firstPhrase({ form, score }: Version): Places {
  const lefts = score.parts[0]!.notes.filter((n) => n.staff === 2);
  const found = form.phrases.find(({ from, to }) => {
    const [start, last] = [score.measures[from]!.start, score.measures[to]!];
    return lefts.some((n) => n.onset >= start && n.onset < last.start + last.length);
  });
  return found ?? form.phrases[0]!;
}

/** The left hand of some measures under an empty staff. */
async function leftHandAlone(
  source: Source,
  version: Version,
  { from, to }: Places,
  width: number,
): Promise<Block[]> {
  const [part, ...others] = version.score.parts as [Score['parts'][number]];
  const alone: Version = {
    ...version,
    counts: [],
    score: {
      ...version.score,
      parts: [{ ...part, marks: [], notes: part.notes.filter((n) => n.staff === 2) }, ...others],
    },
  };
  const systems = await systemsOf(alone, {
    from,
    to,
    show: { ...shownOf(source), counts: false, words: 'none', bare: true },
    width,
    staff: SIZES[source.choices.size].staff,
    metre: true,
  });
  return systems.map(({ block: music, line }) => ({
    ...music,
    isSystem: false,
    says: `Left hand, measures ${line.from + 1} to ${line.to + 1}, under an empty staff`,
    endsPage: 4,
  }));
}

const namesOf = (tones: readonly Fifths[]): string[] => tones.map((t) => pitchClassName(fromFifths(t)));

/** Tones around the right hand's home, rising from the first. */
function keysOf(tones: readonly Fifths[]): number[] {
  const keys: number[] = [];
  for (const tone of tones) {
    const near = toMidi(nearestPitch(tone, HOME));
    const low = keys.at(-1);
    keys.push(low !== undefined && near < low ? near + 12 : near);
  }
  return keys;
}

/** Tones on the keyboard; those to begin with are filled. */
function toneBlock(
  name: string,
  tones: readonly Fifths[],
  first: readonly Fifths[],
  below: string,
  width: number,
): Block {
  const begin = new Set(first.map(pitchClass));
  const keys = keysOf(tones);
  const keyboard = keyboardPicture(
    keyRange(keys),
    keys.map((midi) => ({ midi, hand: 'right' as const, stays: begin.has(midi % 12) })),
    width,
    12,
  );
  const nameWidth = textWidth(name, NAME) + 10;
  const names = namesOf(tones).join(' ');
  return block({
    height: 18 + keyboard.height + 8,
    drawn: [
      textAt(0, 12, name, NAME),
      textAt(nameWidth, 12, fitting(names, width - nameWidth, TEXT), TEXT),
      moved(0, 18, keyboard.drawn),
      textAt(0, 18 + keyboard.height + 2, fitting(below, width, SMALL), SMALL),
    ],
    says: `${name}: ${names}. ${below}`,
    gap: 8,
    endsPage: 4,
  });
}

/** What goes with every chord, and what with each: three tones to begin with, and all of its own. */
function tonesBlocks(version: Version, width: number): Block[] {
  const each = columnWidth(COLUMNS, width, GUTTER);
  const { key } = version;
  const five = fiveTones(key);
  const chords = new Map<string, Chord>();
  for (const { chord } of version.chords) if (chord) chords.set(chordSymbol(chord), chord);
  const everywhere = toneBlock('Five notes', five, five, `with every chord of ${keyName(key)}`, each);
  const own = [...chords].map(([symbol, chord]) => {
    const three = threeTones(chord, key);
    const classes = new Set(three.map(pitchClass));
    const others = chordTones(chord).filter((t) => !classes.has(pitchClass(t)));
    const rising = [...three, ...others].sort(
      (a, b) => ((pitchClass(a - chord.root) + 12) % 12) - ((pitchClass(b - chord.root) + 12) % 12),
    );
    return toneBlock(symbol, rising, three, `begin with ${namesOf(three).join(' ')}`, each);
  });
  return columns([everywhere, ...own], COLUMNS, width, GUTTER);
}

/** Rhythms to try, engraved one measure each. */
async function rhythmBlocks({ contract, score, key }: Version, width: number): Promise<Block[]> {
  const first = score.measures.find((m) => m.number !== '0') ?? score.measures[0]!;
  const rhythms = rhythmsFor(contract, first.time);
  if (rhythms.length === 0) return [];
  const length = rhythms[0]!.reduce((a, b) => a + b, 0);
  const home = nearestPitch(fiveTones(key)[0]!, HOME);
  const measures = rhythms.map((_, i): Measure => ({
    ...first,
    id: `m${i}`,
    index: i,
    number: `${i + 1}`,
    start: i * length,
    length,
    beginsAt: 0,
    barline: 'double',
  }));
  const notes = rhythms.flatMap((rhythm, i) => {
    let at: Ticks = i * length;
    return rhythm.map((duration, k): Note => {
      const note: Note = { id: `r${i}-${k}`, onset: at, duration, pitch: home, staff: 1, voice: 1 };
      at += duration;
      return note;
    });
  });
  const line: Score = {
    title: '',
    composer: '',
    tempo: 0,
    measures: measures.map(({ repeatStart: _s, repeatEnd: _e, section: _n, ...m }) => m),
    parts: [{ id: 'P1', name: '', staves: 1, notes }],
    chordSymbols: [],
    pedals: [],
  };
  const css = engravedWidth(width, SIZES.normal.staff);
  const picture = await engrave(sourceSheet(line, css, { from: 0, to: measures.length - 1 }));
  const systems = systemsIn(picture, width, css, [{ from: 0, to: measures.length - 1, ratio: 1 }]);
  return [
    smallHeading('Rhythms to try, each over and over', width),
    ...systems.map(({ block: music }) => ({
      ...music,
      isSystem: false,
      says: `${rhythms.length} rhythms, one per measure`,
      endsPage: 4,
    })),
  ];
}

/** What the left hand strikes in a phrase: two versions that are alike in it show nothing new. */
const leftOf = ({ score }: Version, { from, to }: Places): string => {
  const [start, last] = [score.measures[from]!.start, score.measures[to]!];
  const own = score.parts[0]!.notes.filter(
    (n) => n.staff === 2 && n.onset >= start && n.onset < last.start + last.length,
  );
  return byOnset(own)
    .map(
      ({ onset, notes }) =>
        `${onset}:${notes
          .map((n) => toMidi(n.pitch))
          .sort()
          .join(',')}`,
    )
    .join(' ');
};

/** The same chords in other patterns and another inversion, the calmest first. */
async function otherHands(source: Source, phrase: Places, width: number): Promise<Block[]> {
  const { version, recipe, otherwise } = source;
  const { time } = version.score.measures.at(-1)!;
  const ids = version.score.measures;
  const whole: readonly [string, string] = [ids[phrase.from]!.id, ids[phrase.to]!.id];
  const tries: { name: string; decided: Decision[] }[] = TEXTURE_IDS.filter(
    (id) => id !== 'own' && isForLevel(id, recipe.level, time),
  )
    .sort((a, b) => TEXTURES[a].perBeat - TEXTURES[b].perBeat)
    .map((id) => ({
      name: `${TEXTURES[id].name}: ${TEXTURES[id].says}`,
      decided: [{ kind: 'texture', at: WHOLE, value: id }],
    }));
  if (isForLevel('block-chord', recipe.level, time))
    tries.push({
      name: 'Block chords, each in the next inversion up',
      decided: [
        { kind: 'texture', at: WHOLE, value: 'block-chord' },
        { kind: 'inversion', at: { range: [...whole] }, value: 1 },
      ],
    });
  const seen = new Set([leftOf(version, phrase)]);
  const found: { name: string; made: Version }[] = [];
  // The inversion is wanted as well as patterns: it is asked last and shown in any case.
  for (const { name, decided } of tries) {
    if (found.length >= MOST_TEXTURES && decided.length === 1) continue;
    const made = otherwise({}, decided);
    const look = leftOf(made, phrase);
    if (look === '' || seen.has(look)) continue;
    seen.add(look);
    found.push({ name, made });
  }
  if (found.length === 0) return [];
  const blocks: Block[] = [heading('The same chords in other voicings', width)];
  for (const { name, made } of found)
    blocks.push(smallHeading(name, width), ...(await leftHandAlone(source, made, phrase, width)));
  return blocks;
}

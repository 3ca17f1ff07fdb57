/** What was read comes out again: the whole of the model, through the writer and back. */
import fc from 'fast-check';
import { evenMeasures } from '../../test/evenMeasures';
import { describe, expect, it } from 'vitest';
import { STEPS, pitchName } from '../../theory/pitch';
import type { Mark, Measure, Note, Score } from '../../score/score';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { chordSymbol } from '../../theory/chord';
import { inReadingOrder } from '../private/assemble';
import { readMusicXml } from './read';
import { writeMusicXml } from './write';
import { parseXml, type XmlElement } from '../private/musicxml/xml';

const again = (score: Score): Score => readMusicXml(writeMusicXml(score)).score;

/** Without ids, which a reader gives anew. */
const plain = (score: Score): unknown => ({
  ...score,
  parts: score.parts.map((p) => ({ ...p, notes: p.notes.map(({ id: _id, ...n }) => n) })),
});

const pitched = (step: string, octave: number, rest: string, before = ''): string =>
  `<note>${before}<pitch><step>${step}</step><octave>${octave}</octave></pitch>${rest}</note>`;

const document = (body: string, attributes: string): string =>
  `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1"><measure number="1"><attributes>${attributes}</attributes>${body}</measure></part></score-partwise>`;

const RICH = document(
  `<direction placement="above"><direction-type><words>Gently</words></direction-type><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>c. 72</per-minute></metronome></direction-type></direction>
  <direction placement="below"><direction-type><dynamics><mf/></dynamics></direction-type><staff>1</staff></direction>
  <direction><direction-type><wedge type="crescendo" number="1"/></direction-type><staff>1</staff></direction>
  <direction><direction-type><octave-shift type="down" size="8" number="1"/></direction-type><staff>1</staff></direction>
  ${pitched('D', 5, '<voice>1</voice><type>16th</type><staff>1</staff>', '<grace slash="yes"/>')}
  ${pitched('E', 5, '<voice>1</voice><type>16th</type><staff>1</staff>', '<grace/>')}
  ${pitched('C', 5, '<duration>6</duration><voice>1</voice><type>quarter</type><accidental parentheses="yes">natural</accidental><staff>1</staff><notations><slur type="start" number="1"/><slur type="start" number="2"/><technical><fingering>3</fingering><fingering substitution="yes">1</fingering></technical><ornaments><trill-mark/><accidental-mark>flat</accidental-mark></ornaments><articulations><tenuto/><breath-mark/></articulations><arpeggiate direction="down"/></notations><lyric number="1"><syllabic>begin</syllabic><text>o</text></lyric><lyric number="2"><text>one</text><extend/></lyric>')}
  ${pitched('F', 3, '<duration>6</duration><voice>1</voice><type>quarter</type><staff>2</staff><notations><slur type="stop" number="2"/><ornaments><tremolo type="single">2</tremolo></ornaments></notations>')}
  <direction><direction-type><wedge type="stop" number="1"/></direction-type><staff>1</staff></direction>
  <direction><direction-type><octave-shift type="stop" size="8" number="1"/></direction-type><staff>1</staff></direction>
  ${pitched('G', 4, '<duration>2</duration><voice>1</voice><type>eighth</type><time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification><staff>1</staff><notations><tuplet type="start" number="1"><tuplet-actual><tuplet-number>3</tuplet-number></tuplet-actual><tuplet-normal><tuplet-number>2</tuplet-number></tuplet-normal></tuplet><slur type="stop" number="1"/></notations>')}
  ${pitched('A', 4, '<duration>2</duration><voice>1</voice><type>eighth</type><time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification><staff>1</staff>')}
  ${pitched('B', 4, '<duration>2</duration><voice>1</voice><type>eighth</type><time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification><staff>1</staff><notations><tuplet type="stop" number="1"/></notations>')}
  <attributes><key><fifths>-2</fifths><mode>major</mode></key><clef number="2"><sign>G</sign><line>2</line></clef></attributes>
  <sound tempo="60"/>
  ${pitched('B', 4, '<duration>6</duration><voice>1</voice><type>quarter</type><staff>1</staff><notations><fermata/></notations>', '<cue/>')}
  ${pitched('C', 5, '<voice>1</voice><type>eighth</type><staff>1</staff>', '<grace/>')}
  <backup><duration>24</duration></backup>
  <harmony><root><root-step>G</root-step></root><kind>dominant</kind><degree><degree-value>9</degree-value><degree-alter>-1</degree-alter><degree-type>add</degree-type></degree></harmony>
  ${pitched('C', 3, '<duration>24</duration><voice>5</voice><type>whole</type><staff>2</staff>')}
  <harmony><root><root-step>C</root-step></root><kind>major</kind><inversion>1</inversion></harmony>`,
  '<divisions>6</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef>',
);

describe('a measure with everything in it', () => {
  const { score, warnings } = readMusicXml(RICH);
  const notes = score.parts[0]!.notes;
  const named = (name: string): Note => notes.find((n) => pitchName(n.pitch) === name && !n.grace)!;

  it('is read', () => {
    expect(warnings).toEqual([]);
    expect(score.tempo).toBe(72);
    // The source prints no number there.
    expect(score.tempoChanges).toEqual([{ onset: 3 * Q, tempo: 60, isHeard: true }]);
    expect(score.measures[0]!.changes).toEqual([{ onset: 3 * Q, key: { fifths: -2, mode: 'major' } }]);
    expect(notes.filter((n) => n.grace).map((n) => [pitchName(n.pitch), n.onset / Q, n.grace])).toEqual([
      ['D5', 0, { slash: true, type: 16, order: 0 }],
      ['E5', 0, { slash: false, type: 16, order: 1 }],
      ['C5', 3, { slash: false, type: 8, order: 0, after: true }],
    ]);
    expect(named('C5')).toMatchObject({
      finger: 3,
      substitution: 1,
      reminder: 'brackets',
      ornaments: [{ kind: 'trill-mark', alter: -1 }],
      arpeggio: 'down',
      lyrics: [
        { verse: 1, text: 'o', syllabic: 'begin' },
        { verse: 2, text: 'one', extend: true },
      ],
    });
    expect(named('F3')).toMatchObject({ staff: 2, voice: 1, onset: Q });
    expect(notes.find((n) => n.cue)).toMatchObject({ onset: 3 * Q, fermata: true });
    expect(score.parts[0]!.marks!.map((m) => [m.kind, m.onset / Q])).toEqual([
      ['words', 0],
      ['dynamic', 0],
      ['hairpin', 0],
      ['octave shift', 0],
      ['hairpin', 2],
      ['octave shift', 2],
    ]);
    expect(score.parts[0]!.clefs).toHaveLength(3);
    expect(score.chordSymbols.map((s) => [s.onset / Q, chordSymbol(s.chord!)])).toEqual([
      [0, 'G7(♭9)'],
      [4, 'C/E'],
    ]);
  });
  it('comes out again whole', () => {
    const back = again({ ...score, chordSymbols: score.chordSymbols.slice(0, 1) });
    expect(plain(back)).toEqual(plain({ ...score, chordSymbols: score.chordSymbols.slice(0, 1) }));
  });
  it('keeps verses apart when counts stand above the words', () => {
    const counted = {
      ...score,
      parts: score.parts.map((p) => ({
        ...p,
        notes: p.notes.map((n): Note =>
          n.lyrics
            ? { ...n, lyrics: [{ line: 'counts', verse: 1, text: '1', syllabic: 'single' }, ...n.lyrics] }
            : n,
        ),
      })),
    };
    const words = again(counted).parts[0]!.notes.flatMap((n) => n.lyrics ?? []);
    expect(words.map((l) => [l.verse, l.text])).toEqual([
      [1, 'o'],
      [2, 'one'],
    ]);
  });
});

/** Notes of one voice on the eighths of a measure, now and then a chord, a tie within the voice left out. */
const someNotes = (measures: readonly Measure[]) =>
  fc
    .array(
      fc.record({
        measure: fc.nat(measures.length - 1),
        place: fc.nat(5),
        length: fc.integer({ min: 1, max: 4 }),
        step: fc.constantFrom(...STEPS),
        alter: fc.integer({ min: -1, max: 1 }),
        octave: fc.integer({ min: 2, max: 6 }),
        lower: fc.boolean(),
        finger: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
        accent: fc.boolean(),
        word: fc.option(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 5 }), { nil: undefined }),
      }),
      { minLength: 1, maxLength: 25 },
    )
    .map((list) => {
      const taken = new Set<string>();
      return list.flatMap((n, i): Note[] => {
        const measure = measures[n.measure]!;
        const staff = n.lower ? 2 : 1;
        const eighth = Q / 2;
        const length = Math.min(n.length, measure.length / eighth - n.place);
        if (length <= 0) return [];
        const slots = Array.from({ length }, (_, k) => `${n.measure}/${n.place + k}/${staff}`);
        if (slots.some((s) => taken.has(s))) return [];
        slots.forEach((s) => taken.add(s));
        const text = n.word?.trim().replace(/\p{Cc}|\p{Cs}|[\uFFFE\uFFFF]/gu, '');
        return [
          {
            id: `n${i}`,
            onset: measure.start + n.place * eighth,
            duration: length * eighth,
            pitch: { step: n.step, alter: n.alter, octave: n.octave },
            staff,
            voice: staff === 1 ? 1 : 5,
            ...(n.finger ? { finger: n.finger } : {}),
            ...(n.accent ? { articulations: ['accent' as const] } : {}),
            ...(text ? { lyrics: [{ line: 'words', verse: 1, text, syllabic: 'single' } as const] } : {}),
          },
        ];
      });
    })
    .filter((notes) => notes.length > 0);

describe('laws', () => {
  const time = { beats: 3, beatType: 4 };
  const measures = evenMeasures(4, time, (index) => ({ fifths: index < 2 ? 0 : 2, mode: 'major' }));
  it('law: notes and marks of any score come back as they were', () => {
    const marks = fc.array(
      fc.record({
        kind: fc.constant('dynamic' as const),
        value: fc.constantFrom('p', 'mf', 'sfz'),
        onset: fc.nat(23).map((n) => (n * Q) / 2),
        staff: fc.constantFrom(1, 2),
        above: fc.boolean(),
      }),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(someNotes(measures), marks, (notes, list) => {
        const score: Score = {
          title: 'Law & "order" <of> notes',
          composer: '',
          tempo: 84,
          measures,
          parts: [
            {
              id: 'P1',
              name: 'Piano',
              staves: 2,
              notes: [...notes].sort(inReadingOrder),
              ...(list.length ? { marks: ([...list] as Mark[]).sort((a, b) => a.onset - b.onset) } : {}),
            },
          ],
          chordSymbols: [],
          pedals: [],
        };
        const { parts, title } = again(score);
        expect(title).toBe(score.title);
        const { clefs: _clefs, ...part } = parts[0]!;
        expect((plain({ ...score, parts: [part] }) as Score).parts).toEqual((plain(score) as Score).parts);
      }),
      { numRuns: 150 },
    );
  });
});

/** The order of children that the MusicXML 4.0 schema asks for, of the elements whose order it fixes. */
const ORDER: Readonly<Record<string, readonly string[]>> = {
  'score-partwise': [
    'work',
    'movement-number',
    'movement-title',
    'identification',
    'defaults',
    'credit',
    'part-list',
    'part',
  ],
  note: [
    'grace',
    'cue',
    'chord',
    'pitch',
    'rest',
    'duration',
    'tie',
    'voice',
    'type',
    'dot',
    'accidental',
    'time-modification',
    'stem',
    'staff',
    'beam',
    'notations',
    'lyric',
  ],
  attributes: ['divisions', 'key', 'time', 'staves', 'clef', 'transpose'],
  direction: ['direction-type', 'offset', 'voice', 'staff', 'sound'],
  barline: ['bar-style', 'ending', 'repeat'],
  harmony: ['root', 'kind', 'inversion', 'bass', 'degree', 'staff'],
  lyric: ['syllabic', 'text', 'extend'],
  clef: ['sign', 'line', 'clef-octave-change'],
  key: ['fifths', 'mode'],
  time: ['beats', 'beat-type'],
  degree: ['degree-value', 'degree-alter', 'degree-type'],
  'time-modification': ['actual-notes', 'normal-notes'],
};

describe('what is written', () => {
  const root = parseXml(writeMusicXml(readMusicXml(RICH).score));
  const all = (element: XmlElement): XmlElement[] => [element, ...element.children.flatMap(all)];
  it('has every element in the order of the schema', () => {
    for (const element of all(root)) {
      const order = ORDER[element.name];
      if (!order) continue;
      const places = element.children.map((c) => order.indexOf(c.name));
      expect({ in: element.name, line: element.line, unknown: places.includes(-1) }).toMatchObject({
        unknown: false,
      });
      expect(places).toEqual([...places].sort((a, b) => a - b));
    }
  });
  it('gives every id once', () => {
    const ids = all(root).flatMap((e) => (e.name === 'note' ? [e.attributes.id] : []));
    expect(new Set(ids).size).toBe(ids.length);
  });
});

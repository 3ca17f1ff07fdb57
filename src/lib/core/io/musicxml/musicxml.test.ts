import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pitchName } from '../../theory/pitch';
import { soundingNotes } from '../../score/query';
import type { Score } from '../../score/score';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { chordSymbol } from '../../theory/chord';
import { keyName } from '../../theory/key';
import { readScoreFile } from '../readScoreFile';
import { readMusicXml } from './read';
import { writeMusicXml } from './write';

/** A note as another program might write it. */
const note = (pitch: string, duration: number, extra = '', before = ''): string =>
  `<note>${before}<pitch><step>${pitch[0]}</step>${pitch.length > 2 ? `<alter>${pitch[1] === '#' ? 1 : -1}</alter>` : ''}<octave>${pitch.at(-1)}</octave></pitch><duration>${duration}</duration>${extra}</note>`;

const file = (measures: string, attributes = '<divisions>1</divisions>'): string =>
  `<?xml version="1.0"?><score-partwise version="3.1"><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">${measures
    .replace('<measure', '<measure')
    .replace(/(<measure[^>]*>)/, `$1<attributes>${attributes}</attributes>`)}</part></score-partwise>`;

const read = (xml: string): Score => readMusicXml(xml).score;
const notesOf = (score: Score, part = 0) =>
  score.parts[part]!.notes.map((n) => `${pitchName(n.pitch)}@${n.onset / Q}+${n.duration / Q}/${n.staff}`);

describe('reading', () => {
  it('follows chords, backup and forward across two staves and several voices', () => {
    const score = read(
      file(
        `<measure number="1">${note('C5', 2, '<voice>1</voice><staff>1</staff>')}${note('E5', 2, '<voice>1</voice><staff>1</staff>', '<chord/>')}${note('D5', 2, '<voice>1</voice><staff>1</staff>')}<backup><duration>4</duration></backup><forward><duration>2</duration></forward>${note('G4', 2, '<voice>2</voice><staff>1</staff>')}<backup><duration>4</duration></backup>${note('C3', 4, '<voice>5</voice><staff>2</staff>')}</measure>`,
        '<divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves>',
      ),
    );
    expect(notesOf(score)).toEqual(['C5@0+2/1', 'E5@0+2/1', 'C3@0+4/2', 'D5@2+2/1', 'G4@2+2/1']);
    expect(score.parts[0]!.staves).toBe(2);
  });

  it('takes divisions as they change in mid-piece', () => {
    const score = read(
      file(
        `<measure number="1">${note('C4', 4)}</measure><measure number="2"><attributes><divisions>6</divisions></attributes>${note('D4', 2)}${note('E4', 2)}${note('F4', 2)}${note('G4', 18)}</measure>`,
      ),
    );
    expect(score.parts[0]!.notes.slice(1, 4).map((n) => n.duration)).toEqual([3360, 3360, 3360]);
    expect(score.measures[1]!.start).toBe(4 * Q);
  });

  it('places a pickup, marked or not, at the end of its measure', () => {
    for (const implicit of ['', ' implicit="yes"']) {
      const score = read(
        file(
          `<measure number="0"${implicit}>${note('D4', 1)}</measure><measure number="1">${note('G4', 4)}</measure>`,
        ),
      );
      expect(score.measures[0]).toMatchObject({ length: Q, beginsAt: 3 * Q });
      expect(score.measures[1]).toMatchObject({ start: Q, length: 4 * Q, beginsAt: 0 });
    }
  });

  it('keeps a measure without trailing rests whole', () => {
    const score = read(
      file(
        `<measure number="1">${note('C4', 4)}</measure><measure number="2">${note('C4', 2)}</measure><measure number="3">${note('C4', 4)}</measure>`,
      ),
    );
    expect(score.measures.map((m) => m.length / Q)).toEqual([4, 4, 4]);
  });

  it('completes a measure that a repeat sign cuts in two', () => {
    const repeat = '<barline location="right"><repeat direction="backward"/></barline>';
    const score = read(
      file(
        `<measure number="1">${note('C4', 4)}</measure><measure number="2">${note('C4', 3)}${repeat}</measure><measure number="X1" implicit="yes">${note('D4', 1)}</measure><measure number="3">${note('E4', 4)}</measure>`,
      ),
    );
    expect(score.measures.map((m) => [m.length / Q, m.beginsAt / Q])).toEqual([
      [4, 0],
      [3, 0],
      [1, 3],
      [4, 0],
    ]);
  });

  it('reads chord symbols with kind, alteration and bass', () => {
    const harmony = (root: string, kind: string, bass = ''): string =>
      `<harmony><root><root-step>${root[0]}</root-step>${root[1] ? '<root-alter>-1</root-alter>' : ''}</root><kind>${kind}</kind>${bass ? `<bass><bass-step>${bass}</bass-step></bass>` : ''}</harmony>`;
    const score = read(
      file(
        `<measure number="1">${harmony('Bb', 'major-seventh')}${note('D4', 2)}${harmony('C', 'dominant', 'E')}${note('E4', 2)}</measure>`,
      ),
    );
    expect(score.chordSymbols.map((s) => [s.onset / Q, chordSymbol(s.chord!)])).toEqual([
      [0, 'B♭maj7'],
      [2, 'C7/E'],
    ]);
  });

  it('brings a transposing instrument to concert pitch', () => {
    const score = read(
      file(
        `<measure number="1">${note('D5', 4)}</measure>`,
        '<divisions>1</divisions><transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose>',
      ),
    );
    expect(notesOf(score)).toEqual(['C5@0+4/1']);
  });

  it('joins ties, takes fingers, tempo, sections and words', () => {
    const tied = (type: string): string => `<tie type="${type}"/>`;
    const score = read(
      file(
        `<measure number="1"><direction><direction-type><rehearsal>Verse</rehearsal></direction-type><sound tempo="92"/></direction>${note('C4', 4, `${tied('start')}<notations><technical><fingering>3</fingering></technical></notations><lyric><syllabic>begin</syllabic><text>sil</text></lyric>`)}</measure><measure number="2">${note('C4', 2, tied('stop'))}${note('D4', 2)}</measure>`,
      ),
    );
    expect(score.tempo).toBe(92);
    expect(score.measures[0]!.section).toBe('Verse');
    const [first] = soundingNotes(score.parts[0]!.notes);
    expect(first).toMatchObject({ duration: 6 * Q, finger: 3 });
    expect(score.parts[0]!.notes[0]!.lyrics).toMatchObject([
      { text: 'sil', syllabic: 'begin', line: 'words' },
    ]);
  });

  it('reads timewise files as partwise ones', () => {
    const part = (id: string, body: string): string => `<part id="${id}">${body}</part>`;
    const score = read(
      `<score-timewise version="3.0"><part-list><score-part id="P1"><part-name>R</part-name></score-part><score-part id="P2"><part-name>L</part-name></score-part></part-list><measure number="1">${part('P1', `<attributes><divisions>1</divisions></attributes>${note('C5', 4)}`)}${part('P2', `<attributes><divisions>1</divisions></attributes>${note('C3', 4)}`)}</measure><measure number="2">${part('P1', note('D5', 4))}${part('P2', note('G2', 4))}</measure></score-timewise>`,
    );
    expect(score.parts.map((p) => p.name)).toEqual(['R', 'L']);
    expect(notesOf(score, 1)).toEqual(['C3@0+4/1', 'G2@4+4/1']);
  });

  it('says what it left out', () => {
    const drum = '<note><unpitched><display-step>E</display-step></unpitched><duration>4</duration></note>';
    const two = file(`<measure number="1">${note('C4', 4)}</measure>`).replace(
      '</score-partwise>',
      `<part id="P2"><measure number="1">${drum}</measure></part></score-partwise>`,
    );
    const { score, warnings } = readMusicXml(two);
    expect(score.parts).toHaveLength(1);
    expect(warnings.join()).toContain('1 unpitched');
  });

  it('gives every note an id of its own, also in files of several parts', () => {
    const part = `<measure number="1">${note('C4', 2)}${note('E4', 2)}</measure>`;
    const score = read(
      file(part).replace('</score-partwise>', `<part id="P2">${part}</part></score-partwise>`),
    );
    const ids = score.parts.flatMap((p) => p.notes.map((n) => n.id));
    expect(new Set(ids).size).toBe(4);
  });
});

describe('what cannot be read', () => {
  const good = writeMusicXml(scoreFrom({ key: 'G', time: { beats: 4, beatType: 4 }, right: 'G4:4 | B4:4' }));
  const refusal = (name: string, bytes: Uint8Array): string => {
    try {
      readScoreFile(name, bytes);
      return 'read';
    } catch (error) {
      expect((error as Error).name).toBe('InputError');
      return (error as Error).message;
    }
  };
  it.each([
    ['words', 'just some words', /not a MusicXML file/],
    ['nothing', '', /is empty/],
    ['another XML', '<html><body/></html>', /begins with <html>/],
    ['half a file', good.slice(0, good.length / 2), /ends in the middle|not well-formed/],
    ['no notes', good.replace(/<note [\s\S]*?<\/note>/g, ''), /no pitched notes/],
    ['no measures', '<score-partwise><part id="P1"/></score-partwise>', /no measures/],
    [
      'entities of its own',
      good.replace(/<!DOCTYPE[^>]*>/, '<!DOCTYPE a [<!ENTITY b "cc">]>').replace('Test', '&b;'),
      /not well-formed/,
    ],
    ['endless nesting', `<score-partwise>${'<a>'.repeat(500)}`, /nested too deeply/],
  ])('%s: one plain sentence', (_name, text, expected) => {
    expect(refusal('song.xml', strToU8(text))).toMatch(expected);
  });
  it('a file that is too large is not even parsed', () => {
    expect(refusal('big.xml', new Uint8Array(25 * 1024 * 1024))).toMatch(/25 MB; a score of up to 24 MB/);
  });
  it('an archive that swells, is cut off, or holds no score', () => {
    const bomb = zipSync({ 'a.xml': new Uint8Array(60 * 1024 * 1024) });
    expect(refusal('a.mxl', bomb)).toMatch(/far more than a score/);
    expect(refusal('b.mxl', zipSync({ 'c.txt': strToU8('x') }))).toMatch(/without a score/);
    expect(refusal('c.mxl', zipSync({ 'c.xml': strToU8(good) }).slice(0, 200))).toMatch(/cannot be opened/);
  });
  it('law: random bytes and cuts are refused with a sentence, never a crash', () => {
    const bytes = strToU8(good);
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), fc.nat(bytes.length - 20), (noise, cut) => {
        expect(refusal('noise', noise)).not.toBe('read');
        expect(refusal('cut', bytes.slice(0, cut))).not.toBe('read');
      }),
      { numRuns: 60 },
    );
  });
  it('reads UTF-16, Latin-1 and archives whatever they are called', () => {
    const utf16 = new Uint8Array(2 + good.length * 2);
    utf16.set([0xff, 0xfe]);
    for (let i = 0; i < good.length; i++)
      utf16.set([good.charCodeAt(i) & 255, good.charCodeAt(i) >> 8], 2 + 2 * i);
    const latin = new Uint8Array([...good.replace('Test', 'Gr\u00fcn')].map((c) => c.charCodeAt(0)));
    expect(refusal('a', utf16)).toBe('read');
    expect(readScoreFile('b.xml', latin).score.title).toBe('Grün');
    const container = '<container><rootfiles><rootfile full-path="in/score.xml"/></rootfiles></container>';
    const mxl = zipSync({ 'META-INF/container.xml': strToU8(container), 'in/score.xml': strToU8(good) });
    expect(refusal('c.mxl', mxl)).toBe('read');
  });
});

describe('writing', () => {
  const piano = scoreFrom({
    title: 'Ferns & <Moss>',
    key: 'Bb',
    time: { beats: 4, beatType: 4 },
    tempo: 84,
    pickup: 1,
    right: 'F4:1 | Bb4:1.5 A4:0.5 G4:1 F#4:1 | [D4 F4 Bb4]:4',
    left: 'r:1 | Bb2:2 Eb3:2 | [Bb2 F3]:4',
    chords: ' | Bb Eb | Bb',
    sections: { 1: 'Verse' },
  });

  it('keeps pitch, onset, duration, staff, keys, chords, sections and the pickup on the way round', () => {
    const back = read(writeMusicXml(piano));
    expect(notesOf(back)).toEqual(notesOf(piano));
    expect(back.title).toBe('Ferns & <Moss>');
    expect(back.tempo).toBe(84);
    expect(back.measures.map(({ length, beginsAt, section }) => ({ length, beginsAt, section }))).toEqual(
      piano.measures.map(({ length, beginsAt, section }) => ({ length, beginsAt, section })),
    );
    expect(keyName(back.measures[0]!.key)).toBe('B♭ major');
    expect(back.chordSymbols).toEqual(piano.chordSymbols);
  });

  it('gives each measure what it should hold: voices add up', () => {
    const xml = writeMusicXml(piano);
    const divisions = Number(/<divisions>(\d+)/.exec(xml)![1]);
    for (const [i, measure] of [...xml.matchAll(/<measure [\s\S]*?<\/measure>/g)].entries()) {
      const total = new Map<string, number>();
      for (const [, body] of measure[0].matchAll(/<note [^>]*>([\s\S]*?)<\/note>/g)) {
        if (body!.includes('<chord/>')) continue;
        const voice = /<voice>(\d+)/.exec(body!)![1]!;
        total.set(voice, (total.get(voice) ?? 0) + Number(/<duration>(\d+)/.exec(body!)![1]));
      }
      for (const sum of total.values()) expect(sum / divisions).toBe(piano.measures[i]!.length / Q);
    }
  });

  it('beams within beats and prints only the accidentals that are needed', () => {
    const xml = writeMusicXml(
      scoreFrom({ key: 'G', time: { beats: 2, beatType: 4 }, right: 'F#4:0.5 G4:0.5 A4:0.75 Bb4:0.25' }),
    );
    expect([...xml.matchAll(/<beam number="(\d)">([^<]+)/g)].map((m) => m.slice(1).join())).toEqual([
      '1,begin',
      '1,end',
      '1,begin',
      '1,end',
      '2,backward hook',
    ]);
    expect([...xml.matchAll(/<accidental>([^<]+)/g)].map((m) => m[1])).toEqual(['flat']);
  });

  it('has a unique id on every note', () => {
    const ids = [...writeMusicXml(piano).matchAll(/<note id="([^"]+)"/g)].map((m) => m[1]);
    expect(ids.length).toBeGreaterThan(8);
    expect(new Set(ids).size).toBe(ids.length);
  });

  it('writes triplets with their ratio and bracket', () => {
    const score = scoreFrom({ key: 'C', time: { beats: 2, beatType: 4 }, right: 'C4:1 D4:1' });
    const third = Q / 3;
    const [first, second] = score.parts[0]!.notes as [
      Score['parts'][0]['notes'][0],
      Score['parts'][0]['notes'][0],
    ];
    const notes = [0, 1, 2].map((i) => ({ ...first, id: `t${i}`, onset: i * third, duration: third }));
    const xml = writeMusicXml({ ...score, parts: [{ ...score.parts[0]!, notes: [...notes, second] }] });
    expect(xml.match(/<actual-notes>3/g)).toHaveLength(3);
    expect(xml.match(/<tuplet type="start"/g)).toHaveLength(1);
    expect(xml.match(/<tuplet type="stop"/g)).toHaveLength(1);
    expect(read(xml).parts[0]!.notes.map((n) => n.onset)).toEqual([0, third, 2 * third, Q]);
  });

  it('law: a melody in any rhythm comes back as it was', () => {
    const step = fc.constantFrom('C4', 'D4', 'E4', 'F#4', 'G4', 'Bb4');
    const value = fc.constantFrom(0.25, 0.5, 0.75, 1, 1.5, 2, 3);
    fc.assert(
      fc.property(fc.array(fc.tuple(step, value), { minLength: 1, maxLength: 12 }), (line) => {
        // Cut the line into full measures of 4/4; the rest of the last one stays silent.
        let at = 0;
        const measures: string[][] = [[]];
        for (const [pitch, quarters] of line) {
          if (at + quarters > 4) {
            if (at < 4) measures.at(-1)!.push(`r:${4 - at}`);
            measures.push([]);
            at = 0;
          }
          measures.at(-1)!.push(`${pitch}:${quarters}`);
          at += quarters;
        }
        if (at < 4) measures.at(-1)!.push(`r:${4 - at}`);
        const right = measures.map((m) => m.join(' ')).join(' | ');
        const source = scoreFrom({ key: 'C', time: { beats: 4, beatType: 4 }, right });
        const sound = (score: Score) =>
          soundingNotes(score.parts[0]!.notes).map((n) => [n.onset, n.duration, pitchName(n.pitch)]);
        expect(sound(read(writeMusicXml(source)))).toEqual(sound(source));
      }),
      { numRuns: 60 },
    );
  });
});

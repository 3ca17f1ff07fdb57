/** Files as programs and converters really leave them: what opens elsewhere is to open here. */
import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pitchName } from '../../theory/pitch';
import { TICKS_PER_QUARTER as Q } from '../../score/ticks';
import { scoreFrom } from '../../test/shorthand';
import { readScoreFile } from '../readScoreFile';
import { readMusicXml } from './read';
import { writeMusicXml } from './write';

const note = (pitch: string, rest: string, before = ''): string =>
  `<note>${before}<pitch><step>${pitch[0]}</step><octave>${pitch[1]}</octave></pitch>${rest}</note>`;
const beat = (pitch: string, extra = ''): string => note(pitch, `<duration>1</duration>${extra}`);
const part = (id: string, measures: string): string => `<part id="${id}">${measures}</part>`;
const file = (...parts: string[]): string =>
  `<score-partwise><part-list>${parts.map((_, i) => `<score-part id="P${i + 1}"><part-name>N${i + 1}</part-name></score-part>`).join('')}</part-list>${parts.map((p, i) => part(`P${i + 1}`, p)).join('')}</score-partwise>`;
const measure = (body: string, attributes = ''): string => `<measure${attributes}>${body}</measure>`;
const setup =
  '<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
const heard = (xml: string, p = 0): string[] =>
  readMusicXml(xml).score.parts[p]!.notes.map(
    (n) => `${pitchName(n.pitch)}@${+(n.onset / Q).toFixed(3)}+${+(n.duration / Q).toFixed(3)}`,
  );

describe('odd files', () => {
  it('measures without numbers, numbered 0, X1 and twice', () => {
    const xml = file(
      measure(setup + beat('C4'), ' number="0" implicit="yes"') +
        measure(beat('D4') + beat('E4') + beat('F4') + beat('G4'), ' number="1"') +
        measure(beat('A4') + beat('B4') + beat('C5'), ' number="1"') +
        measure(beat('D5'), ' number="X1" implicit="yes"') +
        measure(beat('E5') + beat('F5') + beat('G5') + beat('A5')),
    );
    const { score } = readMusicXml(xml);
    expect(score.measures.map((m) => m.number)).toEqual(['0', '1', '1', 'X1', '5']);
    expect(score.measures[0]!.beginsAt).toBe(3 * Q);
  });
  it('backup and forward in any order, further than the measure began', () => {
    expect(
      heard(
        file(
          measure(
            `${setup}<forward><duration>2</duration></forward>${beat('E4')}<backup><duration>9</duration></backup>${beat('C4')}<forward><duration>2</duration></forward>${beat('G4')}<backup><duration>3</duration></backup>${beat('D4')}`,
          ),
        ),
      ),
    ).toEqual(['C4@0+1', 'D4@1+1', 'E4@2+1', 'G4@3+1']);
  });
  it('a chord note of another voice sounds with the note before it', () => {
    const { score } = readMusicXml(
      file(
        measure(
          setup +
            beat('C4', '<voice>1</voice>') +
            note('E4', '<duration>1</duration><voice>2</voice>', '<chord/>') +
            beat('D4'),
        ),
      ),
    );
    expect(score.parts[0]!.notes.map((n) => [pitchName(n.pitch), n.onset / Q, n.voice])).toEqual([
      ['C4', 0, 1],
      ['E4', 0, 2],
      ['D4', 1, 1],
    ]);
  });
  it('notes with a type and no duration, or neither', () => {
    expect(
      heard(
        file(measure(setup + note('C4', '<type>half</type><dot/>') + note('D4', '<type>quarter</type>'))),
      ),
    ).toEqual(['C4@0+3', 'D4@3+1']);
    expect(heard(file(measure(setup + note('C4', '') + beat('D4'))))).toEqual(['C4@0+0', 'D4@0+1']);
  });
  it('tuplets that no tick divides end where the beat does', () => {
    const eleven = Array.from({ length: 11 }, () => note('C4', '<duration>4</duration>')).join('');
    const xml = file(
      measure(
        `<attributes><divisions>44</divisions></attributes>${eleven}${note('D4', '<duration>44</duration>')}`,
      ),
    );
    expect(readMusicXml(xml).score.parts[0]!.notes.at(-1)!.onset).toBe(Q);
  });
  it('parts of different length, and one that tells the time signature only in the other', () => {
    const { score } = readMusicXml(
      file(
        measure(setup + beat('C4')),
        measure('<attributes><divisions>2</divisions></attributes>' + note('C3', '<duration>8</duration>')) +
          measure(note('D3', '<duration>8</duration>')),
      ),
    );
    expect(score.measures).toHaveLength(2);
    expect(score.parts.map((p) => p.notes.length)).toEqual([1, 2]);
  });
  it('a time signature in two numbers, one without, and keys that are no keys', () => {
    const time = (t: string): string =>
      `<attributes><divisions>1</divisions><key><fifths>11</fifths></key><time>${t}</time></attributes>`;
    const five = readMusicXml(
      file(measure(time('<beats>3+2</beats><beat-type>8</beat-type>') + beat('C4'))),
    ).score;
    expect(five.measures[0]!.time).toEqual({ beats: 5, beatType: 8 });
    const free = readMusicXml(file(measure(time('<senza-misura/>') + beat('C4')))).score;
    expect(free.measures[0]).toMatchObject({ time: { beats: 4, beatType: 4 }, key: { fifths: 0 } });
  });
  it('one voice number on both staves is two voices', () => {
    const { score } = readMusicXml(
      file(
        measure(
          `<attributes><divisions>1</divisions><staves>2</staves></attributes>${note('C5', '<duration>4</duration><voice>1</voice><staff>1</staff>')}<backup><duration>4</duration></backup>${note('C3', '<duration>2</duration><voice>1</voice><staff>2</staff>')}${note('D3', '<duration>2</duration><voice>1</voice><staff>2</staff>')}`,
        ),
      ),
    );
    expect(score.parts[0]!.notes.map((n) => n.voice)).toEqual([1, 5, 5]);
    const again = readMusicXml(writeMusicXml(score)).score.parts[0]!.notes;
    expect(again.map((n) => [n.staff, n.voice, n.onset / Q])).toEqual([
      [1, 1, 0],
      [2, 5, 0],
      [2, 5, 2],
    ]);
  });
  it('tablature is left out, and said so; staves of notes beside it stay', () => {
    const xml = file(
      measure(
        `<attributes><divisions>1</divisions><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>TAB</sign></clef></attributes>${note('E4', '<duration>4</duration><staff>1</staff>')}<backup><duration>4</duration></backup>${note('E4', '<duration>4</duration><staff>2</staff>')}`,
      ),
    );
    const { score, warnings } = readMusicXml(xml);
    expect(score.parts[0]!.notes).toHaveLength(1);
    expect(warnings).toEqual(['N1: 1 note written as tablature left out.']);
  });
  it('a note without a usable pitch is named by its measure and line', () => {
    const { warnings } = readMusicXml(
      file(
        measure(
          `${setup}\n${beat('C4')}\n<note><pitch><step>Q</step></pitch><duration>1</duration></note>`,
          ' number="7"',
        ),
      ),
    );
    expect(warnings).toEqual([
      'N1: 1 note without a usable pitch left out, the first in measure 7 (line 3).',
    ]);
  });
  it('a pitch that no instrument has is refused with its measure', () => {
    expect(() =>
      readScoreFile(
        'x.xml',
        strToU8(file(measure(setup + beat('C4').replace('<octave>4', '<octave>14'), ' number="3"'))),
      ),
    ).toThrow(/in measure 3/);
  });
  it('repeats of more than two times, an ending that is only discontinued', () => {
    const xml = file(
      measure(
        `${setup}${beat('C4')}<barline location="right"><repeat direction="backward" times="3"/></barline>`,
      ) +
        measure(
          `<barline location="left"><ending number="" type="start">1.</ending></barline>${beat('D4')}<barline><ending number="1" type="discontinue"/></barline>`,
        ),
    );
    expect(readMusicXml(xml).score.measures.map((m) => [m.repeatTimes, m.ending, m.endingEnd])).toEqual([
      [3, undefined, undefined],
      [undefined, '1.', true],
    ]);
  });
});

describe('bytes', () => {
  const plain = file(measure(setup + beat('C4')));
  const named = (title: string, declaration: string): string =>
    `<?xml version="1.0" encoding="${declaration}"?>${plain.replace('<part-list>', `<movement-title>${title}</movement-title><part-list>`)}`;
  const title = (bytes: Uint8Array): string => readScoreFile('x.xml', bytes).score.title;
  const utf16 = (text: string, mark: boolean, bigEnd: boolean): Uint8Array => {
    const units = [
      ...(mark ? [0xfeff] : []),
      ...Array.from({ length: text.length }, (_, i) => text.charCodeAt(i)),
    ];
    return Uint8Array.from(units.flatMap((u) => (bigEnd ? [u >> 8, u & 255] : [u & 255, u >> 8])));
  };
  it.each(['UTF-8', 'UTF-16', 'ISO-8859-1', 'Shift_JIS'])(
    'what they are counts, not that they are called %s',
    (called) => {
      const text = named('Grün – ☀', called);
      expect(title(strToU8(text))).toBe('Grün – ☀');
      expect(title(new Uint8Array([0xef, 0xbb, 0xbf, ...strToU8(text)]))).toBe('Grün – ☀');
      for (const mark of [true, false])
        for (const bigEnd of [true, false]) expect(title(utf16(text, mark, bigEnd))).toBe('Grün – ☀');
      const latin = named('Grün', called);
      expect(title(Uint8Array.from([...latin].map((c) => c.charCodeAt(0))))).toBe('Grün');
    },
  );
  it('a document type that points to the network is read past', () => {
    const xml = plain.replace(
      '<score-partwise>',
      '<!DOCTYPE score-partwise SYSTEM "http://nowhere.invalid/a.dtd"><score-partwise>',
    );
    expect(readScoreFile('x.xml', strToU8(xml)).score.parts).toHaveLength(1);
  });
  it('an archive that swells beyond reason is refused, and no path of it matters', () => {
    const swollen = zipSync({ 'a.xml': strToU8(`${plain}${' '.repeat(50_000_000)}`) });
    expect(() => readScoreFile('a.mxl', swollen)).toThrow(/far more than a score/);
    const outside = zipSync({ '../../etc/a.xml': strToU8(plain) });
    expect(readScoreFile('b.mxl', outside).score.parts).toHaveLength(1);
    const many = zipSync(
      Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`${i}.xml`, strToU8(plain)])),
    );
    expect(() => readScoreFile('c.mxl', many)).toThrow(/far more than a score/);
  });
  it('a score that names no time signature takes the one that its measures hold, and says so', () => {
    const three = '<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>'.repeat(
      3,
    );
    const xml = `<score-partwise><part id="A"><measure number="1">${three}</measure><measure number="2">${three}</measure></part></score-partwise>`;
    const { score, warnings } = readMusicXml(xml);
    expect(score.measures.map((m) => [m.time.beats, m.time.beatType])).toEqual([
      [3, 4],
      [3, 4],
    ]);
    expect(warnings).toContain('The score has no time signature; 3/4 was taken from what its measures hold.');
  });
  it('lengths below nothing and a quarter divided by nothing are named with their place', () => {
    const xml = `<score-partwise><part id="A"><measure number="7"><attributes><divisions>2</divisions><time><beats>1</beats><beat-type>4</beat-type></time></attributes>
      <note><pitch><step>C</step><octave>4</octave></pitch><duration>2</duration></note>
      <note><pitch><step>D</step><octave>4</octave></pitch><duration>-2</duration></note></measure>
      <measure number="8"><attributes><divisions>0</divisions></attributes>
      <note><pitch><step>C</step><octave>4</octave></pitch><duration>2</duration></note></measure></part></score-partwise>`;
    const { score, warnings } = readMusicXml(xml);
    expect(score.measures.map((m) => m.length / 10080)).toEqual([1, 1]);
    expect(warnings.join()).toMatch(/1 negative length ignored, the first in measure 7 \(line 3\)/);
    expect(warnings.join()).toMatch(/a quarter divided by nothing in measure 8 \(line 4\)/);
  });
  it('an archive is judged by what comes out of it, whatever it says of its sizes', () => {
    const lying = zipSync({ 'a.xml': strToU8(`${plain}${' '.repeat(50_000_000)}`) });
    const view = new DataView(lying.buffer);
    const [LOCAL, CENTRAL] = [0x04034b50, 0x02014b50];
    for (let at = 0; at + 28 <= lying.length; at += 1) {
      const signature = view.getUint32(at, true);
      if (signature === LOCAL) view.setUint32(at + 22, 900, true);
      if (signature === CENTRAL) view.setUint32(at + 24, 900, true);
    }
    expect(() => readScoreFile('a.mxl', lying)).toThrow(/far more than a score/);
  });
  it('notes, measures and parts are counted over the whole score before it is put together', () => {
    const measure = `<measure number="1">${'<note/>'.repeat(130_000)}</measure>`;
    const two = `<score-partwise><part id="A">${measure}</part><part id="B">${measure}</part></score-partwise>`;
    expect(() => readMusicXml(two)).toThrow('more than 250,000 notes');
    const long = `<score-partwise><part id="A">${'<measure/>'.repeat(4001)}</part></score-partwise>`;
    expect(() => readMusicXml(long)).toThrow('more than 4,000 measures');
    const part = `<part id="A">${'<measure/>'.repeat(600)}</part>`;
    expect(() => readMusicXml(`<score-partwise>${part.repeat(199)}</score-partwise>`)).toThrow(
      'more than 100,000 measures in all its parts',
    );
    expect(() =>
      readMusicXml(`<score-partwise>${'<part><measure/></part>'.repeat(201)}</score-partwise>`),
    ).toThrow('more than 200 parts');
  });
  it('law: a file in which anything was changed is read, or refused with a sentence', () => {
    const good = writeMusicXml(
      scoreFrom({
        key: 'G',
        time: { beats: 3, beatType: 4 },
        right: 'G4:1 B4:0.5 A4:0.5 D5:1 | G4:3',
        left: 'G2:3 | [G2 D3]:3',
        chords: 'G | G',
      }),
    );
    const pieces = good.split(/(?=<)/);
    const change = fc.oneof(
      fc.record({ kind: fc.constant('drop' as const), at: fc.nat(pieces.length - 1), text: fc.constant('') }),
      fc.record({
        kind: fc.constant('twice' as const),
        at: fc.nat(pieces.length - 1),
        text: fc.constant(''),
      }),
      fc.record({
        kind: fc.constant('number' as const),
        at: fc.nat(pieces.length - 1),
        text: fc.constantFrom('-3', '0', '1e9', 'NaN', '', '99999999999', '0.5'),
      }),
    );
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 3 }), (changes) => {
        const changed = [...pieces];
        for (const { kind, at, text } of changes)
          changed[at] =
            kind === 'drop'
              ? ''
              : kind === 'twice'
                ? changed[at]! + changed[at]!
                : changed[at]!.replace(/>[^<]+/, `>${text}`);
        try {
          const { score } = readScoreFile('x.xml', strToU8(changed.join('')));
          // What was read can be written and read once more.
          readMusicXml(writeMusicXml(score));
        } catch (error) {
          expect(`${(error as Error).name}: ${(error as Error).message}`).toMatch(/^InputError/);
        }
      }),
      { numRuns: 400 },
    );
  });
});

import { describe, expect, it } from 'vitest';
import { tunesIn } from './book';
import { inOrder, partsInOrder } from '../private/abc/partOrder';
import { prepareAbc } from '../private/abc/prepare';
import { readAbc } from './read';

const BOOK = `%abc
% A book of walks.
T:Walks of the Valley
M:3/4
L:1/4
Free text that belongs to nobody.

X:1
T:The First Walk
K:C
C E G | C3 |]

Some words between.

X: 7 % a late one
T:The Seventh Walk
T:Its other name
M:4/4
K:G
G A B c | G4 |]

X:9
K:D
D F A |]
`;

describe('a tune book', () => {
  it('has its tunes by number and title, each with the head of the book', () => {
    const tunes = tunesIn(BOOK);
    expect(tunes.map(({ number, title }) => [number, title])).toEqual([
      ['1', 'The First Walk'],
      ['7', 'The Seventh Walk'],
      ['9', 'Tune 9'],
    ]);
    const read = tunes.map(({ text }) => readAbc(text));
    expect(read.flatMap((r) => r.warnings)).toEqual([]);
    // The head's metre holds until a tune has its own.
    expect(read.map((r) => r.score.measures[0]!.time.beats)).toEqual([3, 4, 3]);
    expect(read.map((r) => r.score.title)).toEqual(['The First Walk', 'The Seventh Walk', '']);
  });
  it('goes on behind a blank line where bars follow', () => {
    const [tune] = tunesIn('X:1\nK:C\nC D E F |\n\nG4 |]\n\nWords about it.\n');
    expect(tune!.text).toBe('X:1\nK:C\nC D E F |\nG4 |]');
  });
  it('is none where a text has one tune or no number', () => {
    expect(tunesIn('X:1\r\nT:One\r\nK:C\r\nC4 |]').map((t) => t.title)).toEqual(['One']);
    expect(tunesIn('K:C\nC4 |]')).toEqual([]);
  });
});

const reads = (text: string): string => {
  const { score } = readAbc(`X:1\nL:1/4\n${text}`);
  return score.parts[0]!.notes.map((n) => `${n.onset / 10080}:${n.pitch.step}${n.pitch.octave}`).join(' ');
};

describe('the order of parts', () => {
  it.each([
    ['AB', 'A B'],
    ['A2B', 'A A B'],
    ['(AB)3C', 'A B A B A B C'],
    ['((AB)2C)2', 'A B A B C A B A B C'],
    ['A.B.A', 'A B A'],
  ])('%s', (order, letters) => expect(partsInOrder(order)!.join(' ')).toBe(letters));
  it.each(['(AB', 'A)', 'A-B', '', 'A999', '((((A99)99)99)99)'])('is none in %s', (order) =>
    expect(partsInOrder(order)).toBeUndefined(),
  );
  it('is played', () => {
    expect(reads('M:2/4\nP:ABA\nK:C\nP:A\nC D |\nP:B\nE F |]')).toBe('0:C4 1:D4 2:E4 3:F4 4:C4 5:D4');
    const { score } = readAbc('X:1\nL:1/4\nM:2/4\nP:ABA\nK:C\nP:A\nC D |\nP:B\nE F |]');
    expect(score.measures.map((m) => m.section)).toEqual(['A', 'B', 'A']);
  });
  it('keeps a repeat within its part', () => {
    const frame = (repeatEnd: boolean) => ({ frame: { repeatEnd } });
    const played = inOrder(
      [frame(true), frame(true)],
      new Map([
        [0, 'A'],
        [1, 'B'],
      ]),
      ['B', 'A'],
    );
    expect(played!.map((m) => 'repeatStart' in m.frame)).toEqual([true, true]);
  });
  it('that names a part which is not there is said', () => {
    const { warnings } = readAbc('X:1\nL:1/4\nM:2/4\nP:ABQ\nK:C\nP:A\nC D |\nP:B\nE F |]');
    expect(warnings.join(' ')).toContain('names “Q”');
  });
});

describe('what tune books write and the parser does not know', () => {
  it.each([
    ['M:5/4 (2/4 3/4)', 'M:(2+3)/4'],
    ['M:7/8 2+2+3/8', 'M:(2+2+3)/8'],
    ['M:3/4 % a waltz', 'M:3/4 % a waltz'],
    ['M:2', 'M:2/2'],
    ['M:3', 'M:3/4'],
    ['M:C|', 'M:C|'],
  ])('%s', (written, known) => expect(prepareAbc(`X:1\n${written}\nK:C\nC`).text).toContain(`${known}\n`));
  it('bar lines with a space in them, outside of texts', () => {
    expect(prepareAbc('K:C\n| : C "a: | b" D : |').text).toBe('K:C\n|: C "a: | b" D :|');
    expect(prepareAbc('K:C\nC :| |: D').text).toBe('K:C\nC :| |: D');
  });
  it('whole measures of rest, whatever the time signature', () => {
    expect(reads('M:2\nK:C\nZ2 | C D E F |]')).toBe('8:C4 9:D4 10:E4 11:F4');
    expect(reads('M:5/4 (2/4 3/4)\nK:C\nC D E F G | Z | A5 |]')).toMatch(/4:G4 10:A4$/);
  });
  it('a clef an octave lower sounds an octave lower', () =>
    expect(reads('M:4/4\nK:C clef=treble-8\nC4 |]')).toBe('0:C3'));
  it('drums are left out, and that is said', () => {
    const { score, warnings } = readAbc(
      'X:1\nM:2/4\nL:1/4\nK:C\nV:1\nC D |]\nV:drum\n%%MIDI channel 10\nF F |]\n',
    );
    expect(score.parts).toHaveLength(1);
    expect(score.parts[0]!.notes.map((n) => n.pitch.step).join('')).toBe('CD');
    expect(warnings.join(' ')).toContain('percussion voice (drum)');
  });
});

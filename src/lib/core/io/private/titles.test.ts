import { describe, expect, it } from 'vitest';
import { bandFile } from '../../test/bandFile';
import { readScoreFile } from '../readScoreFile';
import { asTitle, givenTitle, isAboutRights, namedComposer, titleOfFile } from './titles';

describe('what is a title', () => {
  it.each([
    'Track 1',
    'MIDI Ch. 1',
    'Electric Piano 2',
    'Staff-3',
    'Lead (Square)',
    'Bass',
    'Drums',
    '60s Organ (MIDI)',
    'RH',
    'Untitled',
    '12',
    'Made with http://x.y',
  ])('not “%s”', (text) => expect(asTitle(text)).toBe(''));
  it.each(['Morning on the Quay', 'Bass Rocks', 'Waltz no. 2', 'Été'])('“%s”', (text) =>
    expect(asTitle(text)).toBe(text),
  );
  it('a field may hold what a track may not', () => {
    expect(givenTitle('Music Box')).toBe('Music Box');
    expect(givenTitle('Untitled score 3')).toBe('');
  });
  it.each([
    ['low_tide-at_dusk.mid', 'Low tide at dusk'],
    ['lowTideAtDusk.xml', 'Low Tide At Dusk'],
    ['.mid', 'Untitled'],
  ])('a file %s is called %s', (name, title) => expect(titleOfFile(name)).toBe(title));
  it('names who made it, and whose it is', () => {
    expect(namedComposer('Music by Ada Quill')).toBe('Ada Quill');
    expect(namedComposer('Composer: Ada Quill')).toBe('Ada Quill');
    expect(namedComposer('by the river we sat')).toBe('the river we sat');
    expect(namedComposer('A quiet song')).toBeUndefined();
    expect(isAboutRights('© 2020 Ada Quill')).toBe(true);
    expect(isAboutRights('A quiet song')).toBe(false);
  });
  it('is read from files of every kind, with composer, rights and words of the tempo', () => {
    const players = [
      { name: 'Flute 1', program: 73, notes: [[0, 4, 67]] as const },
      { name: 'Bass', program: 33, notes: [[0, 4, 40]] as const },
      { name: 'Strings', program: 48, notes: [[0, 4, 60]] as const },
    ];
    const midi = readScoreFile(
      'quay_3.mid',
      bandFile({
        players,
        words: [
          { kind: 'copyrightNotice', text: '(c) 2020 Ada Quill' },
          { kind: 'text', text: 'Music by Ada Quill' },
          { kind: 'marker', text: 'Slower' },
        ],
      }),
    ).score;
    expect(midi).toMatchObject({ title: 'Quay 3', composer: 'Ada Quill', rights: '(c) 2020 Ada Quill' });
    expect(midi.parts[0]!.marks).toMatchObject([{ kind: 'words', text: 'Slower' }]);
    const read = (name: string, text: string) => readScoreFile(name, new TextEncoder().encode(text)).score;
    expect(read('low-tide.abc', 'X:1\nM:4/4\nL:1/4\nK:C\nCDEF|]\n').title).toBe('Low tide');
    expect(read('x.pro', '{title: Quay}\n{copyright: 2020 Ada Quill}\n[C]On the [G]quay\n').rights).toBe(
      '2020 Ada Quill',
    );
  });
});

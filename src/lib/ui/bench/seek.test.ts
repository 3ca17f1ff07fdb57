import { describe, expect, it } from 'vitest';
import { allKinds } from '$core/decisions/registry';
import { seek, underHeadings } from './seek';

const things = [
  { group: 'Articulation', name: 'staccato' },
  { group: 'Left hand', name: 'broken chords', words: 'figure arpeggio' },
  { group: 'Octave', name: 'an octave higher' },
  { group: 'Chord voicing', name: 'the bass in octaves', words: 'thinner' },
];
const found = (typed: string): string[] => seek(things, typed).map(({ name }) => name);

describe('what is typed', () => {
  it('finds by heading, name and the other words that teachers use, the best first', () => {
    expect(found('octave')).toEqual(['an octave higher', 'the bass in octaves']);
    expect(found('arpeg')).toEqual(['broken chords']);
    expect(found('left broken')).toEqual(['broken chords']);
    expect(found('stac')).toEqual(['staccato']);
  });
  it('means all of its words, and the beginnings of words only', () => {
    expect(found('octave thinner')).toEqual(['the bass in octaves']);
    expect(found('ctave')).toEqual([]);
    expect(found('')).toHaveLength(4);
  });
  it('stands under headings while nothing is sought', () => {
    expect(underHeadings(things).map((g) => g.heading)).toEqual([
      'Articulation',
      'Left hand',
      'Octave',
      'Chord voicing',
    ]);
  });
});

describe('words that teachers use', () => {
  it.each([
    'figure',
    'arpeggio',
    'riff',
    'style',
    'introduction',
    'melody',
    'octave',
    'thinner',
    'easier',
    'hands',
  ])('%s finds a kind of choice', (typed) => {
    const kinds = allKinds().map(({ name, words }) => ({ group: name, name: '', words }));
    expect(seek(kinds, typed).length).toBeGreaterThan(0);
  });
});

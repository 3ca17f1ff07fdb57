import { describe, expect, it } from 'vitest';
import { filtered, filterOptions, NO_FILTER, type ListedPiece } from './filter';

const piece = (title: string, more: Partial<ListedPiece> = {}): ListedPiece => ({
  title,
  composer: '',
  levels: [],
  styles: [],
  learners: [],
  unsigned: 0,
  used: '',
  ...more,
});
const pieces = [
  piece('Low Gate', {
    key: 'C major',
    time: { beats: 3, beatType: 4 },
    levels: [{ level: 2 }],
    styles: ['solo'],
    idiom: 'waltz',
    used: '2026-01-02',
  }),
  piece('High Gate', {
    key: 'G major',
    time: { beats: 4, beatType: 4 },
    learners: ['Ilo'],
    unsigned: 1,
    used: '2026-03-01',
  }),
  piece('Slow Boat', {
    key: 'C major',
    time: { beats: 4, beatType: 4 },
    levels: [{ level: 2 }, { level: 4 }],
    composer: 'Low House',
  }),
];
const titles = (filter: Partial<typeof NO_FILTER>): string[] =>
  filtered(pieces, { ...NO_FILTER, ...filter }).map((p) => p.title);

describe('a list of pieces', () => {
  it('is searched by words of title and composer, and filtered by what pieces are', () => {
    expect(titles({})).toHaveLength(3);
    expect(titles({ text: 'gate low' })).toEqual(['Low Gate']);
    expect(titles({ text: 'LOW' })).toEqual(['Low Gate', 'Slow Boat']);
    expect(titles({ level: '4' })).toEqual(['Slow Boat']);
    expect(titles({ key: 'C major', metre: '4/4' })).toEqual(['Slow Boat']);
    expect(titles({ style: 'waltz' })).toEqual(['Low Gate']);
    expect(titles({ style: 'solo' })).toEqual(['Low Gate']);
    expect(titles({ learner: 'Ilo' })).toEqual(['High Gate']);
    expect(titles({ unsigned: true })).toEqual(['High Gate']);
  });
  it('has what was used last first, where that is wanted', () => {
    expect(titles({ lately: true })).toEqual(['High Gate', 'Low Gate', 'Slow Boat']);
  });
  it('offers only what some piece has', () => {
    const values = Object.fromEntries(
      filterOptions(pieces).map((o) => [o.key, o.values.map(([value]) => value)]),
    );
    expect(values).toMatchObject({
      level: ['2', '4'],
      key: ['C major', 'G major'],
      metre: ['3/4', '4/4'],
      learner: ['Ilo'],
    });
  });
  it('is searched by degrees of its chords, however they are written', () => {
    const sought = (text: string): string[] =>
      filtered(
        [
          { ...pieces[0]!, title: 'Loop', progression: '6 4 1 5 6 4 1 5'.split(' ') },
          { ...pieces[0]!, title: 'Blues', progression: '1 4 1 5 4 1'.split(' ') },
          { ...pieces[0]!, title: 'Bare' },
        ],
        { ...NO_FILTER, text },
      ).map((p) => p.title);
    expect(sought('6 4 1 5')).toEqual(['Loop']);
    expect(sought('V IV I')).toEqual(['Blues']);
    expect(sought('415')).toEqual(['Loop', 'Blues']);
    expect(sought('4 4 4')).toEqual([]);
    expect(sought('loop')).toEqual(['Loop']);
  });
});

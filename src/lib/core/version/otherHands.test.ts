/** Two versions in one: the right hand of one, the left hand of another. */
import { describe, expect, it } from 'vitest';
import { measureAt, soundingNotes } from '../score/query';
import type { Decision } from '../decisions/registry';
import { scoreFrom, withVoice } from '../test/shorthand';
import { documentOf, documentSchema, listed, type VersionDocument } from './document';
import { otherHandsText, withHandOf } from './otherHands';
import { recipeSchema } from './recipe';
import { realise, type Version } from './realise';

const piece = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right:
    'E4:1 G4:1 C5:2 | F4:1 A4:1 C5:2 | D4:1 F4:1 B4:2 | C5:4 | E4:1 G4:1 C5:2 | F4:1 A4:1 C5:2 | D4:1 F4:1 B4:2 | C5:4',
  chords: 'C | F | G | C | C | F | G | C',
  sections: { 1: 'Verse', 5: 'Chorus' },
});
const made = (document: VersionDocument): Version => realise(piece, document.recipe, listed(document));
const version = (level: number, decisions: Decision[] = [], key: string | null = 'C'): VersionDocument =>
  documentOf(recipeSchema.parse({ level, key }), decisions);
const picked = (document: VersionDocument, name = 'Fuller') => ({ version: 'v2', edit: 3, name, document });
/** What a hand strikes: where in which measure, and which key. */
const hand = ({ score }: Version, staff: number, from = 0, to = 7): string[] =>
  soundingNotes(score.parts[0]!.notes).flatMap((n) => {
    const { index, start } = measureAt(score.measures, n.onset);
    return n.staff === staff && index >= from && index <= to ? [`${index}+${n.onset - start}=${n.midi}`] : [];
  });
const CHORUS: [string, string] = ['m4', 'm7'];

describe('two versions in one', () => {
  const simple = version(1);
  const full = version(4, [{ kind: 'texture', at: { version: true }, value: 'broken-chord' }]);
  it('has the right hand of one and the left hand of the other', () => {
    const both = made(withHandOf(simple, 'left', picked(full), []));
    expect(hand(both, 1)).toEqual(hand(made(simple), 1));
    expect(hand(both, 2)).toEqual(hand(made(full), 2));
    expect(hand(both, 2)).not.toEqual(hand(made(simple), 2));
    expect(both.parked).toEqual([]);
    // Every note has a finger, whichever version it is from.
    expect(soundingNotes(both.score.parts[0]!.notes).every((n) => both.fingers[n.id])).toBe(true);
  });
  it('has the other hand in the chosen sections alone', () => {
    const both = made(withHandOf(simple, 'left', picked(full), [CHORUS]));
    expect(hand(both, 2, 0, 3)).toEqual(hand(made(simple), 2, 0, 3));
    expect(hand(both, 2, 4, 7)).toEqual(hand(made(full), 2, 4, 7));
  });
  it('takes a right hand too, and says where it is from', () => {
    const document = withHandOf(full, 'right', picked(simple, 'Basic'), [CHORUS]);
    expect(hand(made(document), 1, 4, 7)).toEqual(hand(made(simple), 1, 4, 7));
    expect(hand(made(document), 2)).toEqual(hand(made(full), 2));
    expect(document.recipe.otherHands[0]!.of).toEqual({ version: 'v2', edit: 3, name: 'Basic' });
    expect(otherHandsText(document.recipe.otherHands)).toBe('right hand of “Basic” in some sections');
    expect(otherHandsText(withHandOf(simple, 'left', picked(full), []).recipe.otherHands)).toBe(
      'left hand of “Fuller”',
    );
  });
  it('is in the key of the first, whatever the other is in', () => {
    const inG = version(4, listed(full), 'G');
    const both = made(withHandOf(simple, 'left', picked(inG), []));
    expect(hand(both, 2)).toEqual(hand(made(full), 2));
    const up = made(withHandOf(version(1, [], 'D'), 'left', picked(full), []));
    expect(hand(up, 2)).toEqual(hand(made(version(4, listed(full), 'D')), 2));
  });
  it('can be changed further, and keeps what the other hand has from a third', () => {
    const first = made(withHandOf(simple, 'left', picked(full), []));
    const note = soundingNotes(first.score.parts[0]!.notes).find((n) => n.staff === 2)!;
    const document = withHandOf(simple, 'left', picked(full), []);
    const moved = realise(piece, document.recipe, [{ kind: 'octave', at: { note: note.id }, value: -1 }]);
    expect(hand(moved, 2)[0]).toBe(`0+0=${note.midi - 12}`);
    const third = withHandOf(
      version(2),
      'left',
      picked(withHandOf(version(3), 'left', picked(full), [CHORUS])),
      [],
    );
    expect(third.recipe.otherHands).toHaveLength(2);
    expect(hand(made(third), 2, 4, 7)).toEqual(hand(made(full), 2, 4, 7));
    expect(hand(made(third), 2, 0, 3)).toEqual(hand(made(version(3)), 2, 0, 3));
  });
  it('is stored whole, and an older recipe has none', () => {
    const document = withHandOf(simple, 'left', picked(full), [CHORUS]);
    expect(documentSchema.parse(JSON.parse(JSON.stringify(document)))).toEqual(document);
    expect(recipeSchema.parse({ level: 2 }).otherHands).toEqual([]);
  });
  it('takes a played introduction under a sing-along that has two measures before it', () => {
    const song = withVoice(piece, Array.from({ length: 8 }, () => 'C5:4').join(' | '));
    const sung = documentOf(recipeSchema.parse({ level: 2, style: 'sing-along', introduction: 2 }));
    const { recipe } = withHandOf(sung, 'left', picked(full), []);
    const both = realise(song, recipe, []);
    expect(both.introduction).toBe(2);
    expect(hand(both, 2, 0, 9).length).toBeGreaterThan(hand(both, 2, 2, 9).length);
  });
});

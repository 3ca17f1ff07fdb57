import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Decision } from '../decisions/registry';
import { documentOf, listed, type VersionDocument } from '../version/document';
import { DEFAULT_RECIPE } from '../version/recipe';
import { editing, editTo, meet, patched, patching } from './edit';
import { historyOf, type EditKind } from './history';
import { editText } from './sentence';

const finger = (note: string, value: 1 | 2 | 3 | 4 | 5): Decision => ({
  kind: 'finger',
  at: { note },
  value,
});
const start = documentOf(DEFAULT_RECIPE, [finger('m0n0', 2)]);
const deciding = (decision: Decision, subject: string) =>
  editing(start, (draft) => void (draft.decisions[subject] = decision));

const anyDocument = fc
  .record({
    level: fc.constantFrom(1, 2, 3),
    key: fc.constantFrom(null, 'C', 'F#m'),
    notes: fc.uniqueArray(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.constantFrom(1, 2, 3)), {
      selector: ([note]) => note,
    }),
  })
  .map(({ notes, ...recipe }) =>
    documentOf(
      { ...DEFAULT_RECIPE, ...recipe },
      notes.map(([note, value]) => finger(note, value as 1)),
    ),
  );
const sorted = (document: VersionDocument) => ({
  ...document,
  decisions: listed(document)
    .map((d) => JSON.stringify(d))
    .sort(),
});

describe('an edit', () => {
  it('is kept as the schema reads it: nothing that it does not know', () => {
    const value = JSON.parse(
      '{"kind":"finger","at":{"note":"m1n0"},"value":3,"__proto__":{"evil":1}}',
    ) as unknown;
    const { document, patches } = patching(start, [
      { op: 'add', path: ['decisions', 'finger m1n0'], value },
      { op: 'add', path: ['recipe', 'more'], value: 'than there is' },
      { op: 'replace', path: ['recipe', 'level'], value: 3 },
    ]);
    expect(document.recipe).toEqual({ ...DEFAULT_RECIPE, level: 3 });
    expect(document.decisions['finger m1n0']).toEqual(finger('m1n0', 3));
    expect(JSON.stringify(patches)).not.toMatch(/more|proto|evil/);
    expect(patched(start, patches)).toEqual(document);
    expect(patching(start, [{ op: 'add', path: ['recipe', 'more'], value: 1 }]).patches).toEqual([]);
  });
  it('law: goes from any document to any other and back', () => {
    fc.assert(
      fc.property(anyDocument, anyDocument, (from, to) => {
        const { patches, inverse, document } = editTo(from, to);
        expect(sorted(document)).toEqual(sorted(to));
        if (patches.length === 0) return;
        expect(sorted(patched(from, patches))).toEqual(sorted(to));
        expect(sorted(patched(to, inverse))).toEqual(sorted(from));
      }),
    );
  });
  it('of one finger is small, whatever else is decided', () => {
    const many = documentOf(
      DEFAULT_RECIPE,
      Array.from({ length: 600 }, (_, i) => finger(`m${i}n0`, 3)),
    );
    const { patches, inverse } = editing(
      many,
      (draft) => void (draft.decisions['finger x'] = finger('x', 1)),
    );
    expect(JSON.stringify([patches, inverse]).length).toBeLessThan(220);
  });
  it('that makes no document of it is refused', () => {
    expect(() => patched(start, [{ op: 'replace', path: ['recipe', 'level'], value: 99 }])).toThrow();
    expect(() =>
      patched(start, [{ op: 'add', path: ['decisions', 'finger y'], value: finger('x', 1) }]),
    ).toThrow('stored under the wrong place');
  });
  it('meets another where both touch the same decision or setting', () => {
    const one = deciding(finger('x', 1), 'finger x').patches;
    expect(meet(one, deciding(finger('x', 2), 'finger x').patches)).toBe(true);
    expect(meet(one, deciding(finger('y', 2), 'finger y').patches)).toBe(false);
    const level = editing(start, (draft) => void (draft.recipe.level = 3)).patches;
    expect(meet(one, level)).toBe(false);
  });
  it('says what it did', () => {
    expect(editText(start, documentOf(DEFAULT_RECIPE))).toBe('reset finger 2');
    expect(editText(start, documentOf({ ...DEFAULT_RECIPE, level: 4, key: 'Eb' }, [finger('m0n0', 5)]))).toBe(
      'level 4, E♭ major, finger 5',
    );
    const many = documentOf(
      DEFAULT_RECIPE,
      [1, 2, 3, 4, 5].map((i) => finger(`m${i}n0`, 1)),
    );
    expect(editText(documentOf(DEFAULT_RECIPE), many)).toBe('finger 1, finger 1, finger 1 and 2 more');
  });
});

describe('undo and redo', () => {
  let number = 0;
  const change = (): EditKind => ({ number: ++number, undoes: null, redoes: null });
  const undo = (of: EditKind): EditKind => ({ number: ++number, undoes: of.number, redoes: null });
  const redo = (of: EditKind): EditKind => ({ number: ++number, undoes: null, redoes: of.number });
  const [a, b] = [change(), change()];
  it('take back the last change first, and bring the last one back first', () => {
    expect(historyOf([])).toEqual({ undo: undefined, redo: undefined });
    expect(historyOf([a, b])).toEqual({ undo: b.number, redo: undefined });
    expect(historyOf([a, b, undo(b)])).toEqual({ undo: a.number, redo: b.number });
    expect(historyOf([a, b, undo(b), undo(a)])).toEqual({ undo: undefined, redo: a.number });
    expect(historyOf([a, b, undo(b), undo(a), redo(a)])).toEqual({ undo: a.number, redo: b.number });
    expect(historyOf([a, b, undo(b), undo(a), redo(a), redo(b)])).toEqual({
      undo: b.number,
      redo: undefined,
    });
  });
  it('a new change makes what was undone stale', () => {
    const c = change();
    expect(historyOf([a, b, undo(b), c])).toEqual({ undo: c.number, redo: undefined });
    expect(historyOf([a, b, undo(b), c, undo(c)])).toEqual({ undo: a.number, redo: c.number });
  });
});

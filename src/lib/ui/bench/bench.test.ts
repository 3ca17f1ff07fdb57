/** The bench without a browser: a store that keeps edits in memory, and the real engine in place of the worker. */
import { describe, expect, it, vi } from 'vitest';
import { LEVELS } from '$core/arrange/levels';
import { KINDS } from '$core/decisions/registry';
import { patching, type Patch } from '$core/edits/edit';
import { historyOf, type EditKind } from '$core/edits/history';
import { forgetStages, stagesRun } from '$core/pipeline/memo';
import { scoreFrom } from '$core/test/shorthand';
import { documentOf, type VersionDocument } from '$core/version/document';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { Engine, fromFirst, type Listener } from '$ui/worker/engine';
import { perform, type Intent } from './commands';
import { keyText } from '$ui/form/press';
import { KEYS, meaningOf } from './keys';
import { BenchState } from './state/bench.svelte';
import { AWAY, type EditStore, type SavedAnswer } from './state/store';
import { struckNotes } from './walk';

const song = scoreFrom({
  key: 'G',
  time: { beats: 4, beatType: 4 },
  right: Array(4).fill('D4:1 G4:1 B4:2 | C5:2 A4:2 | B4:1 A4:1 G4:2 | D5:4').join(' | '),
  left: Array(4).fill('[G2 D3 B3]:4 | C3:4 | D3:4 | [G2 D3]:4').join(' | '),
  chords: Array(4).fill('G | C | D | G').join(' | '),
});
const start = documentOf({ ...DEFAULT_RECIPE, level: 3 });
const show = { width: 800, fingers: true, counts: true, chords: true };

/** What the server does, in memory; `away` makes it unreachable. */
class MemoryStore implements EditStore {
  away = false;
  document: VersionDocument = start;
  edits: (EditKind & { patches: Patch; inverse: Patch })[] = [];

  #answer(document?: VersionDocument, refused?: string): SavedAnswer {
    const { undo, redo } = historyOf(this.edits);
    return {
      edit: this.edits.length,
      canUndo: undo !== undefined,
      canRedo: redo !== undefined,
      ...(document ? { document } : {}),
      ...(refused ? { refused } : {}),
    };
  }
  #add(patches: Patch, undoes: number | null = null, redoes: number | null = null): void {
    const { document, inverse } = patching(this.document, patches);
    this.document = document;
    this.edits.push({ number: this.edits.length + 1, undoes, redoes, patches, inverse });
  }
  async save(patches: Patch, basedOn: number): Promise<SavedAnswer> {
    if (this.away) throw new Error(AWAY);
    if (basedOn !== this.edits.length) return this.#answer(this.document, 'changed in another window');
    this.#add(patches);
    return this.#answer();
  }
  async step(which: 'undo' | 'redo'): Promise<SavedAnswer> {
    const number = historyOf(this.edits)[which]!;
    const target = this.edits[number - 1]!;
    if (which === 'undo') this.#add(target.inverse, number);
    else this.#add(target.patches, null, number);
    return this.#answer(this.document);
  }
  async now(): Promise<SavedAnswer> {
    return this.#answer(this.document);
  }
}

async function bench() {
  const store = new MemoryStore();
  const engine = new Engine();
  await engine.open(song, LEVELS);
  const music = {
    show: engine.show.bind(engine),
    explain: async (n: string, m: number) => engine.explain(n, m),
    hear: async (d: VersionDocument, from: number, to: number) => engine.hear(d, from, to),
    picture: engine.picture.bind(engine),
    patternInSource: async (m: string, staff: number) => engine.patternInSource(m, staff),
  };
  const state = new BenchState(
    { document: start, edit: 0, canUndo: false, canRedo: false, levels: LEVELS, show },
    store,
    async () => music,
  );
  await state.display();
  const press = (key: string, modifiers: Partial<KeyboardEvent> = {}): void => {
    const intent = meaningOf({
      key,
      ctrlKey: false,
      metaKey: false,
      shiftKey: false,
      altKey: false,
      ...modifiers,
    });
    if (intent) perform(state, intent);
  };
  const settled = async (): Promise<void> => {
    await state.document.save();
    await state.display();
  };
  return { state, store, press, settled };
}

describe('keys', () => {
  const means = (key: string, modifiers: Partial<KeyboardEvent> = {}): Intent | undefined =>
    meaningOf({ key, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...modifiers });
  it('mean intents, whatever the keyboard calls them', () => {
    expect(means('4')).toEqual({ do: 'decide by key', kind: 'finger', press: '4' });
    expect(means('0')).toEqual({ do: 'give note back' });
    expect(means('ArrowLeft', { ctrlKey: true })).toEqual({ do: 'move', move: 'previous-measure' });
    expect(means('ArrowLeft', { shiftKey: true })).toEqual({ do: 'extend', move: 'previous' });
    expect(means('#', { shiftKey: true })).toEqual({ do: 'decide by key', kind: 'pitch', press: '#' });
    expect(means('Z', { metaKey: true, shiftKey: true })).toEqual({ do: 'redo' });
    expect(means('T')).toEqual({ do: 'decide by key', kind: 'texture', press: 't' });
    for (const [key, modifiers] of [
      ['6', {}],
      ['3', { ctrlKey: true }],
      ['3', { altKey: true }],
      ['q', {}],
    ] as const)
      expect(means(key, modifiers)).toBeUndefined();
  });
  it('are all listed, those of every kind too, and none twice', () => {
    for (const kind of KINDS)
      for (const key of kind.keys ?? []) expect(KEYS.map((k) => k.press)).toContain(key.press);
    expect(new Set(KEYS.map((k) => k.press)).size).toBe(KEYS.length);
    expect(keyText('Ctrl+Shift+z')).toBe('Ctrl Shift Z');
    expect(keyText('Shift+ArrowLeft')).toBe('Shift ←');
  });
});

describe('on the bench', () => {
  it('a finger is decided by its key, saved, and given back', async () => {
    const { state, store, press, settled } = await bench();
    const note = state.selection.id!;
    press('4');
    await settled();
    expect(state.view.version!.fingers[note]).toEqual({ finger: 4, decided: true });
    expect(store.document.decisions).toEqual(state.document.current.decisions);
    press('0');
    await settled();
    expect(state.document.decisions).toEqual([]);
    expect(state.document.isSaved).toBe(true);
  });
  it('undo and redo are those of the store', async () => {
    const { state, press, settled } = await bench();
    press('4');
    press('5');
    await settled();
    await state.document.undo();
    expect(state.document.decisions.map((d) => d.value)).toEqual([4]);
    expect(state.document.canRedo).toBe(true);
    await state.document.redo();
    expect(state.document.decisions.map((d) => d.value)).toEqual([5]);
    await state.document.undo();
    press('2');
    await settled();
    expect(state.document.canRedo).toBe(false);
  });
  it('keys of a measure go through what fits there, and give it back at the end', async () => {
    const { state, press, settled } = await bench();
    const seen: unknown[] = [];
    for (let i = 0; i < 8; i++) {
      press('p');
      await settled();
      seen.push(state.document.decisions[0]?.value);
    }
    expect(seen.slice(0, 6)).toEqual(['none', 'harmony', 'lifted', 'low-to-chord', 'long', undefined]);
    press('t');
    expect(state.document.decisions.find((d) => d.kind === 'texture')).toMatchObject({
      at: { measure: 'm0' },
    });
  });
  it('what is decided for a section holds in it, and is given back where the section was moved', async () => {
    const { state, settled } = await bench();
    perform(state, { do: 'decide here', kind: 'counting', scope: 'section', value: 'takadimi' });
    await settled();
    expect(state.view.version!.counts[1]!.counts[0]!.say).toBe('ta');
    const { at } = state.document.decisions[0]!;
    expect(at).toHaveProperty('section');
    perform(state, { do: 'decide here', kind: 'counting', scope: 'section', value: undefined });
    expect(state.document.decisions).toEqual([]);
  });
  it('a walk keeps to the notes, and the measure follows', async () => {
    const { state, press } = await bench();
    expect(state.selection.measure).toBe(0);
    press('ArrowRight', { ctrlKey: true });
    expect(state.selection.measure).toBe(1);
    perform(state, { do: 'select measure', measure: 5 });
    expect(state.selection.measure).toBe(5);
    perform(state, { do: 'select note', note: 'nowhere' });
    expect(state.selection.measure).toBe(5);
    await state.explain();
    expect(state.view.answer).toMatchObject({ note: state.selection.id });
    expect(state.view.answer!.why!.text).toContain(' on ');
  });
  it('where the chosen note is left out, the hand stays where it was', async () => {
    const { state, press } = await bench();
    perform(state, { do: 'select measure', measure: 5 });
    press('ArrowRight');
    const { id, onset, staff } = state.selection.note!;
    press('Delete');
    await state.display();
    const now = state.selection.note!;
    expect(now.id).not.toBe(id);
    expect(now.staff).toBe(staff);
    const away = (n: { readonly onset: number }): number => Math.abs(n.onset - onset);
    for (const other of struckNotes(state.view.version!.score.parts[0]!.notes))
      if (other.staff === staff) expect(away(now)).toBeLessThanOrEqual(away(other));
  });
  it('while the server is away the work stays, and is saved when it is back', async () => {
    const { state, store, press } = await bench();
    store.away = true;
    press('4');
    await state.document.save();
    expect(state.document.saving).toEqual({ is: 'failed', why: AWAY, isWaiting: true });
    press('5');
    await state.document.save();
    expect(store.edits).toHaveLength(0);
    store.away = false;
    await state.document.save();
    expect(store.edits).toHaveLength(2);
    expect(state.document.isSaved).toBe(true);
  });
  it('what another window saved is shown: on a refusal, and when the window is come back to', async () => {
    const { state, store, press } = await bench();
    await store.save([{ op: 'replace', path: ['recipe', 'level'], value: 2 }], 0);
    press('4');
    await state.document.save();
    expect(state.document.saving).toMatchObject({ is: 'failed' });
    expect(state.document.recipe.level).toBe(2);
    const { state: other, store: shared } = await bench();
    await shared.save([{ op: 'replace', path: ['recipe', 'key'], value: 'D' }], 0);
    await other.document.catchUp();
    expect(other.document.recipe.key).toBe('D');
    expect(other.document.canUndo).toBe(true);
  });
});

describe('the engine', () => {
  const listening = () => {
    const heard: string[] = [];
    const listener: Listener = {
      version: () => heard.push('version'),
      picture: (phrase) => heard.push(`picture ${phrase}`),
      failed: (why) => heard.push(why),
      doing: (stage) => heard.push(`doing ${stage}`),
    };
    return { heard, listener };
  };
  const opened = async (): Promise<Engine> => {
    const engine = new Engine();
    await engine.open(song, LEVELS);
    return engine;
  };
  const deciding = (note: string) => documentOf(start.recipe, [{ kind: 'finger', at: { note }, value: 5 }]);

  it('draws the phrase in hand first, and after a finger only the phrase of the finger', async () => {
    const engine = await opened();
    const { heard, listener } = listening();
    await engine.show({ document: start, show, first: 2 }, listener);
    expect(heard.slice(0, 2)).toEqual(['version', 'picture 2']);
    expect(heard).toHaveLength(5);
    heard.length = 0;
    const stages = stagesRun(() => undefined);
    expect(stages).toEqual([]);
    await engine.show({ document: deciding('m5s1n0'), show, first: 1 }, listener);
    expect(heard.slice(0, 2)).toEqual(['picture 1', 'version']);
  });
  it('says what long work is at, and nothing of what is quick', async () => {
    const { heard, listener } = listening();
    let now = 0;
    const clock = vi.spyOn(performance, 'now').mockImplementation(() => (now += 300));
    try {
      forgetStages();
      await (await opened()).show({ document: start, show, first: 0 }, listener);
    } finally {
      clock.mockRestore();
    }
    // The first stages are over before patience is.
    expect(heard[0]).not.toBe('doing analyse');
    expect(heard).toContain('doing fingers');
    expect(heard.indexOf('version')).toBeGreaterThan(heard.indexOf('doing fingers'));
    const { heard: quick, listener: quickly } = listening();
    await (await opened()).show({ document: deciding('m5s1n0'), show, first: 0 }, quickly);
    expect(quick.filter((h) => h.startsWith('doing'))).toEqual([]);
  });
  it('does not compute what a newer wish has overtaken', async () => {
    const engine = await opened();
    const [old, young] = [listening(), listening()];
    const first = engine.show({ document: deciding('m1s1n0'), show, first: 0 }, old.listener);
    const second = engine.show({ document: deciding('m2s1n0'), show, first: 0 }, young.listener);
    expect(await Promise.all([first, second])).toEqual([false, true]);
    expect(old.heard).toEqual([]);
    expect(young.heard[0]).toBe('version');
  });
  it('says what went wrong', async () => {
    const { heard, listener } = listening();
    await new Engine().show({ document: start, show, first: 0 }, listener);
    expect(heard).toEqual(['The piece has not arrived yet.']);
  });
  it('goes round from the first place', () => expect(fromFirst(4, 2)).toEqual([2, 3, 0, 1]));
});

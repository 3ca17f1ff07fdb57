/** The page's own thread for music: everything is checked where it comes in. */
import { NOTE_NAMINGS } from '$core/locale';
import { nameNotesAs } from '$core/theory/noteNames';
import { levelsSchema } from '$core/arrange/levels';
import { documentSchema } from '$core/version/document';
import type { Score } from '$core/score/score';
import { engrave } from '$lib/engrave/engrave';
import { sheetOptionsSchema, sheetSchema } from '$lib/engrave/sheet';
import { expose, wrap, type Remote } from 'comlink';
import { z } from 'zod';
import type { EngraveService } from './engrave.worker';
import { Engine, type Listener } from './engine';

const wishSchema = z.object({ document: documentSchema, show: sheetOptionsSchema, first: z.number().int() });
const voiceSchema = z.custom<Parameters<Engine['keys']>[1]>((value) => typeof value === 'object').nullable();

/** A second thread that only engraves: loading a phrase costs the engraver most, so two phrases are drawn at a time. */
let helper: Remote<EngraveService> | undefined;
let isHelping = false;

function callHelper(): void {
  if (helper) return;
  helper = wrap<EngraveService>(
    new Worker(new URL('./engrave.worker.ts', import.meta.url), { type: 'module' }),
  );
  // It is asked for nothing before its engraver is compiled.
  void helper.ready().then(
    () => (isHelping = true),
    () => undefined,
  );
}

const engine = new Engine({
  // The helper has a sheet more than it draws: this thread is slow to hand it the next while it draws one itself.
  lanes: () => (isHelping ? [0, 1, 1] : [0]),
  async draw(sheet, lane) {
    if (lane === 1 && helper) return helper.draw(sheet);
    const svg = await engrave(sheet);
    callHelper();
    return svg;
  },
});

const fetched = async (url: string): Promise<Score> => {
  const response = await fetch(url);
  if (!response.ok) throw new Error('The piece could not be fetched.');
  return (await response.json()) as Score;
};

const place = z.number().int().min(0);

/** What the page can ask for. */
const service = {
  /** What notes are called from now on. */
  name(naming: unknown): void {
    nameNotesAs(z.enum(NOTE_NAMINGS).parse(naming));
  },
  /** Fetches a piece and keeps it. */
  async open(url: string, levels: unknown): Promise<void> {
    await engine.open(fetched(z.string().startsWith('/').parse(url)), levelsSchema.parse(levels));
  },
  show: (wish: unknown, listener: Listener) => engine.show(wishSchema.parse(wish), listener),
  make: (document: unknown) => engine.make(documentSchema.parse(document)),
  explain: (note: unknown, measure: unknown) =>
    engine.explain(z.string().max(80).parse(note), z.number().int().min(0).parse(measure)),
  hear: (document: unknown, from: unknown, to: unknown) =>
    engine.hear(documentSchema.parse(document), place.parse(from), place.parse(to)),
  picture: (document: unknown, show: unknown, phrase: unknown) =>
    engine.picture(documentSchema.parse(document), sheetOptionsSchema.parse(show), place.parse(phrase)),
  patternInSource: (measure: unknown, staff: unknown) =>
    engine.patternInSource(z.string().max(80).parse(measure), place.parse(staff)),
  keys: (document: unknown, voice: unknown, songRange: unknown = null) =>
    engine.keys(documentSchema.parse(document), voiceSchema.parse(voice), voiceSchema.parse(songRange)),
  /** A sheet that the page has made. */
  draw: (sheet: unknown) => engrave(sheetSchema.parse(sheet)),
};

export type MusicService = typeof service;

expose(service);

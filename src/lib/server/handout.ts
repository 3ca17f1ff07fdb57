/** What handout pages of versions and of classes share: reading what is chosen, pages, and files to take away. */
import { choicesSchema, SHEET_IDS, type Choices } from '$lib/paper/choices';
import { zipSync } from 'fflate';
import { LRUCache } from 'lru-cache';
import { z } from 'zod';
import { db } from './db';
import { perOpening } from './db/opening';
import { download, fileName } from './download';
import { work } from './pool';
import type { Asked, JobOutput } from './pool/work';
import { contentKey } from './studio/contentKey';
import { studioLevels } from './studio/levels';
import { imprintOf } from './studio/paper';
import type { PaperAsked, PaperFor } from './studio/paperMusic';
import { findPiece, isLongPiece } from './studio/pieces';
import { preparedKey } from './studio/prepared';

/** A checkbox of a form. */
const isOn = (form: FormData, name: string): boolean => form.get(name) === 'on';

/** What a form chooses: sheets in the order of their places, each with its copies. */
export function choicesIn(form: FormData): ReturnType<typeof choicesSchema.safeParse> {
  const text = (name: string): string => String(form.get(name) ?? '');
  const sheets = SHEET_IDS.filter((sheet) => isOn(form, `sheet-${sheet}`))
    .map((sheet) => ({
      sheet,
      copies: Number(text(`copies-${sheet}`) || 1),
      place: Number(text(`place-${sheet}`)),
    }))
    .sort((a, b) => a.place - b.place)
    .map(({ sheet, copies }) => ({ sheet, copies }));
  const words = text('words');
  const keys = form.getAll('keys').map(String);
  return choicesSchema.safeParse({
    sheets,
    paper: text('paper'),
    size: text('size'),
    fingers: text('fingers'),
    names: text('names'),
    repeats: text('repeats'),
    words: /^\d$/.test(words) ? Number(words) : words,
    counts: isOn(form, 'counts'),
    chords: isOn(form, 'chords'),
    pedal: isOn(form, 'pedal'),
    map: isOn(form, 'map'),
    decided: isOn(form, 'decided'),
    keys: keys.includes('all') ? 'all' : keys.filter((k) => k !== ''),
  });
}

const asked = (sources: readonly PaperFor[], choices: Choices): PaperAsked => ({
  for: sources,
  choices,
  imprint: imprintOf(db()),
});

/** Pages of an answer at most, so that nobody takes the memory of everybody. */
const MOST = 24;

const range = z.object({
  from: z.coerce.number().int().min(0).max(5000).catch(0),
  to: z.coerce.number().int().min(1).max(5000).catch(MOST),
});

/** The pages that an address asks for with `?from=` and `?to=`, and how many there are. */
export function pagesOf(sources: readonly PaperFor[], choices: Choices, about: Asked, url: URL) {
  const { from, to } = range.parse(Object.fromEntries(url.searchParams));
  return work(
    'paper',
    { ...asked(sources, choices), from, to: Math.min(from + MOST, to) },
    { ...about, isPaper: true },
  );
}

type Beginning = JobOutput<'paperBeginning'>;

/** First pages that were laid out lately or ahead, each about a hundred kilobytes. */
const MOST_BEGINNINGS = 20;
const beginningsOf = perOpening(() => new LRUCache<string, Beginning>({ max: MOST_BEGINNINGS }));

/** The first pages, soon: laid out now, or known already. */
export async function beginningOf(
  sources: readonly PaperFor[],
  choices: Choices,
  about: Asked,
  pages = 1,
): Promise<Beginning> {
  const input = { ...asked(sources, choices), pages };
  const pieces = sources.map(({ pieceId }) => [preparedKey(db(), pieceId), findPiece(db(), pieceId)?.rights]);
  const key = contentKey(input, pieces, studioLevels(db()));
  const beginnings = beginningsOf(db());
  const known = beginnings.get(key);
  if (known) return known;
  const made = await work('paperBeginning', input, { ...about, isPaper: true });
  beginnings.set(key, made);
  return made;
}

/** Pages of a long piece for who has no script: to lay all of it out takes longer than anybody waits for a page. */
const OF_LONG = 8;

/** What comes with the HTML: the first page, soon; with `?whole`, for who has no script, as many as one answer holds. */
export async function firstPages(sources: readonly PaperFor[], choices: Choices, about: Asked, url: URL) {
  if (sources.length === 0) return { pages: [], count: 0 };
  const isLong = sources.some(({ pieceId }) => isLongPiece(db(), pieceId));
  if (url.searchParams.has('whole') && !isLong) return pagesOf(sources, choices, about, url);
  const most = url.searchParams.has('whole') ? OF_LONG : 1;
  return { pages: await beginningOf(sources, choices, about, most), count: null };
}

/** All of it as one PDF, or one of each learner in a zip. */
export async function paperDownload(
  sources: readonly PaperFor[],
  choices: Choices,
  about: Asked,
  inZip: { readonly name: string } | null,
): Promise<Response> {
  if (!inZip) {
    const { name, bytes } = await work('pdf', asked(sources, choices), { ...about, isPaper: true });
    return download(`${name}.pdf`, 'application/pdf', bytes);
  }
  const files: Record<string, Uint8Array> = {};
  for (const { name, bytes } of await work('pdfs', asked(sources, choices), {
    ...about,
    isPaper: true,
  })) {
    let file = fileName(`${name}.pdf`);
    for (let n = 2; files[file]; n++) file = fileName(`${name} ${n}.pdf`);
    files[file] = bytes;
  }
  // What a PDF holds is packed already.
  return download(`${inZip.name}.zip`, 'application/zip', zipSync(files, { level: 0 }));
}

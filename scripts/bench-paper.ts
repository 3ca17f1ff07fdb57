/** `npm run bench:paper`: handouts of the demo studio on the built server, as pages and as PDF, with the sizes of their pages. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { openDatabase } from '../src/lib/server/db/open';
import { fillDemoStudio } from '../src/lib/server/studio/demo/fill';
import { keepPaper } from '../src/lib/server/studio/paper';
import { listPieces } from '../src/lib/server/studio/pieces';
import { listVersions } from '../src/lib/server/studio/versions';
import { choicesSchema, type Choices } from '../src/lib/paper/choices';
import { print, startServer, type Line } from './builtServer';

const PORT = 5193;
const folder = mkdtempSync(join(tmpdir(), 'keypath-paper-'));
const db = openDatabase(folder, 'drizzle');
fillDemoStudio(db);
const versionsOf = (title: string) =>
  listVersions(db, listPieces(db).find((p) => p.title === title)!.id).map((v) => v.id);
const [warming, ...others] = versionsOf('Kite Weather');
const [hard] = versionsOf('Long Shadows at Low Tide');

const six: Choices = choicesSchema.parse({
  sheets: [{ sheet: 'score' }, { sheet: 'chords' }, { sheet: 'practice' }],
});
const twelve: Choices = choicesSchema.parse({ sheets: [{ sheet: 'chords' }], keys: 'all' });
for (const id of [warming!, ...others, hard!]) keepPaper(db, id, six);

const server = await startServer(folder, PORT);
const lines: Line[] = [];

async function pdf(id: string): Promise<{ ms: number; bytes: Uint8Array; pages: number }> {
  const began = performance.now();
  const answer = await fetch(`${server.url}/versions/${id}/handout/pdf`);
  const bytes = new Uint8Array(await answer.arrayBuffer());
  const ms = performance.now() - began;
  if (!answer.ok) throw new Error(`The PDF answers ${answer.status}.`);
  return { ms, bytes, pages: (await getDocument({ data: bytes.slice(), verbosity: 0 }).promise).numPages };
}

try {
  const first = await pdf(warming!);
  console.log(`The first after the start: ${first.pages} pages in ${first.ms.toFixed(0)} ms.`);
  // Versions that nobody has printed since the start; the engraver and the faces are there.
  let bytesPerPage = 0;
  for (const id of [...others.slice(0, 3), hard!]) {
    const made = await pdf(id);
    bytesPerPage = Math.max(bytesPerPage, made.bytes.length / made.pages / 1000);
    lines.push({
      what: `six pages (${made.pages} of version ${id})`,
      value: (made.ms / made.pages) * 6,
      unit: 'ms',
      below: 1500,
    });
  }
  const again = await pdf(hard!);
  lines.push({ what: `the same again (${again.pages} pages)`, value: again.ms, unit: 'ms', below: 1500 });
  const began = performance.now();
  const page = await (await fetch(`${server.url}/versions/${others[0]!}/handout`)).text();
  lines.push({ what: 'the page that shows them', value: performance.now() - began, unit: 'ms', below: 1500 });
  lines.push({
    what: 'a page as a picture',
    value:
      Math.max(
        ...page
          .split('page-of-paper')
          .slice(1)
          .map((p) => p.length),
      ) / 1000,
    unit: 'kB',
    below: 300,
  });

  keepPaper(db, others[0]!, twelve);
  const told = new Set<string>();
  let isDone = false;
  const path = `/versions/${others[0]!}/handout/pdf`;
  const watching = (async () => {
    while (!isDone) {
      const answer = await fetch(`${server.url}/working?for=${encodeURIComponent(path)}`);
      const what = await answer.text();
      if (answer.ok && what) told.add(what.slice(0, 60));
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
  })();
  const keys = await pdf(others[0]!);
  isDone = true;
  await watching;
  bytesPerPage = Math.max(bytesPerPage, keys.bytes.length / keys.pages / 1000);
  console.log(`Meanwhile it told: ${[...told].slice(0, 6).join(' | ')}`);
  lines.push({ what: `twelve keys (${keys.pages} pages)`, value: keys.ms, unit: 'ms', below: 8000 });
  lines.push({ what: 'a page of a PDF', value: bytesPerPage, unit: 'kB', below: 300 });
  print(lines);
} finally {
  await server.stop();
  rmSync(folder, { recursive: true });
}

/** Small files that are much work, brought one after the other, while somebody opens pages: what these wait for. */
import { median, type Line } from '../builtServer';
import { must, windowOn } from './client';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const abc = (title: string, body: string): Uint8Array =>
  bytesOf(`X:1\nT:${title}\nM:2/4\nL:1/8\nK:G\n${body}|]\n`);

const FILES: readonly (readonly [name: string, bytes: Uint8Array])[] = [
  ['measures.abc', abc('Thousands of measures', 'GABc dBAG|'.repeat(3700))],
  ['chords.abc', abc('Thousands of chords', '"G"[GBd]2 "D7"[FAc]2 "Em"[EGB]2 "C"[CEG]2|'.repeat(900))],
  ['sixteenths.abc', abc('Sixteenths', 'G/A/B/c/ d/c/B/A/ G/A/B/c/ d/c/B/A/|'.repeat(1200))],
  ['chart.pro', bytesOf(`{title: A long chart}\n${'[C]la [G7]la [Am]la [F]la\n'.repeat(900)}`)],
];

/** Brings each, opens its page and a version of it; the lines say what others waited. */
export async function heavy(url: string, pages: readonly string[]): Promise<Line[]> {
  const bringer = windowOn(url, 'bringer-window');
  const other = windowOn(url, 'other-window');
  const lines: Line[] = [];
  for (const [name, bytes] of FILES) {
    const waits: number[] = [];
    let isDone = false;
    const others = (async () => {
      while (!isDone)
        for (const page of pages) {
          const began = performance.now();
          must((await other.get(page)).status < 500, `${page} failed meanwhile`);
          waits.push(performance.now() - began);
          await new Promise((resolve) => setTimeout(resolve, 40));
        }
    })();
    try {
      const kept = await bringer.file('/pieces?/keep', name, bytes);
      const piece = /\/pieces\/[\w-]+/.exec(JSON.stringify(kept.body))?.[0];
      must(piece !== undefined, `${name} was not kept`, kept);
      for (const page of [piece, '/pieces'])
        must((await bringer.get(page)).status === 200, `${page} of ${name}`);
      const made = await bringer.form(`${piece}?/version`, { level: '2' });
      const version = /\/versions\/[\w-]+/.exec(JSON.stringify(made.body))?.[0];
      must(version !== undefined, `No version of ${name}`, made);
      must((await bringer.get(version)).status < 500, `The bench of ${name} failed without a sentence`);
    } finally {
      isDone = true;
      await others;
    }
    lines.push(
      {
        what: `${name}, ${Math.round(bytes.length / 1000)} kB: others at the worst`,
        value: Math.max(...waits),
        unit: 'ms',
        below: 300,
      },
      { what: '   and at the median', value: median(waits), unit: 'ms', below: 50 },
    );
  }
  return lines;
}

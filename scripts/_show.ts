import { readFileSync } from 'node:fs';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { realise } from '../src/lib/core/version/realise';
import { recipeSchema } from '../src/lib/core/version/recipe';
import { soundingNotes } from '../src/lib/core/score/query';
import { endOf } from '../src/lib/core/score/metre';
import { pitchName } from '../src/lib/core/score/pitch';
import { chordSymbol } from '../src/lib/core/theory/chord';
const [f, levels, from, to] = [
  process.argv[2]!,
  process.argv[3]!,
  Number(process.argv[4] ?? 0),
  Number(process.argv[5] ?? 999),
];
const score = readScoreFile(f, new Uint8Array(readFileSync(f))).score;
for (const level of levels.split(',').map(Number)) {
  const v = realise(score, recipeSchema.parse({ level }), []);
  console.log('== level', level, v.key ? JSON.stringify(v.key) : '');
  for (const m of v.score.measures) {
    if (Number(m.number) < from || Number(m.number) > to) continue;
    const q = 10080;
    const show = (staff: number) => {
      const by = new Map<number, string[]>();
      for (const n of soundingNotes(v.score.parts[0]!.notes.filter((x) => x.staff === staff)))
        if (n.onset >= m.start && n.onset < endOf(m))
          by.set(n.onset, [
            ...(by.get(n.onset) ?? []),
            pitchName(n.pitch) +
              (() => {
                const f = (v.score.parts[0]!.notes.find((x) => x.id === n.id) as any)?.finger;
                return f ? '-' + f : '';
              })(),
          ]);
      return [...by]
        .sort((a, b) => a[0] - b[0])
        .map(([o, ns]) => `${((o - m.start) / q).toFixed(2).replace(/\.?0+$/, '')}:${ns.join('+')}`)
        .join('  ');
    };
    const ch = v.score.chordSymbols
      .filter((c) => c.onset >= m.start && c.onset < endOf(m))
      .map((c) => `${(c.onset - m.start) / q}:${c.chord ? chordSymbol(c.chord) : 'NC'}`)
      .join(' ');
    console.log(`m${m.number} [${ch}]\n   R ${show(1)}\n   L ${show(2)}`);
  }
}

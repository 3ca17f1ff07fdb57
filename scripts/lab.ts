import { readFileSync } from 'node:fs';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { withParts } from '../src/lib/core/score/parts';
import { realise } from '../src/lib/core/version/realise';
import { DEFAULT_RECIPE } from '../src/lib/core/version/recipe';
import { soundingNotes, byOnset } from '../src/lib/core/score/query';
import { pitchName } from '../src/lib/core/score/pitch';
import { scoreOfWhole } from '../src/lib/core/difficulty/level';
import { keyName } from '../src/lib/core/theory/key';
import { chordSymbol } from '../src/lib/core/theory/chord';
const [file, levels, from = '0', to = '999', extra = '{}'] = process.argv.slice(2);
const read: any = await readScoreFile(file!, readFileSync(file!) as any);
const score = withParts(read.score ?? read);
for (const level of levels!.split(',').map(Number)) {
  const t = performance.now();
  const v = realise(score, { ...DEFAULT_RECIPE, level, ...JSON.parse(extra) } as any, []);
  const ms = performance.now() - t;
  const f = v.account.faith;
  console.log(
    `== L${level} ${keyName(v.key)} ${ms.toFixed(0)}ms diff ${scoreOfWhole(v.difficulty)} | ${v.accountText} | beats ${f.beatNotes.kept}/${f.beatNotes.of} bass ${f.basses.kept}/${f.basses.of} contour ${f.contour.kept}/${f.contour.of}`,
  );
  const viol = new Map<string, number>();
  for (const x of v.violations) viol.set(`${x.hand} ${x.limit}`, (viol.get(`${x.hand} ${x.limit}`) ?? 0) + 1);
  if (viol.size) console.log('  violations', Object.fromEntries(viol));
  const notes = soundingNotes(v.score.parts[0]!.notes);
  for (const m of v.score.measures.slice(Number(from), Number(to) + 1)) {
    const line = (staff: number) =>
      byOnset(notes.filter((n) => n.staff === staff && n.onset >= m.start && n.onset < m.start + m.length))
        .map(
          (g) =>
            `${(g.onset - m.start) / 10080}:${g.notes.map((n) => pitchName(n.pitch)).join('+')}/${g.notes[0]!.duration / 10080}`,
        )
        .join(' ');
    const ch = v.score.chordSymbols
      .filter((c) => c.onset >= m.start && c.onset < m.start + m.length)
      .map((c) => (c.chord ? chordSymbol(c.chord) : 'N'))
      .join(' ');
    console.log(`  ${m.number.padStart(3)} [${ch}] R ${line(1)}\n        L ${line(2)}`);
    if (process.env.WHY)
      for (const r of v.reasons.filter((r) => r.measure === m.index))
        console.log('          -', r.about, r.text);
  }
}

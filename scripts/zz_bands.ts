import { LEVELS } from '/work/main/src/lib/core/arrange/levels';
import { readFileSync, readdirSync } from 'node:fs';
import { readScoreFile } from '/work/main/src/lib/core/io/readScoreFile';
import { proposedParts, tunePhrases, withParts } from '/work/main/src/lib/core/players/parts';
import { realise } from '/work/main/src/lib/core/version/realise';
import { DEFAULT_RECIPE } from '/work/main/src/lib/core/version/recipe';
import { soundingNotes } from '/work/main/src/lib/core/score/query';
import { upperLine } from '/work/main/src/lib/core/analysis/melody';
if (process.env.DBG) (globalThis as any).DEBUG_TUNE = true;
const dir = process.argv[2]!; const only = process.argv[3] || undefined; const level = Number(process.argv[4] ?? 3);
for (const f of readdirSync(dir).filter((f) => /\.midi?$/i.test(f) && (!only || f.includes(only))).sort()) {
  try {
    const t0 = Date.now();
    const { score, warnings } = readScoreFile(f, readFileSync(`${dir}/${f}`));
    const choices = proposedParts(score);
    const parts = withParts(score, choices);
    const names = new Map(score.parts.map((p) => [p.id, `${p.name}(${p.instrument ?? '-'})`]));
    const tune = Object.values(choices.parts).includes('melody') ? tunePhrases(score, choices) : [];
    const v = realise(parts, { ...DEFAULT_RECIPE, level } as never, [], LEVELS);
    const ms = Date.now() - t0;
    const rh = upperLine(soundingNotes(v.score.parts[0]!.notes.filter((n) => n.staff === 1)));
    const leaps = rh.slice(1).filter((n, i) => Math.abs(n.midi - rh[i]!.midi) > 12).length;
    const ms_ = rh.map((n) => n.midi); const hi = ms_.filter((m) => m > 84).length, lo = ms_.filter((m) => m < 57).length;
    const empty = v.score.measures.filter((m) => !v.score.parts[0]!.notes.some((n) => n.staff === 1 && n.onset >= m.start && n.onset < m.start + m.length)).length;
    console.log(`${f.slice(0, 32).padEnd(32)} "${score.title.slice(0,24)}" m${score.measures.length} ${score.measures[0]!.time.beats}/${score.measures[0]!.time.beatType} parts${score.parts.length} rh ${rh.length} leaps ${leaps} range ${Math.min(...ms_)}-${Math.max(...ms_)} hi ${hi} lo ${lo} e ${empty} tempo ${Math.round(score.tempo)}+${score.tempoChanges?.length ?? 0}/${score.tempoChanges?.filter(t=>!t.isHeard).length??0} phrases ${tune.length} ${ms}ms`);
    if (process.env.LEAPS) { const mel = parts.parts.find((p) => p.role === 'melody')!; const tl = soundingNotes(mel.notes); const show = (l: any[]) => l.slice(1).map((n, i) => ({ n, b: l[i]! })).filter(({ n, b }) => Math.abs(n.midi - b.midi) > 12).map(({ n, b }) => `${(b.onset / 40320).toFixed(2)}:${b.midi}->${(n.onset / 40320).toFixed(2)}:${n.midi}`).join('  '); console.log('TUNE', show(upperLine(tl))); console.log('RH', show(rh)); console.log('folds', JSON.stringify((v as any).folds ?? '')); }
    if (process.env.EMPTY) { const sh = (p: any, i: number) => soundingNotes(p.notes).filter((n: any) => n.onset >= parts.measures[i]!.start && n.onset < parts.measures[i]!.start + parts.measures[i]!.length).length; const mel = parts.parts.find((p) => p.role === 'melody')!; console.log('melody per measure', parts.measures.map((_, i) => sh(mel, i)).join(' ')); for (const p of score.parts) console.log(p.name, parts.measures.map((_, i) => sh(p, i)).join(' ')); }
    if (only) { console.log(warnings.join(' | ')); for (const p of score.parts) console.log('  part', p.id, p.name, p.instrument, p.loudness?.toFixed(2), soundingNotes(p.notes).length, choices.parts[p.id]); for (const t of tune) console.log('  ', t.from + 1, t.to + 1, names.get(t.part)); }
  } catch (e) { console.log(f, 'ERR', (e as Error).message, (e as Error).stack?.split('\n')[1]); }
}

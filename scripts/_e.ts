import { chordsOf } from '../src/lib/core/analysis/harmony';
import { chordSymbol, sameChord } from '../src/lib/core/theory/chord';
import { keyOf } from '../src/lib/core/analysis/key';
import { keyName, parseKey } from '../src/lib/core/theory/key';
import { chordsIn, progressionScore, TEXTURES } from '../src/lib/core/test/progressions';
import { soundingNotes } from '../src/lib/core/score/query';
const MAJ = ['C Am F G', 'C F G7 C', 'C/E F G7 C', 'Dm7 G7 Cmaj7 Am7', 'C Em F Fm', 'C E7 Am D7 G C', 'F C/E Dm C', 'C G/B Am G', 'C Csus4 C G7sus4 G7 C', 'C Bm7b5 E7 Am', 'Bb F C C', 'D7 G7 C C', 'C Cdim7 Dm7 G7', 'C Caug F G', 'C F/C G/C C', 'C Bb/C F/C C', 'C6 Dm7 G7 C6', 'C Ab Bb C', 'C A7 D7 G7 C', 'C C/B Am F', 'Am F C G'];
const MIN = ['Am Dm E7 Am', 'Am G F E', 'Am F C G', 'Am Bdim E7 Am', 'Am Am/G F E7', 'Am D7 G E7 Am', 'Am Dm7 G7 C F Bm7b5 E7 Am'];
const total: Record<string, [number, number]> = {}; const bad: Record<string, number> = {};
for (const [list, keys] of [[MAJ, ['C', 'G', 'D', 'Bb', 'Eb', 'A', 'F#']], [MIN, ['Am', 'Em', 'Bm', 'Gm', 'Cm', 'F#m', 'Dm']]] as const)
  for (const code of keys) for (const names of list) for (const texture of TEXTURES) {
    const key = parseKey(code)!; const chords = chordsIn(names, key); const score = progressionScore(chords, code, texture);
    const spans = chordsOf(score);
    const t = (total[texture] ??= [0, 0]); const k = (total[`key ${texture}`] ??= [0, 0]);
    k[1]++; if (keyName(keyOf(score)) === keyName(key)) k[0]++; else if (texture==='block') console.log(names, code, keyName(keyOf(score)));
    chords.forEach((c, i) => {
      const m = score.measures[i]!; t[1]++;
      const inside = spans.filter((s) => s.onset < m.start + m.length && s.onset + s.duration > m.start);
      const ok = inside.length === 1 && sameChord(inside[0]!.chord, c);
      if (ok) t[0]++; else { const w = `${texture} ${chordSymbol(c)} (${names} in ${code}) → ${inside.map((s) => s.chord && chordSymbol(s.chord)).join(' ')}`; if (code === 'C' || code === 'Am') bad[w] = 1; }
    });
  }
console.log(Object.entries(total).map(([k, [a, b]]) => `${k}: ${a}/${b} ${((100 * a) / b).toFixed(1)}`).join('\n'));
if (process.argv.includes('-v')) console.log(Object.keys(bad).slice(0, 70).join('\n'));

import { readAbc } from '../src/lib/core/io/abc/read';
for (const t of ['X:1\nK:C\nCDEF| \u00b6 G4|\n','X:1\nK:C\n"Czz9"CDEF|"Fine" [CEG2 | {A c| (3:x:abc|"open\n','X:1\nR:waltz\nM:3/4\nL:1/4\nK:HP\n%%foo bar\nCDE|!zork!F2 G|\\\nw:~a b\n"Allegro"C3|\n'])
 { const r = readAbc(t); console.log(r.warnings, r.score.parts[0]?.marks, r.score.chordSymbols.length); }

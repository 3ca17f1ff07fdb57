import { scoreFrom } from '../src/lib/core/test/shorthand';
import { reportOf } from '../src/lib/core/analysis/report';
const four = { beats: 4, beatType: 4 };
function show(name: string, right: string, left: string, key = 'C', time = four) {
  const r = reportOf(scoreFrom({ key, time, right, left }));
  console.log(name.padEnd(26), r.progression.map((c) => `${c.measure + 1}.${c.beat}:${c.symbol}`).join(' '), r.shapes.length ? JSON.stringify(r.shapes) : '');
}
show('C6 alberti', 'E4:2 G4:2 | D5:2 B4:2 | E4:4', 'C3:0.5 A3:0.5 E3:0.5 G3:0.5 C3:0.5 A3:0.5 E3:0.5 G3:0.5 | G2:1 D3:1 F3:1 B3:1 | C3:1 G3:1 C3:2');
show('Cmaj7 broken', 'G4:2 E4:2 | A4:2 F4:2 | G4:4', 'C3:1 E3:1 G3:1 B3:1 | F2:1 A2:1 C3:1 E3:1 | C3:1 E3:1 G3:1 B3:1');
show('1-5-6-5', 'E4:2 G4:2 | F4:2 A4:2 | E4:4', 'C3:0.5 G3:0.5 A3:0.5 G3:0.5 C3:0.5 G3:0.5 A3:0.5 G3:0.5 | F2:0.5 C3:0.5 D3:0.5 C3:0.5 F2:0.5 C3:0.5 D3:0.5 C3:0.5 | C3:1 G3:1 C3:2');
show('Am7 broken', 'C5:2 E5:2 | D5:2 F5:2 | B4:2 G4:2 | C5:4', 'A2:1 E3:1 G3:1 C4:1 | D3:1 A3:1 C4:1 F4:1 | G2:1 D3:1 F3:1 B3:1 | C3:1 G3:1 B3:1 E4:1');
show('sixths broken', 'C5:2 D5:2 | E5:4 | D5:2 B4:2 | C5:4', 'E3:0.5 C4:0.5 E3:0.5 C4:0.5 F3:0.5 D4:0.5 F3:0.5 D4:0.5 | G3:0.5 E4:0.5 G3:0.5 E4:0.5 G3:0.5 E4:0.5 G3:0.5 E4:0.5 | F3:0.5 D4:0.5 F3:0.5 D4:0.5 G3:0.5 B3:0.5 G3:0.5 B3:0.5 | C3:4');
show('G7 rising no root top', 'B4:2 D5:2 | C5:4 | B4:2 F4:2 | E4:4', 'G2:0.5 B2:0.5 D3:0.5 F3:0.5 D3:0.5 B2:0.5 G2:0.5 B2:0.5 | C3:0.5 E3:0.5 G3:0.5 A3:0.5 G3:0.5 E3:0.5 C3:1 | G2:0.5 D3:0.5 F3:0.5 D3:0.5 G2:0.5 D3:0.5 F3:0.5 D3:0.5 | C3:4');
show('boogie 6', 'E4:1 G4:1 E4:1 C4:1 | E4:1 G4:1 E4:1 C4:1 | A4:1 C5:1 A4:1 F4:1 | E4:4', 'C3:0.5 E3:0.5 G3:0.5 A3:0.5 Bb3:0.5 A3:0.5 G3:0.5 E3:0.5 | C3:0.5 E3:0.5 G3:0.5 A3:0.5 Bb3:0.5 A3:0.5 G3:0.5 E3:0.5 | F3:0.5 A3:0.5 C4:0.5 D4:0.5 Eb4:0.5 D4:0.5 C4:0.5 A3:0.5 | C3:4');
show('Dm7 broken sev inner', 'A4:2 F4:2 | G4:2 D4:2 | E4:4', 'D3:0.5 C4:0.5 F3:0.5 C4:0.5 D3:0.5 C4:0.5 F3:0.5 C4:0.5 | G2:0.5 F3:0.5 B2:0.5 F3:0.5 G2:0.5 F3:0.5 B2:0.5 F3:0.5 | C3:0.5 G3:0.5 E3:0.5 G3:0.5 C3:2');
show('RH triads', '[C4 E4 G4]:4 | [E4 G4 C5]:4 | [G4 C5 E5]:4 | [F4 A4 C5]:4', 'C2:4 | C2:4 | C2:4 | F2:4');

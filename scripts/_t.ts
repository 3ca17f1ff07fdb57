import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { writeChordPro, writePlainChart } from '../src/lib/core/io/chart/write';
import { chordSymbol } from '../src/lib/core/theory/chord';
import { readFileSync } from 'node:fs';
for (const f of process.argv.slice(2)) {
  const { score, warnings } = readScoreFile(f, readFileSync(f));
  console.log(score.title, score.composer, score.tempo, warnings, score.parts.length);
  for (const m of score.measures)
    console.log(
      m.number,
      m.length / 10080,
      'at',
      m.beginsAt / 10080,
      `${m.time.beats}/${m.time.beatType}`,
      m.key.fifths,
      m.key.mode[0],
      m.section ?? '',
      m.repeatStart ? '|:' : '',
      m.repeatEnd ? ':|' : '',
      score.chordSymbols
        .filter((c) => c.onset >= m.start && c.onset < m.start + m.length)
        .map((c) => `${(c.onset - m.start) / 10080}:${c.chord ? chordSymbol(c.chord) : 'NC'}`)
        .join(' '),
      '«' +
        (score.parts[0]?.marks ?? [])
          .filter((c) => c.onset >= m.start && c.onset < m.start + m.length)
          .map((x) => ('text' in x ? x.text : ''))
          .join(' ¦ ') +
        '»',
    );
  console.log(writeChordPro(score));
  console.log(writePlainChart(score));
}

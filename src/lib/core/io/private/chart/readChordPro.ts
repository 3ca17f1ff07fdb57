/** ChordPro: chords in square brackets inside the words, directives in braces. */
import { InputError } from '../../inputError';
import type { Chart, ChartItem, ChartLine } from '../../chart/chart';
import { ChartHead, fieldsOf } from './head';
import { rowItems } from './rows';
import { isChordRow, looksLikeChord, sectionName, signInRow, signOf, tokensOf } from './words';

/** Directives that say something of the whole, by the names of its fields. */
const FIELD_OF: Readonly<Record<string, string>> = {
  title: 'title',
  t: 'title',
  composer: 'composer',
  artist: 'composer',
  subtitle: 'composer',
  st: 'composer',
  copyright: 'rights',
  key: 'key',
  time: 'time',
  tempo: 'tempo',
  capo: 'capo',
};

const DIRECTIVE = /^\s*\{\s*([a-zA-Z_-]+)\s*(?:[:\s]\s*([^}]*))?\}\s*$/;

/** What is left out of lines, as it is said. */
const TABLATURE = 'a line of tablature';
const REMARKS = 'a remark for the players';

/** Section that an environment opens, by the short and long forms of its name. */
const OPENS: Readonly<Record<string, string>> = { sov: 'Verse', soc: 'Chorus', sob: 'Bridge' };

/** Reads the text. Throws InputError with the line where it cannot be. */
export function readChordPro(text: string, warnings: string[]): Chart {
  const head = new ChartHead(warnings);
  const leftOut = new Map<string, number>();
  const leaveOut = (what: string): void => void leftOut.set(what, (leftOut.get(what) ?? 0) + 1);
  const sections: { name: string; lines: ChartLine[] }[] = [{ name: '', lines: [] }];
  let environment = '';
  /** Lines of words that were read with the chords above them. */
  const belowChords = new Set<number>();
  const lines = text.split('\n');
  const second = lines.findIndex((line, i) => i > 0 && /^\s*\{\s*(new_song|ns)\s*\}/.test(line));
  if (second > 0) warnings.push('The file holds several songs; the first is taken.');
  const taken = lines.slice(0, second > 0 ? second : lines.length);
  taken.forEach((raw, i) => {
    const line = i + 1;
    if (belowChords.has(i)) return;
    if (/^\s*#/.test(raw) || raw.trim() === '') return;
    const section = sectionName(raw);
    const directive = DIRECTIVE.exec(raw);
    if (directive) {
      const name = directive[1]!.toLowerCase();
      const value = (directive[2] ?? '').trim();
      const opened = /^start_of_(\w+)$/.exec(name)?.[1] ?? OPENS[name];
      const label = /label="([^"]*)"/.exec(value)?.[1] ?? value;
      const field = FIELD_OF[name];
      if (field) return head.take([field, value], line);
      switch (name) {
        case 'chorus':
          if (!repeatChorus(sections, label)) sections.push({ name: label || 'Chorus', lines: [] });
          return;
        case 'comment':
        case 'c':
        case 'ci':
        case 'comment_italic':
          if (sectionName(value) || sectionName(`${value}:`))
            sections.push({ name: value.replace(/:$/, ''), lines: [] });
          return;
      }
      if (opened) {
        environment = opened.toLowerCase();
        const usual =
          environment === 'grid' || environment === 'tab' ? '' : opened[0]!.toUpperCase() + opened.slice(1);
        if (label || usual) sections.push({ name: label || usual, lines: [] });
      } else if (/^(end_of_|eo)/.test(name)) {
        environment = '';
      } else if (value === '' && section) {
        sections.push({ name: section.name, lines: [] });
      } else if (/^(sog|start_of_grid)$/.test(name)) environment = 'grid';
      else if (/^(sot|start_of_tab)$/.test(name)) environment = 'tab';
      else if (!section && !/^(new_song|ns)$/.test(name)) leaveOut(`{${name}}`);
      return;
    }
    if (/^\s*\{/.test(raw) && !raw.includes('}'))
      throw new InputError(`Line ${line}: a directive begins with “{” and is not closed with “}”.`);
    if (environment === 'tab') return leaveOut(TABLATURE);
    if (environment === 'grid') {
      const items = gridItems(raw);
      sections.at(-1)!.lines.push({ items, line });
      return;
    }
    const fields = raw.includes('[') ? [] : fieldsOf(raw);
    if (fields.length > 0) return fields.forEach((field) => head.take(field, line));
    const named = raw.includes('[') && !/^\s*\[[^\]]+\]\s*:?\s*$/.test(raw) ? undefined : section;
    if (named && named.rest === '') {
      sections.push({ name: named.name, lines: [] });
      return;
    }
    if (!raw.includes('[') && isChordRow(raw)) {
      // Chords over words, as on paper.
      const below = taken[i + 1] ?? '';
      const hasWords =
        below.trim() !== '' && !/[[{]/.test(below) && !isChordRow(below) && !sectionName(below);
      sections.at(-1)!.lines.push({ items: rowItems(raw, hasWords ? below : ''), line });
      if (hasWords) belowChords.add(i + 1);
      return;
    }
    const { items, strange, remarks } = lineItems(raw);
    for (let k = 0; k < remarks; k++) leaveOut(REMARKS);
    for (const name of strange)
      warnings.push(`Line ${line}: [${name}] isn’t a chord and was read as lyrics.`);
    if (items.length > 0) sections.at(-1)!.lines.push({ items, line });
  });
  for (const [what, count] of leftOut)
    warnings.push(`Left out: ${what}${count > 1 ? `, ${count} times` : ''}.`);
  return {
    ...head.fields,
    sections: sections.filter((s) => s.lines.length > 0),
  };
}

/** {chorus} alone means the chorus that stood before, once more. */
function repeatChorus(sections: { name: string; lines: ChartLine[] }[], label: string): boolean {
  const before = sections.findLast((s) => /chorus|refrain/i.test(s.name) && s.lines.length > 0);
  if (before) sections.push({ name: label || before.name, lines: before.lines });
  return before !== undefined;
}

/** "Oh the [G]river [Am/C]runs" as items; a bracket that holds no chord stays words. */
function lineItems(raw: string): { items: ChartItem[]; strange: string[]; remarks: number } {
  const items: ChartItem[] = [];
  let remarks = 0;
  const strange: string[] = [];
  let words = '';
  let what: ChartItem['what'] = { kind: 'words only' };
  const close = (): void => {
    if (what.kind !== 'words only' || words.trim()) items.push({ what, words: words.replace(/\s+/g, ' ') });
    words = '';
  };
  for (const piece of raw.split(/(\[[^\]]*\])/)) {
    const bracket = /^\[([^\]]*)\]$/.exec(piece)?.[1]?.trim();
    if (bracket === undefined) {
      words += piece;
      continue;
    }
    if (bracket.startsWith('*')) {
      remarks += 1;
      continue;
    }
    const tokens = tokensOf(bracket).map(({ token }) => token);
    if (tokens.length === 0 || tokens.some((t) => !signOf(t) && !looksLikeChord(t))) {
      strange.push(bracket);
      continue;
    }
    for (const token of tokens) {
      close();
      what = signInRow(token);
    }
  }
  close();
  return { items, strange, remarks };
}

/** A grid: "| C . . . | G . Am . |", every cell a beat. */
function gridItems(raw: string): ChartItem[] {
  return tokensOf(raw).map(({ token }) => ({ what: signInRow(token), words: '' }));
}

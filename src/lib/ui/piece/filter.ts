/** Which pieces a list shows: by words, and by what they are, who learns them and what is still to be done. */
import { SONG_STYLES } from '$core/arrange/arranged';
import { levelText } from '$core/arrange/levels';
import { IDIOMS, type Idiom } from '$core/analysis/idioms';
import { hasProgression, progressionIn } from '$core/analysis/progression';
import { metreText } from '$ui/text';
import type { TimeSignature } from '$core/score/score';

export interface ListedPiece {
  readonly title: string;
  readonly composer: string;
  readonly levels: readonly { readonly level: number }[];
  readonly styles: readonly ('solo' | 'sing-along')[];
  readonly learners: readonly string[];
  /** Versions that are not signed as they are. */
  readonly unsigned: number;
  /** When one of its versions was last changed; empty without a version. */
  readonly used: string;
  readonly key?: string;
  readonly time?: TimeSignature;
  readonly idiom?: Idiom;
  /** Its chords as degrees. */
  readonly progression?: readonly string[];
}

export interface PieceFilter {
  text: string;
  level: string;
  key: string;
  metre: string;
  style: string;
  learner: string;
  unsigned: boolean;
  lately: boolean;
}

export const NO_FILTER: Readonly<PieceFilter> = {
  text: '',
  level: '',
  key: '',
  metre: '',
  style: '',
  learner: '',
  unsigned: false,
  lately: false,
};

/** What can be chosen, by what the pieces have. */
export function filterOptions(pieces: readonly ListedPiece[]) {
  const distinct = <T>(list: readonly T[]): T[] => [...new Set(list)];
  const plain = (list: readonly string[]) =>
    distinct(list)
      .sort()
      .map((value) => [value, value] as const);
  return [
    {
      key: 'level' as const,
      name: 'Level',
      values: distinct(pieces.flatMap((p) => p.levels.map((l) => l.level)))
        .sort((a, b) => a - b)
        .map((level) => [String(level), levelText(level)] as const),
    },
    { key: 'key' as const, name: 'Key', values: plain(pieces.flatMap((p) => p.key ?? [])) },
    {
      key: 'metre' as const,
      name: 'Time signature',
      values: plain(pieces.flatMap((p) => (p.time ? metreText(p.time) : []))),
    },
    {
      key: 'style' as const,
      name: 'Style',
      values: [
        ...distinct(pieces.flatMap((p) => p.styles)).map((style) => [style, SONG_STYLES[style]] as const),
        ...distinct(pieces.flatMap((p) => p.idiom ?? []))
          .filter((idiom) => idiom !== 'plain')
          .map((idiom) => [idiom, IDIOMS[idiom].name] as const),
      ],
    },
    { key: 'learner' as const, name: 'Student', values: plain(pieces.flatMap((p) => p.learners)) },
  ];
}

/** The pieces that a filter lets through, in their order or the ones used last first. */
export function filtered<P extends ListedPiece>(pieces: readonly P[], filter: Readonly<PieceFilter>): P[] {
  const words = filter.text.toLowerCase().split(/\s+/).filter(Boolean);
  // "6 4 1 5" are degrees, where no title says so.
  const wanted = progressionIn(filter.text);
  const found = pieces.filter((piece) => {
    const text = `${piece.title} ${piece.composer}`.toLowerCase();
    return (
      (words.every((word) => text.includes(word)) ||
        (wanted !== undefined && hasProgression(piece.progression ?? [], wanted))) &&
      (!filter.level || piece.levels.some((l) => String(l.level) === filter.level)) &&
      (!filter.key || piece.key === filter.key) &&
      (!filter.metre || (piece.time !== undefined && metreText(piece.time) === filter.metre)) &&
      (!filter.style || piece.styles.some((s) => s === filter.style) || piece.idiom === filter.style) &&
      (!filter.learner || piece.learners.includes(filter.learner)) &&
      (!filter.unsigned || piece.unsigned > 0)
    );
  });
  return filter.lately ? found.sort((a, b) => b.used.localeCompare(a.used)) : found;
}

/** Where something is decided: what is chosen on the bench, as the places that a kind of decision is made for. */
import { measuresAgain, notesAgain } from '$core/decisions/again';
import { sectionAnchor } from '$core/decisions/holds';
import { WHOLE, type Anchor, type Scope } from '$core/decisions/anchor';
import { kindOf, type KindId } from '$core/decisions/registry';
import type { BenchState } from './state/bench.svelte';

const isHere = (kind: KindId, scope: Scope): boolean => kindOf(kind).scopes.includes(scope);

/** The scope that a key or a choice means for a kind, where nobody says otherwise: as narrow as the kind has it and as wide as what is chosen. */
export function scopeHere(kind: KindId, { selection }: BenchState): Scope {
  const isWide = selection.byMeasure || (selection.range && selection.range.from !== selection.range.to);
  if (selection.byMeasure && isHere(kind, 'range') && isHere(kind, 'note')) return 'range';
  if (isHere(kind, 'note')) return 'note';
  if (isWide && isHere(kind, 'range')) return 'range';
  if (isHere(kind, 'measure')) return 'measure';
  return isHere(kind, 'section') ? 'section' : 'version';
}

/** The scopes that a kind can be decided for at what is chosen, the narrowest first. */
export function scopesHere(kind: KindId, bench: BenchState): Scope[] {
  const { range } = bench.selection;
  const isLong = range && range.from !== range.to;
  return kindOf(kind).scopes.filter((scope) => scope !== 'range' || isLong);
}

/** The places of a scope at what is chosen. Empty where there is none. */
export function placesHere(kind: KindId, scope: Scope, bench: BenchState): readonly Anchor[] {
  const { selection, layout } = bench;
  if (scope === 'version') return [WHOLE];
  if (scope === 'note') {
    if (!selection.note) return [];
    const isOne = kindOf(kind).isOfOneNote || kindOf(kind).spans;
    const notes = isOne ? [kindOf(kind).spans ? selection.notes[0]! : selection.note] : selection.notes;
    return notes.map(({ id }) => ({ note: id }));
  }
  const { range, measure } = selection;
  if (!layout || !range || measure === undefined) return [];
  const idOf = (index: number): string => layout.measures[index]!.id;
  if (scope === 'section') return [sectionAnchor(layout, bench.sectionOf(measure))];
  if (scope === 'range' && range.from !== range.to) return [{ range: [idOf(range.from), idOf(range.to)] }];
  return [{ measure: idOf(measure) }];
}

/** Where the same stands otherwise: the places of the version at which a figure, or a whole measure, comes again. */
export function placesAgain(places: readonly Anchor[], { view }: BenchState): readonly Anchor[] {
  const { version } = view;
  if (!version) return [];
  const ids = places.flatMap((at) => ('note' in at ? [at.note] : []));
  const notes = notesAgain(version.score, ids);
  const others = places.flatMap((at): Anchor[] => {
    if ('note' in at) return (notes.get(at.note) ?? []).map((note) => ({ note }));
    if ('measure' in at) return measuresAgain(version.score, at.measure).map((measure) => ({ measure }));
    return [];
  });
  const own = new Set(places.map((at) => JSON.stringify(at)));
  return [...new Map(others.map((at) => [JSON.stringify(at), at])).values()].filter(
    (at) => !own.has(JSON.stringify(at)),
  );
}

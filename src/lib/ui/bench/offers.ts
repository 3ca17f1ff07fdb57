/** Everything that can be changed at what is chosen, as one list: what each kind of decision offers, its keys, and the version's settings. */
import { IDIOM_IDS, IDIOMS } from '$core/analysis/idioms';
import { levelText } from '$core/arrange/levels';
import { inSentence } from '$core/capital';
import type { Anchor, Scope } from '$core/decisions/anchor';
import { allKinds, kindOf, type AnyKind, type Decision, type KindId } from '$core/decisions/registry';
import type { Recipe } from '$core/version/recipe';
import { keyText } from '$ui/form/press';
import { perform } from './commands';
import { placesHere, scopeHere } from './places';
import type { Sought } from './seek';
import type { BenchState } from './state/bench.svelte';

export interface Offer extends Sought {
  /** What stands behind the name: that it is chosen, its key. */
  readonly note?: string;
  /** Takes it; `write` where it is to be written first. */
  readonly take: () => void | 'write';
  /** The kind of decision, where it is one. */
  readonly kind?: KindId;
}

/** The scope for which a kind is decided: the one that was asked for, where it has it. */
export const scopeOfKind = (bench: BenchState, kind: AnyKind, wished: Scope | undefined): Scope =>
  wished && kind.scopes.includes(wished) ? wished : scopeHere(kind.id, bench);

/** What is decided of a kind at what is chosen. */
export function decidedNow(
  bench: BenchState,
  kind: AnyKind,
  wished: Scope | undefined,
): Decision['value'] | undefined {
  const [at]: readonly Anchor[] = placesHere(kind.id, scopeOfKind(bench, kind, wished), bench);
  return at && bench.document.decided(kind.id, at)?.value;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What kinds offer at what is chosen; of one kind only where `only` names it. */
export function offersOf(bench: BenchState, wished: Scope | undefined, only?: KindId): readonly Offer[] {
  const { situation } = bench;
  if (!situation) return [];
  const kinds = only ? [kindOf(only) as unknown as AnyKind] : allKinds();
  return kinds.flatMap((kind): Offer[] => {
    const scope = scopeOfKind(bench, kind, wished);
    if (placesHere(kind.id, scope, bench).length === 0) return [];
    const now = decidedNow(bench, kind, wished);
    const group = { group: kind.name, words: kind.words, kind: kind.id };
    const choose = (value: Decision['value'] | undefined) => () =>
      perform(bench, { do: 'decide here', kind: kind.id, scope, value });
    const choices = choicesOf(bench, kind).map(([value, name]): Offer => ({
      ...group,
      name,
      ...(same(now, value) ? { note: 'your choice' } : {}),
      take: choose(value),
    }));
    // What has no choices is moved by its keys, from what it is now.
    const moves = choices.length > 0 || only ? [] : (kind.keys ?? []);
    const steps = moves.map(({ press, does, next }): Offer => ({
      ...group,
      name: does,
      note: keyText(press),
      take: () => choose(next(now, situation))(),
    }));
    const written: Offer[] = kind.written
      ? [
          {
            ...group,
            name: now === undefined ? 'write …' : `“${kind.written.show(now, situation)}”, write …`,
            take: () => 'write',
          },
        ]
      : [];
    const reset: Offer[] = now === undefined ? [] : [{ ...group, name: 'reset', take: choose(undefined) }];
    return [...choices, ...steps, ...written, ...reset];
  });
}

/** What a kind offers here; what leads from note to note needs more than one. */
export function choicesOf(
  bench: BenchState,
  kind: AnyKind,
): readonly (readonly [Decision['value'], string])[] {
  const { situation, selection } = bench;
  const { spans } = kind;
  return (situation ? (kind.choices?.(situation) ?? []) : []).filter(
    ([value]) => !spans || selection.notes.length > 1 || spans(value, '') === value,
  );
}

/** The settings of the whole version, as a teacher may look for them in the same list. */
export function settingsOffered(bench: BenchState): readonly Offer[] {
  const { recipe } = bench.document;
  const offer = (
    group: string,
    words: string,
    name: string,
    part: Partial<Recipe>,
    isNow: boolean,
  ): Offer => ({
    group: `${group} (whole version)`,
    words,
    name,
    ...(isNow ? { note: 'your choice' } : {}),
    take: () => perform(bench, { do: 'set recipe', part }),
  });
  const levels = bench.levels.map(({ level, name }) => {
    const [step, words] =
      level < recipe.level
        ? [', easier', 'thinner']
        : level > recipe.level
          ? [', harder', 'fuller richer']
          : ['', ''];
    const text = `${levelText(level)}, ${inSentence(name)}${step}`;
    return offer('Level', `difficulty ${words}`, text, { level }, level === recipe.level);
  });
  // The nearest easier level first.
  const [below, rest] = [levels.slice(0, indexOf(bench)).reverse(), levels.slice(indexOf(bench))];
  const isSingAlong = bench.view.version?.isSingAlong ?? recipe.style === 'sing-along';
  return [
    ...below,
    ...rest,
    offer(
      'Style',
      'melody right hand play',
      'solo: the right hand plays the melody',
      { style: 'solo' },
      !isSingAlong,
    ),
    offer(
      'Style',
      'voice singer accompany',
      'sing-along: chords carry a singer',
      { style: 'sing-along' },
      isSingAlong,
    ),
    ...IDIOM_IDS.map((idiom) =>
      offer(
        'Kind of music',
        `style idiom ${idiom}`,
        inSentence(IDIOMS[idiom].name),
        { idiom },
        recipe.idiom === idiom,
      ),
    ),
    ...(isSingAlong
      ? ([0, 2, 4] as const).map((introduction) =>
          offer(
            'Introduction',
            'intro before measures',
            introduction === 0 ? 'none' : `${introduction} measures`,
            { introduction },
            recipe.introduction === introduction,
          ),
        )
      : []),
    offer('Eighths', 'feel rhythm swing', 'straight', { feel: 'straight' }, recipe.feel === 'straight'),
    offer('Eighths', 'feel rhythm', 'swing', { feel: 'swing' }, recipe.feel === 'swing'),
    ...(['right', 'left', 'both'] as const).map((countFor) =>
      offer(
        'Counting',
        'count hands',
        countFor === 'both' ? 'for both hands' : `for the ${countFor} hand`,
        { countFor },
        recipe.countFor === countFor,
      ),
    ),
  ];
}

const indexOf = ({ levels, document }: BenchState): number =>
  levels.findIndex(({ level }) => level >= document.recipe.level);

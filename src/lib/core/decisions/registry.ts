/** Every kind of decision. A new kind is a module in kinds/ and a line here. */
import { z } from 'zod';
import { anchorSchema, scopeOf, type Anchor } from './anchor';
import type { DecisionKind } from './kind';
import { add } from './kinds/add';
import { advice } from './kinds/advice';
import { articulation } from './kinds/articulation';
import { rhythm } from './kinds/rhythm';
import { bringOut } from './kinds/bringOut';
import { chords } from './kinds/chords';
import { counting } from './kinds/counting';
import { count } from './kinds/count';
import { doubling } from './kinds/doubling';
import { drop } from './kinds/drop';
import { dynamic } from './kinds/dynamic';
import { figure } from './kinds/figure';
import { filling } from './kinds/filling';
import { finger } from './kinds/finger';
import { groups } from './kinds/groups';
import { hairpin } from './kinds/hairpin';
import { hand } from './kinds/hand';
import { hard } from './kinds/hard';
import { hold } from './kinds/hold';
import { home } from './kinds/home';
import { insert } from './kinds/insert';
import { inversion } from './kinds/inversion';
import { length } from './kinds/length';
import { melody } from './kinds/melody';
import { octave } from './kinds/octave';
import { pedalMark } from './kinds/pedalMark';
import { pedal } from './kinds/pedal';
import { pitch } from './kinds/pitch';
import { repeats } from './kinds/repeats';
import { section } from './kinds/section';
import { slur } from './kinds/slur';
import { words } from './kinds/words';
import { strike } from './kinds/strike';
import { style } from './kinds/style';
import { sustain } from './kinds/sustain';
import { technique } from './kinds/technique';
import { texture } from './kinds/texture';
import { voicing } from './kinds/voicing';

/** In the order in which a list shows them; those that change notes are applied in this order. */
export const KINDS = [
  home,
  groups,
  repeats,
  section,
  chords,
  texture,
  melody,
  style,
  rhythm,
  figure,
  voicing,
  inversion,
  filling,
  doubling,
  strike,
  sustain,
  hand,
  octave,
  pitch,
  add,
  insert,
  drop,
  length,
  hold,
  articulation,
  bringOut,
  slur,
  finger,
  counting,
  count,
  pedal,
  pedalMark,
  dynamic,
  hairpin,
  technique,
  words,
  advice,
  hard,
] as const;

type Kind = (typeof KINDS)[number];
export type KindId = Kind['id'];
type KindOf<Id extends KindId> = Extract<Kind, { id: Id }>;

/** What is decided by a decision of a kind. */
export type ValueOf<Id extends KindId> = KindOf<Id> extends DecisionKind<Id, infer Value> ? Value : never;

/** One thing that the teacher has settled. */
export type DecisionOf<Id extends KindId> = {
  [K in Id]: { readonly kind: K; readonly at: Anchor; readonly value: ValueOf<K> };
}[Id];
export type Decision = DecisionOf<KindId>;

/** A kind without its own types, for code that treats all alike. */
export type AnyKind = DecisionKind<KindId, Decision['value']>;

const byId: ReadonlyMap<string, AnyKind> = new Map(
  KINDS.map((kind) => [kind.id, kind as unknown as AnyKind]),
);

/** A kind by its id. Throws where there is none. */
export function kindOf<Id extends KindId>(id: Id): DecisionKind<Id, ValueOf<Id>> {
  const kind = byId.get(id);
  if (!kind) throw new Error(`There is no choice called ${id}.`);
  return kind as unknown as DecisionKind<Id, ValueOf<Id>>;
}

/** All kinds, treated alike. */
export const allKinds = (): readonly AnyKind[] => [...byId.values()];

/** Checks a decision from outside: its kind, its value, and that its kind has the scope. */
export const decisionSchema = z
  .object({ kind: z.string(), at: anchorSchema, value: z.unknown() })
  .transform((decision, context): Decision => {
    const refuse = (message: string): never => {
      context.addIssue({ code: 'custom', message });
      return z.NEVER;
    };
    const kind = byId.get(decision.kind);
    if (!kind) return refuse(`There is no choice called ${decision.kind}.`);
    const scope = scopeOf(decision.at);
    if (!kind.scopes.includes(scope)) return refuse(`${kind.name} can’t be set for a ${scope}.`);
    const value = kind.value.safeParse(decision.value);
    if (!value.success) return refuse(`${kind.name}: ${value.error.issues[0]!.message}`);
    return { kind: kind.id, at: decision.at, value: value.data } as Decision;
  });

export const decisionsSchema = z.array(decisionSchema).max(20_000);

/** What was decided, in words, without where: "finger 3". */
export const decisionText = (decision: Decision): string =>
  kindOf(decision.kind).says(decision.value as never);

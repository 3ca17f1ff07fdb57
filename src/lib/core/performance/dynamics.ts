/** How loud a note is: the dynamic in force, on its way to the next one under a hairpin, and single notes that are stressed. */
import type { Mark, Part } from '../score/score';
import type { Ticks } from '../score/ticks';

/** Velocities of the dynamic signs; neighbours are one step apart. */
export const DYNAMICS: Readonly<Record<string, number>> = {
  pppp: 20,
  ppp: 32,
  pp: 44,
  p: 56,
  mp: 68,
  mf: 80,
  f: 94,
  ff: 108,
  fff: 120,
  ffff: 127,
};

const STEP = 12;

/** Where nothing is written. */
const USUAL = DYNAMICS.mf!;

/** Signs that stress the notes at their place alone; `then` is the dynamic that follows. */
const STRESSES: Readonly<Record<string, { readonly louder: number; readonly then?: string }>> = {
  sf: { louder: 20 },
  sfz: { louder: 20 },
  fz: { louder: 20 },
  rf: { louder: 12 },
  rfz: { louder: 12 },
  sffz: { louder: 30 },
  sfp: { louder: 20, then: 'p' },
  sfpp: { louder: 20, then: 'pp' },
  fp: { louder: 38, then: 'p' },
};

const bounded = (velocity: number): number => Math.round(Math.min(127, Math.max(1, velocity)));

interface Level {
  readonly onset: Ticks;
  readonly velocity: number;
}

/** The velocity at a written tick for notes of one staff of a part. */
export function dynamicsOf(part: Part): (staff: number, tick: Ticks) => number {
  const marks = part.marks ?? [];
  const staves = new Set(
    marks.filter((m) => m.kind === 'dynamic' || m.kind === 'hairpin').map((m) => m.staff),
  );
  // Marks between the staves of a piano stand with one of them, and are meant for both.
  const own = (staff: number): readonly Mark[] =>
    staves.has(staff) && staves.size > 1 ? marks.filter((m) => m.staff === staff) : marks;
  const known = new Map<number, (tick: Ticks) => number>();
  return (staff, tick) => {
    const line = known.get(staff) ?? loudness(own(staff));
    known.set(staff, line);
    return bounded(line(tick));
  };
}

function loudness(marks: readonly Mark[]): (tick: Ticks) => number {
  const levels: Level[] = [{ onset: 0, velocity: USUAL }];
  const stresses = new Map<Ticks, number>();
  for (const mark of [...marks].sort((a, b) => a.onset - b.onset)) {
    if (mark.kind !== 'dynamic') continue;
    const stress = STRESSES[mark.value];
    const velocity = DYNAMICS[stress?.then ?? mark.value];
    if (velocity !== undefined) levels.push({ onset: mark.onset, velocity });
    // A sudden dynamic is struck above what it falls to.
    if (stress) stresses.set(mark.onset, stress.louder);
  }
  const swells = hairpins(marks, levels);
  return (tick) => {
    const at = levels.findLast((l) => l.onset <= tick)!;
    const swell = swells.findLast((s) => s.from <= tick && at.onset <= s.from);
    const base = !swell
      ? at.velocity
      : tick >= swell.to
        ? swell.end
        : swell.start + ((swell.end - swell.start) * (tick - swell.from)) / (swell.to - swell.from);
    return base + (stresses.get(tick) ?? 0);
  };
}

interface Swell {
  readonly from: Ticks;
  readonly to: Ticks;
  readonly start: number;
  readonly end: number;
}

/** Hairpins from where they open to where they close: to the dynamic that is written there, else one step. */
function hairpins(marks: readonly Mark[], levels: readonly Level[]): Swell[] {
  const swells: Swell[] = [];
  const open = new Map<string, { onset: Ticks; up: boolean }>();
  const inOrder = [...marks].sort((a, b) => a.onset - b.onset);
  for (const mark of inOrder) {
    if (mark.kind !== 'hairpin') continue;
    const name = `${mark.number} ${mark.staff}`;
    if (mark.type !== 'stop') {
      open.set(name, { onset: mark.onset, up: mark.type === 'crescendo' });
      continue;
    }
    const begun = open.get(name);
    open.delete(name);
    if (!begun || mark.onset <= begun.onset) continue;
    const before = levels.findLast((l) => l.onset <= begun.onset)!;
    const last = swells.at(-1);
    const start = last && last.to <= begun.onset && before.onset <= last.from ? last.end : before.velocity;
    const written = levels.find(
      (l) => l.onset >= mark.onset && l.onset - mark.onset <= (mark.onset - begun.onset) / 4,
    );
    const goesThere = written && (begun.up ? written.velocity > start : written.velocity < start);
    swells.push({
      from: begun.onset,
      to: mark.onset,
      start,
      end: goesThere ? written.velocity : start + (begun.up ? STEP : -STEP),
    });
  }
  return swells;
}

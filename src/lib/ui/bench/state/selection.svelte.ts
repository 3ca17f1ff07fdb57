/** Where the teacher is in a version: a note and the measure that it stands in, and how far what is chosen reaches from there. */
import { measureAt } from '$core/score/query';
import type { Note } from '$core/score/score';
import type { Version } from '$core/version/realise';
import { firstNoteOf, nearestNote, struckNotes, walk, type Move, type Stood } from '../walk';

export class SelectionState {
  id = $state<string>();
  readonly #version: () => Version | undefined;
  /** The note at which what is chosen began, where it is more than one note. */
  from = $state<string>();
  /** Whole measures of both hands are chosen. */
  byMeasure = $state(false);
  /** A measure that was chosen before there was a version. */
  #wanted: number | undefined;
  /** A note or measure, by its id, at which the page is to open. */
  #opensAt: string | undefined;
  /** Where the chosen note was last seen. */
  #stood: Stood | undefined;
  note = $derived.by((): Note | undefined => this.#notes.find((n) => n.id === this.id));
  /** Index of the measure in hand. */
  measure = $derived.by((): number | undefined => {
    const version = this.#version();
    return version && this.note ? measureAt(version.score.measures, this.note.onset).index : undefined;
  });

  /** Everything that is chosen, in order of time: struck notes of the hand in hand, or of both where it reaches over both. */
  notes = $derived.by((): readonly Note[] => {
    const first = this.#notes.find((n) => n.id === this.from);
    const { note } = this;
    if (!note) return [];
    if (!first || (first.id === note.id && !this.byMeasure)) return [note];
    const range = this.range!;
    const { measures } = this.#version()!.score;
    const [start, end] = this.byMeasure
      ? [measures[range.from]!.start, measures[range.to]!.start + measures[range.to]!.length - 1]
      : [Math.min(first.onset, note.onset), Math.max(first.onset, note.onset)];
    const isOneHand = !this.byMeasure && first.staff === note.staff;
    return struckNotes(this.#notes).filter(
      (n) => n.onset >= start && n.onset <= end && (!isOneHand || n.staff === note.staff),
    );
  });
  /** First and last measure of what is chosen, by index. */
  range = $derived.by((): { readonly from: number; readonly to: number } | undefined => {
    const version = this.#version();
    if (!version || this.measure === undefined) return undefined;
    const first = this.#notes.find((n) => n.id === this.from);
    const other = first ? measureAt(version.score.measures, first.onset).index : this.measure;
    return { from: Math.min(this.measure, other), to: Math.max(this.measure, other) };
  });

  constructor(version: () => Version | undefined) {
    this.#version = version;
  }

  get #notes(): readonly Note[] {
    return this.#version()?.score.parts[0]?.notes ?? [];
  }

  /** Chooses a note that a hand strikes. */
  select(id: string | undefined): void {
    if (!id || !(id in (this.#version()?.fingers ?? {}))) return;
    this.id = id;
    this.from = undefined;
    this.byMeasure = false;
    this.#stood = this.note;
  }

  /** What is chosen reaches from where it began to a note. */
  extendTo(id: string | undefined, byMeasure = false): void {
    if (!id || !(id in (this.#version()?.fingers ?? {}))) return;
    this.from ??= this.id;
    this.byMeasure = byMeasure;
    this.id = id;
    this.#stood = this.note;
  }

  extendToMeasure(index: number): void {
    const measure = this.#version()?.score.measures[index];
    if (measure) this.extendTo(firstNoteOf(this.#notes, measure), true);
  }

  /** Opens at a note or a measure, by its id, once there is a version. */
  open(at: string | null): void {
    this.#opensAt = at ?? undefined;
  }

  selectMeasure(index: number): void {
    this.#wanted = index;
    const measure = this.#version()?.score.measures[index];
    if (measure) this.select(firstNoteOf(this.#notes, measure));
  }

  move(move: Move): void {
    const version = this.#version();
    if (version) this.select(walk(this.#notes, version.score.measures, this.id, move));
  }

  /** The same, and what is chosen reaches there. By measure whole measures are chosen. */
  extend(move: Move): void {
    const version = this.#version();
    const byMeasure = move === 'next-measure' || move === 'previous-measure';
    if (version) this.extendTo(walk(this.#notes, version.score.measures, this.id, move), byMeasure);
  }

  /** A note of the version, where the one before is gone or there was none. */
  settle(): void {
    const version = this.#version();
    if (!version) return;
    if (this.#opensAt !== undefined) {
      const at = this.#opensAt;
      this.#opensAt = undefined;
      if (at in version.fingers) this.select(at);
      else this.selectMeasure(version.score.measures.findIndex((m) => m.id === at));
    }
    if (!this.id && this.#wanted !== undefined) this.selectMeasure(this.#wanted);
    // Where the note is gone, the hand stays where it was.
    if (!(this.id && this.id in version.fingers))
      this.id = this.#stood
        ? nearestNote(this.#notes, this.#stood)
        : walk(this.#notes, version.score.measures, undefined, 'next');
    if (this.from && !(this.from in version.fingers)) this.from = undefined;
    this.#stood = this.note ?? this.#stood;
  }
}

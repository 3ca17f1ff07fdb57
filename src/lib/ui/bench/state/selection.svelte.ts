/** Where the teacher is in a version: a note, and the measure that it stands in. */
import { measureAt } from '$core/score/query';
import type { Note } from '$core/score/score';
import type { Version } from '$core/version/realise';
import { firstNoteOf, nearestNote, walk, type Move, type Stood } from '../walk';

export class SelectionState {
  id = $state<string>();
  readonly #version: () => Version | undefined;
  /** A measure that was chosen before there was a version. */
  #wanted: number | undefined;
  /** Where the chosen note was last seen. */
  #stood: Stood | undefined;
  note = $derived.by((): Note | undefined => this.#notes.find((n) => n.id === this.id));
  /** Index of the measure in hand. */
  measure = $derived.by((): number | undefined => {
    const version = this.#version();
    return version && this.note ? measureAt(version.score.measures, this.note.onset).index : undefined;
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
    this.#stood = this.note;
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

  /** A note of the version, where the one before is gone or there was none. */
  settle(): void {
    const version = this.#version();
    if (!version) return;
    if (!this.id && this.#wanted !== undefined) this.selectMeasure(this.#wanted);
    // Where the note is gone, the hand stays where it was.
    if (!(this.id && this.id in version.fingers))
      this.id = this.#stood
        ? nearestNote(this.#notes, this.#stood)
        : walk(this.#notes, version.score.measures, undefined, 'next');
    this.#stood = this.note ?? this.#stood;
  }
}

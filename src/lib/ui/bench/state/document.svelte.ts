/**
 * The document in hand: what is changed shows at once and is saved behind it, one edit after another. Undo and redo are the
 * server's, so they outlive a reload; they take back what was done in this window, or before it was opened.
 */
import { editing, replayed, type Patch } from '$core/edits/edit';
import { decisionAt, subjectOf } from '$core/decisions/decide';
import type { Anchor } from '$core/decisions/anchor';
import type { Decision, DecisionOf, KindId } from '$core/decisions/registry';
import { listed, type VersionDocument } from '$core/version/document';
import type { Recipe } from '$core/version/recipe';
import type { EditStore, SavedAnswer } from './store';

type SaveState =
  | { readonly is: 'saved' }
  | { readonly is: 'saving' }
  | { readonly is: 'failed'; readonly why: string; readonly isWaiting: boolean };

export interface DocumentStart {
  readonly document: VersionDocument;
  readonly edit: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

export class DocumentState {
  current = $state.raw<VersionDocument>() as VersionDocument;
  canUndo = $state(false);
  canRedo = $state(false);
  saving = $state.raw<SaveState>({ is: 'saved' });
  decisions = $derived(listed(this.current));
  #edit = $state(0);
  #waiting: Patch[] = [];
  #busy: Promise<void> | undefined;
  readonly #store: EditStore;

  constructor(start: DocumentStart, store: EditStore) {
    this.current = start.document;
    this.canUndo = start.canUndo;
    this.canRedo = start.canRedo;
    this.#edit = start.edit;
    this.#store = store;
  }

  get recipe(): Recipe {
    return this.current.recipe;
  }

  /** Number of the newest edit that is saved. */
  get edit(): number {
    return this.#edit;
  }

  get isSaved(): boolean {
    return this.saving.is === 'saved';
  }

  /** Decides any number of things at once; one undo takes them back. */
  decide(...made: readonly Decision[]): void {
    this.#change((draft) => {
      for (const decision of made) draft.decisions[subjectOf(decision)] = decision;
    });
  }

  /** Gives back what was decided about these things. */
  giveBack(...subjects: readonly { readonly kind: KindId; readonly at: Anchor }[]): void {
    this.#change((draft) => {
      for (const subject of subjects) delete draft.decisions[subjectOf(subject)];
    });
  }

  setRecipe(part: Partial<Recipe>): void {
    this.#change((draft) => void Object.assign(draft.recipe, part));
  }

  /** What is decided about exactly this, where it is. */
  decided<Id extends KindId>(kind: Id, at: Anchor): DecisionOf<Id> | undefined {
    return decisionAt(this.decisions, kind, at);
  }

  #change(change: Parameters<typeof editing>[1]): void {
    const { document, patches } = editing(this.current, change);
    if (patches.length === 0) return;
    this.current = document;
    this.canUndo = true;
    this.canRedo = false;
    this.#waiting.push(patches);
    void this.save();
  }

  /** Saves what waits, one edit after another. Resolves when nothing waits any more, or it could not be saved. */
  save(): Promise<void> {
    this.#busy ??= this.#saveAll().finally(() => (this.#busy = undefined));
    return this.#busy;
  }

  async #saveAll(): Promise<void> {
    this.saving = { is: 'saving' };
    try {
      while (this.#waiting.length > 0) {
        const saved = await this.#store.save(this.#waiting[0]!, this.#edit);
        if (saved.refused !== undefined) {
          this.#waiting = [];
          this.#take(saved);
          throw new Error(saved.refused);
        }
        this.#waiting.shift();
        this.#take(saved);
      }
      this.saving = { is: 'saved' };
    } catch (error) {
      this.saving = { is: 'failed', why: messageOf(error), isWaiting: this.#waiting.length > 0 };
    }
  }

  /** What the server says now; what still waits here comes on top of it. */
  #take({ edit, document, canUndo, canRedo }: SavedAnswer): void {
    this.#edit = edit;
    if (document) this.current = this.#waiting.reduce(replayed, document);
    this.canUndo = canUndo || this.#waiting.length > 0;
    this.canRedo = canRedo && this.#waiting.length === 0;
  }

  undo(): Promise<void> {
    return this.#step('undo');
  }

  redo(): Promise<void> {
    return this.#step('redo');
  }

  async #step(which: 'undo' | 'redo'): Promise<void> {
    await this.save();
    if (!this.isSaved) return;
    try {
      this.#take(await this.#store.step(which));
    } catch (error) {
      this.saving = { is: 'failed', why: messageOf(error), isWaiting: false };
    }
  }

  /** Shows what was saved in another window, where there is something new. */
  async catchUp(): Promise<void> {
    if (!this.isSaved || this.#waiting.length > 0) return;
    const saved = await this.#store.now().catch(() => undefined);
    if (!saved || this.#waiting.length > 0) return;
    if (saved.edit !== this.#edit) this.#take(saved);
    // What undo takes is this window's matter, which the page came without knowing.
    else [this.canUndo, this.canRedo] = [saved.canUndo, saved.canRedo];
  }
}

/**
 * Changes of a version: patches with their inverses, and what undo and redo take.
 *
 * @example
 * historyOf([{ number: 1, undoes: null, redoes: null }, { number: 2, undoes: 1, redoes: null }]).redo; // => 1
 * editing(document, (draft) => { draft.recipe.level = 3; }).patches; // => [{"op":"replace","path":["recipe","level"],"value":3}]
 * editText(document, editing(document, (draft) => { draft.recipe.level = 3; }).document); // => "level 3"
 */
export {
  editing,
  editTo,
  meet,
  patched,
  patching,
  patchSchema,
  replayed,
  type Edited,
  type Patch,
} from './edit';
export { historyOf, type EditKind, type History } from './history';
export { editText } from './sentence';

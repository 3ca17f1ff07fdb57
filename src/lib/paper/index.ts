/** Paper: from a version to pages, as pictures and as a PDF. Runs where there are files: on the server and in the command line. */
export { choicesSchema, SHEET_IDS, SHEETS, USUAL_CHOICES, type Choices, type SheetId } from './choices';
export { documentOfOne, handoutBeginning, handoutDocument, handoutName, type Imprint } from './handout';
export { pagePicture, PAPERS, type Page, type PaperDocument } from './page';
export { writePdf } from './pdf';
export { sourceOf, type Given, type Source, type ToPractise, type WeekSet } from './source';

/** Paper: from a version to pages, as pictures and as a PDF. Runs where there are files: on the server and in the command line. */
export { choicesSchema, type Choices } from './choices';
export { documentOfOne, handoutBeginning, handoutDocument, handoutName, type Imprint } from './handout';
export { pagePicture, type Page, type PaperDocument } from './page';
export { writePdf } from './pdf';
export { sourceOf, type Source } from './source';

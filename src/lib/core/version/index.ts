/**
 * A version: recipe and decisions, and the music that is made of them.
 *
 * @example
 * realise(song, recipe, []).goalTempo; // => 80
 * realise(song, recipe, [{ kind: 'finger', at: { note: 'm0s1n0' }, value: 3 }]).fingers['m0s1n0']; // => {"finger":3,"decided":true}
 * listed(documentOf(recipe, [{ kind: 'pedal', at: { version: true }, value: 'none' }])).length; // => 1
 */
export { arrangement, versionKey, type Arrangement } from './arrangement';
export { checkVersion, type Violation } from './check';
export { documentOf, documentSchema, listed, type VersionDocument } from './document';
export { realise, realising, type Version, type WrittenVersion } from './realise';
export { DEFAULT_RECIPE, recipeSchema, type Recipe } from './recipe';
export { otherFingerings, whyFinger } from './why';

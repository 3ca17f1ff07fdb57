/**
 * The laws of fast-check are tried with the same examples on every machine, so that a change is green or red for what it
 * does and not for the luck of its run. `npm run laws` tries them with fresh ones, one seed after the other.
 */
import fc from 'fast-check';

const seed = Number(process.env.KEYPATH_SEED ?? 20261125);
fc.configureGlobal({ seed });

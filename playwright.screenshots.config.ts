import base from './playwright.config';

/** Takes docs/screenshots/ anew from the demo studio: `npm run screenshots` after a build. */
export default { ...base, testDir: 'scripts', testMatch: 'screenshots.ts', reporter: 'list' };

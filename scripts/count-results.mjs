// Prints "PASSED FAILED" from a result file of Vitest or Playwright.
import { readFileSync } from 'node:fs';

const result = JSON.parse(readFileSync(process.argv[2], 'utf8'));
const [passed, failed] =
  'numPassedTests' in result
    ? [
        result.numPassedTests,
        result.numFailedTests + result.numFailedTestSuites * (result.numFailedTests === 0),
      ]
    : [result.stats.expected + result.stats.flaky, result.stats.unexpected];
console.log(`${passed} ${failed}`);

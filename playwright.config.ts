import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CHROMIUM } from './scripts/chromium';

const PORT = 5191;
// A database file of its own for every run; the workers of one run must agree on it.
process.env.KEYPATH_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'keypath-e2e-'));

export default defineConfig({
  testDir: 'tests',
  fullyParallel: false,
  // Two files at a time: every test brings pieces of its own, and what one changes for the whole studio no other asks for.
  workers: 2,
  // What a busy machine broke holds the second time, and the list then calls it flaky; what is broken breaks twice.
  retries: 1,
  // For what hangs, not for what is slow.
  timeout: 180_000,
  expect: { timeout: 45_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
  webServer: {
    command: 'node build',
    url: `http://localhost:${PORT}/`,
    timeout: 150_000,
    reuseExistingServer: false,
    env: {
      PORT: String(PORT),
      ORIGIN: `http://localhost:${PORT}`,
      KEYPATH_DATA: process.env.KEYPATH_E2E_DATA,
      KEYPATH_DEMO: '1',
    },
  },
});

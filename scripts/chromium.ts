import { existsSync } from 'node:fs';

/** Debian's Chromium without windows, which takes a third less of the machine, and the browser with them. */
const INSTALLED = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** How tests and benchmarks start Debian's Chromium; CHROMIUM names another one. */
export const CHROMIUM = {
  executablePath: process.env.CHROMIUM ?? INSTALLED.find((path) => existsSync(path)) ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

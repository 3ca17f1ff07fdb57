/** The built server with a data folder of its own, for benchmarks. */
import { spawn, type ChildProcess } from 'node:child_process';

export interface Running {
  readonly url: string;
  readonly pid: number;
  stop(): Promise<void>;
}

/** For what hangs, not for what is slow: on a busy machine the engraver takes half a minute to be ready. */
const patience = 150_000;

/** Starts the built server as ./demo does, and resolves when it answers. */
export async function startServer(
  data: string,
  port: number,
  more: Readonly<Record<string, string>> = {},
): Promise<Running> {
  const url = `http://localhost:${port}`;
  const child: ChildProcess = spawn('scripts/serve', {
    env: { ...process.env, PORT: String(port), KEYPATH_DATA: data, KEYPATH_DEMO: '', ORIGIN: url, ...more },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  let isStopping = false;
  const ended = new Promise<void>((resolve) =>
    child.once('exit', (code, signal) => {
      if (!isStopping) console.error(`The server ended by itself: ${code ?? signal}`);
      resolve();
    }),
  );
  const until = Date.now() + patience;
  // A page that asks nothing of the studio.
  while (!(await fetch(`${url}/robots.txt`).catch(() => undefined))) {
    if (Date.now() > until) throw new Error('The server did not start: has it been built?');
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return {
    url,
    pid: child.pid!,
    async stop() {
      isStopping = true;
      child.kill();
      await ended;
    },
  };
}

export const median = (values: readonly number[]): number => share(values, 0.5);

/** The value below which a share of all lie. */
export const share = (values: readonly number[], part: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))] ?? NaN;

export interface Line {
  readonly what: string;
  readonly value: number;
  readonly unit: string;
  readonly below: number;
}

/**
 * Prints figures beside their goals; with `pace`, what the engraver needs for a phrase in the same run, also as multiples of it, since
 * a machine that others use is now fast, now slow.
 */
export function print(lines: readonly Line[], pace?: number): void {
  for (const { what, value, unit, below } of lines) {
    const ratio = pace && unit === 'ms' ? `${(value / pace).toFixed(1).padStart(6)} phrases` : '';
    console.log(
      `${what.padEnd(58)} ${value.toFixed(0).padStart(6)} ${unit.padEnd(2)} ${ratio}  (to stay below ${below})${value > below ? '  OVER' : ''}`,
    );
  }
}

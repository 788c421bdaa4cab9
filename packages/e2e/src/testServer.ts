import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');

export interface TestServer {
  readonly address: string;
  readonly folder: string;
  readonly pid: number;
  /** Ends the process and waits for it. */
  readonly stop: (signal?: NodeJS.Signals) => Promise<void>;
  /** Sends it a signal and goes on: SIGSTOP makes a server that swallows what is sent. */
  readonly signal: (signal: NodeJS.Signals) => void;
}

/** A data folder as the first start leaves it, made once a run: filling one takes longer than most journeys. */
export const FILLED = join(root, '.cache/e2e-data');

/** An empty data folder, to be removed with `removeFolder`. */
export const emptyFolder = (): string => mkdtempSync(join(tmpdir(), 'steady-gleam-'));

/** A data folder with the demo in it where a filled one was made, else an empty one; to be removed with `removeFolder`. */
export function makeFolder(): string {
  const folder = emptyFolder();
  if (existsSync(FILLED)) cpSync(FILLED, folder, { recursive: true });
  return folder;
}

export function removeFolder(folder: string): void {
  rmSync(folder, { recursive: true, force: true });
}

/** Starts the built server on a data folder and port, and waits until it says where it is. */
export function startServer(
  folder: string,
  port: number,
  env: Readonly<Record<string, string>> = {},
): Promise<TestServer> {
  const child: ChildProcess = spawn(process.execPath, [join(root, 'packages/server/dist/main.js')], {
    env: {
      ...process.env,
      STEADY_GLEAM_DATA: folder,
      PORT: String(port),
      LOG_LEVEL: 'error',
      REQUESTS_A_MINUTE: '100000',
      // A copy in the middle of a journey would only take its time; those that are about copies make them.
      STEADY_GLEAM_COPIES: 'off',
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise<void>((done) => child.once('exit', () => done()));
  const stop = async (signal: NodeJS.Signals = 'SIGTERM') => {
    child.kill(signal);
    await ended;
  };
  const signal = (name: NodeJS.Signals) => void child.kill(name);
  return new Promise((ready, failed) => {
    let said = '';
    const listen = (chunk: Buffer) => {
      said += chunk.toString();
      const found = /Steady Gleam is at (https?:\S+)/.exec(said);
      if (found) ready({ address: found[1]!, folder, pid: child.pid!, stop, signal });
    };
    child.stdout!.on('data', listen);
    child.stderr!.on('data', listen);
    void ended.then(() => failed(new Error(`The server ended: ${said}`)));
  });
}

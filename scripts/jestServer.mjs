import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './install.mjs';

/** A real server with the demo in it for the tests of pages; all of them share it, so each writes to jobs of its own only. */
export default async function startServer() {
  const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-page-'));
  const child = spawn(process.execPath, ['--import', 'tsx', join(root, 'packages/server/src/main.ts')], {
    cwd: root,
    env: {
      ...process.env,
      ...{ STEADY_GLEAM_DATA: folder, PORT: '0', LOG_LEVEL: 'error' },
      ...{ REQUESTS_A_MINUTE: '100000', STEADY_GLEAM_COPIES: 'off' },
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  process.env.PAGE_SERVER = await new Promise((ready, failed) => {
    let said = '';
    child.stdout.on('data', (d) => {
      said += d;
      const found = /Steady Gleam is at (https?:\S+)/.exec(said);
      if (found) ready(found[1]);
    });
    child.once('exit', () => failed(new Error(`The server of the page tests ended: ${said}`)));
  });
  globalThis.stopPageServer = async () => {
    const ended = new Promise((done) => child.once('exit', done));
    child.kill('SIGTERM');
    await ended;
    rmSync(folder, { recursive: true, force: true });
  };
}

import { expect, test } from '@playwright/test';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { emptyFolder, removeFolder, root, startServer } from './testServer';

test('killed anywhere in its very first start, the program starts whole the next time', async () => {
  for (const ms of [150, 1200, 3200]) {
    const fresh = emptyFolder();
    const child = spawn(process.execPath, [join(root, 'packages/server/dist/main.js')], {
      env: { ...process.env, STEADY_GLEAM_DATA: fresh, PORT: '4776', LOG_LEVEL: 'silent' },
      stdio: 'ignore',
    });
    await new Promise((done) => setTimeout(done, ms));
    child.kill('SIGKILL');
    await new Promise((done) => child.once('exit', done));
    const again = await startServer(fresh, 0);
    const jobs = ((await (await fetch(`${again.address}/api/jobs`)).json()) as { rows: unknown[] }).rows;
    const products = (await (await fetch(`${again.address}/api/products`)).json()) as unknown[];
    expect([jobs.length, products.length]).toEqual([12, 8]);
    await again.stop();
    removeFolder(fresh);
  }
});

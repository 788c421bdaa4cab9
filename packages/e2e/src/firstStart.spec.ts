import { expect, test } from '@playwright/test';
import { spawn } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { emptyFolder, makeFolder, removeFolder, root, startServer, type TestServer } from './testServer';

const PORT = 4777;
let folder: string;
let server: TestServer;
test.beforeAll(async () => {
  folder = makeFolder();
  server = await startServer(folder, PORT);
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

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

test('a file of blank lines never freezes the page, and a mangled one is answered in a sentence', async ({ page }) => {
  await page.goto(`${server.address}/jobs/1a47e000-0000-4000-8000-0000000003e8/target`);
  const blank = join(folder, 'blank.csv');
  writeFileSync(blank, `spot,aspecular,L,a,b\n1,45,50,1,2\n${'\n'.repeat(900_000)}`);
  const choose = (path: string) => page.getByLabel('File of readings').setInputFiles(path);
  await choose(blank);
  await expect(page.getByText('blank.csv: one spot, angles 45°')).toBeVisible({ timeout: 8000 });
  const nested = join(folder, 'nested.xml');
  writeFileSync(nested, '<a>'.repeat(300_000));
  await choose(nested);
  await expect(page.getByText('Nothing was taken from this file.')).toBeVisible({ timeout: 15_000 });
});

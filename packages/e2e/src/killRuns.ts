import { chromium } from '@playwright/test';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { createRandom } from '@steady-gleam/core/numeric';
import { CHROMIUM, CHROMIUM_FLAGS } from './browser';
import { makeFolder, removeFolder, startServer } from './testServer';

/** Kills the server in the middle of a booth run, over and over, and counts: no tap lost, none doubled. Ends by itself. */
const ROUNDS = Math.min(50, Number(process.argv[2] ?? 20));
const PORT = 4781;
const JOB = '1a47e000-0000-4000-8000-000000000fa0';
const LIMIT_MS = 15 * 60_000;

const random = createRandom(2026);
const started = Date.now();
const folder = makeFolder();
let server = await startServer(folder, PORT);
const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
try {
  const page = await browser.newPage({ serviceWorkers: 'allow', viewport: { width: 1280, height: 800 } });
  await page.goto(`${server.address}/jobs/${JOB}/booth`);
  let taps = 0;
  const tap = async (name: string) => {
    const button = page.getByRole('button', { name, exact: true });
    // Ticked already, or still to be waited for.
    if (!(await button.count()) || !(await button.isEnabled())) return;
    await button.click();
    taps++;
  };
  /** A spray, or one taken back: there is always another tap to make. */
  const anything = async () => {
    for (const name of ['It hides: go on', 'They hang so', 'One coat more, as planned', 'It is dull', 'Sprayed: next'])
      await tap(name);
    if (random() < 0.65) await tap('Undo last tap');
  };
  await tap('It is ready: start the run');
  taps++;
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  for (let round = 1; round <= ROUNDS && Date.now() - started < LIMIT_MS; round++) {
    await anything();
    // At any moment of a tap on its way.
    const dying = new Promise((done) => setTimeout(done, random() * 60)).then(() => server.stop('SIGKILL'));
    await Promise.all([anything(), dying]);
    await anything();
    if (random() < 0.3) await page.reload();
    server = await startServer(folder, PORT);
    await page.getByText('Everything is kept').waitFor({ timeout: 30_000 });
    const log = (await (await page.request.get(`${server.address}/api/jobs/${JOB}/events`)).json()) as JobEvent[];
    const ids = new Set(log.map((e) => e.id)).size;
    console.log(`round ${round}: ${taps} taps, ${log.length} events, ${ids} different`);
    if (log.length !== taps || ids !== taps) {
      process.exitCode = 1;
      throw new Error('A tap was lost or doubled.');
    }
  }
  console.log(`${ROUNDS} kills, no tap lost, none doubled.`);
} catch (error) {
  for (const page of browser.contexts().flatMap((c) => c.pages()))
    console.error(page.url(), await page.locator('body').innerText());
  throw error;
} finally {
  await browser.close();
  await server.stop();
  removeFolder(folder);
}

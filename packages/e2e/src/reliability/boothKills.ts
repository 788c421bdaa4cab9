import { chromium } from '@playwright/test';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { createRandom } from '@steady-gleam/core/numeric';
import { CHROMIUM, CHROMIUM_FLAGS } from '../browser';
import { makeFolder, removeFolder, startServer } from '../testServer';
import { JOB } from './writing';

const LIMIT_MS = 15 * 60_000;

/** Kills the server in the middle of a booth run in the browser, over and over, and counts. @throws Error where a tap is lost or doubled */
export async function boothKills(
  rounds: number,
  port: number,
  seed: number,
): Promise<{ readonly rounds: number; readonly taps: number }> {
  const random = createRandom(seed);
  const started = Date.now();
  const folder = makeFolder();
  let server = await startServer(folder, port);
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
      for (const name of [
        'It hides: go on',
        'They hang so',
        'One coat more, as planned',
        'It is dull',
        'Sprayed: next',
      ])
        await tap(name);
      if (random() < 0.65) await tap('Undo last tap');
    };
    const ready = () => page.getByTestId('check').or(page.getByTestId('coat')).first().waitFor();
    await ready();
    await tap('It is ready: start the run');
    taps++;
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    let round = 0;
    for (; round < rounds && Date.now() - started < LIMIT_MS; round++) {
      await anything();
      // At any moment of a tap on its way.
      const dying = new Promise((done) => setTimeout(done, random() * 60)).then(() => server.stop('SIGKILL'));
      await Promise.all([anything(), dying]);
      await anything();
      if (random() < 0.3) {
        await page.reload();
        await ready();
      }
      server = await startServer(folder, port);
      await page.getByText('Everything is kept').waitFor({ timeout: 30_000 });
      const log = (await (await page.request.get(`${server.address}/api/jobs/${JOB}/events`)).json()) as JobEvent[];
      const ids = new Set(log.map((e) => e.id)).size;
      if (log.length !== taps || ids !== taps)
        throw new Error(`Round ${round + 1}: ${taps} taps, ${log.length} events, ${ids} different.`);
    }
    return { rounds: round, taps };
  } finally {
    await browser.close();
    await server.stop();
    removeFolder(folder);
  }
}

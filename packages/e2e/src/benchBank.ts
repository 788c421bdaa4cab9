import { chromium } from '@playwright/test';
import { FAMILY_IDS } from '@steady-gleam/core/finishes';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { openEmbedded } from '../../server/src/db/open';
import { finishes, readings, readingSets } from '../../server/src/db/schema';
import { CHROMIUM, CHROMIUM_FLAGS } from './browser';
import { emptyFolder, removeFolder, root, startServer } from './testServer';

/** Finishes of the long bank, and of the one it is held against. */
const [MANY, FEW] = [5000, 50] as const;
const ASKS = 40;
const FRAMES = 240;

/** A data folder with so many finishes, each with a target at three angles. */
async function bankOf(count: number): Promise<string> {
  const folder = emptyFolder();
  mkdirSync(folder, { recursive: true });
  const { db, close } = await openEmbedded(join(root, 'packages/server/migrations'), folder);
  for (let from = 0; from < count; from += 500) {
    const ids = Array.from({ length: Math.min(500, count - from) }, () => crypto.randomUUID());
    const sets = ids.map((finishId) => ({ id: crypto.randomUUID(), finishId }));
    await db.insert(finishes).values(
      ids.map((id, i) => ({
        ...{
          id,
          name: `Finish ${from + i}`,
          matching: `board ${from + i}`,
          family: FAMILY_IDS[0]!,
          mixId: 'cinder-candy',
        },
        pick: { groundId: 'gold', coats: 3, strength: 1, style: 'wet' as const, controlCoats: 0 },
      })),
    );
    await db
      .insert(readingSets)
      .values(sets.map((s) => ({ ...s, kind: 'target', source: 'typed', takenAt: new Date() })));
    await db.insert(readings).values(
      sets.flatMap((s, i) =>
        [15, 45, 110].map((aspecular, place) => ({
          ...{ setId: s.id, place, spot: '1', incidence: 45, aspecular },
          ...{ l: 30 + ((from + i) % 60), a: (i % 70) - 35, b: 20 - place },
        })),
      ),
    );
  }
  await close();
  return folder;
}

const folders = [await bankOf(MANY), await bankOf(FEW)];
const servers = await Promise.all(folders.map((folder, i) => startServer(folder, 4871 + i)));
const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
const median = (times: number[]) => times.sort((a, b) => a - b)[times.length >> 1]!;
try {
  const times: [number[], number[]] = [[], []];
  for (let i = 0; i < ASKS + 5; i++)
    for (const [k, server] of servers.entries()) {
      const start = performance.now();
      // Pages in the middle of the long one, the only page of the short one.
      const reply = await fetch(`${server.address}/api/finishes?page=${k ? 0 : 20 + (i % 40)}`);
      await reply.arrayBuffer();
      if (i >= 5) times[k]!.push(performance.now() - start);
    }
  const [many, few] = [median(times[0]), median(times[1])];
  console.log(
    `a page of 50 from ${MANY} finishes: ${many.toFixed(1)} ms, ${(many / few).toFixed(2)} times that from ${FEW} (wanted at most 2)`,
  );
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${servers[0]!.address}/bank`);
  await page.getByRole('list', { name: 'Finishes' }).getByRole('button').first().waitFor();
  const frames = await page.evaluate(async (count) => {
    const gaps: number[] = [];
    // By the clock of the frames themselves: a frame that was missed is a gap of two.
    let last = await new Promise<number>(requestAnimationFrame);
    for (let i = 0; i < count; i++) {
      window.scrollBy(0, 60);
      const now = await new Promise<number>(requestAnimationFrame);
      if (i >= 20) gaps.push(now - last);
      last = now;
    }
    return gaps;
  }, FRAMES);
  frames.sort((a, b) => a - b);
  console.log(
    `scrolling ${MANY} finishes, ${frames.length} frames: median ${frames[frames.length >> 1]!.toFixed(1)} ms, p95 ${frames[Math.floor(0.95 * frames.length)]!.toFixed(1)} ms (wanted p95 at most 20); ${await page.locator('[data-row]').count()} rows drawn`,
  );
} finally {
  await browser.close();
  for (const s of servers) await s.stop();
  folders.forEach(removeFolder);
}

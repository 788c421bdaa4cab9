import { expect, test, type Page } from '@playwright/test';
import { demoJob, journeyServer } from './journeyServer';

const server = journeyServer(4888);

const JOB = `/jobs/${demoJob(5)}`;
const PAGES = ['/', '/bank', '/products', '/materials', '/shop', '/faults', '/practice'];
const PLACES = ['target', 'map', 'recipes', 'sample', 'layers', 'card', 'pieces', 'mix', 'plan', 'spray', 'booth'];
const ALL = [...PAGES, ...PLACES.map((place) => `${JOB}/${place}`)];

async function open(page: Page, path: string): Promise<void> {
  await page.goto(server.address + path);
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(/^(Opening|Looking|Loading|Reading)/);
}

const pastTheSide = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

/** Names of what scrolls by itself inside a page. */
const scrolling = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .filter((e) => /auto|scroll/.test(getComputedStyle(e).overflowY) && e.scrollHeight > e.clientHeight + 1)
      .map((e) => `${e.tagName} ${e.getAttribute('aria-label') ?? ''}`),
  );

/** Names of pictures of which a part has no size. */
const undrawn = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('[role=img]')]
      .filter((e) =>
        [e, ...e.querySelectorAll('svg, canvas, .recharts-responsive-container')]
          .map((part) => part.getBoundingClientRect())
          .some((box) => box.width < 4 || box.height < 4),
      )
      .map((e) => e.getAttribute('aria-label') ?? e.outerHTML.slice(0, 80)),
  );

for (const [width, height] of [
  [1280, 800],
  [1024, 768],
] as const)
  test(`at ${width} by ${height} there is one scroll bar, nothing past the side, and every picture is drawn`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    for (const path of ALL) {
      await open(page, path);
      await expect.soft.poll(() => undrawn(page), { message: path }).toEqual([]);
      expect.soft(await pastTheSide(page), path).toBe(0);
      expect.soft(await scrolling(page), path).toEqual([]);
    }
  });

// A screen of 1280 by 800 whose text is twice as large is laid out as one of 640 by 400.
test('with text twice as large nothing goes past the side of the page, and the work keeps its room', async ({
  page,
}) => {
  await page.setViewportSize({ width: 640, height: 400 });
  for (const path of ALL) {
    await open(page, path);
    expect.soft(await pastTheSide(page), path).toBe(0);
    const column = await page.evaluate(
      () => document.querySelector('[data-column]')?.getBoundingClientRect().width ?? null,
    );
    if (column !== null) expect.soft(column, path).toBeGreaterThan(480);
  }
});

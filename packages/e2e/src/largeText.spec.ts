import { expect, test } from '@playwright/test';
import { demoJob, journeyServer } from './journeyServer';

const server = journeyServer(4888);

const JOB = `/jobs/${demoJob(5)}`;
const PAGES = ['/', '/bank', '/products', '/materials', '/shop', '/faults', '/practice'];
const PLACES = ['target', 'map', 'recipes', 'sample', 'layers', 'card', 'pieces', 'mix', 'plan', 'spray'];

// A screen of 1280 by 800 whose text is twice as large is laid out as one of 640 by 400.
test.use({ viewport: { width: 640, height: 400 } });

test('with text twice as large nothing goes past the side of the page, and the work keeps its room', async ({
  page,
}) => {
  for (const path of [...PAGES, ...PLACES.map((place) => `${JOB}/${place}`)]) {
    await page.goto(server.address + path);
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(/^(Opening|Looking|Loading|Reading)/);
    const { past, column } = await page.evaluate(() => ({
      past: document.documentElement.scrollWidth - window.innerWidth,
      column: document.querySelector('[data-column]')?.getBoundingClientRect().width ?? null,
    }));
    expect.soft({ path, past }).toEqual({ path, past: 0 });
    if (column !== null) expect.soft(column, path).toBeGreaterThan(480);
  }
});

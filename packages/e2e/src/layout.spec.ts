import { expect, test, type Page } from '@playwright/test';
import { keepFlakeLayers } from './flakeLayers';
import { demoJob, journeyServer } from './journeyServer';

const server = journeyServer(4888);

const about = (job: number, place: string): string => `/jobs/${demoJob(job)}/${place}`;
/** Every main view, and what stands there once it is drawn. */
const VIEWS: readonly (readonly [path: string, ready: string])[] = [
  ['/', 'ul[aria-label=Jobs] svg, ul[aria-label=Jobs] a'],
  ['/bank', '[role=img]'],
  ['/materials', '[role=img], table, li'],
  ['/products', 'table'],
  ['/faults', 'button'],
  ['/practice', 'canvas'],
  ['/shop', 'h2'],
  [about(5, 'target'), '[role=img] svg'],
  [about(5, 'map'), '[role=grid]'],
  [about(5, 'recipes'), 'table'],
  [about(5, 'sample'), '[role=img]'],
  [about(4, 'layers'), 'ol'],
  [about(5, 'card'), '[data-testid=answer]'],
  [about(8, 'pieces'), '[role=group]'],
  [about(5, 'mix'), 'table'],
  [about(4, 'mix?layer=job'), 'table'],
  [about(4, 'plan'), '[aria-label=Plan]'],
  [about(6, 'plan'), '[aria-label="Plan of Coach 2"]'],
  [about(4, 'plan?show=order'), '[aria-label="Order of areas"]'],
  [about(4, 'plan?show=coats'), 'table'],
  [about(4, 'plan?show=passes'), '[data-drawn]'],
  [about(4, 'plan?show=time'), '[aria-label^=Timeline]'],
  [about(5, 'booth'), 'button'],
  [about(5, 'spray'), '[data-testid=answer]'],
  [about(5, 'inspect'), 'h1'],
];

async function open(page: Page, [path, ready]: (typeof VIEWS)[number]): Promise<void> {
  await page.goto(server.address + path);
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(/^(Opening|Looking|Loading|Reading)/);
  await page.locator(`main :is(${ready})`).first().waitFor();
}

/** What reaches past the right edge of its column, also where it could be scrolled there, and what is typed but can't be read. */
const cut = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('main *')]
      .filter((e) => {
        const box = e.getBoundingClientRect();
        if (box.width === 0 || box.height === 0 || getComputedStyle(e).visibility === 'hidden') return false;
        let limit = innerWidth;
        for (let up = e.parentElement; up; up = up.parentElement) {
          const { overflowX } = getComputedStyle(up);
          if (overflowX === 'hidden') return false;
          if (overflowX !== 'visible' || up.dataset['column'] !== undefined)
            limit = Math.min(limit, up.getBoundingClientRect().right);
        }
        if (e instanceof HTMLInputElement && e.type === 'text' && e.scrollWidth > e.clientWidth + 1) return true;
        return box.right > limit + 1;
      })
      .map((e) => {
        const shown = e instanceof HTMLInputElement ? e.value : e.textContent.slice(0, 40);
        return `cut: ${e.tagName} ${e.getAttribute('aria-label') ?? ''} ${shown}`;
      })
      .slice(0, 5),
  );

/** What scrolls by itself inside a page. */
const scrolling = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .filter((e) => /auto|scroll/.test(getComputedStyle(e).overflowY) && e.scrollHeight > e.clientHeight + 1)
      .map((e) => `scrolls: ${e.tagName} ${e.getAttribute('aria-label') ?? ''}`),
  );

/** Pictures of which a part has no size. */
const undrawn = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('[role=img]')]
      .filter((e) =>
        [e, ...e.querySelectorAll('svg, canvas, .recharts-responsive-container')]
          .map((part) => part.getBoundingClientRect())
          .some((box) => box.width < 4 || box.height < 4),
      )
      .map((e) => `not drawn: ${e.getAttribute('aria-label') ?? e.outerHTML.slice(0, 80)}`),
  );

const pastTheSide = (page: Page): Promise<number> =>
  page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

for (const [width, height] of [
  [1280, 800],
  [1024, 768],
] as const)
  test(`at ${width} by ${height} nothing is cut, there is one scroll bar, and every picture is drawn`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    for (const view of VIEWS) {
      await open(page, view);
      const faults = async () => [...(await cut(page)), ...(await scrolling(page)), ...(await undrawn(page))];
      await expect.soft.poll(faults, { message: view[0] }).toEqual([]);
      expect.soft(await pastTheSide(page), view[0]).toBe(0);
    }
  });

test('on a tablet the picks stand above the fold, and figures are seen whole where they are typed', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  // The picks are what the map is opened for.
  await page.goto(`${server.address}${about(5, 'map')}`);
  const picks = (await page.getByRole('group', { name: 'Picks' }).boundingBox())!;
  expect(picks.y + picks.height).toBeLessThanOrEqual(768);
  await page.goto(`${server.address}${about(5, 'card')}`);
  await page.getByRole('button', { name: /^Rung of 2 coats/ }).click();
  await expect(page.getByRole('button', { name: 'Keep the correction' })).toBeVisible();
  await expect.poll(() => cut(page), { message: 'a rung' }).toEqual([]);
  await keepFlakeLayers(server.address, demoJob(4));
  for (const path of ['mix?layer=flake', 'layers']) {
    await page.goto(`${server.address}${about(4, path)}`);
    await expect(page.getByTestId('answer')).toBeVisible();
    await page.waitForTimeout(500);
    await expect.poll(() => cut(page), { message: path }).toEqual([]);
  }
});

// A screen of 1280 by 800 whose text is twice as large is laid out as one of 640 by 400.
test('with text twice as large nothing goes past the side of the page, and the work keeps its room', async ({
  page,
}) => {
  await page.setViewportSize({ width: 640, height: 400 });
  for (const view of VIEWS) {
    await open(page, view);
    expect.soft(await pastTheSide(page), view[0]).toBe(0);
    const column = await page.evaluate(
      () => document.querySelector('[data-column]')?.getBoundingClientRect().width ?? null,
    );
    if (column !== null) expect.soft(column, view[0]).toBeGreaterThan(480);
  }
});

import { expect, test, type Page } from '@playwright/test';
import { seriousFaults } from './axe';
import { passes, spray } from './strokes';
import { journeyServer } from './journeyServer';

const server = journeyServer(4886);

const answer = (page: Page) => page.getByTestId('answer');
const figure = async (page: Page, name: string): Promise<number> => {
  const text = await page.locator('dt', { hasText: name }).locator('xpath=following-sibling::dd').textContent();
  return Number(/-?\d+(?:\.\d+)?/.exec(text!)![0]);
};
/** Until the colours are there: before, nothing can be laid. */
const ready = (page: Page) =>
  expect
    .poll(() =>
      page
        .getByTestId('panel')
        .evaluate((c: HTMLCanvasElement) => c.getContext('2d')!.getImageData(20, 20, 1, 1).data[3]),
    )
    .toBe(255);
const red = (page: Page, x: number, y: number) =>
  page
    .getByTestId('panel')
    .evaluate((c: HTMLCanvasElement, [i, j]) => [...c.getContext('2d')!.getImageData(i!, j!, 1, 1).data], [x, y]);

test('an apprentice lays a candy panel badly, is told the one thing, lays it again better, and sees both', async ({
  page,
}) => {
  const errors: string[] = [];
  const told: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  await page.goto(server.address);
  await page.getByRole('link', { name: 'Practice' }).click();
  await expect(answer(page)).toHaveText('Lay one even coat, edge to edge.');
  await ready(page);
  page.on('request', (r) => {
    if (r.method() !== 'GET') told.push(r.url());
  });
  const bare = await red(page, 120, 70);
  expect(await seriousFaults(page)).toEqual([]);
  await page.evaluate(`
    window.frames_ = [];
    let last = performance.now();
    const frame = (now) => { window.frames_.push(now - last); last = now; requestAnimationFrame(frame); };
    requestAnimationFrame(frame);`);
  await spray(page, passes({ pitch: 21, speed: 55, margin: 5 }));
  const p95 = await page.evaluate(
    `(() => { const f = window.frames_.slice(2).sort((a, b) => a - b); return f[Math.floor(f.length * 0.95)]; })()`,
  );
  console.log(`practice: frame p95 ${Number(p95).toFixed(1)} ms`);
  // By itself it is under 20 ms; where other journeys run beside it one frame may be lost.
  expect(p95).toBeLessThan(34);
  await expect(answer(page)).toHaveText(/^Overlap \d+ %, too little: aim at the rim of the last pass\.$/);
  await expect(page.getByTestId('habit')).toContainText('One thing first: At 50 % the passes lie 12.5 cm apart');
  expect(await red(page, 120, 70)).not.toEqual(bare);
  const [badPoints, badEven] = [await figure(page, 'points'), await figure(page, 'crest to trough')];
  expect(badEven).toBeGreaterThan(40);

  await page.getByRole('button', { name: 'Lay it again' }).click();
  await expect(answer(page)).toHaveText(/^This time: overlap/);
  expect(await red(page, 120, 70)).toEqual(bare);
  await page.getByRole('button', { name: 'Ghost' }).click();
  await spray(page, passes({ pitch: 12.5, speed: 45, margin: 5 }));
  await expect(answer(page)).toHaveText(/^That is the goal/);
  expect(await figure(page, 'points')).toBeGreaterThan(badPoints + 20);
  expect(await figure(page, 'crest to trough')).toBeLessThan(badEven / 2);
  const both = page.getByTestId('side-by-side').getByRole('figure');
  await expect(both).toHaveCount(2);
  await expect(both.first()).toContainText(`Before${badPoints} points`);
  await expect(both.last()).toContainText('Now');
  expect(await seriousFaults(page)).toEqual([]);

  await test.step('it is shown again, the next coat goes over it, and the score stays on this device', async () => {
    await page.getByRole('button', { name: 'Watch it again' }).click();
    await expect(answer(page)).toHaveText(/^That is the goal/, { timeout: 30_000 });
    await page.getByRole('button', { name: 'Next coat' }).click();
    await expect(page.getByText(/coat 2 of 3/)).toBeVisible();
    await expect(page.getByText(/Points on this device: \d+, \d+\./)).toBeVisible();
    expect(told).toEqual([]);
  });

  await test.step('pictures of passes take the hand as a first guess', async () => {
    const [row] = (await (await page.request.get(`${server.address}/api/jobs`)).json()).rows as { id: string }[];
    await page.goto(`${server.address}/jobs/${row!.id}/plan?show=passes`);
    await page.getByRole('button', { name: 'as practised' }).click();
    await expect(page.getByText(/Overlap 5\d %|Overlap 4\d %/)).toBeVisible();
    await expect(page.getByText(/by a measured hand/)).toBeVisible();
  });
  expect(errors).toEqual([]);
});

test('the side is walked: by an arm panel by panel, then in one stroke; by keys; and the wheel is the distance', async ({
  page,
}) => {
  await page.goto(`${server.address}/practice`);
  await ready(page);
  await page.getByRole('button', { name: 'Walk the side' }).click();
  await page.getByRole('button', { name: 'arm', exact: true }).click();
  await page.getByLabel('Speed, cm/s').fill('fast');
  await expect(page.getByText('The speed is between 10 and 150 cm/s.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Let it spray' })).toBeDisabled();
  await page.getByLabel('Speed, cm/s').fill('45');
  await page.getByRole('button', { name: 'Walks the side' }).click();
  await page.getByRole('button', { name: 'Let it spray' }).click();
  await expect(answer(page)).toHaveText('The break is doubled: walk the whole side in one stroke.', {
    timeout: 60_000,
  });
  expect(await figure(page, 'at the break')).toBeGreaterThan(1.5);
  await page.getByRole('button', { name: 'Panel by panel' }).click();
  await page.getByRole('button', { name: 'Let it spray' }).click();
  await expect(answer(page)).toHaveText('That is the goal: an even coat.', { timeout: 60_000 });
  expect(await figure(page, 'at the break')).toBeCloseTo(1, 1);

  await page.getByRole('button', { name: 'Wipe' }).click();
  await page.getByRole('button', { name: 'keys', exact: true }).click();
  const stage = page.getByTestId('stage');
  await stage.focus();
  await page.keyboard.down('ArrowDown');
  await page.waitForTimeout(1200);
  await page.keyboard.up('ArrowDown');
  await page.keyboard.press('Space');
  await page.keyboard.down('ArrowRight');
  await page.waitForTimeout(3200);
  await page.keyboard.up('ArrowRight');
  await page.keyboard.press('Space');
  await expect(answer(page)).toHaveText('Go on: the panel is not covered yet.');
  expect(await figure(page, 'film')).toBeGreaterThan(0.03);

  await page.getByRole('button', { name: 'Wipe' }).click();
  await page.getByRole('button', { name: 'hand', exact: true }).click();
  await stage.hover();
  const mark = stage.locator('[data-on]').last();
  await expect(mark).toHaveAttribute('style', /scale\(1\)/);
  for (let i = 0; i < 15; i++) await page.mouse.wheel(0, 100);
  await expect(mark).toHaveAttribute('style', /scale\(2\)/);
});

test('count and mix: practised with the server away, and nothing of it is told to it', async ({ page }) => {
  await page.goto(`${server.address}/practice`);
  await ready(page);
  await page.waitForTimeout(3500);
  const told: string[] = [];
  page.on('request', (r) => {
    if (r.method() !== 'GET') told.push(r.url());
  });
  await page.route('**/api/**', (r) => r.abort());
  await page.getByRole('link', { name: 'Count', exact: true }).click();
  await expect(answer(page)).toHaveText(/^½ coat of .*: lighter than what is wanted, there, or darker\?$/);
  await expect(page.getByRole('button', { name: 'Too dark: between the last two' })).toBeDisabled();
  await page.getByRole('button', { name: 'flop' }).click();
  await page.getByRole('button', { name: 'bulb' }).click();
  expect(await seriousFaults(page)).toEqual([]);
  for (let i = 0; i < 11; i++) await page.getByRole('button', { name: 'Too light: half a coat more' }).click();
  await expect(page.getByRole('button', { name: 'Too light: half a coat more' })).toBeDisabled();
  await page.getByRole('button', { name: /^There: stop at 6 coats/ }).click();
  await expect(answer(page)).toHaveText('You stopped at 6: past it.');
  await expect(page.getByText(/The program, from the rungs you saw, would have stopped at [\d.]+: /)).toBeVisible();
  await expect(page.getByText('Stopped inside: 0 of the last 1.')).toBeVisible();
  await page.getByRole('button', { name: 'Another card' }).click();
  await expect(answer(page)).toHaveText(/^½ coat of /);

  await page.getByRole('link', { name: 'Mix', exact: true }).click();
  const field = page.getByRole('textbox', { name: /^Answer/ });
  await field.fill('plenty');
  await field.press('Enter');
  await expect(page.getByText(/Write a number of (ml|g), for instance 120\./)).toBeVisible();
  await expect(field).toHaveValue('plenty');
  // The first question is a ratio: worked from its own words.
  const text = (await answer(page).textContent())!;
  const [, ratio] = /is mixed ([\d: .+%]+) by volume/.exec(text)!;
  expect(ratio).toMatch(/^\d/);
  await field.fill('1');
  await field.press('Enter');
  await expect(page.getByRole('list', { name: 'Answers' }).getByRole('listitem')).toHaveCount(1);
  await expect(page.getByText(/^Cup mark, question 2 of 10/)).toBeVisible();
  for (let i = 0; i < 9; i++) {
    await page.getByRole('textbox', { name: /^Answer/ }).fill('1');
    await page.keyboard.press('Enter');
  }
  await expect(answer(page)).toHaveText(/^\d+ of 10 right\.$/);
  await page.getByRole('button', { name: 'Ten more' }).click();
  await expect(page.getByText(/question 1 of 10/)).toBeVisible();
  expect(told).toEqual([]);
});

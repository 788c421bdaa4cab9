import { expect, test, type Page } from '@playwright/test';
import { demoReadings, type DemoTruth } from '@steady-gleam/core/demo';
import { averageReadings, type Reading } from '@steady-gleam/core/formats';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { seriousFaults } from './axe';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

/** An invented painter who lays a fifth more than nominal, matching a finish made by a nominal one. */
const PAINTER: DemoTruth = {
  groundId: 'aqua-pastel',
  mixId: 'lagoon-pearl',
  strength: 1,
  style: 'wet',
  hand: { film: 1.22, flake: 1, spread: 0.95 },
  edgeScale: 1.15,
};
const MAKER: DemoTruth = { ...PAINTER, hand: { film: 1, flake: 1, spread: 1 } };
const shop = prepareLibrary();

let folder: string;
let server: TestServer;

test.beforeAll(async () => {
  folder = makeFolder();
  server = await startServer(folder, 4721);
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const answer = (page: Page) => page.getByTestId('answer');

/** Types one spot's readings into the form shown. */
async function typeReadings(page: Page, readings: readonly Reading[]): Promise<void> {
  for (const [i, a] of averageReadings(readings).entries()) {
    await page.getByLabel(`L* at row ${i + 1}`, { exact: true }).fill(a.lab[0].toFixed(2));
    await page.getByLabel(`a* at row ${i + 1}`, { exact: true }).fill(a.lab[1].toFixed(2));
    await page.getByLabel(`b* at row ${i + 1}`, { exact: true }).fill(a.lab[2].toFixed(2));
  }
}

test('from readings of a finish to "spray k, then look", across a restart', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));

  await test.step('jobs: the demo, then a new job', async () => {
    await page.goto(server.address);
    await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(12);
    await expect(answer(page)).toContainText('is next');
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('link', { name: /^Match something/ }).click();
    await page.getByRole('button', { name: 'Start this job' }).click();
    await expect(page.getByText('Say what is to be finished')).toBeVisible();
    await page.getByLabel('Piece').fill('Dodgem shell 12');
    await page.getByLabel('Has to match').fill('shell 4, right side');
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('button', { name: 'Start this job' }).click();
    await expect(page).toHaveURL(/\/target$/);
  });

  await test.step('target: wrong numbers get a sentence and stay, nothing is stored', async () => {
    await page.getByRole('button', { name: 'Keep this target' }).click();
    await expect(page.getByText('Enter at least one angle')).toBeVisible();
    await page.getByLabel('L* at row 1', { exact: true }).fill('-3');
    await page.getByLabel('a* at row 1', { exact: true }).fill('abc');
    await page.getByLabel('b* at row 1', { exact: true }).fill('1,5');
    await page.getByLabel('Angle at row 2').fill('15');
    await page.getByLabel('L* at row 2', { exact: true }).fill('50');
    await page.getByRole('button', { name: 'Keep this target' }).click();
    for (const said of ["L* can't be below 0", 'a* must be a number', 'This angle is here twice', 'a* is missing']) {
      await expect(page.getByText(said).first()).toBeVisible();
    }
    await expect(page.getByLabel('L* at row 1', { exact: true })).toHaveValue('-3');
    const file = page.getByLabel('File of readings');
    await file.setInputFiles({ name: 'rubbish.csv', mimeType: 'text/csv', buffer: Buffer.alloc(5_000_000, 'x') });
    await expect(page.getByText('over 1 MB')).toBeVisible();
    await file.setInputFiles({ name: 'empty.csv', mimeType: 'text/csv', buffer: Buffer.from('') });
    await expect(page.getByText('This file is empty')).toBeVisible();
    await file.setInputFiles({
      name: 'bad.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('aspecular,L,a,b\n15,250,0,0\n'),
    });
    await expect(page.getByText('Line 2: L* is 250')).toBeVisible();
    await page.reload();
    await expect(answer(page)).toContainText('Nothing read yet');
  });

  await test.step('target: a CSV of three spots, averaged with its spread', async () => {
    const rows = demoReadings(shop, MAKER, 3, ['nose', 'left', 'tail'], 3).map(
      (r) => `${r.spot},${r.aspecular},${r.l},${r.a},${r.b}`,
    );
    await page.getByLabel('File of readings').setInputFiles({
      name: 'shell4.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(['spot,aspecular,L,a,b', ...rows].join('\n')),
    });
    await expect(page.getByText('3 spots, angles 15°')).toBeVisible();
    await page.getByRole('button', { name: 'Take these readings' }).click();
    await expect(answer(page)).toContainText('Read at 5 angles, 3 spots');
    await expect(page.getByText(/The spots (agree|differ)/)).toBeVisible();
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('link', { name: 'Find the ground and coats' }).click();
  });

  await test.step('match map: the ground and coats are found; keys move the probe and the angle', async () => {
    await expect(answer(page)).toContainText('Aqua pastel');
    const probe = page.getByTestId('probe');
    await expect(probe).toContainText('over aqua pastel');
    const before = await probe.textContent();
    await page.getByRole('grid').locator('[tabindex="0"]').focus();
    await page.keyboard.press('ArrowRight');
    await expect(probe).not.toHaveText(before!);
    await page.keyboard.press('ArrowUp');
    await expect(probe).toContainText('over light grey');
    await page.keyboard.press('[');
    await expect(page.getByRole('button', { name: '25°' })).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowLeft');
    await expect(probe).toHaveText(before!);
    const strength = page.getByRole('slider');
    await strength.focus();
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight');
    await expect(page.getByText('Strength 1.30×')).toBeVisible();
    // A stronger mix needs fewer coats: the best cell moves left by itself.
    await expect(answer(page)).toContainText(/2(\.\d|½)? coats/);
    for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowLeft');
    await expect(answer(page)).toContainText('3 coats');
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('gridcell', { name: /^Aqua pastel, 3 coats/ }).click();
    await page.getByRole('button', { name: 'Pick this, plan the card' }).click();
  });

  await test.step('let-down: plan, two rungs, and the advice is in this hand', async () => {
    await expect(answer(page)).toContainText('Not your hand yet');
    await page.getByRole('button', { name: 'Keep this plan' }).click();
    await expect(page.getByText('Say which gun')).toBeVisible();
    await page.getByLabel('Gun', { exact: true }).selectOption('Gun 2, 1.3 tip');
    await page.getByRole('button', { name: 'Keep this plan' }).click();
    for (const coats of [1, 2]) {
      await page.getByRole('button', { name: `Enter the rung with ${coats}` }).click();
      await typeReadings(page, demoReadings(shop, PAINTER, coats, ['1'], 50 + coats));
      await page.getByRole('button', { name: 'Keep this rung' }).click();
    }
    await expect(answer(page)).toHaveText(/Your card says 2\.[3-6]\. Spray (2|2½), then look\./);
    await expect(
      page.getByText(/^You lay (1[0-9]|2\d) % more than a nominal coat\W.*so it takes .* fewer than nominal said/),
    ).toBeVisible();
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('stop the server, start it again: all is there', async () => {
    const said = await answer(page).textContent();
    await server.stop();
    server = await startServer(folder, 4721);
    await page.goto(server.address);
    await page.getByRole('link', { name: /Dodgem shell 12/ }).click();
    await page.getByRole('link', { name: 'Let-down' }).click();
    await expect(answer(page)).toHaveText(said!);
    await expect(page.getByRole('button', { name: 'Rung of 2 coats, read' })).toBeVisible();
  });

  await test.step('the job leads on to the mix room, where the card’s count and hand make the amount', async () => {
    await page.getByRole('link', { name: 'Jobs' }).click();
    const row = page.getByRole('link', { name: /Dodgem shell 12/ });
    await expect(row).toContainText('Mix for it');
    await row.click();
    await expect(page).toHaveURL(/\/mix$/);
    await expect(page.getByText(/Your card says you lay 1\.\d\d of a nominal coat/)).toBeVisible();
    await expect(page.getByText(/3 coats are planned; your card says 2\.[3-6]/)).toBeVisible();
    const amount = async () => Number(/Mix (\d+) ml/.exec((await answer(page).textContent())!)![1]);
    const before = await amount();
    await page.getByRole('button', { name: 'Plan 2½' }).click();
    await expect(page.getByText(/2½ coats on/)).toBeVisible();
    expect(await amount()).toBeLessThan(before);
    await expect(page.getByRole('button', { name: 'Plan 2½' })).toHaveCount(0);
    await page.getByRole('link', { name: 'Spray plan' }).click();
    await page.getByRole('button', { name: 'Coats', exact: true }).click();
    await expect(page.getByText('Lagoon pearl 3 of 3')).toBeVisible();
    await expect(page.getByText('half coat, walked')).toBeVisible();
    expect(await seriousFaults(page)).toEqual([]);
  });
  expect(errors).toEqual([]);
});

test('a second server on the same data folder is refused with a clear sentence', async () => {
  await expect(startServer(folder, 4722)).rejects.toThrow(/already using the data folder/);
});

test('unknown addresses and a server that is away are said, not shown as blanks', async ({ page, browser }) => {
  await page.goto(`${server.address}/jobs/00000000-0000-4000-8000-000000000000/map`);
  await expect(page.getByText('This job is not here.')).toBeVisible();
  await page.goto(`${server.address}/nowhere/at/all`);
  await expect(page.getByText('There is nothing at this address.')).toBeVisible();
  await page.route(/\/api\/jobs\?/, (route) => route.abort());
  await page.goto(server.address);
  await expect(page.getByText('The jobs could not be opened.')).toBeVisible({ timeout: 15_000 });
  // A device that knows the materials would go on with those; this one knows nothing yet.
  const stranger = await (await browser.newContext()).newPage();
  await stranger.route('**/api/materials', (route) => route.abort());
  await stranger.goto(server.address);
  await expect(stranger.getByText('The materials could not be opened.')).toBeVisible({ timeout: 15_000 });
  await stranger.context().close();
});

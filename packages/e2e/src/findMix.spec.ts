import { expect, test, type Page } from '@playwright/test';
import type { JobDetail } from '@steady-gleam/contracts';
import { demoReadings } from '@steady-gleam/core/demo';
import { FAMILIES, FAMILY_IDS } from '@steady-gleam/core/finishes';
import { toReadingsCsv } from '@steady-gleam/core/formats';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { seriousFaults } from './axe';
import { journeyServer } from './journeyServer';

const shop = prepareLibrary();
const family = FAMILY_IDS[0]!;
const server = journeyServer(4884);

const answer = (page: Page) => page.getByTestId('answer');

test('a reading without any mix becomes a job with one: found on the shelf, rounded, begun, on the map', async ({
  page,
}) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  const mix = shop.library.systems.find((s) => s.family === family)!;
  const read = demoReadings(
    shop,
    {
      ...{ groundId: 'aqua-pastel', mixId: mix.id, strength: 1.1, style: FAMILIES[family].start.style, edgeScale: 1 },
      hand: { film: 1, flake: 1, spread: 1 },
    },
    3,
    ['1', '2', '3'],
    5,
  );
  await page.goto(`${server.address}/jobs/new`);
  await page.getByRole('link', { name: 'Find the mix' }).click();
  await page.getByLabel('File of readings').setInputFiles({
    name: 'wing.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(toReadingsCsv(read)),
  });
  await page.getByRole('button', { name: 'Take these readings' }).click();
  await expect(answer(page)).toContainText('Best so far', { timeout: 20_000 });
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(answer(page)).toContainText('The search was stopped.');
  await page.getByRole('button', { name: 'Look again' }).click();
  await expect(answer(page)).toContainText(/^Found: .* within \d\.\d dE00 at every angle/, { timeout: 60_000 });
  const first = page.getByRole('list', { name: 'Mixes' }).getByRole('listitem').first();
  await expect(first).toContainText(/100carrier[\d.]+/);
  expect(await seriousFaults(page)).toEqual([]);
  await first.getByRole('button', { name: 'Begin a job with it' }).click();
  await page.getByLabel('Piece').fill('Swan boat wing');
  await page.getByRole('button', { name: 'To the map' }).click();
  await expect(page).toHaveURL(/\/map$/);
  await expect(answer(page)).toContainText('in the nominal hand.');
  const id = /jobs\/([^/]+)/.exec(page.url())![1]!;
  const { job, target } = (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as JobDetail;
  expect(job.pick).not.toBeNull();
  expect(target!.readings).toHaveLength(read.length);
  await test.step('the same for what a job has to match, however it was read: one tap makes it its mix', async () => {
    await page.goto(`${server.address}/jobs/new`);
    await page.getByLabel('Piece').fill('Gondola 4');
    await page.getByLabel('Has to match').fill('Gondola 3');
    await page.getByRole('button', { name: FAMILIES[family].name, exact: true }).click();
    await page.getByRole('button', { name: 'Start this job' }).click();
    await expect(page).toHaveURL(/\/target$/);
    await page.getByLabel('File of readings').setInputFiles({
      name: 'gondola.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(toReadingsCsv(read)),
    });
    await page.getByRole('button', { name: 'Take these readings' }).click();
    await page.getByRole('link', { name: 'Find another mix for it' }).click();
    await expect(answer(page)).toContainText(/^Found: .* within \d\.\d dE00 at every angle/, { timeout: 60_000 });
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('button', { name: 'Take this mix' }).first().click();
    await expect(page).toHaveURL(/\/map$/);
    const own = /jobs\/([^/]+)/.exec(page.url())![1]!;
    const taken = (await (await page.request.get(`${server.address}/api/jobs/${own}`)).json()) as JobDetail;
    expect(taken.job.mixId).toMatch(/^[0-9a-f-]{36}$/);
    expect(taken.job.pick).not.toBeNull();
  });
  await test.step('a job of which something was sprayed keeps its mix: what is found begins another', async () => {
    const list = (await (await page.request.get(`${server.address}/api/jobs?words=shell+7`)).json()) as {
      rows: { id: string }[];
    };
    const shelved = async () =>
      ((await (await page.request.get(`${server.address}/api/materials`)).json()) as unknown[]).length;
    const before = await shelved();
    await page.goto(`${server.address}/jobs/${list.rows[0]!.id}/find`);
    await expect(page.getByText('so it keeps it: a mix that is found begins a job of its own')).toBeVisible();
    await expect(answer(page)).toContainText(/^Found|^Nothing on this shelf/, { timeout: 60_000 });
    await expect(page.getByRole('button', { name: 'Take this mix' })).toHaveCount(0);
    await page.getByRole('button', { name: 'Begin a job with it' }).first().click();
    await page.getByLabel('Piece').fill('Dodgem shell 8');
    await page.getByRole('button', { name: 'To the map' }).click();
    await expect(page).toHaveURL(/\/map$/);
    expect(await shelved()).toBe(before + 1);
  });
  // A family of dyes alone is looked for without flakes.
  await page.goto(`${server.address}/find`);
  await page.getByLabel('Family').selectOption({ label: FAMILIES[FAMILY_IDS[1]!].name });
  await expect(answer(page)).toContainText('Read it');
  expect(errors).toEqual([]);
});

import { expect, test, type Page } from '@playwright/test';
import type { JobDetail } from '@steady-gleam/contracts';
import { demoReadings } from '@steady-gleam/core/demo';
import { FAMILIES, FAMILY_IDS } from '@steady-gleam/core/finishes';
import { toCgats, toReadingsCsv } from '@steady-gleam/core/formats';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { appendFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seriousFaults } from './axe';
import { pullsCable, sends, withSerialPort } from './fakeSerial';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

const shop = prepareLibrary();
const family = FAMILY_IDS[0]!;
const { start } = FAMILIES[family];
const mix = shop.library.systems.find((s) => s.family === family)!;
const painter = (film: number) => ({
  ...{ groundId: start.groundId, mixId: mix.id, strength: 1, style: start.style, edgeScale: 1 },
  hand: { film, flake: 1, spread: 1 },
});

let folder: string;
let inbox: string;
let server: TestServer;
test.beforeAll(async () => {
  folder = makeFolder();
  inbox = mkdtempSync(join(tmpdir(), 'steady-gleam-inbox-'));
  server = await startServer(folder, 4876, { STEADY_GLEAM_INBOX: inbox });
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
  rmSync(inbox, { recursive: true, force: true });
});

const answer = (page: Page) => page.getByTestId('answer');
const offers = (page: Page) => page.getByRole('group', { name: 'From the watched folder' });
const put = (name: string, text: string) => writeFileSync(join(inbox, name), text);
const read = async (page: Page, id: string): Promise<JobDetail> =>
  (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as JobDetail;

async function begin(page: Page, piece: string): Promise<string> {
  await page.goto(`${server.address}/jobs/new`);
  await page.getByLabel('Piece').fill(piece);
  await page.getByLabel('Has to match').fill('the board beside it');
  await page.getByRole('button', { name: FAMILIES[family].name, exact: true }).click();
  await page.getByRole('button', { name: 'Start this job' }).click();
  await expect(page).toHaveURL(/\/target$/);
  return /jobs\/([^/]+)\//.exec(page.url())![1]!;
}

test('a job of the shop’s own by the watched folder: target and rungs come in, each taken once', async ({ page }) => {
  const id = await begin(page, 'Rounding board 5');
  const target = demoReadings(shop, painter(1), 3, ['a', 'b', 'c'], 7);
  // Half a file is there for a while; nothing of it is offered.
  const text = toCgats(target);
  put('board.txt', text.slice(0, 300));
  await page.waitForTimeout(2500);
  await expect(offers(page)).toHaveCount(0);
  appendFileSync(join(inbox, 'board.txt'), text.slice(300));
  await expect(offers(page)).toContainText(/3 spots at 5 angles came in \d+ s ago: board\.txt: for the target\?/);
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: 'Take these readings' }).click();
  await expect(answer(page)).toContainText('Read at 5 angles, 3 spots.');
  expect((await read(page, id)).target!.source).toBe('cgats');

  await page.getByRole('link', { name: 'Find the ground and coats' }).click();
  await page.getByRole('button', { name: 'Pick this, plan the card' }).click();
  await page.getByLabel('Gun', { exact: true }).selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  const rung = page.getByRole('button', { name: /^Enter the rung with/ });
  await rung.first().click();
  await expect(offers(page)).toHaveCount(0);
  put('wrong.csv', 'spot,aspecular,L,a,b\n1,15,lots,0,0\n');
  put('rung.csv', toReadingsCsv(demoReadings(shop, painter(1.1), 2, ['1'], 9)));
  await expect(offers(page)).toContainText('rung.csv: for rung');
  await expect(offers(page)).toContainText(/wrong\.csv\. Line 2/);
  await page.getByRole('button', { name: 'Lay it aside' }).click();
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.getByRole('button', { name: 'Take these readings' }).click();
  await expect.poll(async () => (await read(page, id)).rungs.length).toBe(1);
  await rung.first().click();
  await expect(page.getByRole('button', { name: 'Keep this rung' })).toBeVisible();
  await expect(offers(page)).toHaveCount(0);

  // By its keys: a burst of figures, sorted; one that is short is said and kept.
  await page.getByRole('button', { name: 'By its keys' }).click();
  const keys = page.getByLabel(/press the instrument’s key/);
  await keys.pressSequentially('60.1 1.5 -20 55 2', { delay: 3 });
  await expect(page.getByText(/5 figures came, and 15 make a spot/)).toBeVisible();
  await expect(keys).toHaveValue('60.1 1.5 -20 55 2');
  await page.getByRole('button', { name: 'Clear it and read again' }).click();
  await keys.pressSequentially('60.1 1.5 -20 55 2 -18 40 3 -15.5 20 1 -9 12 0.5 -4', { delay: 3 });
  await page.getByRole('button', { name: 'Take these readings' }).click();
  await expect.poll(async () => (await read(page, id)).rungs.map((r) => r.source).sort()).toEqual(['csv', 'keys']);
});

test('a pour on the live scale: the cable is pulled, pounds are refused, too much is rescued', async ({ page }) => {
  await withSerialPort(page);
  await page.goto(`${server.address}/shop/devices/scale`);
  await page.getByRole('button', { name: 'serial port' }).click();
  await sends(page, ['ST +  12.0 g']);
  await expect(answer(page)).toContainText('The scale shows 12.0 g.');
  await sends(page, ['ST +  0.026 lb']);
  await expect(answer(page)).toContainText('The scale sends pounds. Switch it to grams');
  expect(await seriousFaults(page)).toEqual([]);

  // A demo job with its card read.
  const { rows } = (await (await page.request.get(`${server.address}/api/jobs?words=carousel`)).json()) as {
    rows: { id: string }[];
  };
  await page.goto(`${server.address}/jobs/${rows[0]!.id}/mix`);
  await page.getByRole('button', { name: 'by scale' }).click();
  const panel = page.getByRole('group', { name: 'On the scale' });
  const says = page.getByTestId('pour-says');
  const steady = (grams: number) => Array.from({ length: 4 }, () => `ST + ${grams.toFixed(1)} g`);
  await sends(page, steady(40));
  await page.getByRole('button', { name: 'The empty cup is on: begin' }).click();
  const first = Number(/([\d.]+) g to go/.exec((await says.textContent())!)![1]);
  await sends(page, [`US + ${(40 + 0.5 * first).toFixed(1)} g`]);
  await expect(panel.getByRole('heading')).toContainText('Pour: ');
  await expect(page.getByRole('progressbar', { name: 'Poured of this part' })).toHaveAttribute(
    'aria-valuenow',
    /^(49|50)$/,
  );
  await sends(page, steady(40 + 0.6 * first));
  await pullsCable(page);
  await expect(panel.getByRole('alert')).toContainText('The cable was pulled, or the device is off.');
  await expect(panel.getByRole('alert')).toContainText(`${(0.6 * first).toFixed(1)} g are in the cup.`);
  await page.getByRole('button', { name: 'Connect the scale' }).click();
  await sends(page, [`US + ${(40 + 0.94 * first).toFixed(1)} g`]);
  await expect(panel.getByRole('heading')).toContainText('Slowly now: ');
  await page.reload();
  await sends(page, steady(40 + 1.2 * first));
  await expect(panel.getByRole('heading')).toContainText('Too much: ');
  await expect(says).toContainText('too much.');
  await expect(page.getByTestId('pour-rescue')).toContainText(/the batch is .*Bring to: /);
  expect(await seriousFaults(page)).toEqual([]);
  const grown = /Go on with (\d+) ml/.exec((await panel.textContent())!)![1]!;
  await page.getByRole('button', { name: /^Go on with/ }).click();
  await expect(answer(page)).toContainText(`Mix ${grown} ml`);
  await expect(panel.getByRole('heading')).toContainText('Pour: ');
});

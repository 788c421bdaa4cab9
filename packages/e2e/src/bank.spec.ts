import { expect, test, type Page } from '@playwright/test';
import type { FinishDetail, JobDetail } from '@steady-gleam/contracts';
import { randomUUID } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { seriousFaults } from './axe';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

let folder: string;
let server: TestServer;
test.beforeAll(async () => {
  folder = makeFolder();
  server = await startServer(folder, 4861);
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const answer = (page: Page) => page.getByTestId('answer');
interface BankReading {
  readonly cardId: string | null;
  readonly finishId: string;
  readonly coats: number | null;
  readonly angles: readonly { readonly aspecular: number; readonly lab: readonly [number, number, number] }[];
}

/** What an object reads that lies between two rungs of the wing's card. */
async function between(page: Page): Promise<{ finishId: string; angles: BankReading['angles'] }> {
  const { readings } = (await (await page.request.get(`${server.address}/api/bank/readings`)).json()) as {
    readings: BankReading[];
  };
  const list = (await (await page.request.get(`${server.address}/api/finishes?words=wing`)).json()) as {
    rows: { id: string }[];
  };
  const finishId = list.rows[0]!.id;
  const rung = (coats: number) => readings.find((r) => r.finishId === finishId && r.coats === coats)!;
  const [low, high] = [rung(3), rung(4)];
  const angles = low.angles.map((g, k) => {
    const at = (j: 0 | 1 | 2) => Number((0.6 * g.lab[j] + 0.4 * high.angles[k]!.lab[j]).toFixed(1));
    return { ...g, lab: [at(0), at(1), at(2)] as const };
  });
  return { finishId, angles };
}

async function typeReading(page: Page, angles: BankReading['angles']): Promise<void> {
  for (const [n, g] of angles.entries())
    for (const [k, name] of ['L*', 'a*', 'b*'].entries())
      await page.getByLabel(`${name} at row ${n + 1}`, { exact: true }).fill(String(g.lab[k]));
}

test('a darker one comes in: read, found in the bank, this card at a count between two rungs, and its plan in few taps', async ({
  page,
}) => {
  const { finishId, angles } = await between(page);
  await page.goto(server.address);
  let taps = 0;
  const tap = async (role: 'link' | 'button', name: string | RegExp) => {
    taps++;
    await page.getByRole(role, { name }).click();
  };
  await tap('link', 'Bank');
  await expect(answer(page)).toHaveText(/^\d+ finishes\.$/);
  expect(await seriousFaults(page)).toEqual([]);
  await tap('button', 'A reading');
  await page.getByRole('button', { name: 'Find the nearest' }).click();
  await expect(page.getByText('Enter at least one angle, or choose a file.')).toBeVisible();
  await typeReading(page, angles);
  await tap('button', 'Find the nearest');
  await expect(answer(page)).toHaveText(
    /^Nearest: the wing itself, rung 3\.[3-5]\. Within 0\.\d dE00 at every angle\.$/,
  );
  const nearest = page.getByRole('list', { name: 'Nearest' });
  await expect(nearest.getByRole('listitem').first()).toContainText('the wing itself');
  expect(await seriousFaults(page)).toEqual([]);
  await tap('link', /^New job: this card, rung 3\.[3-5]$/);
  await expect(page.getByText(/^With its card, at 3\.[3-5] coats of it; what you read is the target\.$/)).toBeVisible();
  await page.getByLabel('Piece').fill('Gondola 9, wing');
  await tap('button', 'Start this job');
  await expect(page).toHaveURL(/\/plan$/);
  await expect(page.getByRole('table').first()).toContainText(/Lagoon pearl/);
  expect(taps).toBeLessThan(10);
  // Its own finish, with the card and what was read; the one of the bank is as it was.
  const id = /jobs\/([0-9a-f-]+)/.exec(page.url())![1]!;
  const made = (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as JobDetail;
  expect(made.job.finishId).not.toBe(finishId);
  expect(made.target!.readings.map((r) => r.l)).toEqual(angles.map((g) => g.lab[0]));
  expect(made.rungs.map((r) => r.rungCoats)).toContain(4);
  const kept = (await (await page.request.get(`${server.address}/api/finishes/${finishId}`)).json()) as FinishDetail;
  expect(kept.finish.pick!.coats).toBe(3);

  await test.step('the same from the finish itself: looked at again', async () => {
    await page.goto(`${server.address}/bank/${finishId}`);
    await typeReading(page, angles);
    await page.getByRole('button', { name: 'Which rung fits?' }).click();
    await expect(page.getByRole('region', { name: 'Look again' })).toContainText(
      /This card, rung 3\.[3-5]: within 0\.\d/,
    );
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('a card has its page, with what was read of it before', async () => {
    const rung = kept.cards[0]!.rungs[0]!;
    const again = { ...rung, id: randomUUID(), readings: rung.readings.map((r) => ({ ...r, l: r.l + 2 })) };
    const sent = await page.request.post(`${server.address}/api/finishes/${finishId}/readings`, { data: again });
    expect(sent.status()).toBe(201);
    await page.goto(`${server.address}/bank/${finishId}`);
    await page.getByRole('link', { name: 'the card by itself, 1 read before' }).click();
    await expect(page.getByRole('region', { name: 'The card, read before' })).toContainText(
      /^Read beforeRung 2, .*, replaced; max \d\.\d dE00 from what is in force$/,
    );
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('by a look, which answers while it moves; by keyboard along the list', async () => {
    await page.goto(`${server.address}/bank?by=look`);
    await page.getByRole('slider', { name: /^Lightness/ }).focus();
    await page.keyboard.press('ArrowRight');
    await expect(answer(page)).toHaveText(/^Nearest: /);
    const said = await answer(page).innerText();
    for (let i = 0; i < 6; i++) await page.keyboard.press('PageUp');
    await expect(answer(page)).not.toHaveText(said);
    await page.goto(`${server.address}/bank?sort=name`);
    const rows = page.getByRole('list', { name: 'Finishes' }).getByRole('button');
    await rows.first().focus();
    await page.keyboard.press('End');
    await expect(rows.last()).toBeFocused();
    await page.keyboard.press('Home');
    await expect(rows.first()).toBeFocused();
    await page.keyboard.press('ArrowDown');
    await expect(rows.nth(1)).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(rows.nth(1)).toHaveAttribute('aria-pressed', 'true');
  });
});

test('codes, a copy as a start, and a file that goes to another shop: what is missing there is asked', async ({
  page,
}) => {
  await page.goto(`${server.address}/bank`);
  await page.getByLabel('Search the bank').fill('organ');
  await page.getByRole('button', { name: /the board over the organ/ }).click();
  await page.getByRole('link', { name: 'Cards and history' }).click();
  await page.getByLabel('Codes').fill('R-3, R-3');
  await page.getByRole('button', { name: 'Keep name and codes' }).click();
  await expect(page.getByText('The same code stands there twice.')).toBeVisible();
  await page.getByLabel('Codes').fill('R-3, rack 2');
  await page.getByRole('button', { name: 'Keep name and codes' }).click();
  await expect(page.getByRole('button', { name: 'Keep name and codes' })).toBeDisabled();
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as file' }).click();
  const saved = await waiting;
  expect(saved.suggestedFilename()).toBe('the-board-over-the-organ.finish.json');
  const text = readFileSync(await saved.path(), 'utf8');
  await page.getByRole('button', { name: 'Take as a start' }).click();
  await expect(answer(page)).toHaveText(/^the board over the organ, a start: /);
  await page.goto(`${server.address}/bank?words=rack`);
  await expect(page.getByRole('list', { name: 'Finishes' }).getByRole('listitem')).toHaveCount(1);

  // As if from a shop with another gun and a ground of its own.
  const file = JSON.parse(text) as {
    finish: { id: string; name: string; pick: { groundId: string } };
    guns: { id: string }[];
  };
  const [gun, ground] = [file.guns[0]!.id, file.finish.pick.groundId];
  file.finish.name = 'Rose from elsewhere';
  const theirs = JSON.stringify(file)
    .replaceAll(file.finish.id, randomUUID())
    .replaceAll(gun, randomUUID())
    .replaceAll(`"${ground}"`, `"${randomUUID()}"`);
  const choose = async (name: string, content: string) => {
    writeFileSync(join(folder, name), content);
    await page.getByLabel('File of finishes').setInputFiles(join(folder, name));
  };
  await page.goto(`${server.address}/bank`);
  await choose('torn.finish.json', theirs.slice(0, 900));
  await expect(page.getByRole('alert')).toContainText('torn.finish.json can’t be opened');
  await choose('odd.finish.json', theirs.replace('"wet"', '"velvet"').replace('"medium"', '"velvet"'));
  await expect(page.getByRole('alert')).toContainText(/finish\.pick\.style: This must be one of/);
  await choose('rose.finish.json', theirs);
  const inFile = page.getByRole('region', { name: 'In the file' });
  await expect(inFile).toContainText('Rose from elsewhere');
  await inFile.getByRole('button', { name: 'Put into the bank' }).click();
  await expect(inFile).toContainText(/this gun is not on the shelf here/);
  await inFile.getByLabel(/^Gun: /).selectOption('take');
  for (const field of await inFile.getByLabel(/^Ground: /).all()) await field.selectOption({ index: 1 });
  expect(await seriousFaults(page)).toEqual([]);
  await inFile.getByRole('button', { name: 'Put into the bank' }).click();
  await page.getByRole('link', { name: 'Rose from elsewhere' }).click();
  await expect(page.getByRole('region', { name: 'Card in force' })).toContainText('Gun');
  // The same once more is noticed.
  await page.goto(`${server.address}/bank`);
  await choose('own.finish.json', text);
  await expect(inFile.getByLabel('It is in the bank already')).toBeVisible();
});

test('jobs are found by words, state and family; another order is kept in the address', async ({ page }) => {
  await page.goto(server.address);
  const list = page.getByRole('list', { name: 'Jobs' });
  await page.getByLabel('Search the jobs').fill('gondola door');
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await page.getByLabel('Search the jobs').fill('gondola nothing');
  await expect(page.getByText('No job answers to that.')).toBeVisible();
  await page.getByLabel('Search the jobs').fill('');
  await page.getByLabel('State').selectOption('finished');
  await expect(list.getByRole('listitem')).toHaveCount(1);
  await expect(list).toContainText('Ticket-booth fascia');
  await page.goto(`${server.address}/?family=candy&sort=name`);
  await expect(list.getByRole('listitem').first()).toContainText('Carousel horse');
  // The lined tub has a candy among its finishes.
  await expect(list.getByRole('listitem')).toHaveCount(3);
});

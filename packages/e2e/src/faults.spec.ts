import { expect, test } from '@playwright/test';
import type { JobDetail } from '@steady-gleam/contracts';
import { eventOf, jobState, laidOf, workOfJob, type JobEvent } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';
import { FAULTS } from '@steady-gleam/core/faults';
import { seriousFaults } from './axe';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

const JOB = '1a47e000-0000-4000-8000-000000000fa0';
let folder: string;
let server: TestServer;
test.beforeAll(async () => {
  folder = makeFolder();
  server = await startServer(folder, 4821);
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

test('faults by word and by picture, without a job', async ({ page }) => {
  await page.goto(server.address);
  await page.getByRole('link', { name: 'Faults', exact: true }).click();
  const list = page.getByRole('group', { name: 'Faults' }).getByRole('button');
  await expect(list).toHaveCount(FAULTS.length);
  await page.getByLabel('In a word').fill('zebra');
  await expect(list).toHaveCount(1);
  await expect(page.getByTestId('answer')).toContainText('Stripes: Crossed or shifted light coats');
  await page.getByLabel('In a word').fill('unheard of');
  await expect(page.getByTestId('answer')).toHaveText('No fault is called “unheard of”.');
  await page.getByLabel('In a word').fill('');
  await list.filter({ hasText: 'Fisheyes' }).click();
  await expect(page.getByRole('region', { name: 'Fisheyes' })).toContainText('Stop at the mist coat');
  await page.reload();
  await expect(page.getByRole('region', { name: 'Fisheyes' })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
});

test('mottling seen with lights off before clear: the log says that the effect went on too early, and the ways out stand there', async ({
  page,
}) => {
  // As told by a device whose painter was in a hurry: a step every three minutes, nothing ticked dull.
  const url = `${server.address}/api/jobs/${JOB}`;
  const detail = (await (await page.request.get(url)).json()) as JobDetail;
  const { plan } = workOfJob({
    ...{ ...detail, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS },
  })!;
  const events: JobEvent[] = [];
  const from = Date.now() - 3 * 60 * 60_000;
  for (let i = 0; i < 60; i++) {
    const { next } = jobState(plan, events);
    if (!next || (next.is === 'check' && next.state.check.kind === 'lamp')) break;
    const about = { id: randomUUID(), at: from + i * 3 * 60_000 };
    events.push(
      next.is === 'cell'
        ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(next.state.cell)] })
        : eventOf({ ...about, kind: 'check', checkId: next.state.check.id }),
    );
  }
  const posted = await page.request.post(`${url}/events`, { data: { events } });
  expect(posted.ok()).toBe(true);
  await page.goto(`${server.address}/jobs/${JOB}/booth`);
  await expect(page.getByRole('heading', { name: /^Lights off on/ })).toBeVisible();
  await page.getByRole('button', { name: 'A fault' }).click();
  await page
    .getByRole('group', { name: 'Which fault' })
    .getByRole('button', { name: /^Mottling, clouds/ })
    .click();
  const card = page.getByRole('region', { name: 'Mottling, clouds' });
  const causes = card.getByRole('list', { name: 'Causes' }).getByRole('listitem');
  await expect(causes.first()).toContainText('what lay below was not dry');
  await expect(causes.first()).toContainText(/By the log: .* went on \d+ min after .*, which needed \d+ min/);
  await expect(card).toContainText('Control coat from twice as far');
  await expect(card).toContainText('No further wet coat over it');
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Put right: go on' }).click();
  await expect(page.getByTestId('coat').or(page.getByTestId('check'))).toBeVisible();
});

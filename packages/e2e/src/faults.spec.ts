import { expect, test } from '@playwright/test';
import { FAULTS } from '@steady-gleam/core/faults';
import { seriousFaults } from './axe';
import { stepOn } from './boothSteps';
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
  await page.goto(`${server.address}/jobs/${JOB}/booth`);
  // Everything is tapped at once without its flash being ticked dull, as by someone in a hurry.
  for (let i = 0; i < 60; i++) {
    await page.getByTestId('check').or(page.getByTestId('coat')).waitFor();
    if (await page.getByRole('heading', { name: /^Lights off on/ }).count()) break;
    if (await page.getByTestId('check').count()) await stepOn(page);
    else await page.getByRole('button', { name: 'Sprayed: next', exact: true }).click();
  }
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

import { expect, test } from '@playwright/test';
import { FAULTS } from '@steady-gleam/core/faults';
import { seriousFaults } from './axe';
import { runLogTo } from './logRun';
import { journeyServer } from './journeyServer';

const JOB = '1a47e000-0000-4000-8000-000000000fa0';
const server = journeyServer(4821);

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
  await runLogTo(page, server.address, JOB, (next) => next.is === 'check' && next.state.check.kind === 'lamp');
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
  // Both ways out of the table stand there; the control coat goes right on it, then it is looked at, and the lamp is asked again.
  const ways = page.getByRole('group', { name: 'Ways out' });
  await expect(ways.getByRole('button', { name: /^Back to the ground there/ })).toBeVisible();
  await ways.getByRole('button', { name: /^Control coat from twice as far/ }).click();
  await expect(page.getByTestId('coat')).toHaveText(/^Control coat of/);
  await page.getByRole('button', { name: /^Sprayed: / }).click();
  await expect(page.getByTestId('check')).toHaveText(/^Stop\. Look at mottling/);
  await expect(
    page.getByRole('button', { name: /^Look under the booth lamp and in the sun’s flop too$/ }),
  ).toBeDisabled();
  await page.getByRole('button', { name: 'It matches here' }).click();
  await page.getByRole('button', { name: /^Seen lamp/ }).click();
  await page.getByRole('button', { name: 'It matches here' }).click();
  await page.getByRole('button', { name: 'Mended: go on' }).click();
  await expect(page.getByRole('heading', { name: /^Lights off on/ })).toBeVisible();
  // What was found there is mended: the lamp asks anew.
  await expect(page.getByRole('alert')).toHaveCount(0);
});

import { expect, test } from '@playwright/test';
import { journeyServer } from './journeyServer';

const server = journeyServer(4731);

test('a painter adds a ground and a mix of their own and uses them on the map', async ({ page }) => {
  await page.goto(`${server.address}/materials`);
  await test.step('a ground, copied and changed; wrong figures are said and kept', async () => {
    await page.getByRole('button', { name: 'Copy Aqua pastel' }).click();
    const form = page.getByRole('form', { name: 'Material' });
    await form.getByLabel('Name').fill('Harbour pastel');
    await form.getByLabel('L*').fill('140');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText(/must be|lies between/).first()).toBeVisible();
    await expect(form.getByLabel('L*')).toHaveValue('140');
    await form.getByLabel('L*').fill('80');
    await form.getByLabel('Mark on the map').fill('harbour');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByTestId('answer')).toHaveText('17 grounds, 1 of your own.');
  });
  await test.step('a pigment by thickness, and a mix with it', async () => {
    await page.getByRole('button', { name: 'Effect pigments' }).click();
    await page.getByRole('button', { name: 'Add an effect pigment' }).click();
    const form = page.getByRole('form', { name: 'Material' });
    await form.getByLabel('Name').fill('Harbour blue');
    await form.getByLabel('Film, nm').fill('900');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText('at most 260 nm thick')).toBeVisible();
    await form.getByLabel('Film, nm').fill('136');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText('Harbour blue')).toBeVisible();
    await page.getByRole('button', { name: 'Mixes' }).click();
    await page.getByRole('button', { name: 'Add a mix' }).click();
    await form.getByLabel('Name').fill('Harbour pearl');
    await form.getByLabel('Colour: pigment, dye or base colour').selectOption({ label: 'Harbour blue (pigment)' });
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText('Give its parts, or say the strengths another way.').first()).toBeVisible();
    await form.getByLabel('Carrier, parts').fill('100');
    await form.getByLabel('Its parts').first().fill('4');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText('Harbour pearl')).toBeVisible();
  });
  await test.step('a sealer shade of base colours, white to red 2:1, looked at as it is mixed', async () => {
    await page.getByRole('button', { name: 'Grounds' }).click();
    await page.getByRole('button', { name: 'Add a ground' }).click();
    const form = page.getByRole('form', { name: 'Material' });
    await form.getByLabel('Name').fill('Rose sealer shade');
    await form.getByLabel('Mark on the map').fill('roseal');
    await form.getByLabel('Its look comes from').selectOption('parts');
    await form.getByLabel('Base colour', { exact: true }).selectOption({ label: 'White base' });
    await form.getByLabel('Its parts').first().fill('2');
    await form.getByLabel('And', { exact: true }).selectOption({ label: 'Red base, translucent' });
    await form.getByLabel('Its parts').nth(1).fill('1');
    await expect(form.getByRole('img', { name: 'The ground as it is mixed' })).toContainText('hides in');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByText('Rose sealer shade')).toBeVisible();
  });
  await test.step('a job with the mix, and the ground as a row of its map', async () => {
    await page.goto(`${server.address}/jobs/new`);
    await page.getByLabel('Piece').fill('Dodgem shell 3');
    await page.getByLabel('Has to match').fill('shell 1');
    await page.getByRole('button', { name: /Harbour pearl/ }).click();
    await page.getByRole('button', { name: 'Start this job' }).click();
    await page.getByLabel('L* at row 3', { exact: true }).fill('70');
    await page.getByLabel('a* at row 3', { exact: true }).fill('-15');
    await page.getByLabel('b* at row 3', { exact: true }).fill('-12');
    await page.getByRole('button', { name: 'Keep this target' }).click();
    await page.getByRole('link', { name: 'Find the ground and coats' }).click();
    await expect(page.getByRole('gridcell', { name: /^Harbour pastel, 3 coats/ })).toBeVisible();
  });
  await test.step('what is used is kept, and said', async () => {
    await page.goto(`${server.address}/materials`);
    await page.getByRole('button', { name: 'Mixes' }).click();
    await page.getByRole('button', { name: 'Change Harbour pearl' }).click();
    await page.getByRole('button', { name: 'Remove' }).click();
    await expect(page.getByText('used by Dodgem shell 3')).toBeVisible();
  });
});

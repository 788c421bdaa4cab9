import { expect, test, type Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { seriousFaults } from './axe';
import { keepFlakeLayers } from './flakeLayers';
import { demoJob, journeyServer } from './journeyServer';
import { root } from './testServer';

const server = journeyServer(4764);

const answer = (page: Page) => page.getByTestId('answer');
const tab = (page: Page, name: string) =>
  page.getByRole('group', { name: 'What is mixed' }).getByRole('button', { name, exact: true }).click();
const batchRow = (page: Page, name: string) => page.getByRole('table', { name: 'Batch' }).getByRole('row', { name });
/** What the headless calculator says. */
function calc(...requests: object[]): Record<string, unknown>[] {
  const out = execFileSync('npm', ['run', '--silent', 'calc'], {
    cwd: root,
    input: requests.map((r) => JSON.stringify(r)).join('\n'),
    encoding: 'utf8',
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  return out
    .trim()
    .split('\n')
    .map((line) => (JSON.parse(line) as { result: Record<string, unknown> }).result);
}

test('flake for this ground, products by hand and by file, with what is wrong named', async ({ page }) => {
  // Without a flake layer there is no flake to dose.
  await page.goto(`${server.address}/jobs/${demoJob(4)}/mix?layer=flake`);
  await expect(page.getByText('There is no flake among the layers.')).toBeVisible();
  await keepFlakeLayers(server.address, demoJob(4));
  await page.reload();
  await expect(answer(page)).toContainText(/g\/l of flake, in \d coats?\./);
  await page.getByRole('button', { name: '95 %', exact: true }).click();
  const [dose] = calc({
    do: 'flakeDose',
    cover: 0.95,
    dryFilm: 20,
    volumeSolids: 0.2,
    sizes: [
      { size: 100, thickness: 12.5, density: 1.4, parts: 3 },
      { size: 200, thickness: 12.5, density: 1.4, parts: 2 },
    ],
  });
  await expect(answer(page)).toHaveText(
    `${(dose!['gramsPerLitre'] as number).toFixed(0)} g/l of flake, in ${dose!['coats'] as number} coats.`,
  );
  await expect(page.getByRole('img', { name: 'Panel, 95 % covered' })).toHaveAttribute('data-drawn', /./);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByLabel('Cover, %').fill('60');
  await expect(
    page.getByRole('alert').filter({ hasText: '40 % of deep black would show between the flakes.' }),
  ).toBeVisible();
  await page.getByLabel('Cover, %').fill('120');
  await expect(page.getByText('Between 5 and 99 %.')).toBeVisible();
  await page.getByLabel('Cover, %').fill('');
  await page.getByLabel('0.1 mm, parts').fill('0');
  await page.getByLabel('0.2 mm, parts').fill('0');
  await expect(page.getByText('Some of one size.')).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  // Taken into the job it is in the cup, and the layers lay as many coats as the dose asked for.
  await page.getByLabel('0.2 mm, parts').fill('2');
  const dosed = /in (\d+) coats?\./.exec((await answer(page).textContent())!)![1]!;
  const isIn = page.getByRole('status').filter({ hasText: `In the cup, the layers and the plan: ${dosed} coat` });
  await expect(isIn).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it into the job' }).click();
  await expect(isIn).toBeVisible();
  // That is told of what is kept: still after a reload, and no more once something else is typed.
  await page.reload();
  await expect(isIn).toBeVisible();
  await page.getByLabel('0.2 mm, parts').fill('5');
  await expect(isIn).toHaveCount(0);
  await page.goto(`${server.address}/jobs/${demoJob(4)}/mix?layer=effect`);
  await expect(batchRow(page, 'silver flake 0.2 mm')).toBeVisible();
  const laid = (await (await page.request.get(`${server.address}/api/jobs/${demoJob(4)}`)).json()) as {
    job: { stacks: { layers: { id: string; coats: number }[] }[] };
  };
  expect(laid.job.stacks[0]!.layers.find((l) => l.id === 'effect')!.coats).toBe(Number(dosed));

  await page.goto(`${server.address}/products`);
  await page.getByRole('button', { name: 'Add a product' }).click();
  await page.getByLabel('Name', { exact: true }).first().fill('Sandbar sealer');
  await page.getByLabel('Volume solids, ready to spray, %').fill('140');
  await page.getByLabel('Density in the tin, g/ml').fill('-1');
  await page.getByLabel('Ratio, as on the sheet').fill('4:1:1');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('can’t be above 100 %')).toBeVisible();
  await expect(page.getByText('The density can’t be below 0.3 g/ml.')).toBeVisible();
  await expect(page.getByText('Say for every further number')).toBeVisible();
  await page.getByLabel('Volume solids, ready to spray, %').fill('36');
  await page.getByLabel('Density in the tin, g/ml').fill('');
  await page.getByLabel('Its further parts').selectOption('hardener reducer');
  await page.getByLabel('What it is').selectOption('sealer');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(answer(page)).toHaveText('9 products on the shelf.');

  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const csv = await (await saving).createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of csv) chunks.push(chunk as Buffer);
  const text = Buffer.concat(chunks).toString();
  const take = (content: string) =>
    page
      .getByLabel('File of products')
      .setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
  await take(text.replace(/4:1:1/, '4:0:1'));
  await expect(page.getByText('Line 2: Every part must be above zero')).toBeVisible();
  await expect(answer(page)).toHaveText('9 products on the shelf.');
  await take(text);
  await expect(answer(page)).toHaveText('18 products on the shelf.');
  expect(await seriousFaults(page)).toEqual([]);

  // A product without a density is mixed by volume only, and says so.
  await page.goto(`${server.address}/jobs/${demoJob(5)}/mix`);
  await tab(page, 'sealer');
  await expect(answer(page)).toContainText('of sealer');
  await page.getByLabel('Product').selectOption({ label: 'Sandbar sealer' });
  await expect(page.getByText('this is by volume only')).toBeVisible();
  await expect(page.getByRole('button', { name: 'by scale' })).toBeDisabled();

  await page.goto(`${server.address}/products?show=guns`);
  await page.getByRole('button', { name: 'Change Gun 2, 1.3 tip' }).click();
  await page.getByLabel('Lands on the piece, %').fill('2');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('What lands can’t be below 5 %.')).toBeVisible();
  await page.getByLabel('Lands on the piece, %').fill('58');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('row', { name: /Gun 2/ })).toContainText('58 %');
});

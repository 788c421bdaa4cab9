import { expect, test, type Page } from '@playwright/test';
import { FAMILIES, TRY_OUT_FAMILIES } from '@steady-gleam/core/finishes';
import { seriousFaults } from './axe';
import { journeyServer } from './journeyServer';
import { pourPart, readAndKeep, runTo } from './tryOutSteps';

const server = journeyServer(4872);

const answer = (page: Page) => page.getByTestId('answer');
const candy = TRY_OUT_FAMILIES.find((f) => FAMILIES[f].byEye.beside.includes('deeper'))!;

test('a newcomer’s try-out, from the first page to the lifted curtain, and no figure is typed', async ({ page }) => {
  test.setTimeout(300_000);
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  // What is hidden is drawn; here it is always the same, so that the walk is.
  await page.route('**/api/try-outs', (route) =>
    route.continue({ postData: JSON.stringify({ ...(route.request().postDataJSON() as object), seed: 178 }) }),
  );

  await page.goto(server.address);
  await expect(page.getByRole('region', { name: 'Where to begin' })).toContainText('Match a panel another hand made');
  await page.getByRole('link', { name: 'Begin a try-out' }).click();
  await page.getByRole('radio', { name: new RegExp(`^${FAMILIES[candy].name}`) }).click();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Begin the try-out' }).click();

  await expect(answer(page)).toContainText('Hold the instrument on the panel');
  await page.getByRole('button', { name: 'Read', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('wants its white tile');
  expect(await seriousFaults(page)).toEqual([]);
  await readAndKeep(page, 'Keep this target');
  await expect(answer(page)).toContainText('Read at 5 angles, 3 spots.');
  const id = /jobs\/([^/]+)/.exec(page.url())![1]!;

  await page.getByRole('link', { name: 'Find the ground and coats' }).click();
  await page.getByRole('button', { name: 'Pick this, plan the card' }).click();
  await page.getByLabel('Gun', { exact: true }).selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await page.getByRole('link', { name: 'Spray it in the booth' }).click();
  await runTo(page, 'The card is sprayed.');
  await page.getByRole('link', { name: 'Read its rungs' }).click();
  await page.getByRole('button', { name: 'Bare ground: enter' }).click();
  await readAndKeep(page, 'Keep the bare ground');
  const { rungs } = (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()).card as {
    rungs: number[];
  };
  for (const coats of rungs) {
    await page.getByRole('button', { name: `Rung of ${coats} coats, not read yet` }).click();
    await readAndKeep(page, 'Keep this rung');
    await expect(page.getByRole('button', { name: new RegExp(`^Rung of ${coats} coats?, read`) })).toBeVisible();
  }
  await expect(answer(page)).toContainText(/Your card says|closest/);

  await page.getByRole('link', { name: 'Mix room' }).click();
  await page.getByRole('button', { name: 'by scale' }).click();
  await page.getByRole('button', { name: 'The empty cup is on: begin' }).click();
  await pourPart(page);
  await page.getByRole('button', { name: /^(Next part|Go on with)/ }).click();
  await page.reload();
  await expect(page.getByRole('group', { name: 'On the scale' }).getByRole('heading')).toContainText(/^Pour: /);
  expect(await seriousFaults(page)).toEqual([]);

  await page.getByRole('link', { name: 'Spray plan' }).click();
  await page.getByRole('button', { name: 'Timeline' }).click();
  await expect(page.getByTestId('climate')).toContainText(/^Now \d+ °C, \d+ % humidity, the part \d+ °C/);
  await page.getByRole('link', { name: 'To the booth' }).click();
  await expect(page.getByTestId('climate')).toBeVisible();
  let looks = 0;
  await runTo(page, 'Every coat is on.', async () => {
    looks++;
    if (looks === 1) expect(await seriousFaults(page)).toEqual([]);
    await expect(page.getByTestId('advice')).not.toContainText('Look at all over again');
  });
  expect(looks).toBeGreaterThan(0);

  await page.getByRole('link', { name: 'Lift the curtain' }).click();
  await expect(answer(page)).toContainText('The job is over: lift the curtain.');
  await page.getByRole('button', { name: 'Lift the curtain' }).click();
  // Its scatter is another every time, as a gun's is: it ends inside in nine of ten.
  await expect(answer(page)).toContainText(/It matches: every angle passes|It stopped short|It went over|as near as/, {
    timeout: 90_000,
  });
  await expect(page.getByRole('img', { name: /^Film axis: on the panel/ })).toBeVisible();
  await expect(page.getByRole('table', { name: 'What was hidden' })).toContainText('strength of the mix');
  expect(await seriousFaults(page)).toEqual([]);

  // It is marked wherever it stands, and stands in no bank.
  await page.getByRole('link', { name: 'Jobs', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Jobs' })).toContainText('try-out, simulated');
  await expect(page.getByRole('note')).toHaveCount(0);
  await page.getByRole('link', { name: 'Bank', exact: true }).click();
  await expect(answer(page)).toBeVisible();
  await expect(page.getByText('Try-out 1')).toHaveCount(0);
  const paper = await page.request.get(`${server.address}/api/jobs/${id}/sheet.pdf?as=done`);
  expect(paper.ok()).toBe(true);
  expect(errors).toEqual([]);
});

import { expect, test, type Page } from '@playwright/test';
import type { JobDetail, JobSummary } from '@steady-gleam/contracts';
import { averageReadings } from '@steady-gleam/core/formats';
import { seriousFaults } from './axe';
import { jobsOf, runLogTo } from './logRun';
import { pdfText } from './pdfText';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

let folder: string;
let server: TestServer;
let jobs: readonly JobSummary[];
test.beforeAll(async ({ request }) => {
  folder = makeFolder();
  server = await startServer(folder, 4831);
  jobs = await jobsOf(request, server.address);
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const jobOf = (piece: string): string => jobs.find((j) => j.piece === piece)!.id;
/** Says what is seen at a place from somewhere. */
async function say(page: Page, place: string, view: string, word: string | RegExp): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${place}, ${view}`) }).click();
  await page.getByRole('group', { name: 'What is seen' }).getByRole('button', { name: word, exact: true }).click();
}

async function addPlace(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: '+ a place' }).click();
  await page.getByRole('group', { name: 'Places easily missed' }).getByRole('button', { name, exact: true }).click();
}

const answer = (page: Page) => page.getByTestId('answer');
const waysOf = (page: Page) => page.getByRole('group', { name: 'Ways out' });
/** Steps of the booth until one of a name. */
async function stepsTo(page: Page, name: RegExp): Promise<void> {
  const heading = page.getByTestId('coat').or(page.getByTestId('check'));
  for (let i = 0; i < 20; i++) {
    await expect(heading).toBeVisible();
    const title = await heading.innerText();
    if (name.test(title)) return;
    const sooner = page.getByRole('button', { name: 'It is dull' });
    if (await sooner.isVisible()) await sooner.click();
    const go = page
      .getByRole('button', { name: /^(Sprayed|Set|It is set|Clean|Sanded|It is dry|Nothing|The tail)/ })
      .first();
    await expect(go).toBeEnabled();
    await go.click();
    await expect(heading).not.toHaveText(title);
  }
  throw new Error(`No step ${name.source} came.`);
}

test('dusk shows a lighter edge after everything matched in the sun: faded in, looked at twice, told by log and sheet', async ({
  page,
  context,
}) => {
  const id = jobOf('Gondola 3, door and wing');
  await runLogTo(page, server.address, id, (n) => n.is === 'check' && n.state.check.kind === 'lamp');
  await page.goto(`${server.address}/jobs/${id}/spray`);
  await page.getByRole('link', { name: 'Inspect', exact: true }).click();
  await expect(answer(page)).toContainText('Look at the face');
  await addPlace(page, 'front edge');
  for (const view of ['sun, face', 'sun, flop', 'open shade']) await say(page, 'front edge', view, 'It matches');
  // A pearl is not called matched before it was seen in low light.
  await expect(answer(page)).toHaveText(/Not to be called matched yet: look in low light/);
  expect(await seriousFaults(page)).toEqual([]);
  await say(page, 'front edge', 'dusk', 'a little lighter');
  await expect(answer(page)).toHaveText(/^Front edge is .*It can be mended\.$/);
  await expect(page.getByText(/lighter at dusk; it matches at the face in the sun/)).toBeVisible();
  // The ways there are before clear, each to its end.
  const fade = waysOf(page).getByRole('region', { name: /^Fade / });
  await fade.getByRole('button').click();
  await expect(fade).toContainText(/ends inside in \d+ of 100/);
  await expect(fade).toContainText(/whole for \d+ cm across, fading over \d+ cm/);
  await expect(fade).toContainText('Back: It can’t be taken back');
  await expect(fade.getByRole('img', { name: /Difference to what lies beside it/ })).toBeVisible();
  await expect(waysOf(page).getByRole('region', { name: 'Leave it' })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Put it into the run' }).click();
  // The other page says the same of it.
  await page.getByRole('link', { name: 'Run it in the booth' }).click();
  await expect(page.getByTestId('coat')).toHaveText(/^Light coat of/);
  await expect(page.getByTestId('reach')).toHaveText(/^On front edge only: whole for/);
  await stepsTo(page, /^Stop\. Look at front edge/);
  await expect(page.getByRole('button', { name: /^Look at dusk and in the sun’s flop too$/ })).toBeDisabled();
  // Still short: the ways out stand there again, before anything goes over it.
  await page.getByRole('button', { name: 'a little lighter' }).click();
  await page.getByRole('link', { name: 'Other ways out' }).click();
  await page.getByRole('button', { name: /^front edge, dusk.*lighter/ }).click();
  await expect(waysOf(page).getByRole('region', { name: /^Fade / })).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: 'It matches here' }).click();
  await page.getByRole('button', { name: /^Seen low light/ }).click();
  await page.getByRole('button', { name: 'It matches here' }).click();
  await page.getByRole('button', { name: 'Mended: go on' }).click();
  await expect(page.getByTestId('check')).toHaveText(/^(Lights off|Look at the blend’s tail)/);
  // What the booth told keeps the place it went on: the door itself has its three still.
  const told = ((await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as JobDetail).events;
  expect(told.flatMap((e) => e.cells).filter((c) => 'spot' in c && c.spot === 'front edge')).not.toEqual([]);
  // Without the server too: what is seen is kept and told later.
  await page.goto(`${server.address}/jobs/${id}/inspect`);
  await expect(answer(page)).toContainText(/It matches|Look/);
  await expect(page.getByTestId('queue')).toHaveText('Everything is kept');
  await context.setOffline(true);
  await say(page, 'front edge', 'shop light', 'It matches');
  await expect(page.getByTestId('queue')).toHaveText(/1 tap kept here/, { timeout: 30_000 });
  await expect(page.getByRole('button', { name: /^front edge, shop light: = match/ })).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByTestId('queue')).toHaveText('Everything is kept', { timeout: 30_000 });
  // Log and sheet tell it.
  await page.goto(`${server.address}/jobs/${id}/spray`);
  await expect(page.getByRole('region', { name: 'History' })).toContainText(
    /mended \(Door\), front edge, lighter at dusk: Fade/,
  );
  const sheet = await page.request.get(`${server.address}/api/jobs/${id}/sheet.pdf?units=metric&zone=UTC`);
  expect(await pdfText(await sheet.body())).toMatch(/mended \(Door\), front edge, lighter at dusk: Fade/);
});

test('a solvent spit in a colour-shift coat: thin black over it, the effect fanned out, a control coat, and a look', async ({
  page,
}) => {
  const id = jobOf('Moon face over the gate');
  await runLogTo(page, server.address, id, (n) => n.is === 'cell' && n.state.cell.coat.style === 'control');
  await page.goto(`${server.address}/jobs/${id}/booth`);
  await page.getByRole('button', { name: 'A fault' }).click();
  await page
    .getByRole('group', { name: 'Which fault' })
    .getByRole('button', { name: /^Splatter spot/ })
    .click();
  await expect(page.getByRole('alert')).toContainText('Found: Splatter spot.');
  await waysOf(page)
    .getByRole('button', { name: /^Back to the ground there on Moon face/ })
    .click();
  await expect(page.getByTestId('check')).toHaveText('Set the gun');
  await page.getByRole('button', { name: 'It is set' }).click();
  await expect(page.getByTestId('check')).toHaveText('Let it dry');
  // What takes time may be over sooner than its clock: left out with a reason.
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await page.getByRole('button', { name: 'done before' }).click();
  await expect(page.getByTestId('coat')).toHaveText(/^Light coat of .*[Bb]lack/);
  await expect(page.getByTestId('reach')).toHaveText(/^On the spot on Moon face only/);
  await stepsTo(page, /^Light coat of (?!.*[Bb]lack)/);
  await stepsTo(page, /^Control coat of/);
  await stepsTo(page, /^Stop\. Look at splatter spot/);
  await page.getByRole('button', { name: 'It matches here' }).click();
  await page.getByRole('button', { name: /^Seen lamp/ }).click();
  await page.getByRole('button', { name: 'It matches here' }).click();
  await page.getByRole('button', { name: 'Mended: go on' }).click();
  await expect(page.getByTestId('coat').or(page.getByTestId('check'))).toBeVisible();
});

test('over the window on one side: no coat there; the other is richened or it is the ground again, with what each comes to', async ({
  page,
}) => {
  const id = jobOf('Dodgem shell 7');
  await runLogTo(page, server.address, id, (n) => n.is === 'check' && n.state.check.kind === 'lamp');
  await page.goto(`${server.address}/jobs/${id}/inspect`);
  for (const view of ['sun, face', 'sun, flop']) {
    await say(page, 'Shell, outside', view, 'It matches');
    await say(page, 'Nose lid', view, 'clearly darker');
  }
  await expect(answer(page)).toHaveText(/^Nose lid is .*over\. No coat there takes it back\.$/);
  const names = waysOf(page).getByRole('region');
  await expect(names.filter({ hasText: 'Leave it' })).toHaveCount(1);
  await expect(names.filter({ hasText: /^Fade/ })).toHaveCount(0);
  const richen = waysOf(page).getByRole('region', { name: 'Richen what lies beside it' });
  await richen.getByRole('button').click();
  await expect(richen).toContainText('none on Nose lid');
  await expect(richen).toContainText(/ends even in \d+ of 100/);
  await expect(richen).toContainText(/coats beyond what had to be matched/);
  const anew = waysOf(page).getByRole('region', { name: /^Re-ground Nose lid/ });
  await anew.getByRole('button').click();
  await expect(anew).toContainText(/ends inside in \d+ of 100/);
  await expect(anew).toContainText(/\d+, [\d,.]+ ml, /);
  await page.getByRole('button', { name: 'Put it into the run' }).click();
  await page.getByRole('link', { name: 'Run it in the booth' }).click();
  await expect(page.getByTestId('check')).toHaveText('Sand Nose lid');
  await expect(page.getByText(/old paint below may hold lead or chromate/)).toBeVisible();
  // On the job says the same: nothing more goes on there.
  await page.goto(`${server.address}/jobs/${id}/spray`);
  await expect(answer(page)).toContainText('Nose lid is over: stop there.');
});

test('a fisheye at the mist coat: stop, clean, thin coats', async ({ page }) => {
  const id = jobOf('Scenic coaches 1 and 2');
  await page.goto(`${server.address}/jobs/${id}/plan`);
  await page
    .getByRole('button', { name: 'Coats', exact: true })
    .or(page.getByRole('tab', { name: 'Coats' }))
    .first()
    .click();
  await page.getByLabel(/grip coat/i).check();
  await expect(page.getByLabel(/grip coat/i)).toBeChecked();
  await expect
    .poll(async () => {
      const { job } = (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as {
        job: { plan: { grip: boolean } | null };
      };
      return job.plan?.grip;
    })
    .toBe(true);
  await runLogTo(page, server.address, id, (n) => n.is === 'check' && n.state.check.kind === 'mist');
  await page.goto(`${server.address}/jobs/${id}/booth`);
  await expect(page.getByTestId('check')).toHaveText(/^Look at the mist coat on/);
  await page.getByRole('button', { name: 'A fault' }).click();
  await page
    .getByRole('group', { name: 'Which fault' })
    .getByRole('button', { name: /^Fisheyes/ })
    .click();
  const card = page.getByRole('region', { name: 'Fisheyes' });
  await expect(card).toContainText('No wet coat to fill them');
  await waysOf(page)
    .getByRole('button', { name: /^Stop, clean, thin coats/ })
    .click();
  await expect(page.getByTestId('check')).toHaveText('Let it dry');
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await page.getByRole('button', { name: 'done before' }).click();
  await expect(page.getByTestId('check')).toHaveText(/^Clean /);
  await expect(page.getByText(/wiped off while it is wet/)).toBeVisible();
  await page.getByRole('button', { name: 'Clean: go on' }).click();
  await expect(page.getByTestId('coat')).toHaveText(/^Light coat of .* 1 of 2/);
});

test('one place against another, two photos, a hue and its tint, and the peel of what has to be matched', async ({
  page,
}) => {
  const id = jobOf('Carousel rounding boards, rose');
  await page.goto(`${server.address}/jobs/${id}/target`);
  const peel = page.getByRole('group', { name: 'Peel of what has to be matched' });
  await peel.getByRole('button', { name: /^marked/ }).click();
  await expect(
    page.getByRole('heading', { name: /^Its peel is marked: two clears with the middle reducer/ }),
  ).toBeVisible();
  await page.goto(`${server.address}/jobs/${id}/pieces`);
  await page.getByLabel('Clear on it').last().selectOption('uncleared');
  await page.getByRole('button', { name: 'Keep these areas' }).click();
  await runLogTo(
    page,
    server.address,
    id,
    (n) => n.is === 'cell' && n.state.cell.coat.kind === 'effect' && n.state.cell.coat.number === 2,
  );
  await page.goto(`${server.address}/jobs/${id}/inspect`);
  await say(page, 'Rounding board', 'sun, face', 'It matches');
  // Its hue is off: half of a tint for the coats still to come, and that what is on keeps its own.
  await page.getByRole('group', { name: 'Beside it' }).getByRole('button', { name: 'yellower' }).click();
  await expect(answer(page)).toHaveText('Rounding board is yellower at the face in the sun.');
  const hue = page.getByRole('region', { name: 'The hue there' });
  await expect(hue).toContainText(/To each 100 ml of carrier: [\d.]+ (g|ml)/);
  await expect(hue).toContainText('That is half; then a look, then as much again.');
  await page.getByRole('group', { name: 'Beside it' }).getByRole('button', { name: 'yellower' }).click();
  await expect(page.getByRole('button', { name: /^Rounding board, sun, face: = match$/ })).toBeVisible();
  // Held against a place that matches, another one is lighter.
  await page.getByRole('button', { name: /^Scrolls, sun, face/ }).click();
  await page.getByLabel('Held against').selectOption('Rounding board');
  await page.getByRole('group', { name: 'What is seen' }).getByRole('button', { name: 'clearly lighter' }).click();
  await expect(page.getByRole('button', { name: /^Scrolls, sun, face: ▲▲ Rounding board$/ })).toBeVisible();
  await expect(answer(page)).toHaveText(/^Scrolls is /);
  await expect(page.getByText(/lighter than Rounding board at the face in the sun/).first()).toBeVisible();
  const photo = {
    name: 'a.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    ),
  };
  await page.getByLabel('Photo of the place').setInputFiles(photo);
  await page.getByLabel('Photo of what it is held against').setInputFiles(photo);
  await expect(page.getByRole('img', { name: 'The place: Scrolls' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'What it is held against: Rounding board' })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  // Readings of the place are a look of it, here and on the job.
  await page.getByRole('button', { name: 'Read it' }).click();
  const detail = (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as JobDetail;
  for (const [i, angle] of averageReadings(detail.target!.readings).entries())
    for (const [k, axis] of ['L*', 'a*', 'b*'].entries())
      await page.getByLabel(`${axis} at row ${i + 1}`, { exact: true }).fill((angle.lab[k]! + (k ? 0 : 3)).toFixed(2));
  await page.getByRole('button', { name: 'Keep this look' }).click();
  await expect(page.getByRole('rowheader', { name: 'Scrolls read too' })).toBeVisible();
  // What is hidden is not cleared: the plan lays none there.
  await page.goto(`${server.address}/jobs/${id}/plan`);
  const row = page.getByRole('row', { name: /^Scrolls/ });
  await expect(row.getByText('none').last()).toBeVisible();
});

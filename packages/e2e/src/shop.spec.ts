import { chromium, expect, test, type Browser, type Page } from '@playwright/test';
import { eventOf, type JobEvent } from '@steady-gleam/core/jobs';
import { stepOn } from './boothSteps';
import { seriousFaults } from './axe';
import { CHROMIUM, flagsFor } from './browser';
import { journeyServer } from './journeyServer';
import { makeFolder, removeFolder, startServer } from './testServer';

const PORT = 4775;
const CANDY = '1a47e000-0000-4000-8000-000000000fa0';
const PEARL = '1a47e000-0000-4000-8000-000000001388';
const server = journeyServer(PORT);

const answer = (page: Page) => page.getByTestId('answer');

test('from another device, by plain http: a job, a rung, a mix and a booth run', async () => {
  const own = makeFolder();
  const shop = await startServer(own, PORT + 3, {
    ...{ STEADY_GLEAM_SHOP: '1', STEADY_GLEAM_TLS: 'off', STEADY_GLEAM_NAMES: 'shop.test' },
    STEADY_GLEAM_PASSCODE: 'lantern-pier',
  });
  const browser: Browser = await chromium.launch({ executablePath: CHROMIUM, args: flagsFor('shop.test') });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.setDefaultTimeout(20_000);
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e.message));
    const address = `http://shop.test:${PORT + 3}`;
    await page.goto(address);
    await page.getByLabel('Passcode').fill('lantern-pier');
    await page.getByRole('button', { name: 'Sign in' }).click();
    expect(await page.evaluate(() => [isSecureContext, 'randomUUID' in crypto])).toEqual([false, false]);
    await expect(page.getByRole('note').filter({ hasText: 'By plain http from another device' })).toBeVisible();

    await test.step('a job is made', async () => {
      await page.getByRole('link', { name: 'New job' }).click();
      await page.getByLabel('Piece').fill('Swing-boat 2');
      await page.getByLabel('Has to match').fill('swing-boat 1, bow');
      await page.getByRole('button', { name: 'Start this job' }).click();
      await expect(page).toHaveURL(/\/target$/);
      await expect(answer(page)).toContainText('Nothing read yet');
    });

    await test.step('a rung is kept, corrected and taken out', async () => {
      await page.goto(`${address}/jobs/${PEARL}/card`);
      await page.getByRole('button', { name: /^Enter the rung with 3/ }).click();
      const row = (n: number, l: string) => page.getByLabel(`${l} at row ${n}`);
      for (const [i, lab] of [
        ['71,5', '-22', '-33'],
        ['70', '-21', '-32'],
        ['63', '-19', '-30'],
        ['55', '-17', '-27'],
        ['50', '-15', '-24'],
      ].entries()) {
        await row(i + 1, 'L*').fill(lab[0]!);
        await row(i + 1, 'a*').fill(lab[1]!);
        await row(i + 1, 'b*').fill(lab[2]!);
      }
      await page.getByRole('button', { name: 'Keep this rung' }).click();
      await expect(page.getByRole('button', { name: 'Keep this rung' })).toHaveCount(0);
      const rungs = async () =>
        (
          (await page.evaluate(async (path) => (await fetch(path)).json() as unknown, `/api/jobs/${PEARL}`)) as {
            rungs: { rungCoats: number; readings: { l: number }[] }[];
          }
        ).rungs.filter((r) => r.rungCoats === 3);
      expect((await rungs())[0]!.readings[0]!.l).toBe(71.5);
      // It opens with what is there: one figure is mended, not fifteen typed again.
      await page
        .getByRole('button', { name: /3 coats/ })
        .first()
        .click();
      await expect(row(1, 'L*')).toHaveValue('71.5');
      await row(1, 'L*').fill('72');
      await page.getByRole('button', { name: 'Keep the correction' }).click();
      await expect.poll(async () => (await rungs())[0]!.readings.map((r) => r.l)).toEqual([72, 70, 63, 55, 50]);
      // The form has closed behind it.
      await expect(page.getByRole('button', { name: 'Keep the correction' })).toHaveCount(0);
      await page
        .getByRole('button', { name: /3 coats/ })
        .first()
        .click();
      await page.getByRole('button', { name: 'Take this rung’s readings out' }).click();
      await expect.poll(async () => (await rungs()).length).toBe(0);
      await page.getByRole('button', { name: 'Put it back' }).click();
      await expect.poll(async () => (await rungs()).length).toBe(1);
    });

    await test.step('a cup is mixed', async () => {
      await page.goto(`${address}/jobs/${CANDY}/mix`);
      await page.getByRole('button', { name: 'Mixed: start its clock' }).click();
      await expect(page.getByRole('list', { name: 'Batches' }).getByRole('listitem')).toHaveCount(1);
    });

    await test.step('a booth runs', async () => {
      await page.goto(`${address}/jobs/${CANDY}/booth`);
      for (let i = 0; i < 2; i++) await stepOn(page);
      await expect(page.getByTestId('after')).toContainText('1 of');
      await expect(page.getByTestId('queue')).toHaveText('Everything is kept');
      await expect(page.getByRole('note')).toContainText('the screen may go dark');
    });
    expect(errors).toEqual([]);
  } finally {
    await browser.close();
    await shop.stop();
    removeFolder(own);
  }
});

test('a tablet whose clock is ten minutes fast waits as long as the shop, and takes back only its own taps', async ({
  browser,
}) => {
  const taps = async (): Promise<JobEvent[]> =>
    (await (await fetch(`${server.address}/api/jobs/${PEARL}/events`)).json()) as JobEvent[];
  const right = await browser.newPage();
  const fast = await browser.newPage();
  await fast.addInitScript(() => {
    const real = Date.now.bind(Date);
    Date.now = () => real() + 600_000;
  });
  const booth = `${server.address}/jobs/${PEARL}/booth`;
  await right.goto(booth);
  for (let i = 0; i < 2; i++) await stepOn(right);
  await expect(right.getByTestId('after')).toContainText('1 of');
  await fast.goto(booth);
  await expect(fast.getByTestId('after')).toContainText('1 of');
  await expect(fast.getByRole('note').first()).toContainText('10 min ahead of the shop’s');
  // The other device sprayed: nothing of it is offered to be taken back here.
  await expect(fast.getByRole('button', { name: 'Undo last tap' })).toBeDisabled();
  await fast.getByRole('button', { name: 'Sprayed: next' }).click();
  await expect.poll(async () => (await taps()).length).toBe(4);
  const [, , first, second] = await taps();
  expect(Math.abs(second!.at - Date.now())).toBeLessThan(30_000);
  expect(second!.at).toBeGreaterThan(first!.at);
  await fast.getByRole('button', { name: 'Undo last tap' }).click();
  await expect.poll(async () => (await taps()).at(-1)).toMatchObject({ kind: 'undo', text: second!.id });
  await expect(right.getByTestId('after')).toContainText('1 of', { timeout: 30_000 });
  await right.close();
  await fast.close();
});

test('a window that has closed is said in booth, timeline and list, and the coat goes on scuffed', async ({ page }) => {
  const job = '1a47e000-0000-4000-8000-000000000bb8';
  const read = (await (await page.request.get(`${server.address}/api/jobs/${job}`)).json()) as {
    job: { version: number };
  };
  await page.request.patch(`${server.address}/api/jobs/${job}`, {
    data: {
      version: read.job.version,
      pick: { groundId: 'aqua-pastel', coats: 2, strength: 1.2, style: 'wet', controlCoats: 0 },
    },
  });
  // Sealer on both doors a month ago; its window was days.
  const at = Date.now() - 30 * 86_400_000;
  const event = (kind: JobEvent['kind'], i: number, more: Partial<JobEvent> = {}) =>
    eventOf({
      id: `00000000-0000-4000-8000-0000000000${String(i).padStart(2, '0')}`,
      at: at + i * 60_000,
      kind,
      ...more,
    });
  const sealed = (areaId: string) => ({ cells: [{ coatId: 'sealer/wet/1', areaId }] });
  const posted = await page.request.post(`${server.address}/api/jobs/${job}/events`, {
    data: {
      events: [
        event('start', 1),
        event('check', 2, { checkId: 'prep' }),
        event('sprayed', 3, sealed('d11')),
        event('sprayed', 4, sealed('d12')),
      ],
    },
  });
  expect(posted.status()).toBe(201);
  await page.goto(server.address);
  const row = page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').filter({ hasText: 'Gondola doors' });
  await expect(row).toContainText(/too late for .* since \w{3},? \d/);
  await page.goto(`${server.address}/jobs/${job}/plan?show=time`);
  await expect(page.getByText(/after its recoat window: scuff it/).first()).toBeVisible();
  await page.goto(`${server.address}/jobs/${job}/booth`);
  await expect(page.getByTestId('clock')).toHaveText('late');
  await expect(page.getByRole('alert').filter({ hasText: 'Too late as it is' })).toBeVisible();
  await page.getByRole('button', { name: 'Scuffed and sprayed: next' }).click();
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`${server.address}/api/jobs/${job}/events`)).json()) as JobEvent[]).at(-1)
          ?.text,
    )
    .toBe('scuffed');
  expect(await seriousFaults(page)).toEqual([]);
});

test('a job’s life from the list: renamed, finished when asked, undone, taken out and put back', async ({ page }) => {
  await page.goto(server.address);
  const list = page.getByRole('list', { name: 'Jobs' });
  const rowOf = (name: string) => list.getByRole('listitem').filter({ hasText: name });
  const menu = async (name: string, item: string) => {
    await page.getByRole('button', { name: `More for ${name}` }).click();
    await page.getByRole('menuitem', { name: item }).click();
  };
  await menu('Carousel horse, saddle cloth', 'Rename');
  await page.getByLabel('Piece').fill('  ');
  await page.getByRole('button', { name: 'Keep the name' }).click();
  await expect(page.getByText('Say what is to be finished')).toBeVisible();
  await page.getByLabel('Piece').fill('Carousel horse 3, cloth');
  await page.getByRole('button', { name: 'Keep the name' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).toBeVisible();
  // Without a card, and asked first.
  await menu('Carousel horse 3, cloth', 'Finish this job');
  await expect(page.getByRole('dialog')).toContainText('Still open: no ground and count are picked');
  await page.getByRole('button', { name: 'Finish it' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).toContainText('finished');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).not.toContainText('finished');
  await menu('Carousel horse 3, cloth', 'Take it out');
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).toBeVisible();
  await menu('Carousel horse 3, cloth', 'Take it out');
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).toHaveCount(0);
  await page.getByRole('button', { name: 'Taken out: 1' }).click();
  await page.getByRole('button', { name: 'Put back' }).click();
  await expect(rowOf('Carousel horse 3, cloth')).toBeVisible();
  // From On the job, where no card is yet.
  await page.goto(`${server.address}/jobs/1a47e000-0000-4000-8000-0000000003e8/spray`);
  await page.getByRole('button', { name: 'Finish this job' }).click();
  await page.getByRole('button', { name: 'Leave it' }).click();
  expect(await seriousFaults(page)).toEqual([]);
  // A sheet that can't be made yet is not offered; its address answers in words.
  await page.goto(`${server.address}/jobs/1a47e000-0000-4000-8000-0000000003e8/plan`);
  await expect(page.getByRole('button', { name: 'Job sheet: pick first' })).toBeDisabled();
  await page.goto(`${server.address}/api/jobs/1a47e000-0000-4000-8000-0000000003e8/sheet.pdf`);
  await expect(page.getByText('Pick ground and coats first; the sheet follows from them.')).toBeVisible();
});

test('a finish of the bank goes into a new job, which changes it as its own; a card is put aside and recalled', async ({
  page,
}) => {
  await page.goto(`${server.address}/bank`);
  await page.getByLabel('Search the bank').fill('shell 4');
  await page.getByRole('button', { name: /shell 4, left side/ }).click();
  await page.getByRole('link', { name: 'New job with it, as it is' }).click();
  await page.getByLabel('Piece').fill('Dodgem shell 21');
  await page.getByRole('button', { name: 'Start this job' }).click();
  await expect(page).toHaveURL(/\/plan$/);
  const job = /jobs\/([0-9a-f-]+)/.exec(page.url())![1]!;
  // Its card and its pick came along.
  await page.goto(`${server.address}/jobs/${job}/card`);
  await expect(page.getByRole('button', { name: 'Rung of 2 coats, read' })).toBeVisible();
  await page.goto(`${server.address}/bank`);
  await expect(page.getByRole('button', { name: /shell 4, left side/ })).toHaveCount(1);
  await page.goto(`${server.address}/jobs/${job}/card`);
  await page.getByRole('button', { name: 'Put this card aside, begin a new one' }).click();
  await expect(page.getByRole('button', { name: 'Rung of 2 coats, read' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it in force' }).click();
  await expect(page.getByRole('button', { name: 'Rung of 2 coats, read' })).toBeVisible();
});

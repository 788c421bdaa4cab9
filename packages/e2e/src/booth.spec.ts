import { expect, test, type Page } from '@playwright/test';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { stepOn } from './boothSteps';
import { readFileSync } from 'node:fs';
import { seriousFaults } from './axe';
import { makeFolder, removeFolder, startServer, type TestServer } from './testServer';

// The shell has to open while the server is away.
test.use({ serviceWorkers: 'allow' });

const PORT = 4771;
const JOB = '1a47e000-0000-4000-8000-000000000fa0';
let folder: string;
let server: TestServer;
test.beforeAll(async () => {
  folder = makeFolder();
  server = await startServer(folder, PORT);
});
test.afterAll(async () => {
  await server.stop();
  removeFolder(folder);
});

const answer = (page: Page) => page.getByTestId('answer');
const part = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Part of the plan' }).getByRole('button', { name }).click();

test('the candy from recipe to plan to a finished booth run, the server killed in between', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));

  await test.step('the recipe is picked on the map, then planned', async () => {
    await page.goto(`${server.address}/jobs/${JOB}/map?angle=45`);
    await expect(answer(page)).toContainText('Fine silver, 2.8 coats');
    const read = (await (await page.request.get(`${server.address}/api/jobs/${JOB}`)).json()) as {
      job: { version: number; areas: { id: string }[] };
    };
    await page.request.patch(`${server.address}/api/jobs/${JOB}`, {
      data: {
        version: read.job.version,
        areas: read.job.areas.map((p) => (p.id === 'tub' ? { ...p, count: 6 } : p)),
      },
    });
    await page.reload();
    await expect(answer(page)).toContainText('Fine silver, 2.8 coats');
    await page.getByRole('link', { name: 'Spray plan' }).click();
    await expect(page).toHaveURL(/\/plan$/);
    await expect(answer(page)).toHaveText('3 coats of the effect in 9 coats all told.');
    await part(page, 'Order');
    await expect(answer(page)).toContainText('Start with Tub door, edges');
  });

  await test.step('order: the painter’s own is kept and its harm said, the advised one is a tap away', async () => {
    const list = page.getByRole('list', { name: 'Order of areas' });
    await page.getByRole('slider', { name: /^Air flows/ }).focus();
    await page.keyboard.press('End');
    await expect(page.getByText('Air flows towards 345°')).toBeVisible();
    const place = (name: string, nth: number) => expect(list.getByRole('listitem').nth(nth)).toContainText(name);
    const moveDown = async (name: string) => {
      await page.getByRole('button', { name: `Move ${name}` }).focus();
      for (const key of ['Space', 'ArrowDown', 'Space']) {
        await page.keyboard.press(key);
        await page.waitForTimeout(700);
      }
    };
    // Six tubs take half an hour a coat: what was sprayed before them has dried, what comes after has not.
    await place('Tub, outside', 1);
    for (const nth of [2, 3]) {
      await moveDown('Tub, outside');
      await place('Tub, outside', nth);
    }
    await expect(answer(page)).toHaveText('Your order lays dry overspray.');
    await expect(
      page.getByText(/overspray of Tub, outside falls on (Backrest|Grab rail) when that is drying/),
    ).toBeVisible();
    await page.waitForTimeout(1200);
    await page.reload();
    await place('Tub, outside', 3);
    await expect(answer(page)).toHaveText('Your order lays dry overspray.');
    await page.getByRole('button', { name: 'Take the advised order' }).click();
    await expect(page.getByRole('button', { name: 'Take the advised order' })).toHaveCount(0);
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('coats: a wrong figure is named and nothing kept, a right one stays', async () => {
    await part(page, 'Coats');
    await expect(answer(page)).toHaveText('9 coats, 3 of them effect: walk the whole side.');
    const field = page.getByLabel('distance of Cinder candy 1');
    await field.fill('far');
    await field.blur();
    await expect(page.getByText('The distance must be a number.')).toBeVisible();
    await expect(field).toHaveValue('far');
    await field.fill('18');
    await field.blur();
    await page.getByRole('button', { name: 'Mist coats' }).click();
    await expect(answer(page)).toContainText('7 of them effect');
    await page.getByRole('button', { name: 'Wet coats' }).click();
    await expect(field).toHaveValue('18');
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('passes: stripes are shown and the cheapest way out of them taken', async () => {
    await part(page, 'Passes');
    await page.getByRole('button', { name: 'unsteady', exact: true }).click();
    await expect(answer(page)).toContainText(/Stripes will be seen .*: \d+\.\d/);
    const stripes = async () => Number(/: (\d+\.\d)/.exec((await answer(page).textContent())!)![1]);
    const before = await stripes();
    await page.getByLabel('Panels in a row, cm').fill('60, sixty');
    await expect(page.getByText('A panel must be a number.')).toBeVisible();
    await page.getByLabel('Panels in a row, cm').fill('60, 60');
    await page.getByRole('button', { name: 'panel by panel' }).click();
    await expect.poll(stripes).toBeGreaterThan(before);
    await expect(page.getByRole('heading', { name: 'Cheapest way out' })).toBeVisible();
    await page.getByRole('button', { name: 'steady', exact: true }).click();
    await page.getByRole('button', { name: 'walked' }).click();
    await expect.poll(stripes).toBeLessThan(before);
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('blend: a ground past the effect is a halo, said at once', async () => {
    await part(page, 'Blend');
    await expect(answer(page)).toContainText(/The blend will/);
    await page.getByRole('group', { name: 'Reach of ground' }).getByLabel('Ends at, cm').fill('60');
    await expect(answer(page)).toHaveText('A halo would show.');
    await expect(page.getByText('ground reaches 21 cm past effect 1')).toBeVisible();
    await page.getByRole('group', { name: 'Reach of ground' }).getByLabel('Ends at, cm').fill('27');
    await expect(answer(page)).toContainText(/The blend will/);
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('timeline: clock times, a dew point too near, a calendar file, the sheet', async () => {
    await part(page, 'Timeline');
    await expect(answer(page)).toContainText(/Start \d\d:\d\d, done at \d\d:\d\d\./);
    await page.getByLabel('Surface of the piece, °C').fill('13');
    await expect(answer(page)).toHaveText('Do not spray: the surface is too near to the dew point.');
    await page.getByLabel('Surface of the piece, °C').fill('');
    await expect(answer(page)).toContainText('Start');
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save for the calendar' }).click();
    const file = await saving;
    expect(file.suggestedFilename()).toBe('waltzer-tub-3-spray-plan.ics');
    const ics = readFileSync(await file.path(), 'utf8');
    // 9 coats on 4 areas, four cups, and the checks: ready, hiding, loose parts, the look, lamp, jambs, standing, bake.
    expect(ics.match(/BEGIN:VEVENT/g)!.length).toBe(9 * 4 + 4 + 8);
    expect(ics).toContain('END:VCALENDAR');
    const href = await page.getByRole('link', { name: 'Job sheet' }).getAttribute('href');
    const pdf = await page.request.get(server.address + href!);
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
    expect(await seriousFaults(page)).toEqual([]);
    // Left at once after a change: it is kept all the same.
    await page.getByLabel('Stand and bake at the end, 30 min').uncheck();
    await page.getByRole('link', { name: 'Let-down' }).click();
    await expect(page).toHaveURL(/\/card$/);
    await expect
      .poll(async () => {
        const read = (await (await page.request.get(`${server.address}/api/jobs/${JOB}`)).json()) as {
          job: { plan: { bake: boolean } };
        };
        return read.job.plan.bake;
      })
      .toBe(false);
    await page.goto(`${server.address}/jobs/${JOB}/plan`);
  });

  const taps: string[] = [];
  const kept = () => expect(page.getByTestId('queue')).toHaveText('Everything is kept');
  const tap = async (name: string, kind: string) => {
    await page.getByRole('button', { name, exact: true }).click();
    taps.push(kind);
  };
  /** Passes the next check or lays the next coat. */
  const go = async () => {
    taps.push(...(await stepOn(page)));
  };
  const spray = async () => {
    while (await page.getByTestId('check').count()) await go();
    await go();
  };

  await test.step('the booth opens, and shows one step, one clock, one button', async () => {
    await page.getByRole('link', { name: 'To the booth' }).click();
    await expect(page.getByTestId('check')).toHaveText('Make it ready');
    await tap('It is ready: start the run', 'start');
    taps.push('check');
    await expect(page.getByTestId('coat')).toHaveText('Sealer');
    await expect(page.getByTestId('piece')).toHaveText('on Tub door, edges');
    for (const button of await page.getByRole('button').all())
      expect((await button.boundingBox())!.height).toBeGreaterThanOrEqual(72);
    await page.getByRole('button', { name: 'Another area' }).click();
    await tap('Grab rail', 'swap');
    await expect(page.getByTestId('piece')).toHaveText('on Grab rail');
    await spray();
    await expect(page.getByTestId('piece')).toHaveText('on Tub door, edges');
    await tap('Undo last tap', 'undo');
    await expect(page.getByTestId('piece')).toHaveText('on Grab rail');
    for (let i = 0; i < 4; i++) await spray();
    await expect(page.getByTestId('coat')).toHaveText('Fine silver 1 of 2');
    await expect(page.getByTestId('clock')).toHaveText(/2[34]:\d\d/);
    await expect(page.getByRole('button', { name: 'Sprayed: next' })).toBeDisabled();
    await kept();
    // The list says what it waits for; the plan keeps the coats that are being sprayed.
    await page.goto(server.address);
    await expect(answer(page)).toHaveText(
      /^Waltzer tub 3 is being sprayed: Fine silver 1 of 2 on .* from \d\d:\d\d\.$/,
    );
    await page.goto(`${server.address}/jobs/${JOB}/plan?show=coats`);
    await expect(page.getByRole('button', { name: 'Mist coats' })).toBeDisabled();
    await page.getByRole('link', { name: 'To the booth' }).click();
    await expect(page.getByTestId('coat')).toHaveText('Fine silver 1 of 2');
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('killed five times in mid-run: taps go on, also after a reload, and catch up exactly once', async () => {
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    for (let round = 0; round < 5; round++) {
      // One tap is on its way when the server dies.
      const last = spray();
      await server.stop('SIGKILL');
      await last;
      await spray();
      await expect(page.getByTestId('queue')).toHaveText(/^Server away: \d+ taps? kept here$/);
      if (round % 2 === 0) {
        const heading = page.getByRole('heading', { level: 1 });
        const before = await heading.textContent();
        await page.reload();
        await expect(heading).toHaveText(before!);
        await expect(page.getByTestId('queue')).toContainText(/[1-9]\d* taps? kept here/);
      }
      if (round === 3) {
        await page.getByRole('button', { name: 'Note or photo' }).click();
        await page.getByLabel('Note', { exact: true }).fill('a nib on the rim');
        await tap('Keep', 'note');
      }
      await spray();
      server = await startServer(folder, PORT);
      await kept();
    }
  });

  await test.step('to the last coat', async () => {
    while ((await page.getByRole('heading', { level: 1 }).textContent()) !== 'Every coat is on.') await go();
    await kept();
    await expect(page.getByTestId('after')).toContainText('36 of 36 sprays on. 1 note.');
    const log = (await (await page.request.get(`${server.address}/api/jobs/${JOB}/events`)).json()) as JobEvent[];
    expect(new Set(log.map((e) => e.id)).size).toBe(log.length);
    const count = (kinds: readonly string[]) =>
      Object.fromEntries([...new Set(taps)].map((k) => [k, kinds.filter((x) => x === k).length]));
    expect(count(log.map((e) => e.kind))).toEqual(count(taps));
    expect(log).toHaveLength(taps.length);
    await page.getByRole('link', { name: 'Leave the booth' }).click();
    await expect(page.getByText('36 of 36 sprays on.')).toBeVisible();
    await page.getByRole('link', { name: 'Jobs' }).click();
    await expect(page.getByRole('link', { name: /Waltzer tub 3/ })).toContainText('every coat is on');
  });
  expect(errors).toEqual([]);
});

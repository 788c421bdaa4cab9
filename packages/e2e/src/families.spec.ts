import { expect, test, type Page } from '@playwright/test';
import type { JobDetail } from '@steady-gleam/contracts';
import { demoReadings, type DemoTruth } from '@steady-gleam/core/demo';
import { countOf, FAMILIES, FAMILY_IDS, withCount, type FinishFamily } from '@steady-gleam/core/finishes';
import { findGround, prepareLibrary } from '@steady-gleam/core/materials';
import { randomUUID } from 'node:crypto';
import { seriousFaults } from './axe';
import { stepOn } from './boothSteps';
import { journeyServer } from './journeyServer';

const shop = prepareLibrary();
const server = journeyServer(4811);

const answer = (page: Page) => page.getByTestId('answer');
const heading = (page: Page) => page.getByRole('heading', { level: 1 });
const read = async (page: Page, id: string): Promise<JobDetail> =>
  (await (await page.request.get(`${server.address}/api/jobs/${id}`)).json()) as JobDetail;

/** A painter of a family's first mix who lays a little more than nominal, matching one who does not. */
const painterOf = (family: FinishFamily): DemoTruth => {
  const { start } = FAMILIES[family];
  return {
    groundId: start.groundId,
    mixId: shop.library.systems.find((s) => s.family === family)!.id,
    strength: 1,
    style: start.style,
    hand: { film: 1.06, flake: 1, spread: 1 },
    edgeScale: 1,
  };
};

async function begin(page: Page, family: FinishFamily, piece: string, matching: string): Promise<string> {
  await page.goto(`${server.address}/jobs/new`);
  await page.getByLabel('Piece').fill(piece);
  if (matching) await page.getByLabel('Has to match').fill(matching);
  await page.getByRole('button', { name: FAMILIES[family].name, exact: true }).click();
  await page.getByRole('button', { name: 'Start this job' }).click();
  await expect(page).toHaveURL(/\/target$/);
  return /jobs\/([^/]+)\//.exec(page.url())![1]!;
}

for (const family of FAMILY_IDS)
  test(`${FAMILIES[family].name}: from new job to finished`, async ({ page }) => {
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e.message));
    const row = FAMILIES[family];
    const painter = painterOf(family);
    const maker = { ...painter, hand: { film: 1, flake: 1, spread: 1 } };
    const ground = findGround(row.start.groundId);
    const count = row.start.coats;
    const lamps = row.wanted === 'travel' ? [25, 45, 65] : [45];
    const id = await begin(page, family, `Swing boat, ${family}`, 'the boat beside it');

    await test.step('target', async () => {
      const rows = demoReadings(shop, maker, count, ['a', 'b', 'c'], 7, lamps).map(
        (r) => `${r.spot},${r.incidence},${r.aspecular},${r.l},${r.a},${r.b}`,
      );
      await page.getByLabel('File of readings').setInputFiles({
        name: 'boat.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from(['spot,incidence,aspecular,L,a,b', ...rows].join('\n')),
      });
      await page.getByRole('button', { name: 'Take these readings' }).click();
      await expect(page.getByText(`Read at ${lamps.length > 1 ? 9 : 5} angles, 3 spots.`)).toBeVisible();
      if (row.wanted === 'travel') await expect(page.getByRole('img', { name: /^Travel of the colour/ })).toBeVisible();
      if (row.wanted === 'cover') {
        await expect(page.getByRole('region', { name: 'Wanted cover' })).toBeVisible();
        await page.getByRole('button', { name: 'Half', exact: true }).click();
        await expect(answer(page)).toContainText('50 % covered over');
      }
      expect(await seriousFaults(page)).toEqual([]);
    });

    await test.step('map: what it was made with is found, and picked', async () => {
      await page.goto(`${server.address}/jobs/${id}/map`);
      await expect(answer(page)).toContainText(ground.name);
      if (row.specified)
        await expect(page.getByText(/At the specified 3 to 4 coats .* is its grey step/)).toBeVisible();
      await page.getByRole('gridcell', { name: new RegExp(`^${ground.name}, ${count} coats`) }).click();
      await expect(page.getByText('one coat more moves it')).toBeVisible();
      if (row.wanted === 'cover') await expect(page.getByText('cover', { exact: true })).toBeVisible();
      if (row.controlAfter !== null)
        await expect(page.getByText(new RegExp(`and ${count - row.controlAfter} control coats`)).first()).toBeVisible();
      await page.getByRole('button', { name: 'Pick this, plan the card' }).click();
      await expect(page).toHaveURL(/\/card$/);
      const { job } = await read(page, id);
      expect(countOf(family, job.pick!)).toBe(count);
      expect(job.pick).toMatchObject(withCount(family, { coats: 0, controlCoats: 0 }, count));
    });

    await test.step('recipes, sample and layers know it', async () => {
      await page.goto(`${server.address}/jobs/${id}/recipes`);
      await expect(page.getByText(/recipes .* looked at in/)).toBeVisible({ timeout: 60_000 });
      await expect(answer(page)).not.toContainText('No recipe');
      await page.goto(`${server.address}/jobs/${id}/sample`);
      await expect(answer(page)).toBeVisible();
      await page.goto(`${server.address}/jobs/${id}/layers`);
      await expect(page.getByRole('listitem').first()).toBeVisible();
    });

    await test.step('let-down: the first rungs, read', async () => {
      await page.goto(`${server.address}/jobs/${id}/card`);
      await page.getByLabel('Gun', { exact: true }).selectOption('Gun 2, 1.3 tip');
      await page.getByRole('button', { name: 'Keep this plan' }).click();
      await expect(page.getByRole('button', { name: /^Enter the rung with/ })).toBeVisible();
      const { job } = await read(page, id);
      for (const coats of row.rungs) {
        const reply = await page.request.post(`${server.address}/api/finishes/${job.finishId}/readings`, {
          data: {
            ...{ id: randomUUID(), kind: 'rung', rungCoats: coats, source: 'typed', label: '', objectId: null },
            ...{ state: 'cleared', doubt: null, takenAt: new Date().toISOString() },
            readings: demoReadings(shop, painter, coats, ['1'], 40 + coats, lamps),
          },
        });
        expect(reply.ok()).toBe(true);
      }
      await page.reload();
      await expect(answer(page)).toContainText(/Your card says|No count passes|closest/);
      await page.getByRole('button', { name: new RegExp(`^Rung of ${row.rungs[0]!} coats?, read`) }).click();
      await page.getByRole('button', { name: 'By eye' }).click();
      const words = page.getByRole('group', { name: 'Looks, lamp' });
      await words.getByRole('button', { name: row.byEye.less, exact: true }).click();
      await expect(page.getByRole('group', { name: 'Beside it, lamp' })).toContainText(row.byEye.beside[0]!);
      await expect(page.getByRole('group', { name: 'Looks, low light' })).toHaveCount(row.lowLight ? 1 : 0);
      expect(await seriousFaults(page)).toEqual([]);
    });

    await test.step('mix and plan', async () => {
      await page.goto(`${server.address}/jobs/${id}/mix`);
      await expect(answer(page)).toContainText(/Mix \d+ ml/);
      await page.goto(`${server.address}/jobs/${id}/plan`);
      await expect(answer(page)).toContainText('of the effect in');
      await page.getByRole('button', { name: 'Coats', exact: true }).click();
      await expect(answer(page)).toContainText(row.gun.led);
    });

    await test.step('booth: step by step, looked at, and finished', async () => {
      await page.goto(`${server.address}/jobs/${id}/booth`);
      let looked = false;
      for (let i = 0; i < 60; i++) {
        await page.getByTestId('check').or(page.getByTestId('coat')).waitFor();
        const title = (await heading(page).textContent())!;
        if (/Let it stand/.test(title)) break;
        if (/^Stop\. Look at/.test(title)) {
          looked = true;
          await expect(page.getByRole('button', { name: `a little ${row.byEye.less}` })).toBeVisible();
        }
        await stepOn(page);
      }
      expect(looked).toBe(true);
      await expect(heading(page)).toHaveText('Let it stand');
      const { job } = await read(page, id);
      const done = await page.request.patch(`${server.address}/api/jobs/${id}`, {
        data: { version: job.version, status: 'finished' },
      });
      expect(done.ok()).toBe(true);
      await page.goto(server.address);
      await expect(page.getByRole('list', { name: 'Jobs' })).toContainText(`Swing boat, ${family}`);
    });
    expect(errors).toEqual([]);
  });

test('a look that is designed: explored, chosen, and then it is the target of its card', async ({ page }) => {
  const id = await begin(page, FAMILY_IDS[0]!, 'Swing boat, own look', '');
  await expect(page.getByText('a look of its own').first()).toBeVisible();
  await page.getByRole('link', { name: 'design the look' }).click();
  await expect(answer(page)).toHaveText('Nothing has to be matched: choose what you like.');
  await page.getByRole('gridcell', { name: /^Aqua pastel, 2 coats/ }).click();
  await page.getByRole('button', { name: 'Put aside to compare' }).click();
  await page.getByRole('button', { name: 'This is the look: make it the target' }).click();
  await expect(page).toHaveURL(/\/card$/);
  const { job, target } = await read(page, id);
  expect(job.pick).toMatchObject({ groundId: 'aqua-pastel', coats: 2 });
  expect(target).toMatchObject({ source: 'designed' });
  expect(target!.readings).toHaveLength(5);
  await page.goto(`${server.address}/jobs/${id}/map`);
  await expect(answer(page)).toContainText('Aqua pastel, 2 coats');
  await page.goto(`${server.address}/jobs/${id}/target`);
  await expect(page.getByText(/^Designed on the map/)).toBeVisible();
});

test('without an instrument the map comes from a colour picked on the screen', async ({ page }) => {
  const id = await begin(page, FAMILY_IDS[0]!, 'Swing boat, by chip', 'a chip');
  await page.getByRole('button', { name: 'pick a colour on this screen' }).click();
  await page.getByLabel('Colour', { exact: true }).fill('#86b7c9');
  await page.getByRole('button', { name: 'Keep this colour' }).click();
  await expect(page.getByText(/^Picked on a screen: good to 6/)).toBeVisible();
  await page.goto(`${server.address}/jobs/${id}/map`);
  await expect(page.getByRole('gridcell').first()).toBeVisible();
  await expect(answer(page)).toContainText(/coats? in the nominal hand|No ground here reaches it/);
});

test('laid from cans: nothing is mixed, the cans are shaken, nothing is baked', async ({ page }) => {
  const job = '1a47e000-0000-4000-8000-000000000fa0';
  const { version, mixing } = (await read(page, job)).job;
  const guns = (await (await page.request.get(`${server.address}/api/guns`)).json()) as {
    gun: { id: string; kind: string };
  }[];
  const gunId = guns.find((g) => g.gun.kind === 'aerosol')!.gun.id;
  const reply = await page.request.patch(`${server.address}/api/jobs/${job}`, {
    data: { version, mixing: { ...mixing, gunId } },
  });
  expect(reply.ok()).toBe(true);
  await page.goto(`${server.address}/jobs/${job}/mix`);
  await expect(page.getByText(/^Sprayed from cans: nothing is mixed\. Cans of 400 ml: .*isocyanates/)).toBeVisible();
  await page.goto(`${server.address}/jobs/${job}/booth`);
  await stepOn(page);
  await expect(heading(page)).toHaveText('Shake the cans');
  await stepOn(page);
  await expect(page.getByTestId('coat')).toBeVisible();
  await page.goto(`${server.address}/jobs/${job}/plan`);
  await expect(page.getByText(/cans shaken/)).toBeVisible();
  await expect(page.getByText(/, bake/)).toHaveCount(0);
});

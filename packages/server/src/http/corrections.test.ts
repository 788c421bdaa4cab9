import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  type Batch,
  batchesApi,
  batchPdfPath,
  gunsApi,
  jobsApi,
  jobSheetPath,
  labelPath,
  pathOf,
  readingsApi,
  SERVER_TIME_HEADER,
  START_MIXING,
} from '@steady-gleam/contracts';
import { STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { openEmbedded } from '../db/open';
import { MIGRATIONS, openTestDb } from '../testdata/testDb';
import { rowsOf } from '../db/migrations';
import { createRepos } from '../resources/repos';
import { fillWithDemo, seedDemo } from '../demo/seed';
import { batchOf, CLEAR, GUN, openTestShop, OTHER_GUN } from '../testdata/testShop';

let shop: Awaited<ReturnType<typeof openTestShop>>;
beforeAll(async () => {
  shop = await openTestShop();
}, 60_000);
afterAll(() => shop.open.close());

describe('guns and products', () => {
  it('in use are kept, with where; unknown ones are refused at their field', async () => {
    const id = await shop.makeJob('Gondola 4');
    const unknown = randomUUID();
    const wrongGun = await shop.change(id, { version: 1, mixing: { ...START_MIXING, gunId: unknown } }).expect(400);
    expect(wrongGun.body.fields['mixing.gunId']).toMatch(/not here any more/);
    const wrongProduct = await shop
      .change(id, {
        version: 1,
        mixing: { ...START_MIXING, products: { effect: unknown } },
      })
      .expect(400);
    expect(wrongProduct.body.fields['mixing.products.effect']).toMatch(/not here any more/);
    await shop
      .change(id, {
        version: 1,
        mixing: { ...START_MIXING, gunId: GUN.id, products: { effect: CLEAR.id } },
      })
      .expect(200);
    const post = (over: object) => request(shop.app).post(batchesApi.add.path).send(batchOf(id, over));
    expect((await post({ gunId: unknown }).expect(400)).body.fields.gunId).toMatch(/not here/);
    expect((await post({ productId: unknown }).expect(400)).body.fields.productId).toMatch(/not here/);
    const remove = (gunId: string) =>
      request(shop.app)
        .delete(pathOf(gunsApi.remove.path, { id: gunId }))
        .send({ version: 1 });
    const refused = await remove(GUN.id).expect(409);
    expect(refused.body).toMatchObject({ code: 'inUse' });
    expect(refused.body.message).toContain('sprays Gondola 4');
    // In an open batch only.
    const batch = (await post({ gunId: OTHER_GUN.id }).expect(201)).body as Batch;
    expect((await remove(OTHER_GUN.id).expect(409)).body.message).toContain('a batch that is still open');
    const out = await request(shop.app)
      .put(pathOf(batchesApi.remove.path, { id: batch.id }))
      .send({ version: batch.version, removed: true })
      .expect(200);
    await remove(OTHER_GUN.id).expect(200);
    // Put back, the batch keeps what it was; the job's own gun is still there.
    await request(shop.app)
      .put(pathOf(batchesApi.remove.path, { id: batch.id }))
      .send({ version: (out.body as Batch).version, removed: false })
      .expect(200);
    expect((await shop.detail(id)).job.mixing?.gunId).toBe(GUN.id);
  });
});

describe('what was entered wrongly', () => {
  it('is taken out and put back: a rung with what it replaced, and a batch', async () => {
    const id = await shop.makeJob();
    const rung = (l: number) => ({
      id: randomUUID(),
      kind: 'rung',
      rungCoats: 2,
      source: 'typed',
      label: '',
      state: 'cleared',
      doubt: null,
      takenAt: '2026-11-20T09:00:00.000Z',
      readings: [{ spot: '1', incidence: 45, aspecular: 45, l, a: 0, b: 0 }],
    });
    const [wrong, worse] = [rung(40), rung(50)];
    for (const set of [wrong, worse])
      await request(shop.app)
        .post(pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(id) }))
        .send(set)
        .expect(201);
    const take = (setId: string, removed: boolean) =>
      request(shop.app)
        .put(pathOf(readingsApi.remove.path, { id: setId }))
        .send({ removed });
    await take(worse.id, true).expect(200);
    expect((await shop.detail(id)).rungs).toEqual([]);
    expect((await shop.list()).find((j) => j.id === id)?.rungsRead).toBe(0);
    await take(worse.id, false).expect(200);
    expect((await shop.detail(id)).rungs.map((r) => r.id)).toEqual([worse.id]);
    await take(randomUUID(), true).expect(404);
    const batch = (await request(shop.app).post(batchesApi.add.path).send(batchOf(id)).expect(201)).body as Batch;
    const remove = (version: number, removed: boolean) =>
      request(shop.app)
        .put(pathOf(batchesApi.remove.path, { id: batch.id }))
        .send({ version, removed });
    await remove(1, true).expect(200);
    const ids = async () =>
      ((await request(shop.app).get(batchesApi.list.path).expect(200)).body as Batch[]).map((b) => b.id);
    expect(await ids()).not.toContain(batch.id);
    await remove(1, false).expect(409);
    await remove(2, false).expect(200);
    expect(await ids()).toContain(batch.id);
  });
});

describe('the one clock', () => {
  it('is told with every answer, also with a refusal', async () => {
    for (const path of [jobsApi.list.path, '/api/nothing']) {
      const before = Date.now();
      const answer = await request(shop.app).get(path);
      const said = Number(answer.headers[SERVER_TIME_HEADER.toLowerCase()]);
      expect(said).toBeGreaterThanOrEqual(before);
      expect(said).toBeLessThanOrEqual(Date.now());
    }
  });

  it('of every paper is the painter’s, wherever the server stands', async () => {
    const jobId = await shop.makeJob();
    const batch = batchOf(jobId);
    await request(shop.app).post(batchesApi.add.path).send(batch).expect(201);
    // Mixed 22:30 UTC on the 20th, good for two hours: the next morning in Auckland, late evening in New York.
    const auckland = await shop.textOf(batchPdfPath(batch.id, 'label', 'metric', 'Pacific/Auckland'));
    expect(auckland).toContain('mixed 2026-11-21 11:30');
    expect(auckland).toContain('use by 2026-11-21 13:30');
    expect(await shop.textOf(batchPdfPath(batch.id, 'sheet', 'us', 'America/New_York'))).toContain(
      'use by 2026-11-20 19:30',
    );
    expect(await shop.textOf(batchPdfPath(batch.id, 'label', 'metric', 'Nowhere/Land'))).toContain(
      'use by 2026-11-21 00:30',
    );
    const day = (timeZone: string) => new Intl.DateTimeFormat('en-CA', { timeZone }).format(new Date());
    for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago'])
      expect(await shop.textOf(labelPath(jobId, 'a6', 'metric', zone))).toContain(day(zone));
    await shop
      .change(jobId, {
        version: 1,
        pick: { groundId: 'gold', coats: 2, strength: 1, style: 'wet', controlCoats: 0 },
      })
      .expect(200);
    const plan = {
      school: 'wet',
      grip: false,
      tack: true,
      blown: false,
      bake: true,
      airTowards: 0,
      order: null,
      edits: {},
      beforeClearMinutes: null,
      startAt: '2026-11-27T07:15:00.000Z',
      surfaceC: null,
      passes: null,
      blend: null,
    };
    await shop.change(jobId, { version: 2, plan }).expect(200);
    const sheet = await shop.textOf(jobSheetPath(jobId, 'metric', 'Asia/Kolkata'));
    expect(sheet).toContain('2026-11-27, from 12:45');
    expect(sheet).toContain('Isocyanates');
  });
});

describe('a file that can’t be made', () => {
  it('opened in a window says so in words; asked for by the program it stays JSON', async () => {
    const jobId = await shop.makeJob('Tub <b>9</b>');
    const path = jobSheetPath(jobId, 'metric', 'UTC');
    const page = await request(shop.app)
      .get(path)
      .set('Accept', 'text/html,application/xhtml+xml,*/*;q=0.8')
      .expect(400);
    expect(page.headers['content-type']).toMatch(/^text\/html/);
    expect(page.text).toContain('Pick ground and coats first; the sheet follows from them.');
    expect((await request(shop.app).get(path).set('Accept', '*/*').expect(400)).body).toMatchObject({
      code: 'badRequest',
    });
  });
});

describe('the first start', () => {
  const scratch = () => mkdtempSync(join(tmpdir(), 'steady-gleam-first-'));

  it('is whole or nothing: a fill that is cut off anywhere leaves nothing, and the next one goes through', async () => {
    const { db, close } = await openTestDb();
    const count = () =>
      rowsOf<{ n: number }>(
        db,
        sql`select (select count(*) from jobs)::int + (select count(*) from products)::int as n`,
      );
    for (const allowed of [0, 1, 5]) {
      await expect(
        db.transaction(async (tx) => {
          const repos = createRepos(tx);
          let left = allowed;
          const create: typeof repos.jobs.create = (...args) => {
            if (left-- <= 0) throw new Error('cut off');
            return repos.jobs.create(...args);
          };
          await seedDemo({ ...repos, jobs: { ...repos.jobs, create } });
          throw new Error('cut off at the end');
        }),
      ).rejects.toThrow('cut off');
      expect((await count())[0]!.n).toBe(0);
    }
    // An earlier program was cut off after its products: the fill goes on from there.
    await createRepos(db).products.add([STARTING_PRODUCTS[0]!]);
    await fillWithDemo(db);
    const { jobs: repo } = createRepos(db);
    expect(await repo.count()).toBe(12);
    await fillWithDemo(db);
    expect(await repo.count()).toBe(12);
    await close();
  }, 60_000);

  it('trips over nothing that a start cut off has left in the folder', async () => {
    const folder = scratch();
    mkdirSync(join(folder, 'database.making', 'base'), { recursive: true });
    writeFileSync(join(folder, 'database.making', 'PG_VERSION'), 'half');
    const made = await openEmbedded(MIGRATIONS, folder, { fill: fillWithDemo });
    expect(await createRepos(made.db).jobs.count()).toBe(12);
    await made.close();
    expect(existsSync(join(folder, 'database.making'))).toBe(false);
    const again = await openEmbedded(MIGRATIONS, folder, { fill: fillWithDemo });
    expect(await createRepos(again.db).jobs.count()).toBe(12);
    await again.close();
    rmSync(folder, { recursive: true });
  }, 90_000);
});

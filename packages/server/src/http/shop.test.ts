import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  type Batch,
  batchesApi,
  batchPdfPath,
  jobsApi,
  pathOf,
  productsApi,
  sheetPath,
  type StoredProduct,
} from '@steady-gleam/contracts';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import { insertMany } from '../db/insertMany';
import { openTestDb } from '../testdata/testDb';
import { batches } from '../db/schema';
import { createRepos } from '../resources/repos';
import { batchOf, openTestShop } from '../testdata/testShop';
import { createApp } from './app';

let shop: Awaited<ReturnType<typeof openTestShop>>;
beforeAll(async () => {
  shop = await openTestShop([], true);
  for (const gun of STARTING_GUNS) await createRepos(shop.open.db).guns.put(gun.id, 0, gun);
}, 60_000);
afterAll(() => shop.open.close());

const product = (over: object = {}) => ({ ...STARTING_PRODUCTS.at(-1)!, id: randomUUID(), ...over });
const put = (p: { id: string }, version = 0) =>
  request(shop.app)
    .put(pathOf(productsApi.put.path, { id: p.id }))
    .send({ version, product: p });
/** A batch without a product of the shelf, some of it for the card. */
const batchFor = (jobId: string, over: object = {}) =>
  batchOf(jobId, {
    ...{ productId: null, ml: 450, mixedAt: '2026-11-20T09:00:00.000Z', potMinutes: 90, onCard: true },
    parts: [
      { name: 'intercoat clear', role: 'product', parts: 8, ml: 400, grams: 372, lot: 'L-104' },
      { name: 'cinder red', role: 'colour', parts: 1, ml: 50, grams: 48, lot: '' },
    ],
    ...over,
  });

describe('products', () => {
  it('keep what a sheet can say and name at the field what it can’t', async () => {
    const good = product();
    await put(good).expect(200);
    expect((await put(good, 7).expect(409)).body.code).toBe('stale');
    const bad: [object, string, RegExp][] = [
      [{ ratio: '4:0:1', pours: ['hardener', 'reducer'] }, 'product.ratio', /above zero/],
      [{ ratio: 'four to one' }, 'product.ratio', /as on the sheet/],
      [{ ratio: '2:1', pours: [] }, 'product.ratio', /hardener or reducer/],
      [{ densityGPerMl: -1 }, 'product.densityGPerMl', /below 0.3/],
      [{ volumeSolids: 45 }, 'product.volumeSolids', /above 1/],
      [{ volumeSolids: 0 }, 'product.volumeSolids', /below 0.01/],
      [{ waterShare: 0.6, exemptShare: 0.5 }, 'product.exemptShare', /together/],
    ];
    for (const [over, field, said] of bad) {
      const { body } = await put(product(over)).expect(400);
      expect(body.fields[field]).toMatch(said);
    }
    // Zero parts in a hardener's band: from above to.
    const upside = product({ additives: [{ ...STARTING_PRODUCTS.at(-1)!.additives[0]!, fromC: 30, toC: 20 }] });
    expect((await put(upside).expect(400)).body.fields['product.additives[0].toC']).toMatch(/above the lowest/);
    expect((await request(shop.app).get(productsApi.list.path).expect(200)).body).toHaveLength(1);
  });

  it('come in all together or not at all', async () => {
    const before = ((await request(shop.app).get(productsApi.list.path)).body as unknown[]).length;
    const send = (products: object[]) => request(shop.app).post(productsApi.add.path).send({ products });
    await send([product(), product({ name: '' })]).expect(400);
    const twice = product();
    await send([twice, twice]).expect(409);
    expect((await request(shop.app).get(productsApi.list.path)).body).toHaveLength(before);
    await send([product(), product()]).expect(201);
    expect((await request(shop.app).get(productsApi.list.path)).body).toHaveLength(before + 2);
  });

  it('keep the sheet’s page, and refuse what is none', async () => {
    const p = product();
    await put(p).expect(200);
    const send = (bytes: Buffer) =>
      request(shop.app).put(sheetPath(p.id, 'page 2.pdf')).set('Content-Type', 'application/pdf').send(bytes);
    expect((await send(Buffer.from('not a page')).expect(400)).body.fields.sheet).toMatch(/not a PDF/);
    const kept = (await send(Buffer.from('%PDF-1.4 a page')).expect(200)).body as StoredProduct;
    expect(kept.sheet).toEqual({ name: 'page 2.pdf', type: 'application/pdf' });
    const back = await request(shop.app).get(sheetPath(p.id)).expect(200);
    expect(Buffer.from(back.body as Uint8Array).toString()).toBe('%PDF-1.4 a page');
  });

  it('stay while a job or an open batch needs them', async () => {
    const p = product({ name: 'Promenade needed' });
    await put(p).expect(200);
    const jobId = await shop.makeJob();
    await request(shop.app)
      .patch(pathOf(jobsApi.change.path, { id: jobId }))
      .send({ version: 1, mixing: { products: { clear: p.id }, gunId: null, temperatureC: 21, humidity: 0.5 } })
      .expect(200);
    const remove = () =>
      request(shop.app)
        .delete(pathOf(productsApi.remove.path, { id: p.id }))
        .send({ version: 1 });
    expect((await remove().expect(409)).body.message).toMatch(/Waltzer tub 9/);
    await request(shop.app)
      .patch(pathOf(jobsApi.change.path, { id: jobId }))
      .send({ version: 2, mixing: { products: {}, gunId: null, temperatureC: 21, humidity: 0.5 } })
      .expect(200);
    await remove().expect(200);
  });
});

describe('batches', () => {
  it('of one job, those in use, and those a gun is taught by are told however many came after them', async () => {
    const [jobId, other] = [randomUUID(), randomUUID()];
    const own = await openTestDb();
    const app = createApp({ repos: createRepos(own.db), logger: pino({ level: 'silent' }) });
    const [rare, busy] = STARTING_GUNS;
    for (const gun of [rare!, busy!]) await createRepos(own.db).guns.put(gun.id, 0, gun);
    for (const id of [jobId, other])
      await createRepos(own.db).jobs.create({
        ...{ id, piece: 'p', matching: 'm', family: 'candy', mixId: 'cinder-candy' },
        ...{ coats: null, target: null, finishId: null },
      });
    const day = (n: number) => new Date(Date.UTC(2026, 0, 1) + n * 3600_000).toISOString();
    const old = [
      batchFor(jobId, { gunId: rare!.id, mixedAt: day(0) }),
      batchFor(jobId, { gunId: busy!.id, mixedAt: day(1) }),
      batchFor(jobId, { gunId: busy!.id, mixedAt: day(2) }),
    ];
    const later = Array.from({ length: 310 }, (_, i) => batchFor(other, { gunId: busy!.id, mixedAt: day(10 + i) }));
    await insertMany(
      own.db,
      batches,
      [...old, ...later].map((batch, i) => ({
        ...{ id: batch.id, jobId: batch.jobId, gunId: batch.gunId, mixedAt: batch.mixedAt, batch },
        // The third is in use still; all others were sprayed out.
        ...{
          leftMl: i === 2 ? null : 10,
          endedAt: i === 2 ? null : batch.mixedAt,
          teaches: true,
          corrections: [],
          version: 1,
        },
        ...{ createdAt: batch.mixedAt, updatedAt: batch.mixedAt },
      })),
    );
    const listed = async (query = '') =>
      ((await request(app).get(`${batchesApi.list.path}${query}`).expect(200)).body as Batch[]).map((b) => b.id);
    const all = await listed();
    expect(all).toHaveLength(302);
    // The only lesson of a gun that is seldom used, and a cup that sets: not what a busy gun was taught long ago.
    expect([all.includes(old[0]!.id), all.includes(old[1]!.id), all.includes(old[2]!.id)]).toEqual([true, false, true]);
    expect(await listed(`?jobId=${jobId}`)).toEqual(old.map((b) => b.id));
    await request(app).get(`${batchesApi.list.path}?jobId=x`).expect(400);
    await own.close();
  });

  it('are stored once however often they are sent, and ended once', async () => {
    const jobId = await shop.makeJob();
    const batch = batchFor(jobId);
    for (let i = 0; i < 3; i++) await request(shop.app).post(batchesApi.add.path).send(batch).expect(201);
    const list = ((await request(shop.app).get(batchesApi.list.path)).body as Batch[]).filter((b) => b.jobId === jobId);
    expect(list).toHaveLength(1);
    expect(list[0]).toMatchObject({ piece: 'Waltzer tub 9', leftMl: null, endedAt: null, version: 1 });
    const end = (leftMl: unknown, version = 1) =>
      request(shop.app)
        .patch(pathOf(batchesApi.end.path, { id: batch.id }))
        .send({ version, leftMl });
    expect((await end(900).expect(400)).body.fields.leftMl).toMatch(/More can’t be left/);
    expect((await end('some').expect(400)).body.fields.leftMl).toMatch(/number/);
    expect((await end(60).expect(200)).body).toMatchObject({ leftMl: 60, version: 2 });
    expect((await end(50).expect(409)).body.code).toBe('stale');
    await request(shop.app).post(batchesApi.add.path).send(batchFor(randomUUID())).expect(404);
    await request(shop.app)
      .post(batchesApi.add.path)
      .send({ ...batch, jobId: await shop.makeJob() })
      .expect(409);
    // Another batch under an id that is taken would be lost in silence.
    await request(shop.app)
      .post(batchesApi.add.path)
      .send({ ...batch, ml: batch.ml + 50 })
      .expect(409);
    await request(shop.app)
      .post(batchesApi.add.path)
      .send(batchFor(jobId, { ml: 0 }))
      .expect(400);
  });

  it('are put right where they were entered wrongly: what they said stays, and a gun can be taught without one', async () => {
    const batch = batchFor(await shop.makeJob());
    await request(shop.app).post(batchesApi.add.path).send(batch).expect(201);
    const correct = (body: object) =>
      request(shop.app)
        .patch(pathOf(batchesApi.correct.path, { id: batch.id }))
        .send(body);
    const ml = batch.ml;
    const first = (await correct({ version: 1, ml: 2 * ml, leftMl: 10 }).expect(200)).body as Batch;
    expect(first).toMatchObject({ ml: 2 * ml, leftMl: 10, teaches: true, corrections: [{ ml, leftMl: null }] });
    expect(first.endedAt).not.toBeNull();
    expect(first.parts[0]!.ml).toBeCloseTo(2 * batch.parts[0]!.ml, 9);
    expect((await correct({ version: 2, leftMl: 3 * ml }).expect(400)).body.fields.leftMl).toMatch(
      /More can’t be left/,
    );
    expect((await correct({ version: 2, gunId: randomUUID() }).expect(400)).body.fields.gunId).toMatch(/\.$/);
    expect((await correct({ version: 1, ml }).expect(409)).body.code).toBe('stale');
    const out = (await correct({ version: 2, teaches: false }).expect(200)).body as Batch;
    expect(out).toMatchObject({ teaches: false, ml: 2 * ml });
    expect(out.corrections).toHaveLength(1);
    // Sent once more from a queue it is the same one still.
    expect((await request(shop.app).post(batchesApi.add.path).send(batch).expect(201)).body.ml).toBe(2 * ml);
  });

  it('print as a label and as a sheet', async () => {
    const jobId = await shop.makeJob();
    const batch = batchFor(jobId);
    await request(shop.app).post(batchesApi.add.path).send(batch).expect(201);
    for (const [size, units] of [
      ['label', 'metric'],
      ['sheet', 'us'],
    ] as const) {
      const pdf = await request(shop.app)
        .get(batchPdfPath(batch.id, size, units, 'Europe/Berlin'))
        .expect(200);
      expect(pdf.headers['content-type']).toBe('application/pdf');
      expect(
        Buffer.from(pdf.body as Uint8Array)
          .subarray(0, 5)
          .toString(),
      ).toBe('%PDF-');
    }
    await request(shop.app)
      .get(batchPdfPath(randomUUID(), 'label', 'metric', 'UTC'))
      .expect(404);
  });
});

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  batchesApi,
  cardsApi,
  jobsApi,
  jobSheetPath,
  type JobSummary,
  logApi,
  materialsApi,
  pathOf,
  START_PLAN,
  verdictsApi,
} from '@steady-gleam/contracts';
import { eventOf, START_AREAS } from '@steady-gleam/core/jobs';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { batchOf, openTestShop } from '../testdata/testShop';

let shop: Awaited<ReturnType<typeof openTestShop>>;
beforeAll(async () => {
  shop = await openTestShop();
}, 60_000);
afterAll(() => shop.open.close());

describe('the booth', () => {
  const event = (over: object = {}) => ({
    ...eventOf({
      id: randomUUID(),
      at: 1_764_000_000_000,
      kind: 'sprayed',
      cells: [{ coatId: 'effect/wet/1', areaId: 'tub' }],
    }),
    ...over,
  });
  const path = (id: string) => pathOf(logApi.addEvents.path, { id });

  it('stores each tap once, in one request or in many, all of a request or none', async () => {
    const jobId = await shop.makeJob();
    const [a, b, c] = [event(), event({ at: 1_764_000_001_000 }), event({ kind: 'undo' })];
    await request(shop.app)
      .post(path(jobId))
      .send({ events: [a, b] })
      .expect(201);
    // The answer was lost: the same again, with a new one; and twice at once.
    await Promise.all(
      [1, 2, 3].map(() =>
        request(shop.app)
          .post(path(jobId))
          .send({ events: [a, b, c] })
          .expect(201),
      ),
    );
    const log = (await request(shop.app).get(path(jobId)).expect(200)).body as { id: string }[];
    expect(log.map((e) => e.id)).toEqual([a.id, b.id, c.id]);
    const bad = await request(shop.app)
      .post(path(jobId))
      .send({ events: [event(), event({ kind: 'burned' })] })
      .expect(400);
    expect(Object.keys(bad.body.fields as object)).toEqual(['events[1].kind']);
    expect((await request(shop.app).get(path(jobId))).body).toHaveLength(3);
    const other = await shop.makeJob();
    await request(shop.app)
      .post(path(other))
      .send({ events: [a] })
      .expect(409);
    await request(shop.app)
      .post(path(randomUUID()))
      .send({ events: [event()] })
      .expect(404);
  });

  it('takes another mix for a finish while nothing of its own was sprayed, with its place on the map', async () => {
    const jobId = await shop.makeJob();
    const pick = { groundId: 'gold', coats: 2, strength: 1, style: 'wet', controlCoats: 0 };
    const change = (body: object) =>
      request(shop.app)
        .patch(pathOf(jobsApi.change.path, { id: jobId }))
        .send(body);
    const { carrierId } = REFERENCE_LIBRARY.systems.find((m) => m.id === 'cinder-candy')!;
    const mixId = randomUUID();
    const material = {
      ...{ kind: 'system', id: mixId, name: 'Mix for Waltzer tub 9', family: 'candy', carrierId, carrierParts: 100 },
      colours: [{ kind: 'dye', id: 'cinder-red', parts: 5, strength: 0.4 }],
      ...{ strengthFrom: 'typed', drawdown: null, filmUm: 10, flashMinutes: 12, pricePerLitre: 60 },
    };
    await request(shop.app)
      .put(pathOf(materialsApi.put.path, { id: mixId }))
      .send({ version: 0, material })
      .expect(200);
    const refused = async (body: object, field: string, said: RegExp) =>
      expect(
        ((await change({ version: 1, ...body }).expect(400)).body.fields as Record<string, string>)[field],
      ).toMatch(said);
    await refused({ mixId }, 'pick', /over which ground/);
    await refused({ mixId: 'lagoon-pearl', pick }, 'mixId', /another family/);
    await refused({ mixId: randomUUID(), pick }, 'mixId', /./);
    const taken = await change({ version: 1, mixId, pick }).expect(200);
    expect(taken.body).toMatchObject({ mixId, pick: { groundId: 'gold', coats: 2 }, version: 2 });
    // Once it was sprayed it is what it is.
    await request(shop.app)
      .post(pathOf(logApi.addEvents.path, { id: jobId }))
      .send({ events: [eventOf({ id: randomUUID(), at: 1, kind: 'sprayed', layerId: 'effect', coats: 1 })] })
      .expect(201);
    const late = await change({ version: 2, mixId: 'cinder-candy', pick }).expect(400);
    expect((late.body.fields as Record<string, string>)['mixId']).toMatch(/^Coats of its own mix were told/);
    // So is one whose card was begun, until the card is put aside.
    const other = await shop.makeJob();
    const finish = { id: await shop.finishOf(other) };
    const card = { id: randomUUID(), rungs: [1, 2], gun: 'Gun 1', pressureBar: 1.4, onStand: true, version: 0 };
    await request(shop.app).put(pathOf(cardsApi.put.path, finish)).send(card).expect(200);
    const changeOther = (body: object) =>
      request(shop.app)
        .patch(pathOf(jobsApi.change.path, { id: other }))
        .send(body);
    const begun = await changeOther({ version: 1, mixId, pick }).expect(400);
    expect((begun.body.fields as Record<string, string>)['mixId']).toMatch(/^Its card was begun with its own mix/);
    await request(shop.app).post(pathOf(cardsApi.retire.path, finish)).send({ version: 1 }).expect(200);
    await changeOther({ version: 1, mixId, pick }).expect(200);
  });

  it('keeps a plan with the job, and prints its sheet once something is picked', async () => {
    const jobId = await shop.makeJob();
    const plan = { ...START_PLAN, edits: { 'effect/wet/1': { overlap: 0.7 } }, order: ['tub', 'back'] };
    const change = (body: object) =>
      request(shop.app)
        .patch(pathOf(jobsApi.change.path, { id: jobId }))
        .send(body);
    const wrong = await change({ version: 1, plan: { ...plan, edits: { x: { overlap: 3 } } } }).expect(400);
    expect(Object.values(wrong.body.fields as object).join()).toMatch(/overlap can’t be above 0.95/);
    expect((await change({ version: 1, plan }).expect(200)).body.plan).toEqual(plan);
    const sheet = () => request(shop.app).get(jobSheetPath(jobId, 'us', 'Europe/Berlin'));
    await sheet().expect(400);
    await change({
      version: 2,
      pick: { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 1 },
    }).expect(200);
    const pdf = await sheet().expect(200);
    expect(
      Buffer.from(pdf.body as Uint8Array)
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
  });

  it('tells in the list of jobs where each stands: rungs by eye, cups, and what its run waits for', async () => {
    const jobId = await shop.makeJob();
    const standing = async () => {
      const jobs = (await request(shop.app).get(jobsApi.list.path).expect(200)).body.rows as JobSummary[];
      return jobs.find((j) => j.id === jobId)!;
    };
    expect(await standing()).toMatchObject({ rungsRead: 0, batches: 0, run: null });
    const choice = { groundId: 'silver-fine', coats: 2.5, strength: 1, style: 'wet', controlCoats: 0 };
    await request(shop.app)
      .patch(pathOf(jobsApi.change.path, { id: jobId }))
      .send({ version: 1, pick: choice })
      .expect(200);
    const finish = await shop.finishOf(jobId);
    const say = (coats: number, view: string, verdict: string | null) =>
      request(shop.app)
        .post(pathOf(verdictsApi.add.path, { id: finish }))
        .send({
          id: randomUUID(),
          coats,
          view,
          verdict,
          takenAt: '2026-11-20T09:00:00.000Z',
        })
        .expect(201);
    await say(1, 'shade', 'lighter');
    await say(1, 'lamp', 'lighter');
    await say(2, 'shade', 'match');
    await say(2, 'shade', null);
    await request(shop.app).post(batchesApi.add.path).send(batchOf(jobId)).expect(201);
    expect(await standing()).toMatchObject({ rungsRead: 1, batches: 1, run: null });

    const at = 1_764_000_000_000;
    const areaId = START_AREAS[0]!.id;
    const tap = (more: object) =>
      request(shop.app)
        .post(path(jobId))
        .send({ events: [event(more)] })
        .expect(201);
    await tap({ kind: 'start', cells: [], at });
    // Sealer, two grounds, two and a half of candy, a tack coat and two clears.
    expect((await standing()).run).toMatchObject({
      done: 0,
      total: 9,
      next: 'Make it ready',
      isCoat: false,
      readyAt: null,
      closesAt: null,
      unseen: null,
    });
    await tap({ kind: 'check', checkId: 'prep', cells: [], at: at + 1000 });
    expect((await standing()).run).toMatchObject({ next: 'sealer on Whole piece', isCoat: true });
    await tap({ cells: [{ coatId: 'sealer/wet/1', areaId }], at: at + 60_000 });
    const { run } = await standing();
    expect(run).toMatchObject({ done: 1, next: 'Fine silver 1 of 2 on Whole piece' });
    expect((await standing()).film!.find((f) => f.layer.id === 'sealer')).toMatchObject({
      onUm: 25,
      plannedUm: 25,
    });
    // It flashes from when it was sprayed, some ten minutes or more.
    expect(run!.readyAt! - at - 60_000).toBeGreaterThan(8 * 60_000);
    expect(run!.readyAt! - at - 60_000).toBeLessThan(30 * 60_000);
  });
});

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  type Damaged,
  type Job,
  jobsApi,
  logApi,
  pathOf,
  productsApi,
  readingsApi,
  REMOVED_DAYS,
} from '@steady-gleam/contracts';
import { eventOf, START_AREAS } from '@steady-gleam/core/jobs';
import { eq, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { createRepos } from '../resources/repos';
import { jobEvents, jobs, products } from '../db/schema';
import { CLEAR, openTestShop } from '../testdata/testShop';

let shop: Awaited<ReturnType<typeof openTestShop>>;
const told: Damaged[] = [];
beforeAll(async () => {
  shop = await openTestShop(told);
}, 60_000);
afterAll(() => shop.open.close());

describe('a row that can’t be read any more', () => {
  it('costs no other: left out of the list, named, told to the log once, and a sentence when it is opened', async () => {
    const [good, bad] = [await shop.makeJob('Good tub'), await shop.makeJob('Bad tub')];
    const areas = START_AREAS.map((p) => ({ ...p, count: 300 }));
    await shop.open.db.update(jobs).set({ areas }).where(eq(jobs.id, bad));
    const seen = (await shop.list()).map((j) => j.id);
    expect(seen).toContain(good);
    expect(seen).not.toContain(bad);
    await shop.list();
    expect(told.filter((d) => d.id === bad)).toEqual([{ what: 'job', id: bad, name: 'Bad tub' }]);
    expect(await shop.damaged()).toContainEqual({ what: 'job', id: bad, name: 'Bad tub' });
    const alone = await request(shop.app)
      .get(pathOf(jobsApi.read.path, { id: bad }))
      .expect(500);
    expect(alone.body).toMatchObject({ code: 'damaged' });
    expect(alone.body.message).toContain(`Bad tub (${bad})`);
    await shop.detail(good);
    await shop.open.db.delete(jobs).where(eq(jobs.id, bad));
  });

  it('on the shelf or in the booth’s log leaves shelf, batches and runs standing', async () => {
    const id = randomUUID();
    await shop.open.db
      .insert(products)
      .values({ id, kind: 'clear', name: 'Broken', product: { ...CLEAR, id, ratio: 'x:y' } });
    const jobId = await shop.makeJob();
    await shop
      .change(jobId, {
        version: 1,
        pick: { groundId: 'gold', coats: 2, strength: 1, style: 'wet', controlCoats: 0 },
      })
      .expect(200);
    const event = eventOf({ id: '', at: 1_764_000_000_000, kind: 'start' });
    await request(shop.app)
      .post(pathOf(logApi.addEvents.path, { id: jobId }))
      .send({ events: [{ ...event, id: randomUUID() }] })
      .expect(201);
    const stray = randomUUID();
    await shop.open.db.insert(jobEvents).values({ ...event, id: stray, jobId, kind: sql`'burned'` });
    expect((await request(shop.app).get(productsApi.list.path).expect(200)).body).toHaveLength(1);
    expect(
      (
        await request(shop.app)
          .get(pathOf(logApi.readLog.path, { id: jobId }))
          .expect(200)
      ).body,
    ).toHaveLength(1);
    expect((await shop.list()).find((j) => j.id === jobId)?.run).toMatchObject({ done: 0 });
    expect((await shop.damaged()).map((d) => d.id)).toEqual(expect.arrayContaining([id, stray]));
    await shop.open.db.delete(products).where(eq(products.id, id));
    await shop.open.db.delete(jobEvents).where(eq(jobEvents.id, stray));
  });
});

describe('the life of a job', () => {
  it('is finished without a card, opened again, renamed, taken out and put back, nothing lost', async () => {
    const id = await shop.makeJob();
    const finished = (await shop.change(id, { version: 1, status: 'finished' }).expect(200)).body as Job;
    expect(finished.status).toBe('finished');
    await shop.change(id, { version: 2, status: 'open', piece: 'Waltzer tub 9, outside' }).expect(200);
    expect((await shop.detail(id)).job).toMatchObject({ status: 'open', piece: 'Waltzer tub 9, outside' });
    await shop.change(id, { version: 3, removed: true }).expect(200);
    expect((await shop.list()).some((j) => j.id === id)).toBe(false);
    const removed = (await request(shop.app).get(jobsApi.listRemoved.path).expect(200)).body as Job[];
    expect(removed[0]).toMatchObject({ id, piece: 'Waltzer tub 9, outside' });
    // Still there for who has it open.
    expect((await shop.detail(id)).job.removedAt).not.toBeNull();
    await shop.change(id, { version: 4, removed: false }).expect(200);
    expect((await shop.list()).some((j) => j.id === id)).toBe(true);
    expect((await shop.change(id, { version: 5, piece: '  ' }).expect(400)).body.fields.piece).toMatch(
      /Say what is to be/,
    );
  });

  it('keeps what was done when it is finished, and forgets it when it is opened again', async () => {
    const id = await shop.makeJob();
    const choice = { groundId: 'silver-fine', coats: 2, strength: 1, style: 'wet', controlCoats: 0 };
    await shop.change(id, { version: 1, pick: choice }).expect(200);
    const cell = (coatId: string) => ({ coatId, areaId: START_AREAS[0]!.id });
    const at = 1_764_000_000_000;
    await request(shop.app)
      .post(pathOf(logApi.addEvents.path, { id }))
      .send({
        events: ['sealer/wet/1', 'ground/wet/1', 'effect/wet/1', 'effect/wet/2'].map((coat, i) =>
          eventOf({ id: randomUUID(), at: at + i, kind: 'sprayed', cells: [cell(coat)] }),
        ),
      })
      .expect(201);
    const { done } = (await shop.change(id, { version: 2, status: 'finished' }).expect(200)).body as Job;
    expect(done).toMatchObject({ sprays: 4, counts: [{ objectId: 'object-1', name: 'Waltzer tub 9', coats: 2 }] });
    expect(done!.film.find((f) => f.layer.id === 'effect')).toMatchObject({ onUm: 20, plannedUm: 20 });
    expect((await shop.list()).find((j) => j.id === id)!.film).toEqual(done!.film);
    // Two devices finish it: the second is told.
    expect((await shop.change(id, { version: 2, status: 'finished' }).expect(409)).body.code).toBe('stale');
    expect(((await shop.change(id, { version: 3, status: 'open' }).expect(200)).body as Job).done).toBeNull();
    await shop.change(id, { version: 4, status: 'away' }).expect(200);
    expect((await shop.list()).find((j) => j.id === id)).toBeUndefined();
    const away = await request(shop.app).get(`${jobsApi.list.path}?status=away`).expect(200);
    expect(away.body).toMatchObject({ rows: [{ id, status: 'away' }], total: 1, states: { away: 1 } });
  });

  it('is copied with its target, card and areas and nothing of its log; once however often it is asked', async () => {
    const id = await shop.makeJob('Tub 9');
    const set = (kind: string, rungCoats: number | null, more: object = {}) => ({
      ...{
        id: randomUUID(),
        kind,
        rungCoats,
        source: 'typed',
        label: '',
        objectId: null,
        state: 'cleared',
        doubt: null,
      },
      ...{ takenAt: '2026-11-20T09:00:00.000Z', ...more },
      readings: [{ spot: '1', incidence: 45, aspecular: 45, l: 40, a: 1, b: 2 }],
    });
    const finishId = await shop.finishOf(id);
    const post = (path: string, s: object) => request(shop.app).post(path).send(s);
    const toFinish = pathOf(readingsApi.addToFinish.path, { id: finishId });
    const toJob = pathOf(readingsApi.addToJob.path, { id });
    for (const s of [set('target', null), set('rung', 2)]) await post(toFinish, s).expect(201);
    for (const s of [set('target', null, { objectId: 'b' }), set('spot', 2, { label: 'nose' })]) {
      expect((await post(toFinish, s).expect(400)).body.fields.kind).toBe('This belongs to a job, not to a finish.');
      await post(toJob, s).expect(201);
    }
    expect((await post(toJob, set('rung', 2)).expect(400)).body.fields.kind).toMatch(/belongs to a finish/);
    const areas = START_AREAS.map((a) => ({ ...a, measures: { area: 3 } }));
    await shop.change(id, { version: 1, areas }).expect(200);
    await request(shop.app)
      .post(pathOf(logApi.addEvents.path, { id }))
      .send({ events: [eventOf({ id: randomUUID(), at: 5, kind: 'start' })] })
      .expect(201);
    const copy = { id: randomUUID(), piece: 'Tub 9, again' };
    const path = pathOf(jobsApi.copy.path, { id });
    for (let i = 0; i < 2; i++) await request(shop.app).post(path).send(copy).expect(201);
    const made = await shop.detail(copy.id);
    expect(made.job).toMatchObject({ piece: 'Tub 9, again', areas, status: 'open', version: 1 });
    expect(made.target!.readings).toEqual((await shop.detail(id)).target!.readings);
    expect([made.objectTargets.length, made.rungs.length, made.spots.length, made.events.length]).toEqual([1, 1, 0, 0]);
    expect(
      (
        await request(shop.app)
          .post(path)
          .send({ ...copy, id: randomUUID(), piece: ' ' })
          .expect(400)
      ).body.fields.piece,
    ).toMatch(/Say what is to be finished/);
  });

  it('keeps a finish that an area gets, and says which', async () => {
    const id = await shop.makeJob();
    const stack = (sid: string) => ({
      id: sid,
      name: sid,
      layers: [
        { id: `${sid}-e`, kind: 'effect', materialId: 'cinder-candy', coats: 2, style: 'wet', strength: 1, filmUm: 10 },
      ],
    });
    const lines = { ...START_AREAS[0]!, id: 'lines', name: 'Lining', finishId: 'lining', on: START_AREAS[0]!.id };
    await shop
      .change(id, { version: 1, stacks: [stack('body'), stack('lining')], areas: [START_AREAS[0]!, lines] })
      .expect(200);
    const refused = await shop.change(id, { version: 2, stacks: [stack('body')] }).expect(400);
    expect(refused.body.fields.stacks).toBe('Lining gets that finish: give it another under Pieces first.');
    expect((await shop.detail(id)).job.stacks).toHaveLength(2);
    const nowhere = await shop.change(id, { version: 2, areas: [{ ...lines, on: 'gone' }] }).expect(400);
    expect(Object.values(nowhere.body.fields as object).join()).toContain('What it lies on is not here any more');
  });

  it('that was taken out a month ago is gone for good, a younger one is not', async () => {
    const [old, young] = [await shop.makeJob('Old'), await shop.makeJob('Young')];
    const days = (n: number) => new Date(Date.now() - n * 86_400_000);
    await shop.open.db
      .update(jobs)
      .set({ removedAt: days(REMOVED_DAYS + 1) })
      .where(eq(jobs.id, old));
    await shop.open.db
      .update(jobs)
      .set({ removedAt: days(REMOVED_DAYS - 1) })
      .where(eq(jobs.id, young));
    expect(await createRepos(shop.open.db).jobs.forgetRemoved(days(REMOVED_DAYS))).toBe(1);
    await request(shop.app)
      .get(pathOf(jobsApi.read.path, { id: old }))
      .expect(404);
    await shop.detail(young);
    await shop.open.db.delete(jobs).where(eq(jobs.id, young));
  });
});

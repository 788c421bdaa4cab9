import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  inboxApi,
  jobsApi,
  pathOf,
  readingsApi,
  tryOutApi,
  type HeldAsk,
  type Job,
  type ReadingSet,
} from '@steady-gleam/contracts';
import { TRY_OUT_FAMILIES } from '@steady-gleam/core/finishes';
import { toCgats } from '@steady-gleam/core/formats';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import type { Express } from 'express';
import { createHash, randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import { openTestDb } from '../testdata/testDb';
import { createRepos, type Repos } from '../resources/repos';
import { createBench } from '../tryOut/bench';
import { createApp } from './app';

let app: Express;
let repos: Repos;
let close: () => Promise<void>;
afterAll(() => close());
const family = TRY_OUT_FAMILIES[0]!;
beforeAll(async () => {
  const own = await openTestDb();
  repos = createRepos(own.db);
  // Few rays: what is tried here is not how fine the truth is.
  const bench = createBench(12);
  app = createApp({ repos, logger: pino({ level: 'silent' }), bench: async (ask) => bench(ask) });
  close = own.close;
});

const begin = async (seed = 1): Promise<Job> =>
  (await request(app).post(tryOutApi.begin.path).send({ id: randomUUID(), family, seed }).expect(201)).body as Job;
const own = async (): Promise<Job> =>
  (
    await request(app)
      .post(jobsApi.create.path)
      .send({ id: randomUUID(), piece: 'own', matching: 'm', family, mixId: 'moonmilk-pearl' })
      .expect(201)
  ).body as Job;
const held = (id: string, more: Partial<HeldAsk>) =>
  request(app)
    .post(pathOf(tryOutApi.read.path, { id }))
    .send({ on: 'target', ...more });
const readTarget = async (id: string) => {
  await request(app).post(pathOf(tryOutApi.white.path, { id })).expect(200);
  for (let i = 0; i < 4; i++) {
    const { body } = await held(id, { on: 'target' }).expect(200);
    if (body.is === 'read') return body.readings as ReadingSet['readings'];
  }
  throw new Error('It never read.');
};
const setOf = (readings: ReadingSet['readings'], more: object = {}) => ({
  ...{ id: randomUUID(), kind: 'target', rungCoats: null, source: 'simulated', label: '', objectId: null },
  ...{ state: 'cleared', doubt: null, takenAt: new Date().toISOString(), readings, ...more },
});
const keep = (finishId: string, set: object) =>
  request(app)
    .post(pathOf(readingsApi.addToFinish.path, { id: finishId }))
    .send(set);

describe('a try-out', () => {
  it('begins once however often it is sent, marked, with nothing of what is hidden told', async () => {
    const id = randomUUID();
    const send = () => request(app).post(tryOutApi.begin.path).send({ id, family }).expect(201);
    const [first, second] = [(await send()).body as Job, (await send()).body as Job];
    expect(second.id).toBe(first.id);
    expect(first.tryOut).toEqual({ lifted: false });
    expect(JSON.stringify(first)).not.toContain('seed');
    const refused = await request(app).post(tryOutApi.begin.path).send({ id: randomUUID(), family: 'metal-flake' });
    expect(refused.status).toBe(400);
    expect(refused.body.fields.family).toContain('Try-outs are of');
  });

  it('is read after its white tile; what is not sprayed or not picked is refused in a sentence', async () => {
    const { id } = await begin(3);
    const { body } = await held(id, {}).expect(200);
    expect(body).toMatchObject({ is: 'wants white', readings: [] });
    const readings = await readTarget(id);
    expect(readings).toHaveLength(15);
    expect((await held(id, { on: 'rung', coats: 2 }).expect(422)).body.message).toContain('Nothing is picked yet');
    const curtain = await request(app).get(pathOf(tryOutApi.curtain.path, { id })).expect(422);
    expect(curtain.body.message).toContain('The curtain is down');
  });

  it('keeps its readings to itself: no other job takes them, no bank, file, copy or new job knows its finish', async () => {
    const job = await begin(4);
    const readings = await readTarget(job.id);
    await keep(job.finishId, setOf(readings)).expect(201);
    const other = await own();
    const refused = await keep(other.finishId, setOf(readings)).expect(400);
    expect(refused.body.fields.source).toContain('never into a job of the shop’s own');
    expect((await held(other.id, {}).expect(422)).body.message).toContain('try-outs only');
    const listed = await request(app).get('/api/finishes').expect(200);
    expect(JSON.stringify(listed.body)).not.toContain(job.finishId);
    const bank = await request(app).get('/api/bank/readings').expect(200);
    expect(JSON.stringify(bank.body)).not.toContain(job.finishId);
    for (const asked of [
      request(app).get(`/api/finishes/${job.finishId}/file`),
      request(app).post(`/api/finishes/${job.finishId}/copy`).send({ id: randomUUID(), name: 'like it' }),
      request(app)
        .post(pathOf(jobsApi.copy.path, { id: job.id }))
        .send({ id: randomUUID(), piece: 'like it' }),
      request(app)
        .post(jobsApi.create.path)
        .send({ id: randomUUID(), piece: 'p', matching: 'm', family, mixId: job.mixId, finishId: job.finishId }),
    ])
      expect((await asked).status).toBeGreaterThanOrEqual(400);
  });

  it('teaches no hand and no gun', async () => {
    const gun = STARTING_GUNS[0]!;
    await repos.guns.put(gun.id, 0, gun).catch(() => undefined);
    const card = {
      ...{ rungs: [1, 2], gun: gun.name, gunId: gun.id, pressureBar: 1.5, onStand: true, version: 0 },
      ...{ settings: undefined },
    };
    const hand = { mean: { film: 0.4 }, sd: { film: 0.1 }, style: 'wet', mixId: 'm', firstStop: 2 };
    const pick = { groundId: 'white', strength: 1, style: 'wet', coats: 3, controlCoats: 0 };
    const jobs = [await begin(5), await own(), await own()];
    for (const job of jobs) {
      await request(app)
        .put(`/api/finishes/${job.finishId}/card`)
        .send({ ...card, id: randomUUID() })
        .expect(200);
      await request(app).put(`/api/finishes/${job.finishId}/card/hand`).send(hand).expect(200);
      await request(app)
        .patch(pathOf(jobsApi.change.path, { id: job.id }))
        .send({ version: job.version, pick })
        .expect(200);
    }
    const last = await request(app)
      .get(pathOf(jobsApi.read.path, { id: jobs[2]!.id }))
      .expect(200);
    expect(last.body.earlier.map((e: { finishId: string }) => e.finishId)).toEqual([jobs[1]!.finishId]);
  });

  it('is told only when the curtain is lifted, and then whole', async () => {
    const job = await begin(6);
    const pick = { groundId: 'white', strength: 1, style: 'wet', coats: 3, controlCoats: 0 };
    await request(app)
      .patch(pathOf(jobsApi.change.path, { id: job.id }))
      .send({ version: job.version, pick })
      .expect(200);
    const lifted = await request(app)
      .post(pathOf(tryOutApi.lift.path, { id: job.id }))
      .send({ isSure: true })
      .expect(200);
    expect(lifted.body.tryOut).toEqual({ lifted: true });
    const { body: part } = await request(app)
      .post(pathOf(tryOutApi.part.path, { id: job.id }))
      .send({ part: 0 })
      .expect(200);
    expect(part.parts).toBe(10);
    const { body } = await request(app)
      .get(pathOf(tryOutApi.curtain.path, { id: job.id }))
      .expect(200);
    expect(body.objects).toHaveLength(1);
    expect(body.objects[0]).toMatchObject({ film: 0, end: 'short' });
    expect(body.nominal.coats).toBe(3);
    expect(body.nominal.film).toBeCloseTo(3 * body.hand, 9);
  }, 60_000);
});

describe('a file of the watched folder', () => {
  const offer = (name: string, text: string) =>
    repos.inbox.offer({
      name,
      text,
      hash: createHash('sha256').update(text).digest('hex'),
      fault: null,
      writtenAt: new Date(),
    });
  const text = (l: number) =>
    toCgats([15, 45].map((aspecular) => ({ ...{ spot: '1', incidence: 45, aspecular }, ...{ l, a: 0, b: 0 } })));
  const listed = async () => (await request(app).get(inboxApi.list.path).expect(200)).body;

  it('is offered once, with what stands in it, and taken once with the readings of it', async () => {
    await offer('one.txt', text(40));
    await offer('one.txt', text(40));
    const { files, watched } = await listed();
    expect(watched).toBe(false);
    expect(files).toHaveLength(1);
    expect(files[0]).toMatchObject({ name: 'one.txt', spots: 1, angles: 2, fault: '' });
    const { id } = files[0] as { id: string };
    expect((await request(app).get(pathOf(inboxApi.read.path, { id })).expect(200)).body.text).toBe(text(40));
    const [a, b] = [await own(), await own()];
    const set = setOf([{ spot: '1', incidence: 45, aspecular: 45, l: 40, a: 0, b: 0 }], {
      source: 'cgats',
      inboxId: id,
    });
    const [first, second] = await Promise.all([keep(a.finishId, set), keep(b.finishId, { ...set, id: randomUUID() })]);
    expect([first.status, second.status].sort()).toEqual([201, 409]);
    // Sent again after a lost answer it is the same.
    const won = first.status === 201 ? [a, set] : null;
    if (won) await keep(a.finishId, set).expect(201);
    expect((await listed()).files).toEqual([]);
    await request(app).put(pathOf(inboxApi.put.path, { id })).send({ state: 'offered' }).expect(409);
    // What stays in the folder is not offered again.
    await offer('one.txt', text(40));
    expect((await listed()).files).toEqual([]);
  });

  it('that grows while it waits is one file, laid aside it is out of the way, and what is none is said', async () => {
    const rows = text(50).trimEnd();
    await offer('grows.csv', 'spot,aspecular,L,a,b\n1,15,50,0,0\n');
    await offer('grows.csv', 'spot,aspecular,L,a,b\n1,15,50,0,0\n1,45,40,0,0\n');
    await offer('broken.csv', 'spot,aspecular,L,a,b\n1,15,fifty,0,0\n');
    expect(rows).toContain('END_DATA');
    const { files, total } = await listed();
    expect(total).toBe(2);
    expect(files.find((f: { name: string }) => f.name === 'grows.csv')).toMatchObject({ angles: 2 });
    expect(files.find((f: { name: string }) => f.name === 'broken.csv').fault).toContain('Line 2');
    for (const { id } of files)
      await request(app).put(pathOf(inboxApi.put.path, { id })).send({ state: 'aside' }).expect(200);
    expect((await listed()).total).toBe(0);
  });
});

import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  cardsApi,
  finishesApi,
  jobsApi,
  limitsApi,
  logApi,
  pathOf,
  photoPath,
  readingsApi,
  verdictsApi,
  type EarlierCard,
  type FinishDetail,
  type Job,
  type JobDetail,
  type StoredCard,
} from '@steady-gleam/contracts';
import { eventOf } from '@steady-gleam/core/jobs';
import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import type { OpenDb } from '../../db/open';
import { openTestDb } from '../../testdata/testDb';
import { createApp } from '../../http/app';
import { createRepos } from '../repos';

let open: OpenDb;
let app: ReturnType<typeof createApp>;
beforeAll(async () => {
  open = await openTestDb();
  app = createApp({ repos: createRepos(open.db), logger: pino({ level: 'silent' }) });
}, 60_000);
afterAll(() => open.close());

const takenAt = '2026-11-20T09:00:00.000Z';
const pick = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } as const;
const make = async (more: object = {}): Promise<Job> => {
  const job = { id: randomUUID(), piece: 'Tub 9', matching: 'tub 2', family: 'candy', mixId: 'cinder-candy', ...more };
  return (await request(app).post(jobsApi.create.path).send(job).expect(201)).body as Job;
};
const change = (id: string, body: object) => request(app).patch(pathOf(jobsApi.change.path, { id })).send(body);
const detail = async (id: string, finishId?: string) => {
  const path = finishId ? pathOf(jobsApi.readWith.path, { id, finishId }) : pathOf(jobsApi.read.path, { id });
  return (await request(app).get(path).expect(200)).body as JobDetail;
};
const finish = async (id: string) =>
  ((await request(app).get(pathOf(finishesApi.read.path, { id })).expect(200)).body as FinishDetail).finish;
const read = (finishId: string, kind: string, rungCoats: number | null, l = 40) =>
  request(app)
    .post(pathOf(readingsApi.addToFinish.path, { id: finishId }))
    .send({
      ...{ id: randomUUID(), kind, rungCoats, source: 'typed', label: '', state: 'cleared', doubt: null, takenAt },
      readings: [{ spot: '1', incidence: 45, aspecular: 45, l, a: 1, b: 2 }],
    })
    .expect(201);
const putCard = async (finishId: string, version: number, gun: string) =>
  (
    await request(app)
      .put(pathOf(cardsApi.put.path, { id: finishId }))
      .send({ id: randomUUID(), rungs: [1, 2, 3], gun, pressureBar: 1.4, onStand: true, version })
      .expect(200)
  ).body as StoredCard;

describe('a finish', () => {
  it('outlives its job, has a name and a code, and is kept while a job uses it', async () => {
    const job = await make();
    await read(job.finishId, 'target', null);
    const named = { version: 1, name: 'Cinder of tub 2', codes: ['C-12', 'rack 4'] };
    await request(app)
      .patch(pathOf(finishesApi.rename.path, { id: job.finishId }))
      .send(named)
      .expect(200);
    const again = await make({ id: randomUUID(), piece: 'Tub 10', finishId: job.finishId });
    expect(again).toMatchObject({ finishId: job.finishId, matching: 'tub 2', mixId: 'cinder-candy' });
    const kept = await finish(job.finishId);
    expect(kept).toMatchObject({
      ...{ name: 'Cinder of tub 2', codes: ['C-12', 'rack 4'], targetAngles: 1, proven: 0 },
      strip: [{ lab: [40, 1, 2] }],
    });
    expect(kept.jobs.map((j) => j.piece).sort()).toEqual(['Tub 10', 'Tub 9']);
    const remove = (version: number) =>
      request(app)
        .delete(pathOf(finishesApi.remove.path, { id: job.finishId }))
        .send({ version });
    const refused = await remove(kept.version).expect(409);
    expect(refused.body.message).toMatch(/^Cinder of tub 2 is used by (Tub 9, Tub 10|Tub 10, Tub 9)\./);
    for (const id of [job.id, again.id]) await change(id, { version: 1, removed: true }).expect(200);
    expect((await remove(kept.version).expect(409)).body.message).toContain('(taken out of the list)');
    const inAMonth = new Date(Date.now() + 86_400_000);
    expect(await createRepos(open.db).jobs.forgetRemoved(inAMonth)).toBe(2);
    expect((await finish(job.finishId)).jobs).toEqual([]);
    await remove(kept.version).expect(200);
    await request(app)
      .get(pathOf(finishesApi.read.path, { id: job.finishId }))
      .expect(404);
  });

  it('that other jobs use is never changed under them: the job gets its own, with all that was read', async () => {
    const first = await make();
    await change(first.id, { version: 1, pick }).expect(200);
    await read(first.finishId, 'target', null, 33);
    await putCard(first.finishId, 0, 'Gun 1');
    await read(first.finishId, 'rung', 2);
    const second = await make({ id: randomUUID(), finishId: first.finishId });
    const changed = (await change(second.id, { version: 1, pick: { ...pick, coats: 4 } }).expect(200)).body as Job;
    expect(changed.finishId).not.toBe(first.finishId);
    expect((await detail(first.id)).job).toMatchObject({ finishId: first.finishId, pick: { coats: 3 } });
    const own = await detail(second.id);
    expect(own.job.pick!.coats).toBe(4);
    expect([own.target!.readings[0]!.l, own.rungs.length, own.card!.gun]).toEqual([33, 1, 'Gun 1']);
    // Its own it changes in place.
    const next = (await change(second.id, { version: 2, pick: { ...pick, coats: 5 } }).expect(200)).body as Job;
    expect(next.finishId).toBe(changed.finishId);
  });

  it('takes a pick and layers in one change: neither is lost for the other', async () => {
    const job = await make();
    await change(job.id, { version: 1, pick, stacks: null }).expect(200);
    expect((await detail(job.id)).job).toMatchObject({ pick: { coats: 3 }, stacks: null });
    const again = { ...pick, coats: 2.5 };
    const body = (await change(job.id, { version: 2, pick: again, stacks: null }).expect(200)).body as Job;
    expect(body.pick!.coats).toBe(2.5);
  });

  it('is held to the limits the shop set of its family, and two who set them at once are told', async () => {
    const { id } = await make();
    expect((await detail(id)).familyLimits).toBeNull();
    const { family } = (await detail(id)).job;
    const body = { family, version: 0, own: [{ aspecular: 15, limit: 2 }], source: 'the customer’s sheet' };
    const put = (more: object) =>
      request(app)
        .put(limitsApi.putFamily.path)
        .send({ ...body, ...more });
    await put({}).expect(200);
    await put({ own: [] }).expect(409);
    expect((await detail(id)).familyLimits).toMatchObject({ own: [{ aspecular: 15, limit: 2 }], version: 1 });
    await put({ version: 1, own: [{ aspecular: 15, limit: 0 }] }).expect(400);
    expect((await detail(id)).familyLimits!.version).toBe(1);
  });

  it('has any number of cards, one in force; each keeps its rungs, verdicts, photos and log', async () => {
    const { id, finishId } = await make();
    const one = await putCard(finishId, 0, 'Gun 1');
    await read(finishId, 'target', null);
    await read(finishId, 'rung', 1);
    const verdict = { id: randomUUID(), coats: 2, view: 'shade', verdict: 'match', takenAt };
    await request(app)
      .post(pathOf(verdictsApi.add.path, { id: finishId }))
      .send(verdict)
      .expect(201);
    const photo = { id: randomUUID(), kind: 'rung' as const, coats: 2, takenAt };
    const png = Buffer.from('89504e470d0a1a0a00', 'hex');
    await request(app).post(photoPath(finishId, photo)).set('Content-Type', 'image/png').send(png).expect(201);
    const log = pathOf(logApi.addCardEvents.path, { id: finishId });
    await request(app)
      .post(log)
      .send({ events: [eventOf({ id: randomUUID(), at: 5, kind: 'start' })] })
      .expect(201);
    const retire = (version: number) =>
      request(app)
        .post(pathOf(cardsApi.retire.path, { id: finishId }))
        .send({ version });
    await retire(7).expect(409);
    const aside = (await retire(one.version).expect(200)).body as EarlierCard;
    expect(aside).toMatchObject({ id: one.id, gun: 'Gun 1', rungsRead: 2 });
    let now = await detail(id);
    expect([now.card, now.rungs, now.verdicts, now.photos]).toEqual([null, [], [], []]);
    expect(now.target).not.toBeNull();
    expect((await request(app).get(log).expect(200)).body).toEqual([]);
    await putCard(finishId, 0, 'Gun 2');
    await read(finishId, 'rung', 3);
    expect((await detail(id)).finish.cards.map((c) => c.id)).toEqual([one.id]);
    const recall = pathOf(cardsApi.recall.path, { id: one.id });
    expect((await request(app).put(recall).expect(200)).body).toMatchObject({ id: one.id, gun: 'Gun 1' });
    now = await detail(id);
    expect([now.card!.id, now.rungs.map((r) => r.rungCoats), now.verdicts.length, now.photos.length]).toEqual([
      ...[one.id, [1], 1, 1],
    ]);
    expect(now.finish.cards).toMatchObject([{ gun: 'Gun 2', rungsRead: 1 }]);
    expect((await request(app).get(log).expect(200)).body).toHaveLength(1);
  });

  it('of a stripe has a target, a pick and a card of its own within the job', async () => {
    const job = await make();
    await change(job.id, { version: 1, pick }).expect(200);
    const layer = (id: string, kind: string, materialId: string | null) => ({
      ...{ id, kind, materialId, coats: 2, style: 'wet', strength: 1, filmUm: 10 },
    });
    const body = [layer('g', 'ground', 'silver-fine'), layer('e', 'effect', 'cinder-candy'), layer('c', 'clear', null)];
    const lines = [layer('g2', 'ground', 'white'), layer('e2', 'effect', 'lagoon-pearl')];
    const stacks = [
      { id: 'main', name: 'body', layers: body },
      { id: 'lines', name: 'lining', layers: lines },
    ];
    await change(job.id, { version: 2, stacks }).expect(200);
    const whole = await detail(job.id);
    expect(whole.finishes.map((f) => [f.name, f.mixId])).toEqual([
      ['body', 'cinder-candy'],
      ['lining', 'lagoon-pearl'],
    ]);
    const lining = whole.finishes[1]!.id;
    await read(lining, 'target', null, 61);
    const about = await detail(job.id, lining);
    expect(about.job).toMatchObject({ finishId: lining, mixId: 'lagoon-pearl', family: 'pearl', pick: null });
    expect([about.job.stacks!.map((s) => s.id), about.target!.readings[0]!.l, whole.target]).toEqual([
      ...[['lines'], 61, null],
    ]);
    const picked = { ...pick, groundId: 'white', coats: 4 };
    const changed = (await change(job.id, { version: 3, finishId: lining, pick: picked }).expect(200)).body as Job;
    expect(changed).toMatchObject({ finishId: lining, pick: picked });
    const after = await detail(job.id);
    expect(after.job.pick).toMatchObject({ groundId: 'silver-fine' });
    expect(after.job.stacks![1]!.layers.find((l) => l.kind === 'effect')!.coats).toBe(4);
    // Taken out of the job it stays in the bank, since something was read for it; one without anything goes.
    await change(job.id, { version: 4, stacks: [stacks[0]!, { id: 'bare', name: 'bare', layers: lines }] }).expect(200);
    expect((await finish(lining)).jobs).toEqual([]);
    const bare = (await detail(job.id)).finishes[1]!.id;
    await change(job.id, { version: 5, stacks: [stacks[0]!] }).expect(200);
    await request(app)
      .get(pathOf(finishesApi.read.path, { id: bare }))
      .expect(404);
    await request(app)
      .get(pathOf(jobsApi.readWith.path, { id: job.id, finishId: lining }))
      .expect(404);
    expect((await change(job.id, { version: 6, finishId: lining, pick }).expect(400)).body.fields.finishId).toMatch(
      /not one of the job’s/,
    );
  });
});

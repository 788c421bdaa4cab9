import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  bankApi,
  cardsApi,
  finishesApi,
  jobsApi,
  logApi,
  pathOf,
  photoPath,
  readingsApi,
  verdictsApi,
  type FinishDetail,
  type Job,
} from '@steady-gleam/contracts';
import { nearestByScan } from '@steady-gleam/core/bank';
import { eventOf } from '@steady-gleam/core/jobs';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { asked, openShop, pick, PNG, takenAt, tools } from '../../testdata/bankShop';

describe('the bank', () => {
  let shop: Awaited<ReturnType<typeof openShop>>;
  let t: ReturnType<typeof tools>;
  let proven: Job;
  beforeAll(async () => {
    shop = await openShop();
    t = tools(shop.app);
    proven = await t.make({ piece: 'Tub 100%', matching: 'the old tub' });
    await t.change(proven.id, { version: 1, pick }).expect(200);
    await t.measure(proven.finishId, 'target', null, 41);
    await t.putCard(proven.finishId, 0);
    for (const [coats, l] of [
      [1, 60],
      [2, 50],
      [3, 42],
      [4, 35],
    ] as const)
      await t.measure(proven.finishId, 'rung', coats, l);
    await t.make({ piece: 'Door', matching: 'a door', family: 'pearl', mixId: 'lagoon-pearl' });
  }, 60_000);
  afterAll(() => shop.db.close());

  it('is searched by every word: name, code, mix, gun, piece and day; by family, and by what held', async () => {
    const { finish } = await t.read(proven.finishId);
    await request(shop.app)
      .patch(pathOf(finishesApi.rename.path, { id: finish.id }))
      .send({ version: finish.version, name: 'Cinder of old', codes: ['C-12', 'rack 4'] })
      .expect(200);
    const found = async (query: string) => (await t.list(query)).rows.map((f) => f.name);
    for (const words of ['cinder', 'C-12', 'rack', 'gun 1', 'tub 100%', 'old CINDER', 'candy'])
      expect([words, await found(`words=${encodeURIComponent(words)}`)]).toEqual([words, ['Cinder of old']]);
    expect(await found('words=lagoon')).toEqual(['a door']);
    // Signs of the search itself are letters like others.
    expect(await found('words=%25_')).toEqual([]);
    expect(await found('words=cinder+door')).toEqual([]);
    expect(await found('family=pearl')).toEqual(['a door']);
    expect(await found('proven=true')).toEqual([]);
    expect(await found('sort=name')).toEqual(['a door', 'Cinder of old']);
    expect(await found(`ids=${finish.id}`)).toEqual(['Cinder of old']);
    expect(await t.list('page=7')).toEqual({ rows: [], total: 2 });
    const wrong = await request(shop.app).get(`${finishesApi.list.path}?family=velvet&page=x`).expect(400);
    expect(Object.keys(wrong.body.fields).sort()).toEqual(['family', 'page']);
  });

  it('finds the nearest: the same as a scan, a count between two rungs, without what was read wet or taken out', async () => {
    const { readings } = (await request(shop.app).get(bankApi.readings.path).expect(200)).body;
    expect(readings).toHaveLength(5);
    const between = await t.nearest(asked(46));
    expect(between.readings).toBe(5);
    expect(between.found).toHaveLength(1);
    expect(between.found[0]).toMatchObject({
      finishId: proven.finishId,
      name: 'Cinder of old',
      rungs: [2, 3],
      shared: 3,
    });
    expect(between.found[0]!.coats).toBeCloseTo(2.5, 1);
    const [scan] = nearestByScan(
      readings,
      asked(50).map(({ l, a, b, ...g }) => ({ ...g, lab: [l, a, b] as const })),
      1,
    );
    const at = await t.nearest(asked(50));
    expect(at.found[0]).toMatchObject({ coats: 2, max: scan!.max, mean: scan!.mean });
    // What was read wet is no rung, and a new reading counts at once.
    await t.measure(proven.finishId, 'rung', 6, 46, { state: 'wet' });
    expect((await t.nearest(asked(46))).found[0]!.coats).toBeCloseTo(2.5, 1);
    const set = (await t.measure(proven.finishId, 'rung', 2.5, 46)).body as { id: string };
    expect((await t.nearest(asked(46))).found[0]).toMatchObject({ coats: 2.5, rungs: [2.5], max: 0 });
    await request(shop.app)
      .put(pathOf(readingsApi.remove.path, { id: set.id }))
      .send({ removed: true })
      .expect(200);
    expect((await t.nearest(asked(46))).found[0]!.rungs).toEqual([2, 3]);
    for (const bad of [[], [{ aspecular: 45, l: 'x', a: 1, b: 2 }], [asked(40)[0], asked(41)[0]]]) {
      const refused = await request(shop.app).post(bankApi.nearest.path).send({ angles: bad }).expect(400);
      for (const message of Object.values(refused.body.fields)) expect(message).toMatch(/\.$/);
    }
  });

  it('opens a job with a count of a card and what its piece reads: its own finish, the one of the bank as it was', async () => {
    const target = {
      ...{
        id: randomUUID(),
        kind: 'target',
        rungCoats: null,
        label: '',
        objectId: null,
        state: 'cleared',
        doubt: null,
      },
      ...{ source: 'typed', takenAt, readings: asked(46).map((r) => ({ spot: '1', ...r })) },
    };
    const body = {
      ...{ id: randomUUID(), piece: 'Tub 10', matching: 'x', family: 'candy', mixId: 'cinder-candy' },
      ...{ finishId: proven.finishId, coats: 2.5, target },
    };
    const send = () => request(shop.app).post(jobsApi.create.path).send(body).expect(201);
    const [job, again] = [(await send()).body as Job, (await send()).body as Job];
    expect(again.finishId).toBe(job.finishId);
    expect(job.finishId).not.toBe(proven.finishId);
    expect(job.pick).toMatchObject({ coats: 2.5, groundId: 'silver-fine' });
    const detail = await t.job(job.id);
    expect(detail.target!.readings.map((r) => r.l)).toEqual([46, 38, 30]);
    expect(detail.card!.gun).toBe('Gun 1');
    expect(detail.rungs.map((r) => r.rungCoats)).toContain(3);
    expect((await t.job(proven.id)).job.pick!.coats).toBe(3);
    expect((await t.read(proven.finishId)).target!.readings[0]!.l).toBe(41);
    // A count of a finish that has no pick is refused at its field.
    const bare = await t.make({ piece: 'Bare', mixId: 'cinder-candy' });
    const refused = await request(shop.app)
      .post(jobsApi.create.path)
      .send({ ...body, id: randomUUID(), finishId: bare.finishId, target: null })
      .expect(400);
    expect(refused.body.fields.coats).toMatch(/^Nothing is picked for this finish yet/);
  });

  it('keeps what a finish was when it is changed after it was sprayed; jobs say which version they sprayed', async () => {
    const job = await t.make({ piece: 'Tub 11' });
    await t.change(job.id, { version: 1, pick }).expect(200);
    const sprayed = (coats: number) =>
      request(shop.app)
        .post(pathOf(logApi.addEvents.path, { id: job.id }))
        .send({
          events: [
            eventOf({
              ...{ id: randomUUID(), at: Date.now() + coats, kind: 'sprayed' },
              cells: [
                {
                  coatId: `effect/wet/${coats}`,
                  areaId: 'piece-1',
                  layerId: 'effect',
                  name: 'x',
                  coats: 1,
                  filmUm: 10,
                },
              ],
            }),
          ],
        });
    // Steps of a slider before anything is sprayed are no versions.
    await t.change(job.id, { version: 2, pick: { ...pick, coats: 4 } }).expect(200);
    expect((await t.read(job.finishId)).versions).toEqual([]);
    await sprayed(1).expect(201);
    const { finish } = await t.read(job.finishId);
    expect(finish.jobs).toMatchObject([{ id: job.id, sprayed: finish.version }]);
    // Renamed meanwhile it is the same still.
    await request(shop.app)
      .patch(pathOf(finishesApi.rename.path, { id: finish.id }))
      .send({ version: finish.version, name: 'Tub 11’s' })
      .expect(200);
    const { version } = (await t.job(job.id)).job;
    await t.change(job.id, { version, pick: { ...pick, coats: 5 } }).expect(200);
    await sprayed(2).expect(201);
    const after = await t.read(job.finishId);
    expect(after.versions).toMatchObject([{ from: 1, to: finish.version + 1, pick: { coats: 4 } }]);
    // It goes on as the version it was begun with, until it is finished as what it is then.
    expect(after.finish.jobs).toMatchObject([{ sprayed: finish.version }]);
    await t.change(job.id, { version: version + 1, status: 'finished' }).expect(200);
    expect((await t.read(job.finishId)).finish.jobs).toMatchObject([{ sprayed: after.finish.version }]);
    expect((await t.list('proven=true')).rows.map((f) => f.id)).toEqual([job.finishId]);
  });

  it('takes one as a start: a copy under a name of its own with its card, and none of its jobs or codes', async () => {
    const path = pathOf(finishesApi.copy.path, { id: proven.finishId });
    const body = { id: randomUUID(), name: 'A start' };
    for (let i = 0; i < 2; i++) await request(shop.app).post(path).send(body).expect(201);
    const made = await t.read(body.id);
    expect(made.finish).toMatchObject({ name: 'A start', codes: [], jobs: [], pick: { coats: 3 } });
    expect(made.cards[0]!.rungs.length).toBeGreaterThan(3);
    await request(shop.app)
      .post(path)
      .send({ ...body, name: 'Another' })
      .expect(409);
  });

  it('tells each finish of a card that was put aside with all that was read and seen of it', async () => {
    const job = await t.make({ piece: 'Tub 12' });
    const card = (await t.putCard(job.finishId, 0)).body as { version: number };
    await t.measure(job.finishId, 'rung', 2, 33);
    await request(shop.app)
      .post(pathOf(verdictsApi.add.path, { id: job.finishId }))
      .send({ id: randomUUID(), coats: 1, view: 'shade', verdict: 'lighter', takenAt })
      .expect(201);
    const photo = { id: randomUUID(), kind: 'rung' as const, coats: 2, takenAt };
    await request(shop.app).post(photoPath(job.finishId, photo)).set('Content-Type', 'image/png').send(PNG).expect(201);
    expect((await t.read(job.finishId)).finish.photoId).toBe(photo.id);
    await request(shop.app)
      .post(pathOf(cardsApi.retire.path, { id: job.finishId }))
      .send({ version: card.version })
      .expect(200);
    const { cards } = await t.read(job.finishId);
    expect(cards).toMatchObject([
      { rungs: [{ rungCoats: 2 }], verdicts: [{ verdict: 'lighter' }], photos: [{ id: photo.id }], teaches: null },
    ]);
    expect(cards[0]!.retiredAt).not.toBeNull();
    // A reading that was replaced, and one that was taken out, stay in its history.
    expect(cards[0]!.before).toEqual([]);
    const now = await t.make({ piece: 'Tub 13' });
    await t.putCard(now.finishId, 0);
    for (const l of [30, 31]) await t.measure(now.finishId, 'rung', 2, l);
    const wrong = (await t.measure(now.finishId, 'rung', 3, 90)).body as { id: string };
    for (const l of [40, 41]) await t.measure(now.finishId, 'target', null, l);
    await request(shop.app)
      .put(pathOf(readingsApi.remove.path, { id: wrong.id }))
      .send({ removed: true })
      .expect(200);
    const history = await t.read(now.finishId);
    const said = (list: FinishDetail['targetBefore']) => list.map((b) => [b.set.readings[0]!.l, b.removed]);
    expect(said(history.cards[0]!.before)).toEqual([
      [90, true],
      [30, false],
    ]);
    expect(history.cards[0]!.rungs.map((r) => r.readings[0]!.l)).toEqual([31]);
    expect([said(history.targetBefore), history.target!.readings[0]!.l]).toEqual([[[40, false]], 41]);
    // Its rungs are still among what is near.
    expect((await t.nearest(asked(33))).found[0]).toMatchObject({ finishId: job.finishId, coats: 2 });
  });
});

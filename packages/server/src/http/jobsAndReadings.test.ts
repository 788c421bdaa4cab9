import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  cardsApi,
  jobsApi,
  type JobSummary,
  materialsApi,
  pathOf,
  readingsApi,
  verdictsApi,
} from '@steady-gleam/contracts';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { openTestShop, setOf } from '../testdata/testShop';

let shop: Awaited<ReturnType<typeof openTestShop>>;
beforeAll(async () => {
  shop = await openTestShop([], true);
}, 60_000);
afterAll(() => shop.open.close());

describe('jobs and readings', () => {
  it('keeps a job, its newest target, its card and rungs; replies hold to the contract', async () => {
    const { id } = await shop.create();
    const readings = pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(id) });
    await request(shop.app).post(readings).send(setOf()).expect(201);
    const newer = setOf({
      readings: [
        { spot: '1', incidence: 45, aspecular: 15, l: 120, a: 1, b: 2 },
        { spot: '2', incidence: 45, aspecular: 15, l: 121, a: 1, b: 2 },
      ],
    });
    await request(shop.app).post(readings).send(newer).expect(201);
    await request(shop.app)
      .put(pathOf(cardsApi.put.path, { id: await shop.finishOf(id) }))
      .send({ id: randomUUID(), rungs: [1, 2], gun: 'Gun 1', pressureBar: 1.4, onStand: true, version: 0 })
      .expect(200);
    await request(shop.app)
      .post(readings)
      .send(setOf({ kind: 'rung', rungCoats: 2 }))
      .expect(201);
    const body = await shop.detail(id);
    await jobsApi.read.reply.validate(body, { strict: true });
    expect(body.target!.id).toBe(newer.id);
    expect(body.rungs.map((r) => r.rungCoats)).toEqual([2]);
    const list = (await request(shop.app).get(jobsApi.list.path).expect(200)).body.rows as JobSummary[];
    expect(list.find((j) => j.id === id)).toMatchObject({ targetAngles: 1, rungsRead: 1 });
  });

  it('stores the same set once, however often it is sent, and refuses another job under its id', async () => {
    const { id } = await shop.create();
    const other = await shop.create();
    const sent = setOf();
    for (let i = 0; i < 3; i++)
      await request(shop.app)
        .post(pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(id) }))
        .send(sent)
        .expect(201);
    expect((await shop.detail(id)).target!.readings).toHaveLength(1);
    const clash = await request(shop.app)
      .post(pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(other.id) }))
      .send(sent)
      .expect(409);
    expect(clash.body.code).toBe('conflict');
  });

  it('refuses a stale edit and keeps the newer one', async () => {
    const { id } = await shop.create();
    const path = pathOf(jobsApi.change.path, { id });
    await request(shop.app).patch(path).send({ version: 1, piece: 'Waltzer tub 10' }).expect(200);
    const stale = await request(shop.app).patch(path).send({ version: 1, piece: 'Waltzer tub 11' }).expect(409);
    expect(stale.body.code).toBe('stale');
    expect((await shop.detail(id)).job.piece).toBe('Waltzer tub 10');
  });

  it('lets one of many edits at once through, and loses none that it took', async () => {
    const { id } = await shop.create();
    const path = pathOf(jobsApi.change.path, { id });
    await request(shop.app).patch(path).send({ version: 1, piece: 'Tub' }).expect(200);
    await fc.assert(
      fc.asyncProperty(fc.array(fc.boolean(), { minLength: 2, maxLength: 6 }), async (fresh) => {
        const { version } = (await shop.detail(id)).job;
        const names = fresh.map((_, i) => `Tub ${version}-${i}`);
        const replies = await Promise.all(
          fresh.map((ok, i) =>
            request(shop.app)
              .patch(path)
              .send({ version: ok ? version : version - 1, piece: names[i] }),
          ),
        );
        const taken = replies.flatMap((r, i) => (r.status === 200 ? [i] : []));
        expect(taken).toHaveLength(fresh.some(Boolean) ? 1 : 0);
        expect(replies.every((r) => r.status === 200 || r.body.code === 'stale')).toBe(true);
        const { job } = await shop.detail(id);
        expect(job.version).toBe(version + taken.length);
        if (taken.length) expect(job.piece).toBe(names[taken[0]!]);
      }),
      { numRuns: 12 },
    );
  });

  it('answers any body with its own error shape, never with a fault, and stores nothing of it', async () => {
    const { id } = await shop.create();
    const before = await shop.detail(id);
    const bodies = fc.oneof(
      fc.jsonValue({ maxDepth: 4 }),
      fc.dictionary(
        fc.constantFrom(
          ...'piece pieces plan stacks mixing pick readings rungs id __proto__ constructor toString'.split(' '),
        ),
        fc.jsonValue(),
      ),
    );
    await fc.assert(
      fc.asyncProperty(bodies, async (body) => {
        for (const [method, path] of [
          ['patch', pathOf(jobsApi.change.path, { id })],
          ['post', jobsApi.create.path],
          ['post', pathOf(readingsApi.addToFinish.path, { id: await shop.finishOf(id) })],
          ['put', pathOf(cardsApi.put.path, { id: await shop.finishOf(id) })],
        ] as const) {
          const reply = await request(shop.app)
            [method](path)
            .set('Content-Type', 'application/json')
            .send(JSON.stringify(body));
          expect(reply.status).toBe(400);
          expect(reply.body).toMatchObject({ code: 'badRequest', message: expect.stringMatching(/\.$/) });
        }
      }),
      { numRuns: 40 },
    );
    expect(await shop.detail(id)).toEqual(before);
  });

  it('keeps the layers of a piece together with its pick, and a ground that is laid in one', async () => {
    const { id, mixId } = await shop.create();
    const path = pathOf(jobsApi.change.path, { id });
    const choice = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } as const;
    await request(shop.app).patch(path).send({ version: 1, pick: choice }).expect(200);
    const layer = { style: 'wet', strength: 1, coats: 2 } as const;
    const layers = [
      { ...layer, id: 'a', kind: 'ground', materialId: 'silver-fine', filmUm: 12 },
      { ...layer, id: 'b', kind: 'effect', materialId: mixId, filmUm: 10 },
      { ...layer, id: 'c', kind: 'clear', materialId: null, filmUm: 28 },
    ];
    const stacks = [{ id: 'main', name: 'whole', layers }];
    const kept = await request(shop.app).patch(path).send({ version: 2, stacks, filmLimitUm: 200 }).expect(200);
    expect(kept.body).toMatchObject({ pick: { coats: 2 }, filmLimitUm: 200 });
    const picked = await request(shop.app)
      .patch(path)
      .send({ version: 3, pick: { ...choice, groundId: 'gold', coats: 4, controlCoats: 1 } })
      .expect(200);
    expect(
      picked.body.stacks[0].layers.map((l: { coats: number; materialId: string }) => [l.coats, l.materialId]),
    ).toEqual([
      [2, 'gold'],
      [4, mixId],
      [1, mixId],
      [2, null],
    ]);
    const zero = [{ ...stacks[0]!, layers: [{ ...layers[1]!, coats: 0 }] }];
    const refused = await request(shop.app).patch(path).send({ version: 4, stacks: zero }).expect(400);
    expect(refused.body.fields['stacks[0].layers[0].coats']).toContain('half a coat or more');
    const gone = [{ ...stacks[0]!, layers: [{ ...layers[0]!, materialId: 'no-such-ground' }] }];
    const missing = await request(shop.app).patch(path).send({ version: 4, stacks: gone }).expect(400);
    expect(missing.body.fields.stacks).toContain('not here any more');
    const own = {
      kind: 'ground',
      id: randomUUID(),
      name: 'Pier grey',
      mark: 'pier',
      lab: [60, 0, 0],
      pricePerLitre: 20,
    };
    await request(shop.app)
      .put(pathOf(materialsApi.put.path, { id: own.id }))
      .send({ version: 0, material: own })
      .expect(200);
    const withOwn = [{ ...stacks[0]!, layers: [{ ...layers[0]!, materialId: own.id }, ...layers] }];
    await request(shop.app).patch(path).send({ version: 4, stacks: withOwn }).expect(200);
    const inUse = await request(shop.app)
      .delete(pathOf(materialsApi.remove.path, { id: own.id }))
      .send({ version: 1 })
      .expect(409);
    expect(inUse.body.message).toContain('is used by');
    expect((await shop.detail(id)).job.stacks![0]!.layers).toHaveLength(4);
  });

  it('keeps verdicts in order, each once, and forgets what was taken back', async () => {
    const { id } = await shop.create();
    const path = pathOf(verdictsApi.add.path, { id: await shop.finishOf(id) });
    const event = (verdict: string | null, view = 'shade') => ({
      id: randomUUID(),
      coats: 2,
      view,
      verdict,
      takenAt: '2026-11-20T09:00:00.000Z',
    });
    const first = event('lighter');
    for (let i = 0; i < 3; i++) await request(shop.app).post(path).send(first).expect(201);
    await request(shop.app).post(path).send(event('match')).expect(201);
    await request(shop.app).post(path).send(event('darker', 'lamp')).expect(201);
    expect((await shop.detail(id)).verdicts.map((v) => [v.view, v.verdict]).sort()).toEqual([
      ['lamp', 'darker'],
      ['shade', 'match'],
    ]);
    await request(shop.app).post(path).send(event(null, 'lamp')).expect(201);
    expect((await shop.detail(id)).verdicts).toHaveLength(1);
    const wrong = await request(shop.app).post(path).send(event('nearly')).expect(400);
    expect(wrong.body.fields.verdict).toBeDefined();
  });
});

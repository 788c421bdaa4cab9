import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  cardsApi,
  gunsApi,
  type JobDetail,
  jobsApi,
  type JobSummary,
  labelPath,
  materialsApi,
  pathOf,
  photoPath,
  photosApi,
  readingsApi,
  type ReadingSet,
  verdictsApi,
} from '@steady-gleam/contracts';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { FolderInUseError, lockByFile, lockFolder } from '../db/folderLock';
import { openEmbedded, type OpenDb } from '../db/open';
import { createRepos } from '../resources/repos';
import { seedDemo } from '../demo/seed';
import { createApp } from './app';

const migrations = resolve('packages/server/migrations');
const logger = pino({ level: 'silent' });
let open: OpenDb;
let app: ReturnType<typeof createApp>;

beforeAll(async () => {
  open = await openEmbedded(migrations);
  app = createApp({ repos: createRepos(open.db), logger });
}, 60_000);
afterAll(() => open.close());

const newJob = () => ({
  id: randomUUID(),
  piece: 'Waltzer tub 9',
  matching: 'tub 2',
  family: 'candy',
  mixId: 'cinder-candy',
});
const set = (over: Partial<ReadingSet> = {}): ReadingSet => ({
  id: randomUUID(),
  kind: 'target',
  rungCoats: null,
  source: 'typed',
  label: '',
  objectId: null,
  state: 'cleared',
  doubt: null,
  takenAt: '2026-11-20T09:00:00.000Z',
  readings: [{ spot: '1', incidence: 45, aspecular: 45, l: 40, a: 30, b: 20 }],
  ...over,
});
const create = async () => {
  const job = newJob();
  await request(app).post(jobsApi.create.path).send(job).expect(201);
  return job;
};
const detail = async (id: string) =>
  (await request(app).get(pathOf(jobsApi.read.path, { id })).expect(200)).body as JobDetail;

/** The finish a job is about. */
const finishOf = async (id: string): Promise<string> =>
  ((await request(app).get(pathOf(jobsApi.read.path, { id })).expect(200)).body as { job: { finishId: string } }).job
    .finishId;

describe('jobs and readings', () => {
  it('keeps a job, its newest target, its card and rungs; replies hold to the contract', async () => {
    const { id } = await create();
    const readings = pathOf(readingsApi.addToFinish.path, { id: await finishOf(id) });
    await request(app).post(readings).send(set()).expect(201);
    const newer = set({
      readings: [
        { spot: '1', incidence: 45, aspecular: 15, l: 120, a: 1, b: 2 },
        { spot: '2', incidence: 45, aspecular: 15, l: 121, a: 1, b: 2 },
      ],
    });
    await request(app).post(readings).send(newer).expect(201);
    await request(app)
      .put(pathOf(cardsApi.put.path, { id: await finishOf(id) }))
      .send({ id: randomUUID(), rungs: [1, 2], gun: 'Gun 1', pressureBar: 1.4, onStand: true, version: 0 })
      .expect(200);
    await request(app)
      .post(readings)
      .send(set({ kind: 'rung', rungCoats: 2 }))
      .expect(201);
    const body = await detail(id);
    await jobsApi.read.reply.validate(body, { strict: true });
    expect(body.target!.id).toBe(newer.id);
    expect(body.rungs.map((r) => r.rungCoats)).toEqual([2]);
    const list = (await request(app).get(jobsApi.list.path).expect(200)).body.rows as JobSummary[];
    expect(list.find((j) => j.id === id)).toMatchObject({ targetAngles: 1, rungsRead: 1 });
  });

  it('stores the same set once, however often it is sent, and refuses another job under its id', async () => {
    const { id } = await create();
    const other = await create();
    const sent = set();
    for (let i = 0; i < 3; i++)
      await request(app)
        .post(pathOf(readingsApi.addToFinish.path, { id: await finishOf(id) }))
        .send(sent)
        .expect(201);
    expect((await detail(id)).target!.readings).toHaveLength(1);
    const clash = await request(app)
      .post(pathOf(readingsApi.addToFinish.path, { id: await finishOf(other.id) }))
      .send(sent)
      .expect(409);
    expect(clash.body.code).toBe('conflict');
  });

  it('refuses a stale edit and keeps the newer one', async () => {
    const { id } = await create();
    const path = pathOf(jobsApi.change.path, { id });
    await request(app).patch(path).send({ version: 1, piece: 'Waltzer tub 10' }).expect(200);
    const stale = await request(app).patch(path).send({ version: 1, piece: 'Waltzer tub 11' }).expect(409);
    expect(stale.body.code).toBe('stale');
    expect((await detail(id)).job.piece).toBe('Waltzer tub 10');
  });

  it('lets one of many edits at once through, and loses none that it took', async () => {
    const { id } = await create();
    const path = pathOf(jobsApi.change.path, { id });
    await request(app).patch(path).send({ version: 1, piece: 'Tub' }).expect(200);
    await fc.assert(
      fc.asyncProperty(fc.array(fc.boolean(), { minLength: 2, maxLength: 6 }), async (fresh) => {
        const { version } = (await detail(id)).job;
        const names = fresh.map((_, i) => `Tub ${version}-${i}`);
        const replies = await Promise.all(
          fresh.map((ok, i) =>
            request(app)
              .patch(path)
              .send({ version: ok ? version : version - 1, piece: names[i] }),
          ),
        );
        const taken = replies.flatMap((r, i) => (r.status === 200 ? [i] : []));
        expect(taken).toHaveLength(fresh.some(Boolean) ? 1 : 0);
        expect(replies.every((r) => r.status === 200 || r.body.code === 'stale')).toBe(true);
        const { job } = await detail(id);
        expect(job.version).toBe(version + taken.length);
        if (taken.length) expect(job.piece).toBe(names[taken[0]!]);
      }),
      { numRuns: 12 },
    );
  });

  it('answers any body with its own error shape, never with a fault, and stores nothing of it', async () => {
    const { id } = await create();
    const before = await detail(id);
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
          ['post', pathOf(readingsApi.addToFinish.path, { id: await finishOf(id) })],
          ['put', pathOf(cardsApi.put.path, { id: await finishOf(id) })],
        ] as const) {
          const reply = await request(app)
            [method](path)
            .set('Content-Type', 'application/json')
            .send(JSON.stringify(body));
          expect(reply.status).toBe(400);
          expect(reply.body).toMatchObject({ code: 'badRequest', message: expect.stringMatching(/\.$/) });
        }
      }),
      { numRuns: 40 },
    );
    expect(await detail(id)).toEqual(before);
  });

  it('keeps the layers of a piece together with its pick, and a ground that is laid in one', async () => {
    const { id, mixId } = await create();
    const path = pathOf(jobsApi.change.path, { id });
    const choice = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } as const;
    await request(app).patch(path).send({ version: 1, pick: choice }).expect(200);
    const layer = { style: 'wet', strength: 1, coats: 2 } as const;
    const layers = [
      { ...layer, id: 'a', kind: 'ground', materialId: 'silver-fine', filmUm: 12 },
      { ...layer, id: 'b', kind: 'effect', materialId: mixId, filmUm: 10 },
      { ...layer, id: 'c', kind: 'clear', materialId: null, filmUm: 28 },
    ];
    const stacks = [{ id: 'main', name: 'whole', layers }];
    const kept = await request(app).patch(path).send({ version: 2, stacks, filmLimitUm: 200 }).expect(200);
    expect(kept.body).toMatchObject({ pick: { coats: 2 }, filmLimitUm: 200 });
    const picked = await request(app)
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
    const refused = await request(app).patch(path).send({ version: 4, stacks: zero }).expect(400);
    expect(refused.body.fields['stacks[0].layers[0].coats']).toContain('half a coat or more');
    const gone = [{ ...stacks[0]!, layers: [{ ...layers[0]!, materialId: 'no-such-ground' }] }];
    const missing = await request(app).patch(path).send({ version: 4, stacks: gone }).expect(400);
    expect(missing.body.fields.stacks).toContain('not here any more');
    const own = {
      kind: 'ground',
      id: randomUUID(),
      name: 'Pier grey',
      mark: 'pier',
      lab: [60, 0, 0],
      pricePerLitre: 20,
    };
    await request(app)
      .put(pathOf(materialsApi.put.path, { id: own.id }))
      .send({ version: 0, material: own })
      .expect(200);
    const withOwn = [{ ...stacks[0]!, layers: [{ ...layers[0]!, materialId: own.id }, ...layers] }];
    await request(app).patch(path).send({ version: 4, stacks: withOwn }).expect(200);
    const inUse = await request(app)
      .delete(pathOf(materialsApi.remove.path, { id: own.id }))
      .send({ version: 1 })
      .expect(409);
    expect(inUse.body.message).toContain('is used by');
    expect((await detail(id)).job.stacks![0]!.layers).toHaveLength(4);
  });

  it('keeps verdicts in order, each once, and forgets what was taken back', async () => {
    const { id } = await create();
    const path = pathOf(verdictsApi.add.path, { id: await finishOf(id) });
    const event = (verdict: string | null, view = 'shade') => ({
      id: randomUUID(),
      coats: 2,
      view,
      verdict,
      takenAt: '2026-11-20T09:00:00.000Z',
    });
    const first = event('lighter');
    for (let i = 0; i < 3; i++) await request(app).post(path).send(first).expect(201);
    await request(app).post(path).send(event('match')).expect(201);
    await request(app).post(path).send(event('darker', 'lamp')).expect(201);
    expect((await detail(id)).verdicts.map((v) => [v.view, v.verdict]).sort()).toEqual([
      ['lamp', 'darker'],
      ['shade', 'match'],
    ]);
    await request(app).post(path).send(event(null, 'lamp')).expect(201);
    expect((await detail(id)).verdicts).toHaveLength(1);
    const wrong = await request(app).post(path).send(event('nearly')).expect(400);
    expect(wrong.body.fields.verdict).toBeDefined();
  });

  it('takes pictures only, serves them back, and prints a label with what is known', async () => {
    const { id } = await create();
    const finishId = await finishOf(id);
    const photo = { id: randomUUID(), kind: 'rung', coats: 2, takenAt: '2026-11-20T09:00:00.000Z' } as const;
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    );
    const send = (bytes: Buffer, type = 'image/png') =>
      request(app).post(photoPath(finishId, photo)).set('Content-Type', type).send(bytes);
    expect((await send(Buffer.from('<svg onload="x"/>')).expect(400)).body.fields.photo).toContain('not a JPEG');
    await send(Buffer.alloc(11_000_000)).expect(413);
    await send(png).expect(201);
    await send(png).expect(201);
    const back = await request(app).get(`/api/photos/${photo.id}`).expect(200);
    expect(back.headers['content-type']).toBe('image/png');
    expect(back.headers['x-content-type-options']).toBe('nosniff');
    expect(Buffer.compare(back.body as Buffer, png)).toBe(0);
    expect((await detail(id)).photos).toEqual([photo]);
    await request(app)
      .delete(pathOf(photosApi.remove.path, { id: photo.id }))
      .expect(200);
    await request(app).get(`/api/photos/${photo.id}`).expect(404);
    for (const size of ['card', 'a6'] as const) {
      const label = await request(app)
        .get(labelPath(id, size, size === 'card' ? 'us' : 'metric', 'Pacific/Auckland'))
        .buffer(true)
        .expect(200);
      expect((label.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    }
  });

  it('hands a hand on to the next card with the same gun, style and family; found by the gun, not by what was typed', async () => {
    const gun = { ...STARTING_GUNS[0]!, id: randomUUID(), name: 'Gun 9' };
    await request(app)
      .put(pathOf(gunsApi.put.path, { id: gun.id }))
      .send({ version: 0, gun })
      .expect(200);
    const make = async (gunId: string | null = gun.id) => {
      const { id } = await create();
      await request(app)
        .patch(pathOf(jobsApi.change.path, { id }))
        .send({ version: 1, pick: { groundId: 'gold', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } })
        .expect(200);
      await request(app)
        .put(pathOf(cardsApi.put.path, { id: await finishOf(id) }))
        .send({ id: randomUUID(), rungs: [1, 2], gun: 'Gun 9', gunId, pressureBar: 1.4, onStand: true, version: 0 })
        .expect(200);
      return id;
    };
    const [one, two, typed] = [await make(), await make(), await make(null)];
    const hand = { mean: { film: 0.18 }, sd: { film: 0.03 }, style: 'wet', mixId: 'cinder-candy' };
    await request(app)
      .put(pathOf(cardsApi.putHand.path, { id: await finishOf(one) }))
      .send(hand)
      .expect(200);
    const finishId = await finishOf(one);
    const { earlier } = await detail(two);
    expect(earlier).toMatchObject([{ mean: { film: 0.18 }, sd: { film: 0.03 }, finishId }]);
    expect((await detail(one)).earlier).toEqual([]);
    expect((await detail(typed)).earlier).toEqual([]);
    // One card's hand can be left out, and taken in again.
    const say = (teaches: boolean) =>
      request(app)
        .put(pathOf(cardsApi.setHand.path, { id: earlier[0]!.cardId }))
        .send({ teaches })
        .expect(200);
    await say(false);
    expect((await detail(two)).earlier).toEqual([]);
    await say(true);
    expect((await detail(two)).earlier).toHaveLength(1);
    await request(app)
      .put(pathOf(cardsApi.putHand.path, { id: await finishOf(one) }))
      .send({ ...hand, style: 'light' })
      .expect(200);
    expect((await detail(two)).earlier).toEqual([]);
  });

  it('says of what can’t be read that it can’t, and never that it made a mistake itself', async () => {
    const { id } = await create();
    const finishId = await finishOf(id);
    const post = (body: string | object, headers: Record<string, string> = {}) =>
      request(app)
        .post(pathOf(readingsApi.addToFinish.path, { id: finishId }))
        .set({ 'Content-Type': 'application/json', ...headers })
        .send(body);
    for (const path of ['/api/jobs/%', '/api/jobs/%ff', '/api/jobs?words=%00', '/api/finishes?words=%E0%A4%A'])
      expect([path, (await request(app).get(path)).status]).toEqual([path, 400]);
    const text = (label: string) => JSON.stringify({ ...set({ kind: 'chip' }), label: '@' }).replace('"@"', label);
    for (const label of ['"a\\u0000b"', '"a\\ud800b"', '"\\udc00"']) await post(text(label)).expect(400);
    await post(text('"a\\ud83d\\ude00b"')).expect(201);
    for (const takenAt of ['2026-13-45T10:00:00Z', '9999-12-31T23:59:59Z', 'soon'])
      expect(Object.keys((await post(set({ takenAt })).expect(400)).body.fields)).toEqual(['takenAt']);
    await post('not gzip', { 'Content-Encoding': 'gzip' }).expect(400);
    const big = await request(app)
      .patch(pathOf(jobsApi.change.path, { id }))
      .send({ version: 2 ** 31, piece: 'x' })
      .expect(400);
    expect(Object.keys(big.body.fields)).toEqual(['version']);
  });

  it('names wrong fields and stores nothing by halves', async () => {
    const { id } = await create();
    const bad = set({
      readings: [
        { spot: '1', incidence: 45, aspecular: 15, l: 50, a: 0, b: 0 },
        { spot: '1', incidence: 45, aspecular: 25, l: -4, a: 0, b: 0 },
        { spot: '1', incidence: 45, aspecular: 45, l: 0, a: 0, b: 0 },
      ],
    });
    Object.assign(bad.readings[2]!, { l: 'abc' });
    const reply = await request(app)
      .post(pathOf(readingsApi.addToFinish.path, { id: await finishOf(id) }))
      .send(bad)
      .expect(400);
    expect(reply.body.fields).toMatchObject({
      'readings[1].l': expect.stringContaining('below 0'),
      'readings[2].l': expect.stringContaining('number'),
    });
    expect((await detail(id)).target).toBeNull();
    const twice = set({ readings: [set().readings[0]!, set().readings[0]!] });
    expect(
      (
        await request(app)
          .post(pathOf(readingsApi.addToFinish.path, { id: await finishOf(id) }))
          .send(twice)
          .expect(400)
      ).body.fields.readings,
    ).toContain('twice');
    const wrongMix = await request(app)
      .post(jobsApi.create.path)
      .send({ ...newJob(), mixId: 'lagoon-pearl' })
      .expect(400);
    expect(wrongMix.body.fields.mixId).toContain('another finish family');
    const empty = await request(app)
      .post(jobsApi.create.path)
      .send({ ...newJob(), piece: '  ' })
      .expect(400);
    expect(empty.body.fields.piece).toContain('Say what is to be finished');
  });

  it('answers the unknown, the unreadable and the oversized in one shape', async () => {
    for (const path of [pathOf(jobsApi.read.path, { id: randomUUID() }), '/api/jobs/not-an-id', '/api/nothing']) {
      expect((await request(app).get(path).expect(404)).body.code).toBe('notFound');
    }
    const torn = await request(app)
      .post(jobsApi.create.path)
      .set('Content-Type', 'application/json')
      .send('{"piece":')
      .expect(400);
    expect(torn.body.code).toBe('badRequest');
    const huge = await request(app)
      .post(jobsApi.create.path)
      .send({ ...newJob(), piece: 'x'.repeat(5_000_000) })
      .expect(413);
    expect(huge.body.code).toBe('tooLarge');
    const health = await request(app).get('/api/health').expect(200);
    expect(health.headers['content-security-policy']).toContain("default-src 'self'");
    expect(health.headers['x-powered-by']).toBeUndefined();
  });

  it('limits the rate with the same shape', async () => {
    const slow = createApp({ repos: createRepos(open.db), logger, requestsAMinute: 2 });
    await request(slow).get('/api/health').expect(200);
    await request(slow).get('/api/health').expect(200);
    expect((await request(slow).get('/api/health').expect(429)).body.code).toBe('tooMany');
  });

  it('seeds a demo with an unread, a half-way and a finished job', async () => {
    await seedDemo(createRepos(open.db));
    const list = (await request(app).get(jobsApi.list.path)).body.rows as JobSummary[];
    const demo = list.filter((j) => j.invented);
    expect(demo).toHaveLength(12);
    expect(new Set(demo.map((j) => j.family)).size).toBe(7);
    expect(demo.filter((j) => j.targetAngles === 0)).toHaveLength(1);
    expect(demo.filter((j) => j.status === 'finished')).toHaveLength(1);
    expect(demo.filter((j) => j.status === 'open' && j.rungsRead > 0)).toHaveLength(5);
  });
});

describe('materials', () => {
  const own = (over: object = {}) => ({
    kind: 'ground',
    id: randomUUID(),
    name: 'Fog pastel',
    mark: 'fog',
    lab: [78, -3, 4],
    pricePerLitre: 30,
    ...over,
  });
  const path = (id: string) => pathOf(materialsApi.put.path, { id });

  it('keeps, changes and removes one; bounds are named at the field', async () => {
    const ground = own();
    await request(app).put(path(ground.id)).send({ version: 0, material: ground }).expect(200);
    await request(app)
      .put(path(ground.id))
      .send({ version: 1, material: { ...ground, name: 'Mist pastel' } })
      .expect(200);
    expect((await request(app).put(path(ground.id)).send({ version: 1, material: ground }).expect(409)).body.code).toBe(
      'stale',
    );
    const listed = (await request(app).get(materialsApi.list.path)).body as { material: { name: string } }[];
    expect(listed.map((m) => m.material.name)).toContain('Mist pastel');
    const thin = {
      kind: 'pigment',
      id: randomUUID(),
      name: 'x',
      structure: 'titania-mica',
      filmNm: 900,
      sizeUm: 20,
      tilt: 40,
      edge: 0.1,
    };
    const bad = await request(app).put(path(thin.id)).send({ version: 0, material: thin }).expect(400);
    expect(bad.body.fields).toMatchObject({
      'material.filmNm': expect.stringContaining('at most 260 nm'),
      'material.tilt': expect.stringContaining('above 20'),
    });
    await request(app).delete(path(ground.id)).send({ version: 2 }).expect(200);
    await request(app).delete(path(ground.id)).send({ version: 2 }).expect(404);
  });

  it('is refused to a job when it is not there, and can not be removed while used, which is said', async () => {
    const mix = {
      kind: 'system',
      id: randomUUID(),
      name: 'Harbour candy',
      family: 'candy',
      carrierId: 'intercoat',
      colours: [{ kind: 'dye', id: 'reed-green', parts: null, strength: 1 }],
      carrierParts: null,
      strengthFrom: 'typed',
      drawdown: null,
      filmUm: 10,
      flashMinutes: 12,
      pricePerLitre: 70,
    };
    const job = { ...newJob(), mixId: mix.id };
    expect((await request(app).post(jobsApi.create.path).send(job).expect(400)).body.fields.mixId).toContain(
      'not here any more',
    );
    expect(
      (
        await request(app)
          .put(path(mix.id))
          .send({
            version: 0,
            material: { ...mix, colours: [{ kind: 'dye', id: randomUUID(), parts: 1, strength: 1 }] },
          })
          .expect(400)
      ).body.fields['colours[0].id'],
    ).toContain('not here');
    await request(app).put(path(mix.id)).send({ version: 0, material: mix }).expect(200);
    await request(app).post(jobsApi.create.path).send(job).expect(201);
    const kept = await request(app).delete(path(mix.id)).send({ version: 1 }).expect(409);
    expect(kept.body).toMatchObject({ code: 'inUse', message: expect.stringContaining('used by Waltzer tub 9') });
  });
});

describe('the data folder', () => {
  it('is refused to a second holder and free again after release', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-lock-'));
    for (const lock of [lockFolder, lockByFile]) {
      const release = await lock(folder);
      await expect(lock(folder)).rejects.toThrow(FolderInUseError);
      await release();
      await (
        await lock(folder)
      )();
    }
    // A holder that is gone does not keep the folder.
    writeFileSync(join(folder, 'in-use'), '2147483646');
    await (
      await lockByFile(folder)
    )();
    rmSync(folder, { recursive: true });
  });
});

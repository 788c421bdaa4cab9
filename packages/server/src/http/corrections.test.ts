import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  type Batch,
  batchesApi,
  batchPdfPath,
  type Damaged,
  damagedApi,
  gunsApi,
  type Job,
  type JobDetail,
  jobsApi,
  jobSheetPath,
  type JobSummary,
  labelPath,
  logApi,
  pathOf,
  productsApi,
  readingsApi,
  REMOVED_DAYS,
  SERVER_TIME_HEADER,
  START_MIXING,
} from '@steady-gleam/contracts';
import { eventOf, jobState, START_AREAS, workOfJob } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { eq, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pino } from 'pino';
import request from 'supertest';
import { extractText, getDocumentProxy } from 'unpdf';
import { openEmbedded, type OpenDb } from '../db/open';
import { rowsOf } from '../db/migrations';
import { createRepos } from '../resources/repos';
import { jobEvents, jobs, products } from '../db/schema';
import type { TellDamage } from '../db/rows';
import { fillWithDemo, seedDemo } from '../demo/seed';
import { createApp } from './app';

const migrations = resolve('packages/server/migrations');
let open: OpenDb;
let app: ReturnType<typeof createApp>;
const told: Damaged[] = [];
const tell: TellDamage = (damaged) => told.push(damaged);
const [gun, otherGun] = STARTING_GUNS as [(typeof STARTING_GUNS)[0], (typeof STARTING_GUNS)[0]];
const product = STARTING_PRODUCTS.find((p) => p.kind === 'intercoat')!;

beforeAll(async () => {
  open = await openEmbedded(migrations);
  app = createApp({ repos: createRepos(open.db, tell), logger: pino({ level: 'silent' }) });
  for (const g of [gun, otherGun])
    await request(app)
      .put(pathOf(gunsApi.put.path, { id: g.id }))
      .send({ version: 0, gun: g })
      .expect(200);
  await request(app)
    .post(productsApi.add.path)
    .send({ products: [product] })
    .expect(201);
}, 60_000);
afterAll(() => open.close());

const makeJob = async (piece = 'Waltzer tub 9'): Promise<string> => {
  const id = randomUUID();
  await request(app)
    .post(jobsApi.create.path)
    .send({ id, piece, matching: 'tub 2', family: 'candy', mixId: 'cinder-candy' })
    .expect(201);
  return id;
};
const change = (id: string, body: object) => request(app).patch(pathOf(jobsApi.change.path, { id })).send(body);
const list = async () => (await request(app).get(jobsApi.list.path).expect(200)).body.rows as JobSummary[];
const detail = async (id: string) =>
  (await request(app).get(pathOf(jobsApi.read.path, { id })).expect(200)).body as JobDetail;
const damaged = async () => (await request(app).get(damagedApi.list.path).expect(200)).body as Damaged[];
const batchOf = (jobId: string, over: object = {}) => ({
  id: randomUUID(),
  jobId,
  layerId: 'effect',
  name: 'Cinder candy',
  productId: product.id,
  gunId: gun.id,
  parts: [{ name: 'intercoat clear', role: 'product', parts: 8, ml: 400, grams: 372, lot: '' }],
  ml: 400,
  temperatureC: 21,
  mixedAt: '2026-11-20T22:30:00.000Z',
  potMinutes: 120,
  solidMl: 60,
  volumeSolids: 0.22,
  lossMl: 40,
  vocActual: 690,
  vocCoating: 690,
  cost: 22.5,
  onCard: false,
  note: '',
  ...over,
});
const textOf = async (path: string): Promise<string> => {
  const pdf = await request(app).get(path).buffer(true).expect(200);
  const { text } = await extractText(await getDocumentProxy(new Uint8Array(pdf.body as Buffer)), { mergePages: true });
  return text;
};

/** The finish a job is about. */
const finishOf = async (id: string): Promise<string> =>
  ((await request(app).get(pathOf(jobsApi.read.path, { id })).expect(200)).body as { job: { finishId: string } }).job
    .finishId;

describe('a row that can’t be read any more', () => {
  it('costs no other: left out of the list, named, told to the log once, and a sentence when it is opened', async () => {
    const [good, bad] = [await makeJob('Good tub'), await makeJob('Bad tub')];
    const areas = START_AREAS.map((p) => ({ ...p, count: 300 }));
    await open.db.update(jobs).set({ areas }).where(eq(jobs.id, bad));
    const seen = (await list()).map((j) => j.id);
    expect(seen).toContain(good);
    expect(seen).not.toContain(bad);
    await list();
    expect(told.filter((d) => d.id === bad)).toEqual([{ what: 'job', id: bad, name: 'Bad tub' }]);
    expect(await damaged()).toContainEqual({ what: 'job', id: bad, name: 'Bad tub' });
    const alone = await request(app)
      .get(pathOf(jobsApi.read.path, { id: bad }))
      .expect(500);
    expect(alone.body).toMatchObject({ code: 'damaged' });
    expect(alone.body.message).toContain(`Bad tub (${bad})`);
    await detail(good);
    await open.db.delete(jobs).where(eq(jobs.id, bad));
  });

  it('on the shelf or in the booth’s log leaves shelf, batches and runs standing', async () => {
    const id = randomUUID();
    await open.db
      .insert(products)
      .values({ id, kind: 'clear', name: 'Broken', product: { ...product, id, ratio: 'x:y' } });
    const jobId = await makeJob();
    await change(jobId, {
      version: 1,
      pick: { groundId: 'gold', coats: 2, strength: 1, style: 'wet', controlCoats: 0 },
    }).expect(200);
    const event = eventOf({ id: '', at: 1_764_000_000_000, kind: 'start' });
    await request(app)
      .post(pathOf(logApi.addEvents.path, { id: jobId }))
      .send({ events: [{ ...event, id: randomUUID() }] })
      .expect(201);
    const stray = randomUUID();
    await open.db.insert(jobEvents).values({ ...event, id: stray, jobId, kind: sql`'burned'` });
    expect((await request(app).get(productsApi.list.path).expect(200)).body).toHaveLength(1);
    expect(
      (
        await request(app)
          .get(pathOf(logApi.readLog.path, { id: jobId }))
          .expect(200)
      ).body,
    ).toHaveLength(1);
    expect((await list()).find((j) => j.id === jobId)?.run).toMatchObject({ done: 0 });
    expect((await damaged()).map((d) => d.id)).toEqual(expect.arrayContaining([id, stray]));
    await open.db.delete(products).where(eq(products.id, id));
    await open.db.delete(jobEvents).where(eq(jobEvents.id, stray));
  });
});

describe('the life of a job', () => {
  it('is finished without a card, opened again, renamed, taken out and put back, nothing lost', async () => {
    const id = await makeJob();
    const finished = (await change(id, { version: 1, status: 'finished' }).expect(200)).body as Job;
    expect(finished.status).toBe('finished');
    await change(id, { version: 2, status: 'open', piece: 'Waltzer tub 9, outside' }).expect(200);
    expect((await detail(id)).job).toMatchObject({ status: 'open', piece: 'Waltzer tub 9, outside' });
    await change(id, { version: 3, removed: true }).expect(200);
    expect((await list()).some((j) => j.id === id)).toBe(false);
    const removed = (await request(app).get(jobsApi.listRemoved.path).expect(200)).body as Job[];
    expect(removed[0]).toMatchObject({ id, piece: 'Waltzer tub 9, outside' });
    // Still there for who has it open.
    expect((await detail(id)).job.removedAt).not.toBeNull();
    await change(id, { version: 4, removed: false }).expect(200);
    expect((await list()).some((j) => j.id === id)).toBe(true);
    expect((await change(id, { version: 5, piece: '  ' }).expect(400)).body.fields.piece).toMatch(/Say what is to be/);
  });

  it('keeps what was done when it is finished, and forgets it when it is opened again', async () => {
    const id = await makeJob();
    const choice = { groundId: 'silver-fine', coats: 2, strength: 1, style: 'wet', controlCoats: 0 };
    await change(id, { version: 1, pick: choice }).expect(200);
    const cell = (coatId: string) => ({ coatId, areaId: START_AREAS[0]!.id });
    const at = 1_764_000_000_000;
    await request(app)
      .post(pathOf(logApi.addEvents.path, { id }))
      .send({
        events: ['sealer/wet/1', 'ground/wet/1', 'effect/wet/1', 'effect/wet/2'].map((coat, i) =>
          eventOf({ id: randomUUID(), at: at + i, kind: 'sprayed', cells: [cell(coat)] }),
        ),
      })
      .expect(201);
    const { done } = (await change(id, { version: 2, status: 'finished' }).expect(200)).body as Job;
    expect(done).toMatchObject({ sprays: 4, counts: [{ objectId: 'object-1', name: 'Waltzer tub 9', coats: 2 }] });
    expect(done!.film.find((f) => f.layer.id === 'effect')).toMatchObject({ onUm: 20, plannedUm: 20 });
    expect((await list()).find((j) => j.id === id)!.film).toEqual(done!.film);
    // Two devices finish it: the second is told.
    expect((await change(id, { version: 2, status: 'finished' }).expect(409)).body.code).toBe('stale');
    expect(((await change(id, { version: 3, status: 'open' }).expect(200)).body as Job).done).toBeNull();
    await change(id, { version: 4, status: 'away' }).expect(200);
    expect((await list()).find((j) => j.id === id)).toBeUndefined();
    const away = await request(app).get(`${jobsApi.list.path}?status=away`).expect(200);
    expect(away.body).toMatchObject({ rows: [{ id, status: 'away' }], total: 1, states: { away: 1 } });
  });

  it('is copied with its target, card and areas and nothing of its log; once however often it is asked', async () => {
    const id = await makeJob('Tub 9');
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
    const finishId = await finishOf(id);
    const post = (path: string, s: object) => request(app).post(path).send(s);
    const toFinish = pathOf(readingsApi.addToFinish.path, { id: finishId });
    const toJob = pathOf(readingsApi.addToJob.path, { id });
    for (const s of [set('target', null), set('rung', 2)]) await post(toFinish, s).expect(201);
    for (const s of [set('target', null, { objectId: 'b' }), set('spot', 2, { label: 'nose' })]) {
      expect((await post(toFinish, s).expect(400)).body.fields.kind).toBe('This belongs to a job, not to a finish.');
      await post(toJob, s).expect(201);
    }
    expect((await post(toJob, set('rung', 2)).expect(400)).body.fields.kind).toMatch(/belongs to a finish/);
    const areas = START_AREAS.map((a) => ({ ...a, measures: { area: 3 } }));
    await change(id, { version: 1, areas }).expect(200);
    await request(app)
      .post(pathOf(logApi.addEvents.path, { id }))
      .send({ events: [eventOf({ id: randomUUID(), at: 5, kind: 'start' })] })
      .expect(201);
    const copy = { id: randomUUID(), piece: 'Tub 9, again' };
    const path = pathOf(jobsApi.copy.path, { id });
    for (let i = 0; i < 2; i++) await request(app).post(path).send(copy).expect(201);
    const made = await detail(copy.id);
    expect(made.job).toMatchObject({ piece: 'Tub 9, again', areas, status: 'open', version: 1 });
    expect(made.target!.readings).toEqual((await detail(id)).target!.readings);
    expect([made.objectTargets.length, made.rungs.length, made.spots.length, made.events.length]).toEqual([1, 1, 0, 0]);
    expect(
      (
        await request(app)
          .post(path)
          .send({ ...copy, id: randomUUID(), piece: ' ' })
          .expect(400)
      ).body.fields.piece,
    ).toMatch(/Say what is to be finished/);
  });

  it('keeps a finish that an area gets, and says which', async () => {
    const id = await makeJob();
    const stack = (sid: string) => ({
      id: sid,
      name: sid,
      layers: [
        { id: `${sid}-e`, kind: 'effect', materialId: 'cinder-candy', coats: 2, style: 'wet', strength: 1, filmUm: 10 },
      ],
    });
    const lines = { ...START_AREAS[0]!, id: 'lines', name: 'Lining', finishId: 'lining', on: START_AREAS[0]!.id };
    await change(id, { version: 1, stacks: [stack('body'), stack('lining')], areas: [START_AREAS[0]!, lines] }).expect(
      200,
    );
    const refused = await change(id, { version: 2, stacks: [stack('body')] }).expect(400);
    expect(refused.body.fields.stacks).toBe('Lining gets that finish: give it another under Pieces first.');
    expect((await detail(id)).job.stacks).toHaveLength(2);
    const nowhere = await change(id, { version: 2, areas: [{ ...lines, on: 'gone' }] }).expect(400);
    expect(Object.values(nowhere.body.fields as object).join()).toContain('What it lies on is not here any more');
  });

  it('that was taken out a month ago is gone for good, a younger one is not', async () => {
    const [old, young] = [await makeJob('Old'), await makeJob('Young')];
    const days = (n: number) => new Date(Date.now() - n * 86_400_000);
    await open.db
      .update(jobs)
      .set({ removedAt: days(REMOVED_DAYS + 1) })
      .where(eq(jobs.id, old));
    await open.db
      .update(jobs)
      .set({ removedAt: days(REMOVED_DAYS - 1) })
      .where(eq(jobs.id, young));
    expect(await createRepos(open.db).jobs.forgetRemoved(days(REMOVED_DAYS))).toBe(1);
    await request(app)
      .get(pathOf(jobsApi.read.path, { id: old }))
      .expect(404);
    await detail(young);
    await open.db.delete(jobs).where(eq(jobs.id, young));
  });
});

describe('guns and products', () => {
  it('in use are kept, with where; unknown ones are refused at their field', async () => {
    const id = await makeJob('Gondola 4');
    const unknown = randomUUID();
    const wrongGun = await change(id, { version: 1, mixing: { ...START_MIXING, gunId: unknown } }).expect(400);
    expect(wrongGun.body.fields['mixing.gunId']).toMatch(/not here any more/);
    const wrongProduct = await change(id, {
      version: 1,
      mixing: { ...START_MIXING, products: { effect: unknown } },
    }).expect(400);
    expect(wrongProduct.body.fields['mixing.products.effect']).toMatch(/not here any more/);
    await change(id, {
      version: 1,
      mixing: { ...START_MIXING, gunId: gun.id, products: { effect: product.id } },
    }).expect(200);
    const post = (over: object) => request(app).post(batchesApi.add.path).send(batchOf(id, over));
    expect((await post({ gunId: unknown }).expect(400)).body.fields.gunId).toMatch(/not here/);
    expect((await post({ productId: unknown }).expect(400)).body.fields.productId).toMatch(/not here/);
    const remove = (gunId: string) =>
      request(app)
        .delete(pathOf(gunsApi.remove.path, { id: gunId }))
        .send({ version: 1 });
    const refused = await remove(gun.id).expect(409);
    expect(refused.body).toMatchObject({ code: 'inUse' });
    expect(refused.body.message).toContain('sprays Gondola 4');
    // In an open batch only.
    const batch = (await post({ gunId: otherGun.id }).expect(201)).body as Batch;
    expect((await remove(otherGun.id).expect(409)).body.message).toContain('a batch that is still open');
    const out = await request(app)
      .put(pathOf(batchesApi.remove.path, { id: batch.id }))
      .send({ version: batch.version, removed: true })
      .expect(200);
    await remove(otherGun.id).expect(200);
    // Put back, the batch keeps what it was; the job's own gun is still there.
    await request(app)
      .put(pathOf(batchesApi.remove.path, { id: batch.id }))
      .send({ version: (out.body as Batch).version, removed: false })
      .expect(200);
    expect((await detail(id)).job.mixing?.gunId).toBe(gun.id);
  });
});

describe('what was entered wrongly', () => {
  it('is taken out and put back: a rung with what it replaced, and a batch', async () => {
    const id = await makeJob();
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
      await request(app)
        .post(pathOf(readingsApi.addToFinish.path, { id: await finishOf(id) }))
        .send(set)
        .expect(201);
    const take = (setId: string, removed: boolean) =>
      request(app)
        .put(pathOf(readingsApi.remove.path, { id: setId }))
        .send({ removed });
    await take(worse.id, true).expect(200);
    expect((await detail(id)).rungs).toEqual([]);
    expect((await list()).find((j) => j.id === id)?.rungsRead).toBe(0);
    await take(worse.id, false).expect(200);
    expect((await detail(id)).rungs.map((r) => r.id)).toEqual([worse.id]);
    await take(randomUUID(), true).expect(404);
    const batch = (await request(app).post(batchesApi.add.path).send(batchOf(id)).expect(201)).body as Batch;
    const remove = (version: number, removed: boolean) =>
      request(app)
        .put(pathOf(batchesApi.remove.path, { id: batch.id }))
        .send({ version, removed });
    await remove(1, true).expect(200);
    const ids = async () =>
      ((await request(app).get(batchesApi.list.path).expect(200)).body as Batch[]).map((b) => b.id);
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
      const answer = await request(app).get(path);
      const said = Number(answer.headers[SERVER_TIME_HEADER.toLowerCase()]);
      expect(said).toBeGreaterThanOrEqual(before);
      expect(said).toBeLessThanOrEqual(Date.now());
    }
  });

  it('of every paper is the painter’s, wherever the server stands', async () => {
    const jobId = await makeJob();
    const batch = batchOf(jobId);
    await request(app).post(batchesApi.add.path).send(batch).expect(201);
    // Mixed 22:30 UTC on the 20th, good for two hours: the next morning in Auckland, late evening in New York.
    const auckland = await textOf(batchPdfPath(batch.id, 'label', 'metric', 'Pacific/Auckland'));
    expect(auckland).toContain('mixed 2026-11-21 11:30');
    expect(auckland).toContain('use by 2026-11-21 13:30');
    expect(await textOf(batchPdfPath(batch.id, 'sheet', 'us', 'America/New_York'))).toContain(
      'use by 2026-11-20 19:30',
    );
    expect(await textOf(batchPdfPath(batch.id, 'label', 'metric', 'Nowhere/Land'))).toContain(
      'use by 2026-11-21 00:30',
    );
    const day = (timeZone: string) => new Intl.DateTimeFormat('en-CA', { timeZone }).format(new Date());
    for (const zone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago'])
      expect(await textOf(labelPath(jobId, 'a6', 'metric', zone))).toContain(day(zone));
    await change(jobId, {
      version: 1,
      pick: { groundId: 'gold', coats: 2, strength: 1, style: 'wet', controlCoats: 0 },
    }).expect(200);
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
    await change(jobId, { version: 2, plan }).expect(200);
    const sheet = await textOf(jobSheetPath(jobId, 'metric', 'Asia/Kolkata'));
    expect(sheet).toContain('2026-11-27, from 12:45');
    expect(sheet).toContain('Isocyanates');
  });
});

describe('a file that can’t be made', () => {
  it('opened in a window says so in words; asked for by the program it stays JSON', async () => {
    const jobId = await makeJob('Tub <b>9</b>');
    const path = jobSheetPath(jobId, 'metric', 'UTC');
    const page = await request(app).get(path).set('Accept', 'text/html,application/xhtml+xml,*/*;q=0.8').expect(400);
    expect(page.headers['content-type']).toMatch(/^text\/html/);
    expect(page.text).toContain('Pick ground and coats first; the sheet follows from them.');
    expect((await request(app).get(path).set('Accept', '*/*').expect(400)).body).toMatchObject({ code: 'badRequest' });
  });
});

describe('the first start', () => {
  const scratch = () => mkdtempSync(join(tmpdir(), 'steady-gleam-first-'));

  it('is whole or nothing: a fill that is cut off anywhere leaves nothing, and the next one goes through', async () => {
    const { db, close } = await openEmbedded(migrations);
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
    const made = await openEmbedded(migrations, folder, { fill: fillWithDemo });
    expect(await createRepos(made.db).jobs.count()).toBe(12);
    await made.close();
    expect(existsSync(join(folder, 'database.making'))).toBe(false);
    const again = await openEmbedded(migrations, folder, { fill: fillWithDemo });
    expect(await createRepos(again.db).jobs.count()).toBe(12);
    await again.close();
    rmSync(folder, { recursive: true });
  }, 90_000);
});

describe('a database of an earlier program', () => {
  /** The program as it was before: its migrations up to one of them. */
  const upTo = (last: number, folder: string): string => {
    const before = join(folder, 'migrations');
    cpSync(migrations, before, { recursive: true });
    const file = join(before, 'meta/_journal.json');
    const journal = JSON.parse(readFileSync(file, 'utf8')) as { entries: { idx: number }[] };
    writeFileSync(file, JSON.stringify({ ...journal, entries: journal.entries.filter((e) => e.idx <= last) }));
    return before;
  };
  const unharmed: TellDamage = (_, faults) => {
    throw new Error(JSON.stringify(faults));
  };

  it('keeps every piece, tap and look: a job becomes one object of areas, further stacks lie on them', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-pieces-'));
    const old = await openEmbedded(upTo(7, folder), folder);
    const [plain, two, bare] = [randomUUID(), randomUUID(), randomUUID()];
    const choice = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 };
    const piece = (id: string, more: object = {}) => ({
      ...{ id, name: `Piece ${id}`, shape: 'area', measures: { area: 1.5 }, count: 1, x: 1, y: 2 },
      ...{ mounting: 'stand', first: false, ...more },
    });
    const layer = (id: string, kind: string, materialId: string | null, coats: number) => ({
      ...{ id, kind, materialId, coats, style: 'wet', strength: 1, filmUm: 12 },
    });
    const stacks = [
      {
        id: 'main',
        name: 'body',
        layers: [
          layer('g', 'ground', 'white', 2),
          layer('e', 'effect', 'cinder-candy', 3),
          layer('c', 'clear', null, 2),
        ],
      },
      {
        id: 'lines',
        name: 'lining',
        layers: [layer('g2', 'ground', 'gold', 1), layer('e2', 'effect', 'lagoon-pearl', 2)],
      },
    ];
    for (const [id, pieces, laid] of [
      [plain, [piece('tub'), piece('edge', { first: true })], null],
      [two, [piece('tub'), piece('back')], stacks],
      [bare, null, null],
    ] as const)
      await old.db.execute(
        sql`insert into jobs (id, piece, matching, family, system_id, choice, stacks, pieces) values (${id}, 'Old tub', 'tub 2', 'candy', 'cinder-candy', ${JSON.stringify(choice)}::jsonb, ${laid && JSON.stringify(laid)}::jsonb, ${pieces && JSON.stringify(pieces)}::jsonb)`,
      );
    const at = 1_764_000_000_000;
    const taps: { id: string; job: string; kind: string; coat: string | null; piece: string | null; text: string }[] = [
      { id: randomUUID(), job: plain, kind: 'start', coat: null, piece: null, text: '' },
      { id: randomUUID(), job: plain, kind: 'sprayed', coat: 'sealer/wet/1', piece: 'edge', text: '' },
      { id: randomUUID(), job: plain, kind: 'dull', coat: 'sealer/wet/1', piece: 'edge', text: '' },
      { id: randomUUID(), job: plain, kind: 'note', coat: 'sealer/wet/1', piece: 'edge', text: 'a nib' },
      { id: randomUUID(), job: two, kind: 'sprayed', coat: 'g/wet/1', piece: 'tub', text: '' },
      { id: randomUUID(), job: two, kind: 'sprayed', coat: 'g2/wet/1', piece: 'tub', text: '' },
    ];
    for (const [i, t] of taps.entries())
      await old.db.execute(
        sql`insert into booth_events (id, job_id, at, kind, coat_id, piece_id, text) values (${t.id}, ${t.job}, ${at + i}, ${t.kind}, ${t.coat}, ${t.piece}, ${t.text})`,
      );
    const looks = [
      { id: randomUUID(), place: 'rung', coats: 2, spot: '', view: 'shade', verdict: 'match', patch: null },
      { id: randomUUID(), place: 'job', coats: 2, spot: 'nose', view: 'lamp', verdict: 'lighter', patch: null },
      { id: randomUUID(), place: 'job', coats: 2, spot: 'nose', view: 'lamp', verdict: null, patch: 1.5 },
    ];
    for (const v of looks)
      await old.db.execute(
        sql`insert into verdicts (id, job_id, place, coats, spot, view, verdict, patch, taken_at) values (${v.id}, ${plain}, ${v.place}, ${v.coats}, ${v.spot}, ${v.view}, ${v.verdict}, ${v.patch}, '2026-11-20T09:00:00Z')`,
      );
    await old.close();
    const now = await openEmbedded(migrations, folder);
    const { jobs: repo } = createRepos(now.db, unharmed);
    const first = await repo.read(plain);
    expect(first.job.areas!.map((a) => [a.id, a.name, a.objectId, a.on, a.mounting, a.first])).toEqual([
      ['tub', 'Piece tub', 'object-1', null, 'stand', false],
      ['edge', 'Piece edge', 'object-1', null, 'stand', true],
    ]);
    expect(first.events.slice(0, 4).map((e) => [e.id, e.at, e.kind, e.text])).toEqual(
      taps.slice(0, 4).map((t, i) => [t.id, at + i, t.kind, t.text]),
    );
    expect(first.events[1]!.cells).toEqual([{ coatId: 'sealer/wet/1', areaId: 'edge' }]);
    // What was not asked then: everything was cleared, nobody said how much peel, and no tap was a mend.
    expect(first.job.areas!.map((a) => a.clear)).toEqual(['cleared', 'cleared']);
    expect(first.job.texture).toBeNull();
    expect(first.events.every((e) => e.mend === null)).toBe(true);
    expect(first.verdicts.map((v) => v.id)).toEqual([looks[0]!.id]);
    expect(first.events.slice(4)).toMatchObject([
      { id: looks[1]!.id, kind: 'look', coats: 2, look: { spot: 'nose', view: 'lamp', verdict: 'lighter' } },
      { id: looks[2]!.id, kind: 'look', coats: 2, look: { spot: 'nose', verdict: null, patch: 1.5 } },
    ]);
    const second = await repo.read(two);
    expect(second.job.areas!.map((a) => [a.id, a.finishId, a.on])).toEqual([
      ['tub', null, null],
      ['back', null, null],
      ['tub/1', 'lines', 'tub'],
      ['back/1', 'lines', 'back'],
    ]);
    expect(second.events.map((e) => e.cells)).toEqual([
      [{ coatId: 'g/wet/1', areaId: 'tub' }],
      [{ coatId: 'g2/wet/1', areaId: 'tub/1' }],
    ]);
    // Every tap counts: the plan of today knows each of them.
    const work = (d: JobDetail) =>
      workOfJob({ ...d, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS })!.plan;
    for (const [d, done] of [
      [first, 1],
      [second, 2],
    ] as const)
      expect(jobState(work(d), d.events)).toMatchObject({ done, strays: [] });
    expect((await repo.read(bare)).job.areas).toBeNull();
    await now.close();
    rmSync(folder, { recursive: true });
  }, 90_000);

  it('moves over: ticked control coats are counted, greys get their new names, mixes say that their parts are not known', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-old-'));
    const old = await openEmbedded(upTo(6, folder), folder);
    const [plain, laid] = [randomUUID(), randomUUID()];
    const layers = [
      { id: 'a', kind: 'ground', materialId: 'value-6', coats: 2, style: 'wet', strength: 1, filmUm: 12 },
      { id: 'b', kind: 'effect', materialId: 'cinder-candy', coats: 3, style: 'wet', strength: 1, filmUm: 10 },
      { id: 'c', kind: 'effect', materialId: 'cinder-candy', coats: 2, style: 'control', strength: 1, filmUm: 10 },
    ];
    const insert = (id: string, choice: object, stacks: object | null) =>
      old.db.execute(
        sql`insert into jobs (id, piece, matching, family, system_id, choice, stacks) values (${id}, 'Old tub', 'tub 2', 'candy', 'cinder-candy', ${JSON.stringify(choice)}::jsonb, ${stacks === null ? null : JSON.stringify(stacks)}::jsonb)`,
      );
    const choice = { groundId: 'value-3', coats: 2.5, strength: 1.2, style: 'light', controlCoat: true };
    await insert(plain, choice, null);
    await insert(laid, { ...choice, groundId: 'value-6', controlCoat: false }, [
      { id: 'main', name: 'whole piece', layers },
    ]);
    // A shop's own mixes: with flake and dye, and with flake alone.
    const [both, alone] = [randomUUID(), randomUUID()];
    const mix = { kind: 'system', carrierId: 'binder', pigmentId: 'blue-pearl-fine', cover: 0.28, filmUm: 9 };
    for (const [id, dye] of [
      [both, { dyeId: 'lagoon-blue', depth: 0.2 }],
      [alone, { dyeId: null, depth: 0 }],
    ] as const) {
      const material = { ...mix, ...dye, id, name: `Own ${id}`, family: 'pearl', flashMinutes: 10, pricePerLitre: 80 };
      await old.db.execute(
        sql`insert into materials (id, kind, name, material) values (${id}, 'system', ${material.name}, ${JSON.stringify(material)}::jsonb)`,
      );
    }
    const [read, make] = [randomUUID(), randomUUID()];
    const ground = { kind: 'ground', id: read, name: 'Fog', mark: 'fog', lab: [78, -3, 4], pricePerLitre: 30 };
    const spacer = { kind: 'pigment', structure: 'colour-shift', filmNm: 400, sizeUm: 20, tilt: 5, edge: 0.1 };
    for (const material of [ground, { ...spacer, id: make, name: 'Our shift' }])
      await old.db.execute(
        sql`insert into materials (id, kind, name, material) values (${material.id}, ${material.kind}, ${material.name}, ${JSON.stringify(material)}::jsonb)`,
      );
    await old.close();
    const now = await openEmbedded(migrations, folder);
    const mixes = new Map(
      (await createRepos(now.db, unharmed).materials.list()).map((m) => [m.material.id, m.material]),
    );
    const flake = { kind: 'flake', id: 'blue-pearl-fine', parts: null, strength: 0.28 };
    for (const [id, colours] of [
      [both, [flake, { kind: 'dye', id: 'lagoon-blue', parts: null, strength: 0.2 }]],
      [alone, [flake]],
    ] as const)
      expect(mixes.get(id)).toEqual({
        ...{ kind: 'system', carrierId: 'binder', filmUm: 9 },
        ...{ id, name: `Own ${id}`, family: 'pearl', flashMinutes: 10, pricePerLitre: 80 },
        ...{ carrierParts: null, strengthFrom: 'typed', drawdown: null, colours },
      });
    expect(mixes.get(read)).toMatchObject({ name: 'Fog', hidesIn: 3, solids: [], pigmentId: null });
    expect(mixes.get(make)).toMatchObject({ structure: 'metal-spacer', filmNm: 400 });
    const { jobs: repo } = createRepos(now.db);
    expect((await repo.read(plain)).job).toMatchObject({
      piece: 'Old tub',
      pick: { groundId: 'grey-31', coats: 2.5, strength: 1.2, style: 'light', controlCoats: 1 },
      stacks: null,
      removedAt: null,
    });
    const { job } = await repo.read(laid);
    expect(job.pick).toMatchObject({ groundId: 'grey-63', controlCoats: 0 });
    expect(job.stacks?.[0]?.layers).toEqual(layers.map((l) => (l.id === 'a' ? { ...l, materialId: 'grey-63' } : l)));
    await now.close();
    rmSync(folder, { recursive: true });
  }, 90_000);

  it('keeps the code of a finish as the first of several, and knows the guns of cards by what was typed', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-codes-'));
    const old = await openEmbedded(upTo(15, folder), folder);
    const [coded, bare] = [randomUUID(), randomUUID()];
    for (const [id, code] of [
      [coded, ' C-12 '],
      [bare, ''],
    ] as const)
      await old.db.execute(
        sql`insert into finishes (id, name, code, matching, family, mix_id) values (${id}, 'Old', ${code}, '', 'candy', 'cinder-candy')`,
      );
    const guns = STARTING_GUNS.slice(0, 2).map((g) => ({ ...g, id: randomUUID() }));
    for (const g of guns)
      await old.db.execute(
        sql`insert into guns (id, name, gun) values (${g.id}, ${g.name}, ${JSON.stringify(g)}::jsonb)`,
      );
    const typed = [
      [coded, guns[0]!.name.toUpperCase(), guns[0]!.id],
      [bare, 'Gun 2', guns[1]!.id],
      [bare, 'a borrowed one', null],
    ] as const;
    for (const [k, [finishId, gun]] of typed.entries())
      await old.db.execute(
        sql`insert into cards (id, finish_id, rungs, gun, pressure_bar, on_stand, retired_at) values (${randomUUID()}, ${finishId}, '[1, 2]'::jsonb, ${gun}, 1.4, true, ${k === 2 ? '2026-11-20T09:00:00Z' : null}::timestamptz)`,
      );
    await old.close();
    const now = await openEmbedded(migrations, folder);
    const { finishes, cards } = createRepos(now.db, unharmed);
    const kept = await Promise.all([coded, bare].map(async (id) => (await finishes.read(id)).finish.codes));
    expect(kept).toEqual([['C-12'], []]);
    for (const [finishId, gun, gunId] of typed) {
      const all = await cards.everyOf(finishId);
      expect(all.find((c) => c.card.gun === gun)!.card.gunId).toBe(gunId);
    }
    await now.close();
    rmSync(folder, { recursive: true, force: true });
  });
});

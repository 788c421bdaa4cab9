import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  bankApi,
  cardsApi,
  finishesApi,
  finishFilePath,
  finishFilesApi,
  finishZipPath,
  gunsApi,
  jobsApi,
  labelPath,
  logApi,
  lookedSchema,
  materialsApi,
  openFilePath,
  passportPath,
  pathOf,
  photoPath,
  readingsApi,
  jobSheetPath,
  verdictsApi,
  type FileAnswers,
  type FinishDetail,
  type FinishSummary,
  type Job,
  type JobDetail,
  type Nearest,
} from '@steady-gleam/contracts';
import { nearestByScan } from '@steady-gleam/core/bank';
import { eventOf } from '@steady-gleam/core/jobs';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { unzipSync, strFromU8, zipSync, strToU8 } from 'fflate';
import { pino } from 'pino';
import request from 'supertest';
import { extractText, getDocumentProxy } from 'unpdf';
import { openEmbedded, type OpenDb } from '../../db/open';
import { without } from '../../db/rows';
import { FINISH_FILE_SCHEMA } from '../../finishFile/schema';
import { createApp } from '../../http/app';
import { createRepos } from '../repos';
import { qrOf } from '../../testdata/qrOfPdf';

type App = ReturnType<typeof createApp>;
const takenAt = '2026-11-20T09:00:00.000Z';
const pick = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } as const;
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);
const VIEWS = [15, 45, 110];

/** A shop of its own: its database and its program. */
async function openShop(): Promise<{ app: App; db: OpenDb }> {
  const db = await openEmbedded(resolve('packages/server/migrations'));
  return { app: createApp({ repos: createRepos(db.db), logger: pino({ level: 'silent' }) }), db };
}

const tools = (app: App) => ({
  make: async (more: object = {}): Promise<Job> =>
    (
      await request(app)
        .post(jobsApi.create.path)
        .send({ id: randomUUID(), piece: 'Tub 9', matching: 'tub 2', family: 'candy', mixId: 'cinder-candy', ...more })
        .expect(201)
    ).body as Job,
  change: (id: string, body: object) => request(app).patch(pathOf(jobsApi.change.path, { id })).send(body),
  read: async (id: string): Promise<FinishDetail> =>
    (await request(app).get(pathOf(finishesApi.read.path, { id })).expect(200)).body as FinishDetail,
  job: async (id: string): Promise<JobDetail> =>
    (await request(app).get(pathOf(jobsApi.read.path, { id })).expect(200)).body as JobDetail,
  list: async (query = ''): Promise<{ rows: FinishSummary[]; total: number }> =>
    (await request(app).get(`${finishesApi.list.path}?${query}`).expect(200)).body as {
      rows: FinishSummary[];
      total: number;
    },
  measure: (finishId: string, kind: string, rungCoats: number | null, l: number, more: object = {}) =>
    request(app)
      .post(pathOf(readingsApi.addToFinish.path, { id: finishId }))
      .send({
        ...{ id: randomUUID(), kind, rungCoats, source: 'typed', label: '', state: 'cleared', doubt: null, takenAt },
        readings: VIEWS.map((aspecular, k) => ({
          spot: '1',
          incidence: 45,
          aspecular,
          l: l - 8 * k,
          a: 30,
          b: 20 - k,
        })),
        ...more,
      })
      .expect(201),
  putCard: (finishId: string, version: number, more: object = {}) =>
    request(app)
      .put(pathOf(cardsApi.put.path, { id: finishId }))
      .send({ id: randomUUID(), rungs: [1, 2, 3], gun: 'Gun 1', pressureBar: 1.4, onStand: true, version, ...more })
      .expect(200),
  nearest: async (angles: object[], count = 20) =>
    (await request(app).post(bankApi.nearest.path).send({ angles, count }).expect(200)).body as {
      found: Nearest[];
      readings: number;
    },
});

/** What an object reads: the rungs of {@link tools} at some lightness between them. */
const asked = (l: number) =>
  VIEWS.map((aspecular, k) => ({ incidence: 45, aspecular, l: l - 8 * k, a: 30, b: 20 - k }));

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

describe('a finish as a file', () => {
  let [here, there, third]: Awaited<ReturnType<typeof openShop>>[] = [];
  let finishId: string;
  const [mixId, pigmentId, groundId] = [randomUUID(), randomUUID(), randomUUID()];
  const gun = { ...STARTING_GUNS[0]!, id: randomUUID(), name: 'Gun 7' };
  const save = async (app: App, id = finishId) => (await request(app).get(finishFilePath(id)).expect(200)).text;
  const send = (app: App, path: string, bytes: Buffer) =>
    request(app).post(path).set('Content-Type', 'application/octet-stream').send(bytes);
  const look = async (app: App, text: string) =>
    lookedSchema.validateSync((await send(app, finishFilesApi.look.path, Buffer.from(text)).expect(200)).body);
  const open = (app: App, text: string, answers: Partial<FileAnswers> = {}) =>
    send(app, openFilePath({ materials: {}, guns: {}, here: {}, ...answers }), Buffer.from(text));
  /** A file without the moment it was saved. */
  const plain = (text: string) => ({ ...(JSON.parse(text) as object), savedAt: '' });

  beforeAll(async () => {
    [here, there, third] = [await openShop(), await openShop(), await openShop()];
    const t = tools(here.app);
    const put = (id: string, material: object) =>
      request(here!.app).put(pathOf(materialsApi.put.path, { id })).send({ version: 0, material }).expect(200);
    await put(pigmentId, {
      ...{ kind: 'pigment', id: pigmentId, name: 'Harbour pearl', structure: 'titania-mica', filmNm: 120 },
      ...{ sizeUm: 20, tilt: 12, edge: 0.05 },
    });
    await put(mixId, {
      ...{
        kind: 'system',
        id: mixId,
        name: 'Harbour mix',
        family: 'pearl',
        carrierId: REFERENCE_LIBRARY.carriers[0]!.id,
      },
      ...{ carrierParts: 10, strengthFrom: 'typed', drawdown: null, filmUm: 9, flashMinutes: 10, pricePerLitre: 60 },
      colours: [{ kind: 'flake', id: pigmentId, parts: 1, strength: 0.3 }],
    });
    await put(groundId, {
      ...{
        kind: 'ground',
        id: groundId,
        name: 'Harbour grey',
        mark: 'HG',
        lab: [60, 0, -2],
        pigmentId: null,
        cover: 0.9,
      },
      ...{ tintId: null, tintDepth: 1, hidesIn: 3, solids: [], pricePerLitre: 20 },
    });
    await request(here.app)
      .put(pathOf(gunsApi.put.path, { id: gun.id }))
      .send({ version: 0, gun })
      .expect(200);
    const job = await t.make({ piece: 'Organ front', matching: 'the old front', family: 'pearl', mixId });
    finishId = job.finishId;
    await t.change(job.id, { version: 1, pick: { ...pick, groundId } }).expect(200);
    await t.measure(finishId, 'target', null, 41.123456789, {
      readings: [{ spot: 'a, "b" = c', incidence: 45, aspecular: 15, l: 0.1 + 0.2, a: -1e-7, b: 1 / 3 }],
    });
    const card = (await t.putCard(finishId, 0, { gun: gun.name, gunId: gun.id })).body as { version: number };
    await t.measure(finishId, 'rung', 1, 60);
    await request(here.app)
      .put(pathOf(cardsApi.putHand.path, { id: finishId }))
      .send({ mean: { film: 0.1 }, sd: { film: 0.05 }, style: 'wet', mixId, firstStop: 2.5 })
      .expect(200);
    await request(here.app)
      .post(pathOf(cardsApi.retire.path, { id: finishId }))
      .send({ version: card.version })
      .expect(200);
    await t.putCard(finishId, 0);
    await t.measure(finishId, 'rung', 2, 50);
    await t.measure(finishId, 'chip', null, 44, { label: 'variant 2' });
    await request(here.app)
      .post(pathOf(verdictsApi.add.path, { id: finishId }))
      .send({ id: randomUUID(), coats: 2, view: 'sun flop', verdict: 'match', takenAt })
      .expect(201);
    for (const kind of ['rung', 'target'] as const)
      await request(here.app)
        .post(photoPath(finishId, { id: randomUUID(), kind, coats: kind === 'rung' ? 2 : null, takenAt }))
        .set('Content-Type', 'image/png')
        .send(PNG)
        .expect(201);
  }, 90_000);
  afterAll(async () => {
    await here!.db.close();
    await there!.db.close();
    await third!.db.close();
  });

  it('is described by the schema that is shipped', () => {
    expect(JSON.parse(readFileSync(resolve('docs/finish-file.schema.json'), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(FINISH_FILE_SCHEMA)),
    );
  });

  it('asks another shop for what it lacks, stores nothing before, and comes out of it as it went in', async () => {
    const text = await save(here!.app);
    const looked = await look(there!.app, text);
    expect(looked.refused).toEqual([]);
    expect(looked.finishes).toMatchObject([{ id: finishId, here: false, cards: 2, rungs: 2, photos: 2 }]);
    expect(looked.finishes[0]!.asked.map((a) => [a.what, a.name, a.comes])).toEqual([
      ['system', 'Harbour mix', true],
      ['ground', 'Harbour grey', true],
      ['gun', 'Gun 7', true],
    ]);
    const unanswered = await open(there!.app, text, { materials: { [mixId]: 'take' } }).expect(400);
    expect(Object.keys(unanswered.body.fields).sort()).toEqual([`guns.${gun.id}`, `materials.${groundId}`].sort());
    for (const message of Object.values(unanswered.body.fields)) expect(message).toMatch(/^(Gun 7|Harbour grey).*\.$/);
    const t = tools(there!.app);
    expect((await t.list()).total).toBe(0);
    expect((await request(there!.app).get(materialsApi.list.path).expect(200)).body).toEqual([]);
    const answers = { materials: { [mixId]: 'take', [groundId]: 'take' }, guns: { [gun.id]: 'take' } };
    const opened = await open(there!.app, text, answers).expect(201);
    expect(opened.body.finishes).toEqual([{ id: finishId, name: 'the old front' }]);
    expect(plain(await save(there!.app))).toEqual(plain(text));
    // What the mix is made of came with it.
    const own = (await request(there!.app).get(materialsApi.list.path).expect(200)).body as {
      material: { id: string };
    }[];
    expect(own.map((m) => m.material.id)).toContain(pigmentId);
    const near = await t.nearest(asked(60));
    expect(near.found[0]).toMatchObject({ finishId, coats: 1 });
    // Once more: it is there already, so that is asked; beside it it gets ids of its own.
    expect((await look(there!.app, text)).finishes[0]).toMatchObject({ here: true, asked: [] });
    expect((await open(there!.app, text).expect(400)).body.fields[`here.${finishId}`]).toMatch(/already/);
    expect((await open(there!.app, text, { here: { [finishId]: 'skip' } }).expect(201)).body.finishes).toEqual([]);
    const beside = (await open(there!.app, text, { here: { [finishId]: 'copy' } }).expect(201)).body.finishes[0]
      .id as string;
    expect(beside).not.toBe(finishId);
    const two = await t.read(beside);
    expect([two.cards.length, two.finish.origin]).toEqual([2, 'file']);
  });

  it('takes one of the shop’s own in the place of what it lacks', async () => {
    const text = await save(here!.app);
    const t = tools(third!.app);
    const wrong = { materials: { [mixId]: 'white', [groundId]: 'lagoon-pearl' }, guns: { [gun.id]: 'none' } };
    expect(Object.keys((await open(third!.app, text, wrong).expect(400)).body.fields)).toHaveLength(2);
    expect((await t.list()).total).toBe(0);
    const answers = { ...wrong, materials: { [mixId]: 'cinder-candy', [groundId]: 'white' } };
    await open(third!.app, text, answers).expect(201);
    const { finish, cards } = await t.read(finishId);
    // It is of the family of what is laid now.
    expect(finish).toMatchObject({ mixId: 'cinder-candy', family: 'candy', pick: { groundId: 'white' } });
    expect(cards.map((c) => [c.card.gun, c.card.gunId])).toContainEqual(['Gun 7', null]);
    await request(third!.app)
      .delete(pathOf(finishesApi.remove.path, { id: finishId }))
      .send({ version: finish.version })
      .expect(200);
  });

  it('of strangers, damaged, older or newer is checked field by field', async () => {
    const text = await save(here!.app);
    const file = JSON.parse(text) as Record<string, unknown>;
    const change = (path: (string | number)[], value: unknown): string => {
      const copy = JSON.parse(text) as Record<string, unknown>;
      const at = path.slice(0, -1).reduce<Record<string, unknown>>((o, k) => o[k] as Record<string, unknown>, copy);
      if (value === undefined) delete at[path.at(-1)!];
      else at[path.at(-1)!] = value;
      return JSON.stringify(copy);
    };
    const materials = file['materials'] as { id: string }[];
    const csv = (file['target'] as { readings: { text: string } }).readings.text;
    const cases: [string, string, RegExp][] = [
      [text.slice(0, text.length / 2), '', /damaged/],
      ['[]', 'format', /no file of a finish/],
      [change(['format'], 'x'), 'format', /no file of a finish/],
      [change(['version'], 3), 'version', /newer program/],
      [change(['version'], 'x'), 'version', /version/],
      [change(['finish', 'name'], undefined), 'finish.name', /missing/],
      [change(['finish', 'family'], 'velvet'), 'finish.family', /one of/],
      [change(['finish', 'pick', 'coats'], 99), 'finish.pick.coats', /above 12/],
      [change(['surprise'], 1), 'surprise', /not known/],
      [change(['cards', 0, 'rungs', 0, 'takenAt'], 'yesterday'), 'cards[0].rungs[0].takenAt', /moment/],
      [change(['cards', 0, 'rungs', 0, 'kind'], 'target'), 'cards[0].rungs[0].kind', /rung/],
      [change(['target', 'readings', 'text'], csv.replace('15', 'x')), 'target.readings.text', /Line 2/],
      [change(['target', 'readings', 'text'], 'spot\n1'), 'target.readings.text', /columns/],
      [change(['cards', 0, 'card', 'pressureBar'], 99), 'cards[0].card.pressureBar', /bar/],
      [change(['photos', 0, 'data'], 'AAAA'), 'photos[0].data', /JPEG/],
      [change(['guns', 0, 'transfer'], 7), 'guns[0].transfer', /\./],
      [change(['guns', 1], { ...gun }), 'guns[1].id', /twice/],
      [
        change(
          ['materials'],
          materials.filter((m) => m.id !== pigmentId),
        ),
        'materials[0].colours[0].id',
        /does not come/,
      ],
      [change(['finish', 'mixId'], groundId), 'finish', /laid as a mix/],
      [change(['cards', 0, 'verdicts', 0, 'hue'], 'odd'), 'cards[0].verdicts[0].hue', /./],
    ];
    const t = tools(there!.app);
    const before = (await t.list()).total;
    for (const [bad, field, message] of cases) {
      const { refused, finishes } = await look(there!.app, bad);
      expect(finishes).toEqual([]);
      const [fault] = refused[0]!.faults;
      expect([fault!.field, message.test(fault!.message), fault!.message]).toEqual([field, true, fault!.message]);
      expect((await open(there!.app, bad).expect(400)).body.code).toBe('badRequest');
    }
    expect((await t.list()).total).toBe(before);
    // A ground named as a mix is none of the library's mixes: it is asked for, not believed.
    const swapped = JSON.parse(text.replaceAll(finishId, randomUUID())) as { finish: { mixId: string } };
    swapped.finish.mixId = 'white';
    expect((await look(there!.app, JSON.stringify(swapped))).finishes[0]!.asked).toMatchObject([
      { what: 'system', comes: false },
    ]);
    // Version 1 had one code and no photos.
    const finish = without(file['finish'] as Record<string, unknown>, 'codes');
    const cards = (file['cards'] as Record<string, unknown>[]).map((c) => without(c, 'photos'));
    const rest = without(file, 'photos');
    const old = JSON.stringify({ ...rest, version: 1, finish: { ...finish, id: randomUUID(), code: 'C-9' }, cards });
    const { finishes } = await look(there!.app, old);
    expect(finishes).toMatchObject([{ photos: 0, here: false }]);
    const opened = (await open(there!.app, old).expect(201)).body.finishes[0].id as string;
    const upgraded = await t.read(opened);
    expect(upgraded.finish.codes).toEqual(['C-9']);
    expect(upgraded.cards).toHaveLength(2);
  });

  it('of several is a zip, of which all is opened or nothing', async () => {
    const t = tools(here!.app);
    const other = await t.make({ piece: 'Second', matching: 'the old front' });
    const zip = await request(here!.app)
      .get(finishZipPath([finishId, other.finishId]))
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (d: Buffer) => parts.push(d));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    const files = unzipSync(new Uint8Array(zip.body as Buffer));
    expect(Object.keys(files).sort()).toEqual(['the-old-front-2.finish.json', 'the-old-front.finish.json']);
    const fifth = third!;
    const answers = { materials: { [mixId]: 'take', [groundId]: 'take' }, guns: { [gun.id]: 'take' } };
    const path = openFilePath({ here: {}, ...answers });
    const torn = zipSync({ ...files, 'c.finish.json': strToU8(strFromU8(Object.values(files)[0]!).slice(0, 400)) });
    const refused = await send(fifth.app, path, Buffer.from(torn)).expect(400);
    expect(Object.keys(refused.body.fields)[0]).toMatch(/^c\.finish\.json/);
    expect((await tools(fifth.app).list()).total).toBe(0);
    expect((await send(fifth.app, path, zip.body as Buffer).expect(201)).body.finishes).toHaveLength(2);
    for (const bytes of [
      Buffer.alloc(0),
      (zip.body as Buffer).subarray(0, 300),
      Buffer.from(zipSync({ 'a.txt': strToU8('x') })),
    ])
      expect((await send(fifth.app, finishFilesApi.look.path, bytes).expect(400)).body.fields.file).toMatch(/\.$/);
  });

  const textOf = async (bytes: Buffer) =>
    (await extractText(await getDocumentProxy(new Uint8Array(bytes)), { mergePages: true })).text.replace(/\s+/g, ' ');
  // Printed at the server itself, papers lead to the address other devices open.
  beforeAll(() => {
    here!.app.locals['address'] = 'http://shop.local:4680';
  });
  const pdf = async (path: string): Promise<Buffer> =>
    (await request(here!.app).get(path).buffer(true).expect(200)).body as Buffer;

  it('has a passport: names, mix, set-up, rungs over the target, what the eye said, and its address as QR', async () => {
    const bytes = await pdf(passportPath(finishId, 'metric', 'UTC'));
    const text = await textOf(bytes);
    for (const said of [
      'the old front',
      'Harbour mix',
      'Harbour grey',
      'Gun 1',
      '1.4 bar',
      '2 coats matched in the sun’s flop',
      'Gun 7',
    ])
      expect(text).toContain(said);
    expect(qrOf(bytes)).toBe(`http://shop.local:4680/bank/${finishId}`);
    expect(await textOf(await pdf(passportPath(finishId, 'us', 'UTC')))).toContain('20 psi');
    // The label for the back of the card holds the mix and the answer too, on its one small page.
    const jobId = (await tools(here!.app).read(finishId)).finish.jobs[0]!.id;
    for (const size of ['card', 'a6'] as const) {
      const label = await pdf(labelPath(jobId, size, 'metric', 'UTC'));
      expect((await getDocumentProxy(new Uint8Array(label))).numPages).toBe(1);
      expect(await textOf(label)).toMatch(/Mix.*harbour pearl.*Answer/);
      expect(qrOf(label)).toBe(`http://shop.local:4680/jobs/${jobId}/card`);
    }
  });

  it('of a job: the sheet as done tells coats with their times, lots and notes, and nothing that was only planned', async () => {
    const t = tools(here!.app);
    const job = await t.make({ piece: 'Step board', matching: 'board 1' });
    await t.change(job.id, { version: 1, pick }).expect(200);
    const at = Date.parse('2026-11-20T13:05:00Z');
    const events = [
      eventOf({ id: randomUUID(), at: at - 1, kind: 'start' }),
      eventOf({
        ...{ id: randomUUID(), at, kind: 'sprayed' },
        cells: [{ coatId: 'sealer/wet/1', areaId: 'piece-1', layerId: 'sealer', name: 'sealer', coats: 1, filmUm: 25 }],
      }),
      eventOf({ id: randomUUID(), at: at + 60_000, kind: 'note', text: 'a nib at the left edge' }),
    ];
    await request(here!.app)
      .post(pathOf(logApi.addEvents.path, { id: job.id }))
      .send({ events })
      .expect(201);
    const text = await textOf(await pdf(jobSheetPath(job.id, 'metric', 'Pacific/Auckland', 'done')));
    expect(text).toContain('Step board: as done');
    expect(text).toContain('a nib at the left edge');
    // Their own day and clock: thirteen hours on.
    expect(text).toContain('2026-11-21 02:05');
    expect(text).not.toContain('Flash until evenly dull');
    expect(await textOf(await pdf(jobSheetPath(job.id, 'metric', 'UTC')))).toContain('Flash until evenly dull');
    const { version } = (await t.job(job.id)).job;
    await t.change(job.id, { version, status: 'finished' }).expect(200);
    expect(await textOf(await pdf(jobSheetPath(job.id, 'metric', 'UTC')))).toContain('as done');
    expect(await textOf(await pdf(jobSheetPath(job.id, 'metric', 'UTC', 'plan')))).toContain('Flash until evenly dull');
  });
});

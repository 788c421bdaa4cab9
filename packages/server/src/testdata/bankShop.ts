import {
  bankApi,
  cardsApi,
  finishesApi,
  gunsApi,
  jobsApi,
  materialsApi,
  pathOf,
  photoPath,
  readingsApi,
  verdictsApi,
  type FinishDetail,
  type FinishSummary,
  type Job,
  type JobDetail,
  type Nearest,
} from '@steady-gleam/contracts';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { STARTING_GUNS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import type { OpenDb } from '../db/open';
import { openTestDb } from './testDb';
import { createApp } from '../http/app';
import { createRepos } from '../resources/repos';

export type App = ReturnType<typeof createApp>;
export const takenAt = '2026-11-20T09:00:00.000Z';
export const pick = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 } as const;
export const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);
export const VIEWS = [15, 45, 110];

/** A shop of its own: its database and its program. */
export async function openShop(): Promise<{ app: App; db: OpenDb }> {
  const db = await openTestDb();
  return { app: createApp({ repos: createRepos(db.db), logger: pino({ level: 'silent' }) }), db };
}

export const tools = (app: App) => ({
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
export const asked = (l: number) =>
  VIEWS.map((aspecular, k) => ({ incidence: 45, aspecular, l: l - 8 * k, a: 30, b: 20 - k }));

/** A finish of a program's own bank with all there can be of one, over a ground and out of a mix of the shop's own. */
export async function fillWithAFinish(here: App) {
  const [mixId, pigmentId, groundId] = [randomUUID(), randomUUID(), randomUUID()];
  const gun = { ...STARTING_GUNS[0]!, id: randomUUID(), name: 'Gun 7' };
  const t = tools(here);
  const put = (id: string, material: object) =>
    request(here).put(pathOf(materialsApi.put.path, { id })).send({ version: 0, material }).expect(200);
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
  await request(here)
    .put(pathOf(gunsApi.put.path, { id: gun.id }))
    .send({ version: 0, gun })
    .expect(200);
  const job = await t.make({ piece: 'Organ front', matching: 'the old front', family: 'pearl', mixId });
  const { finishId } = job;
  await t.change(job.id, { version: 1, pick: { ...pick, groundId } }).expect(200);
  await t.measure(finishId, 'target', null, 41.123456789, {
    readings: [{ spot: 'a, "b" = c', incidence: 45, aspecular: 15, l: 0.1 + 0.2, a: -1e-7, b: 1 / 3 }],
  });
  const card = (await t.putCard(finishId, 0, { gun: gun.name, gunId: gun.id })).body as { version: number };
  await t.measure(finishId, 'rung', 1, 60);
  await request(here)
    .put(pathOf(cardsApi.putHand.path, { id: finishId }))
    .send({ mean: { film: 0.1 }, sd: { film: 0.05 }, style: 'wet', mixId, firstStop: 2.5 })
    .expect(200);
  await request(here)
    .post(pathOf(cardsApi.retire.path, { id: finishId }))
    .send({ version: card.version })
    .expect(200);
  await t.putCard(finishId, 0);
  await t.measure(finishId, 'rung', 2, 50);
  await t.measure(finishId, 'chip', null, 44, { label: 'variant 2' });
  await request(here)
    .post(pathOf(verdictsApi.add.path, { id: finishId }))
    .send({ id: randomUUID(), coats: 2, view: 'sun flop', verdict: 'match', takenAt })
    .expect(201);
  for (const kind of ['rung', 'target'] as const)
    await request(here)
      .post(photoPath(finishId, { id: randomUUID(), kind, coats: kind === 'rung' ? 2 : null, takenAt }))
      .set('Content-Type', 'image/png')
      .send(PNG)
      .expect(201);
  return { finishId, mixId, pigmentId, groundId, gun };
}

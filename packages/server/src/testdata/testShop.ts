import {
  damagedApi,
  gunsApi,
  jobsApi,
  pathOf,
  productsApi,
  type Damaged,
  type JobDetail,
  type JobSummary,
  type ReadingSet,
} from '@steady-gleam/contracts';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import { extractText, getDocumentProxy } from 'unpdf';
import { openTestDb } from './testDb';
import type { TellDamage } from '../db/rows';
import { createApp } from '../http/app';
import { createRepos } from '../resources/repos';

/** Two guns of the program’s own, and the clear that batches are of. */
export const [GUN, OTHER_GUN] = STARTING_GUNS as [(typeof STARTING_GUNS)[0], (typeof STARTING_GUNS)[0]];
export const CLEAR = STARTING_PRODUCTS.find((p) => p.kind === 'intercoat')!;

/** A job as it is sent. */
export const newJob = () => ({
  ...{ id: randomUUID(), piece: 'Waltzer tub 9', matching: 'tub 2', family: 'candy', mixId: 'cinder-candy' },
});

/** A reading of what has to be matched, as it is sent. */
export const setOf = (over: Partial<ReadingSet> = {}): ReadingSet => ({
  ...{ id: randomUUID(), kind: 'target', rungCoats: null, source: 'typed', label: '', objectId: null },
  ...{ state: 'cleared', doubt: null, takenAt: '2026-11-20T09:00:00.000Z' },
  readings: [{ spot: '1', incidence: 45, aspecular: 45, l: 40, a: 30, b: 20 }],
  ...over,
});

/** What a test sends to a program and asks of it. */
const toolsOf = (app: ReturnType<typeof createApp>) => {
  const detail = async (id: string) =>
    (await request(app).get(pathOf(jobsApi.read.path, { id })).expect(200)).body as JobDetail;
  const create = async (piece = 'Waltzer tub 9') => {
    const job = { ...newJob(), piece };
    await request(app).post(jobsApi.create.path).send(job).expect(201);
    return job;
  };
  return {
    create,
    /** @returns the job's id */
    makeJob: async (piece = 'Waltzer tub 9'): Promise<string> => (await create(piece)).id,
    change: (id: string, body: object) => request(app).patch(pathOf(jobsApi.change.path, { id })).send(body),
    list: async () => (await request(app).get(jobsApi.list.path).expect(200)).body.rows as JobSummary[],
    detail,
    /** The finish a job is about. */
    finishOf: async (id: string): Promise<string> => (await detail(id)).job.finishId,
    damaged: async () => (await request(app).get(damagedApi.list.path).expect(200)).body as Damaged[],
    textOf: async (path: string): Promise<string> => {
      const pdf = await request(app).get(path).buffer(true).expect(200);
      const { text } = await extractText(await getDocumentProxy(new Uint8Array(pdf.body as Buffer)), {
        mergePages: true,
      });
      return text;
    },
  };
};

/** A shop of its own in memory, with two guns and a clear on its shelf, or bare. @param told what the program tells of damaged rows */
export async function openTestShop(told: Damaged[] = [], bare = false) {
  const open = await openTestDb();
  const tell: TellDamage = (damaged) => told.push(damaged);
  const app = createApp({ repos: createRepos(open.db, tell), logger: pino({ level: 'silent' }) });
  for (const gun of bare ? [] : [GUN, OTHER_GUN])
    await request(app)
      .put(pathOf(gunsApi.put.path, { id: gun.id }))
      .send({ version: 0, gun })
      .expect(200);
  if (!bare)
    await request(app)
      .post(productsApi.add.path)
      .send({ products: [CLEAR] })
      .expect(201);
  return { open, app, ...toolsOf(app) };
}

/** A batch of candy as the mixing room sends it. */
export const batchOf = (jobId: string, over: object = {}) => ({
  id: randomUUID(),
  jobId,
  layerId: 'effect',
  name: 'Cinder candy',
  productId: CLEAR.id,
  gunId: GUN.id,
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

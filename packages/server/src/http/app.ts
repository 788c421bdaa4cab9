import {
  workOfJob,
  libraryOf,
  doneOf,
  api,
  LABEL_SIZES,
  letdownApi,
  logApi,
  materialsApi,
  BATCH_SIZES,
  PHOTO_MAX_BYTES,
  PHOTO_TYPES,
  refuseInherited,
  photoSchema,
  SHEET_MAX_BYTES,
  SHEET_TYPES,
  SERVER_TIME_HEADER,
  shopApi,
  type Endpoint,
  type Done,
} from '@steady-gleam/contracts';
import { jobState, type UnitSystem } from '@steady-gleam/core';
import express, { type Express, type Request } from 'express';
import rateLimit from 'express-rate-limit';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { string, type InferType, type Schema } from 'yup';
import { fileType } from '../db/letdownRepo';
import type { LogRepo } from '../db/logRepo';
import type { MaterialsRepo } from '../db/materialsRepo';
import type { ShopRepo } from '../db/shopRepo';
import type { Repo } from '../db/repo';
import { zoneOf } from '../print/clock';
import { batchSheet } from '../print/batchSheet';
import { jobSheet } from '../print/jobSheet';
import { createJobsList } from './jobsList';
import { cardLabel } from '../print/cardLabel';
import { ApiError, handleErrors } from './apiError';

export interface AppOptions {
  readonly repo: Repo;
  readonly materials: MaterialsRepo;
  readonly shop: ShopRepo;
  readonly log: LogRepo;
  readonly logger: Logger;
  /** Folder of the built web application; without it only the API answers. */
  readonly webFolder?: string;
  /** Requests a minute from one address. */
  readonly requestsAMinute?: number;
}

const idSchema = string().uuid().required();

/** The HTTP application: API under /api, the web application for every other path. */
export function createApp({
  repo,
  materials,
  shop,
  log,
  logger,
  webFolder,
  requestsAMinute = 1200,
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'default-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'worker-src': ["'self'", 'blob:'],
          'upgrade-insecure-requests': null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(pinoHttp({ logger, useLevel: 'debug' }));
  // Devices in a shop are minutes apart: every answer tells the one clock that counts.
  app.use('/api', (_req, res, next) => {
    res.setHeader(SERVER_TIME_HEADER, String(Date.now()));
    next();
  });
  const limited = () => {
    throw new ApiError('tooMany');
  };
  app.use('/api', rateLimit({ windowMs: 60_000, limit: requestsAMinute, legacyHeaders: false, handler: limited }));
  app.use('/api', express.json({ limit: '1mb', reviver: refuseInherited }));

  /** Routes an endpoint: validates the body, checks the id, answers with the handler's result. */
  const route = <B extends Schema | null, R extends Schema>(
    e: Endpoint<B, R>,
    handler: (body: B extends Schema ? InferType<B> : undefined, id: string) => Promise<InferType<R>>,
    status = 200,
  ): void => {
    const method = e.method.toLowerCase() as 'get' | 'post' | 'patch' | 'put' | 'delete';
    app[method](e.path, async (req: Request, res) => {
      const id = req.params['id'];
      if (id !== undefined && !(await idSchema.isValid(id))) throw new ApiError('notFound');
      const body = e.body
        ? await e.body.validate(req.body ?? {}, { abortEarly: false, stripUnknown: false })
        : undefined;
      res.status(status).json(await handler(body as never, String(id ?? '')));
    });
  };

  const zoneIn = (req: Request): string => zoneOf(req.query['zone']);
  const unitsIn = (req: Request): UnitSystem => (req.query['units'] === 'us' ? 'us' : 'metric');
  const idOf = async (req: Request): Promise<string> => {
    const id = req.params['id'];
    if (!(await idSchema.isValid(id))) throw new ApiError('notFound');
    return String(id);
  };

  /** What is on of a job now, to be kept with it when it is finished; null when nothing is picked. */
  const doneNow = async (id: string): Promise<Done | null> => {
    const detail = await repo.readJob(id);
    const work = workOfJob({
      ...detail,
      library: libraryOf((await materials.list()).map((m) => m.material)),
      products: (await shop.listProducts()).map((p) => p.product),
      guns: (await shop.listGuns()).map((g) => g.gun),
    });
    return work && doneOf(work.plan, jobState(work.plan, detail.events), detail.job.systemId, new Date().toISOString());
  };

  app.get('/api/health', (_req, res) => void res.json({ ok: true }));
  const listJobs = createJobsList({ repo, materials, shop, log });
  route(api.listJobs, () => listJobs());
  route(api.listRemoved, () => repo.listRemoved());
  route(api.listDamaged, async () =>
    (await Promise.all([repo.damagedJobs(), shop.damaged(), materials.damaged(), log.damaged()])).flat(),
  );
  route(api.removeReadings, async (body, id) => {
    await repo.removeReadings(id, body.removed);
    return {};
  });
  route(api.createJob, (body) => repo.createJob(body), 201);
  route(api.readJob, (_, id) => repo.readJob(id));
  route(api.changeJob, async (body, id) =>
    repo.changeJob(id, body.status === 'finished' ? { ...body, done: await doneNow(id) } : body),
  );
  route(api.copyJob, (body, id) => repo.copyJob(id, body.id, body.piece), 201);
  route(api.addReadings, (body, id) => repo.addReadings(id, body), 201);
  route(api.putCard, (body, id) => repo.putCard(id, body));
  route(letdownApi.addVerdict, (body, id) => repo.letdown.addVerdict(id, body), 201);
  route(letdownApi.putHand, async (body, id) => {
    await repo.letdown.putHand(id, body);
    return {};
  });
  route(letdownApi.removePhoto, async (_, id) => {
    await repo.letdown.removePhoto(id);
    return {};
  });
  app.post(
    '/api/jobs/:id/photos',
    express.raw({ type: [...PHOTO_TYPES], limit: PHOTO_MAX_BYTES }),
    async (req: Request, res) => {
      const jobId = await idOf(req);
      const { coats, ...query } = req.query as Record<string, string>;
      const photo = await photoSchema.validate(
        { ...query, coats: coats === undefined ? null : Number(coats) },
        { abortEarly: false },
      );
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
      const type = fileType(bytes);
      if (!type || type === 'application/pdf')
        throw new ApiError('badRequest', { photo: 'This is not a JPEG, PNG or WebP picture. Choose a photo.' });
      res.status(201).json(await repo.letdown.addPhoto(jobId, photo, type, bytes));
    },
  );
  app.get('/api/photos/:id', async (req: Request, res) => {
    const { type, bytes } = await repo.letdown.readPhoto(await idOf(req));
    res.set({ 'Content-Type': type, 'Cache-Control': 'private, max-age=86400', 'Content-Disposition': 'inline' });
    res.send(Buffer.from(bytes));
  });
  app.get('/api/jobs/:id/card/label.pdf', async (req: Request, res) => {
    const id = await idOf(req);
    const size = LABEL_SIZES.find((s) => s === req.query['size']) ?? 'card';
    const address = `${req.protocol}://${req.get('host') ?? 'localhost'}/jobs/${id}/card`;
    const pdf = await cardLabel(
      await repo.readJob(id),
      (await materials.list()).map((m) => m.material),
      size,
      address,
      unitsIn(req),
      zoneIn(req),
      new Date(),
    );
    res.set({ 'Content-Type': 'application/pdf', 'Content-Disposition': `inline; filename="label-${size}.pdf"` });
    res.send(pdf);
  });
  route(materialsApi.list, () => materials.list());
  route(materialsApi.put, (body, id) => materials.put(id, body.version, body.material));
  route(materialsApi.remove, async (body, id) => {
    await materials.remove(id, body.version);
    return {};
  });
  route(shopApi.listProducts, () => shop.listProducts());
  route(shopApi.putProduct, (body, id) => shop.putProduct(id, body.version, body.product));
  route(shopApi.addProducts, (body) => shop.addProducts(body.products), 201);
  route(shopApi.removeProduct, async (body, id) => {
    await shop.removeProduct(id, body.version);
    return {};
  });
  app.put(
    '/api/products/:id/sheet',
    express.raw({ type: [...SHEET_TYPES], limit: SHEET_MAX_BYTES }),
    async (req: Request, res) => {
      const name = String(req.query['name'] ?? 'sheet').slice(0, 120);
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
      res.json(await shop.putSheet(await idOf(req), name, bytes));
    },
  );
  app.get('/api/products/:id/sheet', async (req: Request, res) => {
    const { name, type, bytes } = await shop.readSheet(await idOf(req));
    res.set({ 'Content-Type': type, 'Cache-Control': 'private, no-cache' });
    res.set('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(name)}`);
    res.send(Buffer.from(bytes));
  });
  route(shopApi.listGuns, () => shop.listGuns());
  route(shopApi.putGun, (body, id) => shop.putGun(id, body.version, body.gun));
  route(shopApi.removeGun, async (body, id) => {
    await shop.removeGun(id, body.version);
    return {};
  });
  route(shopApi.listBatches, () => shop.listBatches());
  route(shopApi.addBatch, (body) => shop.addBatch(body), 201);
  route(shopApi.removeBatch, (body, id) => shop.removeBatch(id, body.version, body.removed));
  route(shopApi.endBatch, (body, id) => shop.endBatch(id, body.version, body.leftMl));
  app.get('/api/batches/:id/print.pdf', async (req: Request, res) => {
    const size = BATCH_SIZES.find((s) => s === req.query['size']) ?? 'label';
    const batch = await shop.readBatch(await idOf(req));
    const address = `${req.protocol}://${req.get('host') ?? 'localhost'}/jobs/${batch.jobId}/mix`;
    const pdf = await batchSheet(batch, size, unitsIn(req), address, zoneIn(req));
    res.set({ 'Content-Type': 'application/pdf', 'Content-Disposition': `inline; filename="batch-${size}.pdf"` });
    res.send(pdf);
  });
  route(logApi.readLog, (_, id) => log.list(id));
  route(logApi.addEvents, (body, id) => log.add(id, body.events), 201);
  route(logApi.readCardLog, (_, id) => log.list(id, true));
  route(logApi.addCardEvents, (body, id) => log.add(id, body.events, true), 201);
  app.get('/api/jobs/:id/sheet.pdf', async (req: Request, res) => {
    const id = await idOf(req);
    const pdf = await jobSheet({
      detail: await repo.readJob(id),
      own: (await materials.list()).map((m) => m.material),
      products: (await shop.listProducts()).map((p) => p.product),
      guns: (await shop.listGuns()).map((g) => g.gun),
      units: unitsIn(req),
      now: new Date(),
      zone: zoneIn(req),
      address: `${req.protocol}://${req.get('host') ?? 'localhost'}/jobs/${id}/plan`,
    });
    res.set({ 'Content-Type': 'application/pdf', 'Content-Disposition': 'inline; filename="job-sheet.pdf"' });
    res.send(pdf);
  });
  app.use('/api', () => {
    throw new ApiError('notFound');
  });

  if (webFolder && existsSync(join(webFolder, 'index.html'))) {
    app.use(
      express.static(webFolder, {
        index: false,
        maxAge: '1h',
        setHeaders: (res, path) => {
          if (path.endsWith('sw.js')) res.setHeader('Cache-Control', 'no-cache');
          if (path.includes('/assets/')) res.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
        },
      }),
    );
    app.get('/{*path}', (_req, res) =>
      res.sendFile(join(webFolder, 'index.html'), { headers: { 'Cache-Control': 'no-cache' } }),
    );
  }
  app.use(handleErrors);
  return app;
}

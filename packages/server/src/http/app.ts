import { api, materialsApi, type Endpoint } from '@steady-gleam/contracts';
import express, { type Express, type Request } from 'express';
import rateLimit from 'express-rate-limit';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { string, type InferType, type Schema } from 'yup';
import type { MaterialsRepo } from '../db/materialsRepo';
import type { Repo } from '../db/repo';
import { ApiError, handleErrors } from './apiError';

export interface AppOptions {
  readonly repo: Repo;
  readonly materials: MaterialsRepo;
  readonly logger: Logger;
  /** Folder of the built web application; without it only the API answers. */
  readonly webFolder?: string;
  /** Requests a minute from one address. */
  readonly requestsAMinute?: number;
}

const idSchema = string().uuid().required();

/** The HTTP application: API under /api, the web application for every other path. */
export function createApp({ repo, materials, logger, webFolder, requestsAMinute = 1200 }: AppOptions): Express {
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
  const limited = () => {
    throw new ApiError('tooMany');
  };
  app.use('/api', rateLimit({ windowMs: 60_000, limit: requestsAMinute, legacyHeaders: false, handler: limited }));
  app.use('/api', express.json({ limit: '1mb' }));

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

  app.get('/api/health', (_req, res) => void res.json({ ok: true }));
  route(api.listJobs, () => repo.listJobs());
  route(api.createJob, (body) => repo.createJob(body), 201);
  route(api.readJob, (_, id) => repo.readJob(id));
  route(api.changeJob, (body, id) => repo.changeJob(id, body));
  route(api.addReadings, (body, id) => repo.addReadings(id, body), 201);
  route(api.putCard, (body, id) => repo.putCard(id, body));
  route(materialsApi.list, () => materials.list());
  route(materialsApi.put, (body, id) => materials.put(id, body.version, body.material));
  route(materialsApi.remove, async (body, id) => {
    await materials.remove(id, body.version);
    return {};
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

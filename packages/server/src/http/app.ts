import { damagedApi, isText, refuseInherited, SERVER_TIME_HEADER } from '@steady-gleam/contracts';
import express, { type Express } from 'express';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ApiError, handleErrors } from '../errors';
import { routeBatches } from '../resources/batches/routes';
import { routeCards } from '../resources/cards/routes';
import { routeFinishes } from '../resources/finishes/routes';
import { routeGuns } from '../resources/guns/routes';
import { routeLimits } from '../resources/limits/routes';
import { routeJobs } from '../resources/jobs/routes';
import { routeLog } from '../resources/log/routes';
import { routeMaterials } from '../resources/materials/routes';
import { routePhotos } from '../resources/photos/routes';
import { routeProducts } from '../resources/products/routes';
import { routeReadings } from '../resources/readings/routes';
import type { Repos } from '../resources/repos';
import { routeVerdicts } from '../resources/verdicts/routes';
import { routerOf } from './route';
import { limitRequests, securityHeaders } from './security';

export interface AppOptions {
  readonly repos: Repos;
  readonly logger: Logger;
  /** Folder of the built web application; without it only the API answers. */
  readonly webFolder?: string;
  /** Requests a minute from one address. */
  readonly requestsAMinute?: number;
}

/** The HTTP application: API under /api, the web application for every other path. */
export function createApp({ repos, logger, webFolder, requestsAMinute = 1200 }: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(securityHeaders());
  app.use(pinoHttp({ logger, useLevel: 'debug' }));
  // Devices in a shop are minutes apart: every answer tells the one clock that counts.
  app.use('/api', (_req, res, next) => {
    res.setHeader(SERVER_TIME_HEADER, String(Date.now()));
    next();
  });
  app.use('/api', limitRequests(requestsAMinute));
  app.use('/api', (req, _res, next) => {
    if (!isText(decodeURIComponent(req.url.replace(/\+/g, ' ')))) throw new ApiError('badRequest');
    next();
  });
  app.use('/api', express.json({ limit: '1mb', reviver: refuseInherited }));

  app.get('/api/health', (_req, res) => void res.json({ ok: true }));
  const route = routerOf(app);
  route(damagedApi.list, () => repos.damaged());
  for (const resource of [
    routeJobs,
    routeFinishes,
    routeCards,
    routeReadings,
    routeVerdicts,
    routePhotos,
    routeMaterials,
    routeProducts,
    routeGuns,
    routeLimits,
    routeBatches,
    routeLog,
  ])
    resource(app, route, repos);
  app.use('/api', () => {
    throw new ApiError('notFound');
  });
  if (webFolder && existsSync(join(webFolder, 'index.html'))) serveWeb(app, webFolder);
  app.use(handleErrors);
  return app;
}

function serveWeb(app: Express, folder: string): void {
  app.use(
    express.static(folder, {
      index: false,
      maxAge: '1h',
      setHeaders: (res, path) => {
        if (path.endsWith('sw.js')) res.setHeader('Cache-Control', 'no-cache');
        if (path.includes('/assets/')) res.setHeader('Cache-Control', 'public, max-age=31536000, immutable');
      },
    }),
  );
  app.get('/{*path}', (_req, res) =>
    res.sendFile(join(folder, 'index.html'), { headers: { 'Cache-Control': 'no-cache' } }),
  );
}

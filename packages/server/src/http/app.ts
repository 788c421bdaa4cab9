import compression from 'compression';
import { BUILD_HEADER, damagedApi, HEALTH_PATH, isText, sessionApi, SERVER_TIME_HEADER } from '@steady-gleam/contracts';
import express, { type Express, type RequestHandler } from 'express';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { constants } from 'node:zlib';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { ApiError, handleErrors } from '../errors';
import { routeBatches } from '../resources/batches/routes';
import { routeCards } from '../resources/cards/routes';
import { routeFinishes } from '../resources/finishes/routes';
import { routeInbox } from '../resources/inbox/routes';
import type { Inbox } from '../inbox/watch';
import { routeGuns } from '../resources/guns/routes';
import { routeLimits } from '../resources/limits/routes';
import { routeJobs } from '../resources/jobs/routes';
import { routeLog } from '../resources/log/routes';
import { routeMaterials } from '../resources/materials/routes';
import { routePhotos } from '../resources/photos/routes';
import { routeProducts } from '../resources/products/routes';
import { routeReadings } from '../resources/readings/routes';
import type { Repos } from '../resources/repos';
import { routeShop, type Machine } from '../resources/shop/routes';
import { routeTryOut } from '../resources/tryOut/routes';
import { routeVerdicts } from '../resources/verdicts/routes';
import { askBench, type AskBench } from '../tryOut/askBench';
import { routeApiDocs } from './apiDocs';
import { checkSigns, countInText } from './bodies';
import { doorRoutes, OWN_MACHINE, ownPagesOnly, type Door } from './door';
import { routerOf } from './route';
import { limitRequests, securityHeaders } from './security';

/** How hard brotli packs: at 4, its default on the way, it packs worse than gzip; at 5 a script is 6 % smaller, in a third more time. */
const BROTLI = 5;

export interface AppOptions {
  readonly repos: Repos;
  readonly logger: Logger;
  /** Folder of the built web application; without it only the API answers. */
  readonly webFolder?: string;
  /** Requests a minute from one address: of those that ask, and as many of those that tell. */
  readonly requestsAMinute?: number;
  readonly door?: Door;
  /** The watched folder; left out where none is watched. */
  readonly inbox?: Inbox | undefined;
  /** Left out where there is none to tell of: in tests. */
  readonly machine?: Machine;
  /** What asks the hidden world of try-outs; its own thread by default. */
  readonly bench?: AskBench;
  /** Whether the database answers. */
  readonly isThere?: () => Promise<boolean>;
  /** What stands before the program and may say for whom it asks; none by default. */
  readonly trustProxy?: string | undefined;
}

const toldByServer =
  (build: string): RequestHandler =>
  (_req, res, next) => {
    // Devices in a shop are minutes apart: every answer tells the one clock that counts, and which build answers.
    res.setHeader(SERVER_TIME_HEADER, String(Date.now()));
    if (build) res.setHeader(BUILD_HEADER, build);
    // What the shop keeps stays in no cache between here and the page.
    res.setHeader('Cache-Control', 'no-store');
    next();
  };

/** Only text in paths and queries. */
const readablePath: RequestHandler = (req, _res, next) => {
  if (!isText(decodeURIComponent(req.url.replace(/\+/g, ' ')))) throw new ApiError('badRequest');
  next();
};

/** The HTTP application: API under /api, the web application for every other path. */
export function createApp({
  repos,
  logger,
  webFolder,
  requestsAMinute = 1200,
  door = OWN_MACHINE,
  machine,
  inbox,
  bench = askBench,
  isThere = async () => true,
  trustProxy,
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  if (trustProxy !== undefined) app.set('trust proxy', /^\d+$/.test(trustProxy) ? Number(trustProxy) : trustProxy);
  app.locals['address'] = machine?.addresses()[0] ?? '';
  app.use(securityHeaders());
  // A shop's network is slow: pages and answers go over it packed.
  app.use(compression({ brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI } } }));
  app.use(pinoHttp({ logger, useLevel: 'debug' }));
  app.use(ownPagesOnly(door));
  app.use('/api', toldByServer(machine?.build ?? ''));
  // Pages that ask again and again use up nothing of what taps are allowed.
  const [asking, telling] = [limitRequests(requestsAMinute), limitRequests(requestsAMinute)];
  app.use('/api', (req, res, next) => (req.method === 'GET' ? asking : telling)(req, res, next));
  app.use('/api', readablePath);

  app.get(HEALTH_PATH, async (_req, res) => {
    const ok = await isThere();
    res.status(ok ? 200 : 503).json({ ok });
  });
  const { signIn, lock, read, signOut } = doorRoutes(door, repos.door);
  const json: RequestHandler[] = [
    express.json({ limit: '1mb', verify: countInText }),
    (req, _res, next) => {
      checkSigns(req.body);
      next();
    },
  ];
  app.post(sessionApi.open.path, ...json, signIn);
  // Behind the lock nothing of a body is looked at before it is known whose it is.
  app.use('/api', lock, ...json);
  app.get(sessionApi.read.path, read);
  app.delete(sessionApi.close.path, signOut);
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
  routeApiDocs(app);
  routeInbox(route, repos, inbox, door.isShop);
  routeTryOut(route, repos, bench);
  if (machine) routeShop(app, route, machine, door, repos.door);
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

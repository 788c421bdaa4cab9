import { REMOVED_DAYS } from '@steady-gleam/contracts';
import type { AddressInfo } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { FolderInUseError } from './db/folderLock';
import { openEmbedded, openServer } from './db/open';
import type { TellDamage } from './db/rows';
import { fillWithDemo } from './demo/seed';
import { createApp } from './http/app';
import { createRepos } from './resources/repos';

const here = dirname(fileURLToPath(import.meta.url));
const root = resolve(here, '../../..');

/** Settings by environment; see the README. */
const settings = {
  port: Number(process.env['PORT'] ?? 4680),
  host: process.env['HOST'] ?? '127.0.0.1',
  data: resolve(process.env['STEADY_GLEAM_DATA'] ?? join(root, '.data')),
  databaseUrl: process.env['DATABASE_URL'],
  demo: process.env['STEADY_GLEAM_DEMO'] !== 'off',
  requestsAMinute: Number(process.env['REQUESTS_A_MINUTE'] ?? 1200),
};

const logger = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });

async function main(): Promise<void> {
  const migrations = join(root, 'packages/server/migrations');
  const fill = settings.demo ? fillWithDemo : undefined;
  const open = settings.databaseUrl
    ? await openServer(migrations, settings.databaseUrl)
    : await openEmbedded(migrations, settings.data, fill);
  // A server's database is not made here; and an embedded one may be from before its first fill was one step.
  await fill?.(open.db);
  const tell: TellDamage = (damaged, faults) => logger.error({ damaged, faults }, 'a stored row can’t be read');
  const repos = createRepos(open.db, tell);
  // What was taken out a month ago can't be put back any more.
  await repos.jobs.forgetRemoved(new Date(Date.now() - REMOVED_DAYS * 86_400_000));
  const app = createApp({
    repos,
    logger,
    webFolder: join(root, 'packages/web/dist'),
    requestsAMinute: settings.requestsAMinute,
  });
  const server = app.listen(settings.port, settings.host, (error?: Error) => {
    if (error) {
      const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
      console.error(taken ? `Port ${settings.port} is taken. Start with another: PORT=4681 npm start` : error.message);
      void open.close().finally(() => process.exit(1));
      return;
    }
    const { port } = server.address() as AddressInfo;
    console.log(`Steady Gleam is at http://${settings.host}:${port}`);
  });
  // Longer than a page or a script rests between two requests: a socket that closes under a request is a lost one.
  server.keepAliveTimeout = 65_000;
  let closing = false;
  const close = () => {
    if (closing) return;
    closing = true;
    server.close(() => void open.close().finally(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), 2000).unref();
  };
  process.on('SIGINT', close);
  process.on('SIGTERM', close);
}

main().catch((error: unknown) => {
  console.error(error instanceof FolderInUseError ? error.message : error);
  process.exit(1);
});

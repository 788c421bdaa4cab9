import { REMOVED_DAYS } from '@steady-gleam/contracts';
import { randomInt } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { createServer as createHttp, type Server as HttpServer } from 'node:http';
import type { Server as HttpsServer } from 'node:https';
import type { AddressInfo, Server } from 'node:net';
import { hostname } from 'node:os';
import { join, resolve } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { pino } from 'pino';
import { toString as qrOf } from 'qrcode';
import { fileSource } from './copies/archive';
import { restore } from './copies/restore';
import { FolderInUseError } from './db/folderLock';
import { isThere } from './db/postgres';
import type { TellDamage } from './db/rows';
import { StartError } from './db/startFaults';
import { fillWithDemo, fillWithNothing } from './demo/seed';
import { createApp } from './http/app';
import type { Door } from './http/door';
import { onePort } from './http/onePort';
import { watchInbox } from './inbox/watch';
import { plainly } from './http/trustPage';
import { createRepos, type Repos } from './resources/repos';
import { namesOf, networkAddresses, ownNames, shopCertificate } from './shop/authority';
import { openControl } from './start/control';
import { openShop } from './start/openShop';
import { isLoopback, MIGRATIONS, ROOT, settingsOf, WEB, type Settings } from './start/settings';

// A shop's machine does other things too: by itself the engine lets rubbish grow to as much as is in use, and more, before it clears up.
// 40 % more than is in use, ours: some 100 MB less after 2,000 jobs (docs/speed.md says how much it comes to).
setFlagsFromString('--heap-growing-percent=40');
// What is written here is the shop's: nobody else on this machine reads it.
process.umask(0o077);

const logger = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });
/** Certificates are looked at for renewal this often, names and addresses of this machine too; health waits no longer, ms. */
const [RENEW_MS, NAMES_MS, HEALTH_MS] = [12 * 3_600_000, 30_000, 2_000] as const;

/** What a function says, asked again after so long only. */
function lasting<T>(ms: number, ask: () => T): () => T {
  let said: { readonly value: T; readonly until: number } | null = null;
  return () => {
    if (!said || said.until < Date.now()) said = { value: ask(), until: Date.now() + ms };
    return said.value;
  };
}

/** Which build this is: of the page it serves; empty where none was built. */
function buildOf(): string {
  const page = join(WEB, 'build.json');
  return existsSync(page) ? (JSON.parse(readFileSync(page, 'utf8')) as { build: string }).build : '';
}

const versionOf = (): string =>
  (JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8')) as { version: string }).version;

/** A code that is easy to read out: without signs that look alike. */
function newCode(): string {
  const signs = 'abcdefghjkmnpqrstuvwxyz23456789';
  const four = () => Array.from({ length: 4 }, () => signs[randomInt(signs.length)]).join('');
  return `${four()}-${four()}`;
}

/** The passcode a start is given is the shop's from then on; another one than before ends every session. */
async function takePasscode(repos: Repos, passcode: string | undefined): Promise<void> {
  if (passcode === undefined || (await repos.door.opens(passcode)) === 'all') return;
  await repos.door.setCode('passcode', passcode);
  await repos.door.end(null);
}

/** Names of the certificate the owner has put in; none where it is made here. */
const givenNames = ({ tls }: Settings): string[] =>
  tls === 'own' || tls === 'none' ? [] : namesOf(readFileSync(tls.cert, 'utf8'));

interface Listening {
  readonly server: Server;
  readonly close: () => void;
}

async function main(): Promise<void> {
  const settings = settingsOf(process.env, process.argv.slice(2));
  const fill = settings.isDemo ? fillWithDemo : fillWithNothing;
  const tellFault = (error: unknown) => logger.warn({ err: error }, 'what happens beside a request');
  const { open, copies } = await openShop(settings, fill, tellFault);
  // An embedded database may be from before its first fill was one step.
  await fill(open.db);
  const tell: TellDamage = (damaged, faults) => logger.error({ damaged, faults }, 'a stored row can’t be read');
  const repos = createRepos(open.db, tell);
  // What was taken out a month ago can't be put back any more.
  await repos.jobs.forgetRemoved(new Date(Date.now() - REMOVED_DAYS * 86_400_000));
  await takePasscode(repos, settings.isShop ? settings.passcode : undefined);
  // Opens the door while no passcode is set; printed once.
  const firstCode = settings.isShop && !(await repos.door.codesSet()).passcode ? newCode() : null;
  const given = readOwn(() => givenNames(settings));
  // Asked with every request; a machine seldom gets another address.
  const names = lasting(NAMES_MS, () =>
    ownNames([...settings.names, ...given, ...(isLoopback(settings.host) ? [] : [settings.host])]),
  );
  const isSecure = settings.isShop && (settings.tls !== 'none' || settings.trustProxy !== undefined);
  const door: Door = {
    ...{ isShop: settings.isShop, isSecure, names, firstCode },
    isBehindProxy: settings.trustProxy !== undefined,
  };
  const inbox =
    settings.inbox === undefined
      ? undefined
      : watchInbox(resolve(settings.inbox), (file) => repos.inbox.offer(file), tellFault);
  let port = settings.port;
  const addresses = () => (settings.isShop ? addressesOf(settings, port) : []);
  const app = createApp({
    ...{
      repos,
      logger,
      door,
      webFolder: WEB,
      requestsAMinute: settings.requestsAMinute,
      trustProxy: settings.trustProxy,
    },
    inbox,
    isThere: () => isThere(open.db, HEALTH_MS),
    machine: {
      ...{ copies, data: settings.data, addresses, build: buildOf(), version: versionOf() },
      database: open.isServer ? 'server' : 'embedded',
      goBack: async (path) => void (await restore(open.db, MIGRATIONS, fileSource(path))),
    },
  });
  const listening =
    settings.isShop && settings.tls !== 'none'
      ? await listenSecurely(settings, names, app, () => port)
      : listenPlainly(app);
  const control = await openControl(settings.data, open, MIGRATIONS);
  listening.server.listen(settings.port, settings.host);
  listening.server.once('error', (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${settings.port} is taken. Start with another: PORT=4681 npm start`
        : error.code === 'EACCES'
          ? `Port ${settings.port} may not be used by this user. Start with another: PORT=4680 npm start`
          : error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND'
            ? `HOST=${settings.host} is no address of this machine.`
            : error.message,
    );
    void open.close().finally(() => process.exit(1));
  });
  listening.server.once('listening', () => {
    port = (listening.server.address() as AddressInfo).port;
    app.locals['address'] = addresses()[0] ?? '';
    void greet(settings, port, firstCode);
  });
  const stopCopies = settings.makesCopies ? copies.schedule() : () => {};
  let closing = false;
  const close = () => {
    if (closing) return;
    closing = true;
    stopCopies();
    void inbox?.close();
    control.close();
    listening.server.close(() => void open.close().finally(() => process.exit(0)));
    listening.close();
  };
  process.on('SIGINT', close);
  process.on('SIGTERM', close);
}

/** Longer than a page or a script rests between two requests: a socket that closes under a request is a lost one. */
const KEEP_ALIVE_MS = 65_000;

function closer(servers: readonly (HttpServer | HttpsServer)[]): () => void {
  for (const server of servers) server.keepAliveTimeout = KEEP_ALIVE_MS;
  return () => {
    for (const server of servers) server.closeIdleConnections();
    setTimeout(() => {
      for (const server of servers) server.closeAllConnections();
    }, 2000).unref();
  };
}

function listenPlainly(app: Parameters<typeof createHttp>[1]): Listening {
  const server = createHttp(app);
  return { server, close: closer([server]) };
}

/** Reads of what the owner has put in. @throws StartError */
function readOwn<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw new StartError(`The certificate can’t be read: ${(error as Error).message}. Look at TLS_CERT and TLS_KEY.`);
  }
}

/** HTTPS by the shop's own certificate, or by that of its owner; what comes plainly is told how to come in. */
async function listenSecurely(
  settings: Settings,
  names: () => readonly string[],
  app: Parameters<typeof createHttp>[1] & object,
  port: () => number,
): Promise<Listening> {
  const { tls } = settings;
  const load = async () => {
    if (tls !== 'own' && tls !== 'none') {
      return readOwn(() => ({
        ...{ cert: readFileSync(tls.cert, 'utf8'), key: readFileSync(tls.key, 'utf8') },
        authority: null,
      }));
    }
    return shopCertificate(join(settings.data, 'tls'), names());
  };
  const certificate = await load();
  const addressFor = (host: string | undefined): string => {
    const name = (host ?? '').replace(/:\d+$/, '').toLowerCase();
    const known = names().some((n) => n.toLowerCase() === name.replace(/^\[|\]$/g, ''));
    return known ? `https://${name}:${port()}` : addressesOf(settings, port())[0]!;
  };
  const made = makeOnePort(certificate, app, plainly(addressFor, certificate.authority));
  const renew = setInterval(
    () =>
      void load().then(
        ({ cert, key }) => made.https.setSecureContext({ cert, key }),
        (error: unknown) => logger.error({ err: error }, 'the certificate could not be renewed'),
      ),
    RENEW_MS,
  );
  renew.unref();
  const end = closer([made.https, made.plain]);
  return {
    server: made.server,
    close: () => {
      clearInterval(renew);
      end();
    },
  };
}

function makeOnePort(...[certificate, app, plain]: Parameters<typeof onePort>): ReturnType<typeof onePort> {
  try {
    return onePort(certificate, app, plain);
  } catch (error) {
    throw new StartError(`The certificate or its key is none: ${(error as Error).message}.`);
  }
}

/** What other devices open, the one that works everywhere first. */
function addressesOf(settings: Settings, port: number): string[] {
  const scheme = settings.tls === 'none' ? 'http' : 'https';
  const narrowed = settings.host !== '0.0.0.0' && settings.host !== '::' ? [settings.host] : null;
  const hosts = narrowed ?? [...settings.names, ...givenNames(settings), ...networkAddresses(), hostname()];
  const all = hosts.length ? hosts : ['localhost'];
  return [...new Set(all)].map((h) => `${scheme}://${h.includes(':') ? `[${h}]` : h}:${port}`);
}

/** Says where it is, and how a device gets in. */
async function greet(settings: Settings, port: number, code: string | null): Promise<void> {
  if (!settings.isShop) {
    console.log(`Steady Gleam is at http://${settings.host}:${port}`);
    console.log('This machine only. To open it to the shop’s tablets and phones: npm start -- --shop');
    return;
  }
  const [first, ...more] = addressesOf(settings, port);
  if (settings.byHost)
    console.log(`HOST=${settings.host} opens it to the network: so it runs as with --shop, with a passcode.`);
  console.log(`Steady Gleam is at ${first}`);
  if (more.length) console.log(`also at ${more.join(', ')}`);
  if (settings.tls === 'own')
    console.log(`On each device once: open ${first!.replace('https', 'http')} and trust the shop’s certificate.`);
  if (settings.tls === 'none' && settings.trustProxy === undefined)
    console.log('Without HTTPS a device keeps no pages while the server is away, and its screen may go dark.');
  if (code !== null)
    console.log(
      `No passcode is set yet. Sign in with ${code} and set one; the code is gone then, or at the next start.`,
    );
  console.log(await qrOf(first!, { type: 'utf8' }));
}

main().catch((error: unknown) => {
  const isKnown = error instanceof FolderInUseError || error instanceof StartError;
  console.error(isKnown ? error.message : error);
  process.exit(1);
});

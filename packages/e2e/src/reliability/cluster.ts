import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';

/** A PostgreSQL of its own on 127.0.0.1, from Debian's package; gone afterwards. */
export interface Cluster {
  /** Address of a database in it, made new. */
  readonly database: (name: string) => string;
  readonly restart: (how?: 'fast' | 'immediate') => void;
  readonly stop: () => void;
  /** Takes everything away. */
  readonly remove: () => void;
}

const HOME = '/usr/lib/postgresql';

/** Whether Debian's package is there. */
export const hasPostgres = (): boolean => existsSync(HOME);

/** Runs a program of the package's; the server itself refuses to run as root. */
function run(name: string, args: readonly string[], cwd: string): void {
  const [newest] = readdirSync(HOME).sort((a, b) => Number(b) - Number(a));
  const path = join(HOME, newest!, 'bin', name);
  const [command, words] =
    userInfo().uid === 0
      ? ['setpriv', ['--reuid=postgres', '--regid=postgres', '--clear-groups', path, ...args]]
      : [path, [...args]];
  const done = spawnSync(command, words, {
    cwd,
    encoding: 'utf8',
    env: { ...process.env, HOME: cwd },
  });
  if (done.status !== 0) throw new Error(`${name} failed: ${done.stderr || done.stdout || String(done.error)}`);
}

/** A port nobody listens on now. */
async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const { port } = server.address() as AddressInfo;
  await new Promise((done) => server.close(done));
  return port;
}

export async function startCluster(): Promise<Cluster> {
  const port = await freePort();
  const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-pg-'));
  if (userInfo().uid === 0) spawnSync('chown', ['postgres:postgres', folder]);
  const data = join(folder, 'data');
  const control = (...args: string[]) => run('pg_ctl', ['-D', data, '-w', '-l', join(folder, 'log'), ...args], folder);
  run('initdb', ['-D', data, '-A', 'trust', '-U', 'shop', '--no-sync', '-E', 'UTF8'], folder);
  control('-o', `-p ${port} -k ${folder} -c listen_addresses=127.0.0.1`, 'start');
  const stop = (how = 'fast') => control('-m', how, 'stop');
  return {
    database: (name) => {
      run('createdb', ['-h', '127.0.0.1', '-p', String(port), '-U', 'shop', name], folder);
      return `postgres://shop@127.0.0.1:${port}/${name}`;
    },
    restart: (how = 'fast') =>
      control('-m', how, '-o', `-p ${port} -k ${folder} -c listen_addresses=127.0.0.1`, 'restart'),
    stop,
    remove: () => {
      try {
        stop('immediate');
      } finally {
        rmSync(folder, { recursive: true, force: true });
      }
    },
  };
}

import { createRandom } from '@steady-gleam/core/numeric';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { emptyFolder, makeFolder, removeFolder, root, startServer, type TestServer } from '../testServer';
import type { Cluster } from './cluster';
import { FAMILY, compare, startWriters, storedIds } from './writing';

const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms));
const MAIN = join(root, 'packages/server/dist/main.js');
/** What the demo holds: jobs, products, finished jobs. */
const WHOLE = { jobs: 12, products: 8, finished: 1 } as const;

/** Starts the program on a folder to be killed: nothing is waited for. */
const startDoomed = (folder: string, port: number): ChildProcess =>
  spawn(process.execPath, [MAIN], {
    env: {
      ...process.env,
      ...{ STEADY_GLEAM_DATA: folder, PORT: String(port), LOG_LEVEL: 'silent', STEADY_GLEAM_COPIES: 'off' },
    },
    stdio: 'ignore',
  });

/** Kills the program at random moments of its very first start; each start afterwards has to come up complete. */
export async function firstStarts(kills: number, port: number, seed: number): Promise<{ kills: number; torn: number }> {
  const random = createRandom(seed);
  let torn = 0;
  for (let i = 0; i < kills; i++) {
    const folder = emptyFolder();
    // Sometimes it is killed again, in the middle of the second attempt.
    for (let again = random() < 0.3 ? 2 : 1; again > 0; again--) {
      const child = startDoomed(folder, port);
      await sleep(100 + random() * 5_000);
      child.kill(random() < 0.5 ? 'SIGKILL' : 'SIGINT');
      await Promise.race([
        new Promise((done) => child.once('exit', done)),
        sleep(15_000).then(() => child.kill('SIGKILL')),
      ]);
    }
    try {
      const server = await startServer(folder, port);
      const list = (await (await fetch(`${server.address}/api/jobs`)).json()) as {
        total: number;
        states: { finished: number };
      };
      const products = (await (await fetch(`${server.address}/api/products`)).json()) as unknown[];
      if (list.total !== WHOLE.jobs || products.length !== WHOLE.products || list.states.finished !== WHOLE.finished)
        torn++;
      await server.stop();
    } catch {
      torn++;
    }
    removeFolder(folder);
  }
  return { kills, torn };
}

export interface WriteRun {
  readonly rounds: number;
  readonly acknowledged: number;
  readonly lost: number;
  readonly doubled: number;
  /** Answers that were neither stored nor "try again". */
  readonly wrong: number;
}

/** Kills the program while six hands write, over and over, sometimes while it comes up again. */
export async function killedWrites(kills: number, port: number, seed: number): Promise<WriteRun> {
  const random = createRandom(seed);
  const folder = makeFolder();
  let server = await startServer(folder, port);
  const writers = startWriters([server.address], 6, seed + 1);
  for (let i = 0; i < kills; i++) {
    await sleep(150 + random() * 900);
    await server.stop('SIGKILL');
    if (random() < 0.25) {
      const child = startDoomed(folder, port);
      await sleep(200 + random() * 1500);
      child.kill('SIGKILL');
      await new Promise((done) => child.once('exit', done));
    }
    server = await startServer(folder, port);
  }
  await writers.stop();
  const found = compare(writers.acknowledged, await storedIds(server.address));
  await server.stop();
  removeFolder(folder);
  return { rounds: kills, acknowledged: writers.acknowledged.size, ...found, wrong: writers.answers.get(500) ?? 0 };
}

/** Restarts PostgreSQL under two programs that are written to by turns; neither may end, nothing acknowledged may be gone. */
export async function restartedDatabase(
  cluster: Cluster,
  name: string,
  restarts: number,
  port: number,
  seed: number,
): Promise<WriteRun & { readonly exits: number; readonly startedTogether: boolean }> {
  const random = createRandom(seed);
  const url = cluster.database(name);
  const folders = [emptyFolder(), emptyFolder()];
  // Two first starts at once: one makes the tables and the demo, the other waits for it.
  const servers: TestServer[] = await Promise.all(
    folders.map((folder, i) => startServer(folder, port + i, { DATABASE_URL: url })),
  );
  const list = (await (await fetch(`${servers[1]!.address}/api/jobs`)).json()) as { total: number };
  const writers = startWriters(
    servers.map((s) => s.address),
    6,
    seed,
  );
  for (let i = 0; i < restarts; i++) {
    await sleep(200 + random() * 900);
    cluster.restart(random() < 0.3 ? 'immediate' : 'fast');
  }
  await sleep(500);
  await writers.stop();
  let exits = 0;
  for (const server of servers)
    if (
      !(await fetch(`${server.address}/api/health`).then(
        (r) => r.ok,
        () => false,
      ))
    )
      exits++;
  const found = compare(writers.acknowledged, await storedIds(servers[0]!.address));
  for (const server of servers) await server.stop();
  folders.forEach(removeFolder);
  return {
    ...{ rounds: restarts, acknowledged: writers.acknowledged.size, ...found, exits },
    ...{ wrong: writers.answers.get(500) ?? 0, startedTogether: list.total === WHOLE.jobs },
  };
}

/** The same entry sent several times at once to two programs on one database: every answer has to be that it is stored. */
export async function sameAtOnce(
  cluster: Cluster,
  name: string,
  rounds: number,
  port: number,
): Promise<{ readonly rounds: number; readonly refused: number; readonly stored: number }> {
  const url = cluster.database(name);
  const folders = [emptyFolder(), emptyFolder()];
  const servers = [
    await startServer(folders[0]!, port, { DATABASE_URL: url }),
    await startServer(folders[1]!, port + 1, { DATABASE_URL: url }),
  ];
  let refused = 0;
  const ids: string[] = [];
  for (let i = 0; i < rounds; i++) {
    const id = crypto.randomUUID();
    ids.push(id);
    const body = JSON.stringify({ id, piece: `Twice ${i}`, matching: 'x', family: FAMILY, mixId: 'cinder-candy' });
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, k) =>
        fetch(`${servers[k % 2]!.address}/api/jobs`, {
          ...{ method: 'POST', body },
          headers: { 'Content-Type': 'application/json' },
        }),
      ),
    );
    refused += answers.filter((a) => a.status !== 201).length;
  }
  const there = new Set(await storedIds(servers[0]!.address));
  for (const server of servers) await server.stop();
  folders.forEach(removeFolder);
  return { rounds, refused, stored: ids.filter((id) => there.has(id)).length };
}

function command(name: string, words: readonly string[], env: Readonly<Record<string, string>> = {}): void {
  const done = spawnSync(process.execPath, [join(root, `packages/server/dist/${name}.js`), ...words], {
    encoding: 'utf8',
    env: { ...process.env, ...env },
  });
  if (done.status !== 0) throw new Error(`${name} ${words.join(' ')}: ${done.stderr}`);
}

/** Checksum of each table's rows in an archive, in any order of rows. */
function sums(archive: string): Record<string, string> {
  const folder = emptyFolder();
  spawnSync('tar', ['xzf', archive, '-C', folder]);
  const tables = join(folder, 'tables');
  const found: Record<string, string> = {};
  for (const table of readdirSync(tables)) {
    const rows = readdirSync(join(tables, table)).flatMap((f) =>
      readFileSync(join(tables, table, f), 'utf8').split('\n'),
    );
    found[table] = createHash('sha256').update(rows.sort().join('\n')).digest('hex');
  }
  const files = spawnSync('sh', ['-c', 'find files -type f 2>/dev/null | sort | xargs -r cat | sha256sum'], {
    cwd: folder,
    encoding: 'utf8',
  });
  found['files'] = files.stdout;
  rmSync(folder, { recursive: true, force: true });
  return found;
}

/** A shop goes from the embedded database to PostgreSQL and back; every row has to be the same three times. */
export async function roundTrip(
  cluster: Cluster,
  name: string,
  port: number,
): Promise<{ readonly equal: boolean; readonly tables: number }> {
  const folder = makeFolder();
  const other = join(emptyFolder(), 'shop');
  const archives = emptyFolder();
  mkdirSync(archives, { recursive: true });
  const server = await startServer(folder, port);
  const writers = startWriters([server.address], 4, 7);
  await sleep(1_500);
  await writers.stop();
  const path = (n: number) => join(archives, `${n}.tar.gz`);
  // Of a running program, of a database server, and of a folder whose program is stopped.
  command('backup', ['--to', path(1), '--data', folder]);
  await server.stop();
  const url = cluster.database(name);
  command('restore', ['--from', path(1)], { DATABASE_URL: url, STEADY_GLEAM_DATA: join(archives, 'data') });
  command('backup', ['--to', path(2)], { DATABASE_URL: url, STEADY_GLEAM_DATA: join(archives, 'data') });
  command('restore', ['--from', path(2), '--data', other]);
  command('backup', ['--to', path(3), '--data', other]);
  const [a, b, c] = [1, 2, 3].map((n) => sums(path(n)));
  const equal = JSON.stringify(a) === JSON.stringify(b) && JSON.stringify(b) === JSON.stringify(c);
  [folder, other, archives].forEach(removeFolder);
  return { equal, tables: Object.keys(a!).length - 1 };
}

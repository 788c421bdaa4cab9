import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { closeSync, mkdirSync, openSync, readFileSync, realpathSync, rmSync, writeSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';

export class FolderInUseError extends Error {
  constructor(folder: string) {
    super(
      `Another Steady Gleam is already using the data folder ${folder}. Close it first, or start this one with ` +
        'another folder (STEADY_GLEAM_DATA=/some/folder). Two at once would spoil the data.',
    );
    this.name = 'FolderInUseError';
  }
}

/** Releases the lock. */
export type Release = () => Promise<void>;

/** The file in the data folder that is locked. */
const LOCK_FILE = 'in-use';

/**
 * Takes the data folder for this process alone. On Linux by the kernel's lock on a file in it, which is seen from every mount
 * and container of this machine, and by a name in the abstract socket space; the kernel frees both however the process ends.
 * Elsewhere by a file with the holder's process id, taken over when that process is gone.
 * @throws FolderInUseError when another living process holds it.
 */
export async function lockFolder(folder: string): Promise<Release> {
  mkdirSync(folder, { recursive: true });
  const real = realpathSync(folder);
  if (process.platform !== 'linux') return lockByFile(real);
  const bySocket = await lockBySocket(real);
  try {
    const byKernel = lockByKernel(real);
    return async () => {
      byKernel?.();
      await bySocket();
    };
  } catch (error) {
    await bySocket();
    throw error;
  }
}

function lockBySocket(folder: string): Promise<Release> {
  const name = `\0steady-gleam-${createHash('sha256').update(folder).digest('hex').slice(0, 32)}`;
  const server = createServer();
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'EADDRINUSE' ? new FolderInUseError(folder) : error),
    );
    server.listen(name, () => {
      server.unref();
      resolve(() => new Promise((done) => server.close(() => done())));
    });
  });
}

/**
 * The kernel's lock on the folder's own file (flock). It belongs to the opened file, which the little program `flock` is handed
 * and this process keeps. @returns null where there is no such program: then the socket's name has to do
 */
export function lockByKernel(folder: string): (() => void) | null {
  const file = openSync(join(folder, LOCK_FILE), 'a', 0o600);
  const { status, error } = spawnSync('flock', ['--nonblock', '3'], { stdio: ['ignore', 'ignore', 'ignore', file] });
  if (!error && status === 0) return () => closeSync(file);
  closeSync(file);
  if (status === 1) throw new FolderInUseError(folder);
  return null;
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** Exported for its test; use {@link lockFolder}. */
export async function lockByFile(folder: string): Promise<Release> {
  const path = join(folder, LOCK_FILE);
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      const file = openSync(path, 'wx');
      writeSync(file, String(process.pid));
      closeSync(file);
      return async () => rmSync(path, { force: true });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      const holder = Number(readFileSync(path, 'utf8'));
      if (holder > 0 && isAlive(holder)) throw new FolderInUseError(folder);
      rmSync(path, { force: true });
    }
  }
  throw new FolderInUseError(folder);
}

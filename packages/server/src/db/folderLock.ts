import { createHash } from 'node:crypto';
import { mkdirSync, openSync, readFileSync, realpathSync, rmSync, writeSync, closeSync } from 'node:fs';
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

/**
 * Takes the data folder for this process alone. On Linux by a name in the abstract socket space, which the kernel frees
 * however the process ends; elsewhere by a file with the holder's process id, taken over when that process is gone.
 * @throws FolderInUseError when another living process holds it.
 */
export async function lockFolder(folder: string): Promise<Release> {
  mkdirSync(folder, { recursive: true });
  const real = realpathSync(folder);
  return process.platform === 'linux' ? lockBySocket(real) : lockByFile(real);
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
  const path = join(folder, 'in-use');
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

import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { openScratch, type Scratch } from '../db/open';

export const MIGRATIONS = resolve('packages/server/migrations');
const CACHE = resolve('.cache');

/** Of this engine, with these tables. */
function templatePath(): string {
  const hash = createHash('sha256');
  hash.update(readFileSync(createRequire(resolve('packages/server/package.json')).resolve('@electric-sql/pglite')));
  for (const name of readdirSync(MIGRATIONS).sort())
    if (name.endsWith('.sql')) hash.update(name).update(readFileSync(join(MIGRATIONS, name)));
  return join(CACHE, `scratch-${hash.digest('hex').slice(0, 16)}.tar`);
}

/**
 * An empty database with today's tables, in memory. To make one takes some seconds; the first that is made is kept beside the tests'
 * other files, and all after it begin as copies of it.
 */
export async function openTestDb(): Promise<Scratch> {
  const path = templatePath();
  if (existsSync(path)) return openScratch(MIGRATIONS, new Blob([readFileSync(path)]));
  const made = await openScratch(MIGRATIONS);
  mkdirSync(CACHE, { recursive: true });
  // Tests run side by side: whoever is first to finish puts it there whole.
  const own = `${path}.${process.pid}`;
  writeFileSync(own, Buffer.from(await (await made.dump()).arrayBuffer()));
  renameSync(own, path);
  return made;
}

import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** Runs a command in the project's root. @returns its exit status. @param out where its standard output goes. */
export function run(command, args, { env = {}, out = 'inherit' } = {}) {
  const done = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', out, 'inherit'],
    env: { ...process.env, ...env },
  });
  return done.status ?? 1;
}

export function stampOf(...files) {
  const hash = createHash('sha256');
  for (const file of files) hash.update(readFileSync(join(root, file)));
  return hash.digest('hex');
}

export function stampIs(name, value) {
  const path = join(root, '.cache', name);
  return existsSync(path) && readFileSync(path, 'utf8') === value;
}

export function writeStamp(name, value) {
  mkdirSync(join(root, '.cache'), { recursive: true });
  writeFileSync(join(root, '.cache', name), value);
}

/** Installs the packages of the lock file, unless that very lock file was installed before. */
export function ensureInstalled({ quiet = false } = {}) {
  const stamp = stampOf('package-lock.json', 'package.json');
  if (existsSync(join(root, 'node_modules')) && stampIs('installed', stamp)) return;
  if (!quiet) console.log('Installing packages (first run only) …');
  const status = run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    env: { PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' },
    out: quiet ? 2 : 'inherit',
  });
  if (status !== 0) process.exit(status);
  writeStamp('installed', stamp);
}

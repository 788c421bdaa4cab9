import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root, run, stampIs, writeStamp } from './install.mjs';

/** Fingerprint of every source the build reads, by name, size and content. */
function sourceStamp() {
  const hash = createHash('sha256');
  const walk = (folder) => {
    for (const name of readdirSync(folder).sort()) {
      if (name === 'node_modules' || name === 'dist' || name === 'testdata') continue;
      const path = join(folder, name);
      if (statSync(path).isDirectory()) walk(path);
      else hash.update(path).update(readFileSync(path));
    }
  };
  for (const name of ['core', 'contracts', 'server', 'web']) walk(join(root, 'packages', name));
  hash.update(readFileSync(join(root, 'package-lock.json')));
  return hash.digest('hex');
}

/** Installs and builds what changed since the last time. */
export function ensureBuilt() {
  ensureInstalled();
  const stamp = sourceStamp();
  const built = ['web/dist/index.html', 'server/dist/main.js'].every((p) => existsSync(join(root, 'packages', p)));
  if (built && stampIs('built', stamp)) return;
  console.log('Building …');
  const status = run('npm', ['run', 'build', '--silent']);
  if (status !== 0) process.exit(status);
  writeStamp('built', stamp);
}

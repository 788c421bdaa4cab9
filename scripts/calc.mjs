import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled({ quiet: true });
const { build } = await import('esbuild');

// Bundled anew each time: never stale, and quicker than loading the sources one by one. A name of its own, so that several may run.
const outfile = join(root, '.cache', `calc-${process.pid}.mjs`);
await build({
  entryPoints: [join(root, 'packages/calc/src/main.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  logLevel: 'warning',
});
process.on('exit', () => rmSync(outfile, { force: true }));
await import(pathToFileURL(outfile).href);

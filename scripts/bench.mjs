import { build } from 'esbuild';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './install.mjs';

// Bundled as in production: the development loader's wrappers would cost more than what is measured.
const outfile = join(root, '.cache/bench.mjs');
await build({
  entryPoints: [join(root, 'packages/calc/src/bench.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  logLevel: 'warning',
});
await import(pathToFileURL(outfile).href);

import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { root } from './install.mjs';

const words = process.argv.slice(2);
ensureBuilt();
if (words.includes('--build-only')) process.exit(0);

const server = spawn(process.execPath, ['--enable-source-maps', join(root, 'packages/server/dist/main.js'), ...words], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 1));

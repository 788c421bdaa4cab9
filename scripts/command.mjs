import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { root } from './install.mjs';

// A command of the server's own: its name, then its words. Files are named from where it is called.
const [name, ...words] = process.argv.slice(2);
ensureBuilt();
const { status } = spawnSync(process.execPath, [join(root, 'packages/server/dist', `${name}.js`), ...words], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  stdio: 'inherit',
});
process.exit(status ?? 1);

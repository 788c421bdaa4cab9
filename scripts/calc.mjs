import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled({ quiet: true });
const done = spawnSync(process.execPath, ['--import', 'tsx', join(root, 'packages/calc/src/main.ts')], {
  cwd: root,
  stdio: 'inherit',
});
process.exit(done.status ?? 1);

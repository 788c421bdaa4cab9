import { spawn } from 'node:child_process';
import { ensureInstalled, root } from './install.mjs';

ensureInstalled();
const children = [
  spawn(process.execPath, ['--import', 'tsx', '--watch', 'packages/server/src/main.ts'], {
    cwd: root,
    stdio: 'inherit',
  }),
  spawn('npm', ['run', 'dev', '-w', '@steady-gleam/web'], { cwd: root, stdio: 'inherit' }),
];
const stop = () => children.forEach((c) => c.kill('SIGTERM'));
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

/**
 * `npm run check`: lint, format, rooms, types and the quick unit tests, for while one works. What was checked before and did not change is
 * not checked again. Tests that take long (servers, studies, whole cards) and the browser are left to `npm test`.
 */
import { spawn } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root } from './install.mjs';

/** Tests that take more than some seconds each. */
const LONG = [
  ...[
    'packages/server/',
    'core/src/study/',
    'core/src/recovery/',
    'core/src/letdown/(letdown|rule)',
    'core/src/practice/',
  ],
  ...[
    'core/src/formulate/',
    'core/src/matching/search',
    'core/src/jobs/state',
    'core/src/jobs/families',
    'core/src/bank/nearest',
  ],
  ...[
    'core/src/mixing/mixroom',
    'core/src/optics/laws',
    'core/src/formats/importReadings',
    'calc/src/',
    'web/src/worker/',
  ],
  ...[
    'web/src/features/card/(letdown|onTheJob)',
    'web/src/features/practice',
    'web/src/shared/log',
    'contracts/src/sentences',
  ],
];
/** Tests of whole pages, which ask a real server. */
const PAGES = readdirSync(join(root, 'packages/web/src'), { recursive: true }).filter(
  (path) =>
    path.endsWith('.test.tsx') &&
    readFileSync(join(root, 'packages/web/src', path), 'utf8').includes("/testing/program'"),
);
const TYPED = ['packages/core', 'tsconfig.all.json'];

ensureInstalled();
mkdirSync(join(root, '.cache'), { recursive: true });
const bin = (name) => join(root, 'node_modules/.bin', name);

/** Runs one check and keeps what it says until it is over. */
const run = (name, command, args) =>
  new Promise((done) => {
    let said = '';
    const started = Date.now();
    const child = spawn(command, args, { cwd: root });
    child.stdout.on('data', (d) => (said += d));
    child.stderr.on('data', (d) => (said += d));
    child.on('close', (status) => {
      console.log(`${status === 0 ? 'ok    ' : 'FAILED'} ${name}, ${((Date.now() - started) / 1000).toFixed(0)} s`);
      if (status !== 0) console.log(said.trim());
      done(status === 0);
    });
  });

async function inOrder(checks) {
  const results = [];
  for (const [name, command, args] of checks) results.push(await run(name, command, args));
  return results.every(Boolean);
}

const reading = [
  ['lint', bin('eslint'), ['.', '--cache', '--cache-location', '.cache/eslint/', '--cache-strategy', 'content']],
  [
    'format',
    bin('prettier'),
    ['--check', '.', '--cache', '--cache-location', '.cache/prettier', '--log-level', 'warn'],
  ],
  ['rooms', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'packages']],
  ...TYPED.map((project) => [
    `types, ${project}`,
    bin('tsc'),
    [
      ...['--noEmit', '-p', project, '--incremental'],
      ...['--tsBuildInfoFile', `.cache/types-${project.replace(/\W/g, '-')}.tsbuildinfo`],
    ],
  ]),
];
const unit = [
  [
    'quick unit tests',
    process.execPath,
    [
      ...[
        '--experimental-vm-modules',
        '--no-warnings',
        bin('../jest/bin/jest.js'),
        '--ci',
        '--silent',
        '--maxWorkers=1',
      ],
      ...['--testPathIgnorePatterns', '/node_modules/', ...LONG, ...PAGES],
    ],
  ],
];
const results = await Promise.all([inOrder(reading), inOrder(unit)]);
process.exit(results.every(Boolean) ? 0 : 1);

import { spawn, spawnSync } from 'node:child_process';
import { closeSync, existsSync, mkdirSync, openSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled, root, run } from './install.mjs';

let passed = 0;
let failed = 0;
/** What failed, by name, told again at the end: in a long run nobody finds it above. */
const names = [];

function fail(name) {
  failed++;
  names.push(name);
}

/** One check that passes or fails as a whole. */
function check(name, command, args, options) {
  console.log(`\n— ${name}`);
  if (run(command, args, options) === 0) passed++;
  else fail(name);
}

/**
 * A check that takes what the others leave of the processors, and is waited for last.
 * @returns what waits for it
 */
function beside(name, command, args) {
  const path = join(root, '.cache', `${name.replace(/\W+/g, '-')}.log`);
  const log = openSync(path, 'w');
  // Into a file: nobody empties a pipe while the others are waited for.
  const child = spawn('nice', ['-n', '19', command, ...args], { cwd: root, stdio: ['ignore', log, log] });
  const ended = new Promise((done) => {
    child.once('error', () => done(1));
    child.once('close', done);
  });
  return async () => {
    const status = await ended;
    closeSync(log);
    console.log(`\n— ${name}\n${readFileSync(path, 'utf8').trim()}`);
    if (status === 0) passed++;
    else fail(name);
  };
}

/** A runner that leaves a report with counts; no report counts as one failure. */
function suite(name, command, args, report, count, options) {
  console.log(`\n— ${name}`);
  const path = join(root, '.cache', report);
  rmSync(path, { force: true });
  const status = run(command, args, options);
  if (!existsSync(path)) return fail(`${name}: no report`);
  const found = count(JSON.parse(readFileSync(path, 'utf8')));
  passed += found.passed;
  failed += found.failed;
  names.push(...found.names);
  if ((status !== 0 && found.failed === 0) || found.passed + found.failed === 0) fail(name);
}

/** Journeys of a suite and those within it that failed, by file and title. */
const failedIn = (suite) => [
  ...suite.specs.filter((spec) => !spec.ok).map((spec) => `${spec.file}: ${spec.title}`),
  ...(suite.suites ?? []).flatMap(failedIn),
];

/** What the journeys need of the machine, by what is there when it is there: a browser, its certificates' tool, a database server. */
const NEEDED = [
  ['/usr/bin/chromium', 'chromium'],
  ['/usr/bin/certutil', 'libnss3-tools'],
  ['/usr/lib/postgresql', 'postgresql'],
];

function ensureMachine() {
  const missing = NEEDED.filter(([path]) => !existsSync(path)).map(([, name]) => name);
  if (!missing.length) return;
  console.log(`Installing ${missing.join(', ')} from Debian’s packages …`);
  const apt = (...args) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update');
  apt('install', '-y', ...missing);
}

ensureInstalled();
ensureMachine();
mkdirSync(join(root, '.cache'), { recursive: true });
// Journeys wait for pages and servers a third of their time: lint, which reads types and takes minutes, has that.
const checks = [
  beside('lint', 'npm', ['run', '--silent', 'lint:code']),
  beside('types, format, dependency direction', 'npm', ['run', '--silent', 'lint:rest']),
];
suite(
  'unit',
  process.execPath,
  [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--ci',
    '--json',
    '--outputFile=.cache/unit-report.json',
  ],
  'unit-report.json',
  (r) => ({
    passed: r.numPassedTests,
    failed: r.numFailedTests + r.numRuntimeErrorTestSuites,
    names: r.testResults.flatMap((file) => {
      const bad = file.assertionResults.filter((t) => t.status === 'failed').map((t) => t.fullName);
      return file.status === 'failed' && !bad.length ? [file.name] : bad;
    }),
  }),
);
check('build', process.execPath, ['scripts/start.mjs', '--build-only']);
suite(
  'end to end',
  process.execPath,
  ['node_modules/@playwright/test/cli.js', 'test', '-c', 'packages/e2e/playwright.config.ts'],
  'e2e-report.json',
  (r) => ({
    passed: r.stats.expected + r.stats.flaky,
    failed: r.stats.unexpected,
    names: r.suites.flatMap(failedIn),
  }),
);
for (const wait of checks) await wait();
for (const name of names) console.log(`failed: ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);

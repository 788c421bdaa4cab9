/**
 * `npm run mutants [COUNT] [SEED]`: changes one thing at a time in the rooms of core where trade rules stand, runs that room's tests on
 * each, and says which changes no test noticed. Works in a copy: nothing of the source is touched.
 */
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { root } from './install.mjs';

const ROOMS = ['jobs', 'letdown', 'mixing', 'booth'];
const count = Number(process.argv[2] ?? 100);
const seed = Number(process.argv[3] ?? 1);
const WORKERS = 2;
/** A mutant that makes a test run so long is noticed too, ms. */
const LONGEST = 240_000;

/** Mulberry32: the same seed draws the same mutants. */
function createRandom(start) {
  let a = start >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const SWAPS = new Map([
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
  [ts.SyntaxKind.LessThanToken, '<='],
  [ts.SyntaxKind.LessThanEqualsToken, '<'],
  [ts.SyntaxKind.GreaterThanToken, '>='],
  [ts.SyntaxKind.GreaterThanEqualsToken, '>'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken, '!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken, '==='],
  [ts.SyntaxKind.AmpersandAmpersandToken, '||'],
  [ts.SyntaxKind.BarBarToken, '&&'],
]);

/** Everything in a file that can be changed: operators, numbers, truths, conditions. */
function changesIn(path) {
  const text = readFileSync(path, 'utf8');
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const found = [];
  const add = (node, to) => {
    const { line } = file.getLineAndCharacterOfPosition(node.getStart());
    found.push({ path, from: node.getStart(), till: node.end, was: node.getText(), to, line: line + 1 });
  };
  const visit = (node) => {
    if (ts.isTypeNode(node)) return;
    if (ts.isBinaryExpression(node)) {
      const swap = SWAPS.get(node.operatorToken.kind);
      if (swap) add(node.operatorToken, swap);
    } else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent?.parent ?? node)) {
      add(node, String(Number(node.text) + 1));
    } else if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true');
    else if (ts.isIfStatement(node) || ts.isConditionalExpression(node)) {
      const condition = ts.isIfStatement(node) ? node.expression : node.condition;
      add(condition, `!(${condition.getText()})`);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

const sources = (room) => {
  const folder = join(root, 'packages/core/src', room);
  return readdirSync(folder)
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== 'index.ts')
    .map((name) => join(folder, name));
};

const random = createRandom(seed);
const all = ROOMS.flatMap((room) =>
  sources(room)
    .flatMap(changesIn)
    .map((change) => ({ ...change, room })),
);
const mutants = Array.from({ length: count }, () => all.splice(Math.floor(random() * all.length), 1)[0]);

/** A copy of core that tests can be run in. */
function copyOf(worker) {
  const to = join(root, '.cache/mutants', String(worker));
  rmSync(to, { recursive: true, force: true });
  mkdirSync(join(to, 'packages'), { recursive: true });
  cpSync(join(root, 'packages/core'), join(to, 'packages/core'), {
    recursive: true,
    filter: (path) => !path.includes('node_modules'),
  });
  for (const name of ['node_modules', 'scripts', 'package.json', 'tsconfig.base.json'])
    try {
      symlinkSync(join(root, name), join(to, name));
    } catch {
      // What a project lacks is not linked.
    }
  cpSync(join(root, 'jest.config.js'), join(to, 'jest.config.js'));
  return to;
}

/** Runs some of core's tests in a copy. @returns whether one failed */
function isFailing(copy, tests) {
  return new Promise((done) => {
    const child = spawn(
      process.execPath,
      [
        ...[
          '--no-warnings',
          join(root, 'node_modules/jest/bin/jest.js'),
          '--rootDir',
          copy,
          '--selectProjects',
          'core',
        ],
        ...['--ci', '--bail', '--runInBand', '--silent', ...tests],
        // It asks the version control for the source of the whole, which a copy is no part of.
        ...['--testNamePattern', '^(?!.*is the only file that names one)'],
      ],
      { cwd: copy, stdio: 'ignore' },
    );
    const clock = setTimeout(() => child.kill('SIGKILL'), LONGEST);
    child.on('close', (status) => {
      clearTimeout(clock);
      done(status !== 0);
    });
  });
}

/** The quickest first: figures of known jobs, then all of the room's own. */
const known = (room) => [`packages/core/src/${room}/known`];
const own = (room) => [`packages/core/src/${room}/`];
const isNoticed = async (copy, room) => (await isFailing(copy, known(room))) || (await isFailing(copy, own(room)));

const started = Date.now();
const copies = Array.from({ length: WORKERS }, (_, w) => copyOf(w));
for (const room of ROOMS)
  if (await isFailing(copies[0], own(room))) {
    console.error(`The tests of ${room} fail without any change; mend that first.`);
    process.exit(1);
  }
const left = [...mutants];
const survivors = [];
let done = 0;
await Promise.all(
  copies.map(async (copy) => {
    for (let mutant = left.shift(); mutant; mutant = left.shift()) {
      const at = join(copy, relative(root, mutant.path));
      const text = readFileSync(mutant.path, 'utf8');
      writeFileSync(at, text.slice(0, mutant.from) + mutant.to + text.slice(mutant.till));
      const noticed = await isNoticed(copy, mutant.room);
      writeFileSync(at, text);
      if (!noticed) survivors.push(mutant);
      done++;
      console.log(`${done}/${count} ${noticed ? 'noticed ' : 'SURVIVED'} ${say(mutant)}`);
    }
  }),
);
rmSync(join(root, '.cache/mutants'), { recursive: true, force: true });

function say({ path, line, was, to }) {
  const short = (text) => text.replace(/\s+/g, ' ').slice(0, 60);
  return `${relative(join(root, 'packages/core/src'), path)}:${line} ${short(was)} -> ${short(to)}`;
}

const rows = ROOMS.map((room) => {
  const own = mutants.filter((m) => m.room === room).length;
  const alive = survivors.filter((m) => m.room === room).length;
  return `| ${room} | ${own} | ${own - alive} |`;
});
const share = Math.round((100 * (count - survivors.length)) / count);
writeFileSync(
  join(root, 'docs/mutants.md'),
  `# What the tests notice

\`npm run mutants -- COUNT SEED\` changes one thing at a time in the rooms of core where trade rules stand (an operator, a number, a truth, a
condition) and runs that room's own tests on it. Made by it; do not edit. Of ${count} changes, seed ${seed}, **${share} % were noticed**
(wanted 80 %), in ${Math.round((Date.now() - started) / 60_000)} minutes.

| room | changes | noticed |
|---|---|---|
${rows.join('\n')}

Not noticed:

${survivors.map((m) => `- \`${say(m).replaceAll('`', '’')}\``).join('\n') || 'none.'}
`,
);
console.log(`\n${share} % of ${count} mutants noticed, ${survivors.length} survived`);
process.exit(share >= 80 ? 0 : 1);
